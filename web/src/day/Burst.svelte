<!-- A burst frame by frame: which frames get flash, at the dial in hand and at full stops below full. -->
<script lang="ts">
  import { ofJob } from '../lib/asked'
  import { quantity } from '../lib/quantities.svelte'
  import Quantity from '../parts/Quantity.svelte'

  let { setup, perS }: { setup: string; perS: number | null } = $props()
  let said = $state<number | null>(null)
  const rate = $derived(said ?? perS ?? 8)

  const asked = ofJob('/api/jobs/{item_id}/burst', () => ({ query: { setup, per_s: rate } }))
  const found = $derived(asked.found)

  const reads = quantity('rate', 'Frames a second', [0.5, 120], (value) => (said = value))
</script>

<label class="flex items-center gap-2 text-[0.86rem]"
  >Frames a second
  <span class="w-16"
    ><Quantity label="Frames a second" class="input input-sm w-16" value={String(rate)} {reads} /></span
  ></label
>
{#if asked.wrong}<p class="text-quiet">{asked.wrong}</p>{/if}
{#if found}
  <p class="mt-1 font-semibold">{found.says}</p>
  <table class="text-[0.84rem]">
    <caption class="sr-only">Frames of a burst that get flash, by power</caption>
    <tbody>
      {#each found.rows as row, at (at)}
        <tr class={row.in_hand ? 'font-bold' : ''}>
          <th
            scope="row"
            class="pr-3 text-left whitespace-nowrap {row.in_hand ? 'text-flash' : 'font-medium'}"
            >{row.dial}</th
          >
          <td aria-hidden="true" class="tracking-[0.1em] whitespace-nowrap">
            {#each row.lit as lit, i (i)}<span class={lit ? 'text-flash' : 'text-quiet'}
                >{lit ? '●' : '·'}</span
              >{/each}
          </td>
          <td class="pl-3">{row.says}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
