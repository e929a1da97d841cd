<!-- One unit's whole chain: each jump with its size, its doubt, its reason and its source. -->
<script lang="ts">
  import { api, type LaneDetail } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { bench } from '../lib/workbench.svelte'

  let { unit }: { unit: string } = $props()
  let detail = $state<LaneDetail | null>(null)
  let gone = $state('')

  const marks = {
    P: 'published',
    D: 'by definition',
    CP: 'common practice',
    M: 'from memory, yours to correct',
    U: 'measured by you',
  }

  async function load(id: string, light: number) {
    const { data } = await api.GET('/api/setups/{item_id}/lanes/{unit_id}', {
      params: { path: { item_id: id, unit_id: unit }, query: { light } },
    })
    detail = data ?? null
    gone = data ? '' : 'This unit is no longer on the shelf.'
  }

  $effect(() => {
    void bench.answered
    void load(bench.id, bench.light)
  })
</script>

<div class="bg-base-200 my-1 rounded-xl p-4">
  {#if detail}
    <p class="font-prose mb-3 text-lg">
      {detail.lane.name}, {detail.way}:
      <strong>{detail.lane.verdict}</strong>, ± {detail.lane.sd.toFixed(1)} stop; it reaches with a chance of
      {Math.round(detail.lane.p_reach * 100)} in 100.
    </p>
    <table class="w-full text-sm">
      <caption class="sr-only">The chain of {detail.lane.name}</caption>
      <thead class="text-quiet text-left">
        <tr>
          <th class="w-40 py-1 font-medium">Jump</th>
          <th class="w-16 text-right font-medium">Stops</th>
          <th class="w-14 pr-4 text-right font-medium">±</th>
          <th class="font-medium">Why</th>
        </tr>
      </thead>
      <tbody>
        {#each detail.steps as step, i (i)}
          <tr class="border-base-300 border-t align-top">
            <th scope="row" class="py-1.5 text-left font-semibold">{step.cause}</th>
            <td class="py-1.5 text-right font-semibold">{signed(step.stops, 2)}</td>
            <td class="text-quiet py-1.5 pr-4 text-right">{step.sd ? step.sd.toFixed(2) : ''}</td>
            <td class="py-1.5 leading-snug">
              {step.why}
              <span class="text-quiet block text-xs"
                >{marks[step.mark]}{step.source ? `: ${step.source}` : ''}</span
              >
            </td>
          </tr>
        {/each}
        <tr class="border-base-content border-t-2">
          <th scope="row" class="py-1.5 text-left font-bold">spare</th>
          <td class="py-1.5 text-right font-bold">{signed(detail.lane.spare, 2)}</td>
          <td class="py-1.5 pr-4 text-right">{detail.lane.sd.toFixed(2)}</td>
          <td class="text-quiet py-1.5">The sum; the doubts add as squares.</td>
        </tr>
      </tbody>
    </table>
  {:else}
    <p>{gone || 'Reading the chain …'}</p>
  {/if}
</div>
