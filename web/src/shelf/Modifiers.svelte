<!-- Modifiers against each other: what each takes with its layers on and off, size, softness, fall-off, weight. -->
<script lang="ts">
  import { history } from '../lib/history.svelte'
  import { digits, fixed } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import { question } from '../lib/question.svelte'
  import { person } from '../lib/person.svelte'
  import Heading from '../parts/Heading.svelte'

  let distance = $state(1.5)
  let unit = $state('')
  const DISTANCES = [0.7, 1, 1.5, 2, 3, 4]
  const feet = $derived(person.preferences.length === 'ft')

  const asked = question(() => ({
    at: '/api/shelf/modifiers',
    params: { query: { distance_m: distance, ...(unit ? { unit } : {}) } },
    since: [history.turned, kit.modifiers],
  }))
  const found = $derived(asked.found)
  const widest = $derived(Math.max(1, ...(found?.rows.map((one) => one.soft) ?? [])))
</script>

{#if found?.rows.length}
  <section class="sheet mb-3 p-3" aria-labelledby="modifiers-title">
    <Heading id="modifiers-title" word="modifier">Against each other</Heading>
    <p class="mb-2 flex flex-wrap items-center gap-2 text-[0.88rem]">
      <label class="flex items-center gap-2"
        >Subject at
        <select class="select select-sm w-auto" aria-label="Distance" bind:value={distance}>
          {#each DISTANCES as one (one)}<option value={one}
              >{feet ? `${fixed(one / 0.3048, 1)} ft` : `${digits(one, 2)} m`}</option
            >{/each}
        </select></label
      >
      <label class="flex items-center gap-2"
        >through
        <select class="select select-sm w-auto" aria-label="Unit behind them" bind:value={unit}>
          <option value="">no unit</option>
          {#each kit.units as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
        </select></label
      >
    </p>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="overflow-x-auto" role="region" aria-label="Modifiers against each other" tabindex="0">
      <table class="w-full text-[0.84rem]">
        <thead class="text-quiet text-left">
          <tr>
            <th class="pr-3 font-medium">Modifier</th>
            <th class="pr-3 font-medium">As usual</th>
            <th class="pr-3 font-medium">Without layers</th>
            <th class="pr-3 font-medium">All layers on</th>
            <th class="pr-3 font-medium">Size</th>
            <th class="pr-3 font-medium">Softness</th>
            <th class="pr-3 font-medium">Half a metre behind</th>
            <th class="pr-3 font-medium">Weight</th>
            {#if found.unit}<th class="font-medium"><bdi>{found.unit}</bdi></th>{/if}
          </tr>
        </thead>
        <tbody>
          {#each found.rows as row, at (at)}
            <tr class="border-base-300 border-t align-top">
              <th scope="row" class="py-1 pr-3 text-left font-semibold"
                ><bdi>{row.name}</bdi>{#if row.layers.length}<span
                    class="text-quiet block text-[0.76rem] font-normal"
                    ><bdi>{row.layers.join(', ')}</bdi></span
                  >{/if}</th
              >
              <td class="py-1 pr-3 font-bold">{row.usual}</td>
              <td class="py-1 pr-3">{row.own}</td>
              <td class="py-1 pr-3">{row.most}</td>
              <td class="py-1 pr-3 whitespace-nowrap">{row.size}</td>
              <td class="py-1 pr-3"
                >{row.soft_words}<span
                  class="bg-quiet mt-0.5 block h-1 rounded"
                  style:width={`${Math.round((row.soft / widest) * 100)}%`}
                ></span></td
              >
              <td class="py-1 pr-3">{row.falls}</td>
              <td class="py-1 pr-3 whitespace-nowrap">{row.weight}</td>
              {#if found.unit}<td class="py-1 whitespace-nowrap">{row.through}</td>{/if}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </section>
{/if}
