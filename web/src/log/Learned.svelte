<!-- What readings have taught: each thing before and after, on one ruler of stops. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  import type { LogText } from '../lib/api/client'

  let { text }: { text: LogText } = $props()
  const things = $derived(text.things)
  const most = $derived(
    Math.max(0.5, ...things.map((one) => Math.abs(one.mean) + Math.max(one.sd, one.prior_sd))),
  )
  const x = (stops: number) => 50 + (stops / most) * 48
</script>

{#if !things.length}
  <p class="text-quiet">
    Nothing yet. Each reading corrects the unit, the modifier and its layers, by how uncertain each of them
    is.
  </p>
{:else}
  <div class="overflow-x-auto">
    <table class="w-full text-[0.86rem]">
      <thead class="text-quiet text-left">
        <tr
          ><th class="font-medium">Thing</th><th
            class="w-2/5 font-medium"
            aria-label="Before (grey) and after (dark), in stops"
            ><span class="flex justify-between"
              ><span>−{fixed(most, 1)}</span><span>0</span><span>+{fixed(most, 1)} stops</span></span
            ></th
          ><th class="pl-3 font-medium">Said</th><th class="pl-3 font-medium">Learned</th><th
            class="pl-3 text-right font-medium">Readings</th
          ></tr
        >
      </thead>
      <tbody>
        {#each things as one (one.key.join('/'))}
          <tr class="border-base-300 border-t" data-testid="thing">
            <th scope="row" class="py-1 pr-2 text-left font-semibold"
              ><bdi>{one.name}</bdi>{#if one.tied}<span class="text-quiet block text-[0.8rem] font-normal"
                  ><bdi>{one.tied}</bdi></span
                >{/if}</th
            >
            <td>
              <svg viewBox="0 0 100 12" class="h-6 w-full" preserveAspectRatio="none" aria-hidden="true">
                <line x1="50" x2="50" y1="0" y2="12" class="stroke-base-300" stroke-width="0.6" />
                <rect
                  x={x(-one.prior_sd)}
                  width={x(one.prior_sd) - x(-one.prior_sd)}
                  y="2"
                  height="3"
                  class="fill-base-300"
                />
                <rect
                  x={x(one.mean - one.sd)}
                  width={x(one.mean + one.sd) - x(one.mean - one.sd)}
                  y="7"
                  height="3"
                  class="fill-flash"
                />
                <line
                  x1={x(one.mean)}
                  x2={x(one.mean)}
                  y1="5.5"
                  y2="11.5"
                  class="stroke-base-content"
                  stroke-width="0.9"
                />
              </svg>
            </td>
            <td class="text-quiet pl-3 whitespace-nowrap">{one.before}</td>
            <td class="text-flash pl-3 font-semibold whitespace-nowrap">{one.after}</td>
            <td class="pl-3 text-right">
              <details class="more">
                <summary class="text-right" aria-label={`Readings behind ${one.name}: ${one.readings}`}
                  >{one.readings}</summary
                >
                <ul class="text-left text-[0.8rem]">
                  {#each one.told as line, at (at)}<li><bdi>{line}</bdi></li>{/each}
                  {#if one.readings > one.told.length}<li>and {one.readings - one.told.length} more</li>{/if}
                </ul>
              </details>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
