<!-- Up to five units side by side, on the page: rows to read across, curves, and each against the first. -->
<script lang="ts">
  import { kit } from '../lib/kit.svelte'
  import { question } from '../lib/question.svelte'
  import Plot from './Plot.svelte'
  import Heading from '../parts/Heading.svelte'

  let { units, clear, setup = '' }: { units: string[]; clear: () => void; setup?: string } = $props()
  let modifier = $state('')

  const csv = $derived(
    `/api/shelf/compare.csv?${units.map((one) => `unit=${one}`).join('&')}${modifier ? `&modifier=${modifier}` : ''}`,
  )
  const asked = question(() => ({
    at: '/api/shelf/compare',
    params: { query: { unit: units, ...(modifier ? { modifier } : {}), ...(setup ? { setup } : {}) } },
  }))
  const found = $derived(asked.found)
</script>

<section class="sheet mt-3 p-3" aria-labelledby="side-title">
  <Heading id="side-title" word="side">Side by side</Heading>
  {#if asked.wrong}<p role="alert" class="text-short font-semibold">{asked.wrong}</p>{/if}
  {#if found}
    {#each found.says as line, at (at)}<p class="mb-1 font-semibold"><bdi>{line}</bdi></p>{/each}
    <label class="mb-2 flex flex-wrap items-center gap-2 text-[0.88rem]"
      >Through
      <select class="select select-sm w-auto" bind:value={modifier}>
        <option value="">no modifier</option>
        {#each kit.modifiers as one (one.id)}<option value={one.id}>{one.doc.name}</option>{/each}
      </select></label
    >
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="relative overflow-x-auto" role="region" aria-label="Units side by side" tabindex="0">
      <table class="w-full text-[0.84rem]">
        <thead
          ><tr
            ><td></td>{#each found.names as name, i (i)}<th scope="col" class="px-2 py-1 text-left font-bold"
                ><bdi>{name}</bdi></th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each found.rows as row (row.name)}
            <tr class="border-base-300 border-t align-top">
              <th scope="row" class="text-quiet py-1 pr-2 text-left font-medium whitespace-nowrap"
                ><bdi>{row.name}</bdi></th
              >
              {#each row.cells as cell, i (i)}<td class="px-2 py-1"
                  ><bdi>{cell.length > 70 ? `${cell.slice(0, 67)}…` : cell}</bdi></td
                >{/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="mt-3 grid gap-4 md:grid-cols-3">
      {#each found.plots as plot (plot.title)}<Plot {plot} names={found.names} />{/each}
    </div>
  {:else if !asked.wrong}<p>Reading …</p>{/if}
  <p class="no-print mt-3 flex flex-wrap gap-x-4 text-[0.84rem]">
    <a class="link-button" href={csv} download>as CSV</a>
    <button type="button" class="link-button" onclick={clear}>Untick all</button>
  </p>
</section>
