<!-- A setup hour by hour, in sun and in cloud: what to set, what is in hand; and when a method holds no more. -->
<script lang="ts">
  import { rounded } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'

  type Props = { setup: string; begins: string; ends: string; day?: string | undefined }
  let { setup, begins, ends, day }: Props = $props()
  let sky = $state(0)

  const asked = ofJob('/api/jobs/{item_id}/hours', () => ({
    query: { setup, begins, ends, ...(day ? { day } : {}) },
  }))
  const found = $derived(asked.found)
  const shown = $derived(found?.skies[Math.min(sky, found.skies.length - 1)])
</script>

{#if asked.wrong}<p class="text-quiet">{asked.wrong}</p>{/if}
{#if found && shown}
  <div class="flex flex-wrap items-center gap-2">
    <p class="font-semibold"><bdi>{found.setup}</bdi>, <bdi>{found.unit}</bdi></p>
    <div role="group" aria-label="Sky" class="flex gap-1">
      {#each found.skies as one, i (one.name)}
        <button
          type="button"
          class={`btn btn-sm ${i === sky ? 'btn-primary' : ''}`}
          aria-pressed={i === sky}
          onclick={() => (sky = i)}>{one.name}</button
        >
      {/each}
    </div>
    <a
      class="link-button text-[0.84rem]"
      href={`/api/jobs/${job.id}/hours.csv?setup=${setup}&begins=${begins}&ends=${ends}${day ? `&day=${day}` : ''}`}
      download>as CSV</a
    >
  </div>
  {#if shown.holds}<p class="font-semibold" data-testid="holds">● {shown.holds}</p>{/if}
  {#each shown.lost as line, at (at)}<p class="text-short font-semibold" data-testid="lost">
      ✕ {line}
    </p>{/each}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative overflow-x-auto" role="region" aria-label="Settings hour by hour" tabindex="0">
    <table class="w-full text-[0.84rem]">
      <thead class="text-quiet text-left">
        <tr
          ><th class="font-medium">Time</th><th class="font-medium">Light</th><th class="font-medium"
            >Method</th
          ><th class="font-medium">Set</th><th class="font-medium">Dial</th><th class="text-right font-medium"
            >In hand</th
          ><th class="pl-4 font-medium">Other methods</th></tr
        >
      </thead>
      <tbody>
        {#each shown.hours as hour (hour.clock)}
          <tr class="border-base-300 border-t align-top">
            <th scope="row" class="py-1 pr-3 text-left">{hour.clock}</th>
            <td class="text-ambient pr-3 whitespace-nowrap">EV {rounded(hour.ev, 1)}</td>
            <td class="pr-3">{hour.method}</td>
            <td class="pr-3">{hour.settings}</td>
            <td class="text-flash pr-3 font-semibold whitespace-nowrap">{hour.dial}</td>
            <td class={`text-right font-semibold ${hour.reaches ? '' : 'text-short'}`}
              >{hour.spare}{hour.reaches || !hour.spare ? '' : ' not sure'}</td
            >
            <td class="text-quiet pl-4">{[...hour.others, hour.note].filter(Boolean).join(' · ')}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
