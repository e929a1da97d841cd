<!-- One unit's whole chain: each jump with its size, its uncertainty, its reason and its source. -->
<script lang="ts">
  import { fixed, signed } from '../lib/figures'
  import { question } from '../lib/question.svelte'
  import type { SetupSession } from '../lib/session.svelte'

  let { session, unit }: { session: SetupSession; unit: string } = $props()

  const marks = {
    P: 'published',
    D: 'by definition',
    CP: 'common practice',
    M: 'from memory, yours to correct',
    U: 'measured by you',
  }

  const asked = question(() => ({
    at: '/api/setups/{item_id}/lanes/{unit_id}',
    params: { path: { item_id: session.id, unit_id: unit }, query: { light: session.light } },
    since: session.answered,
  }))
  const detail = $derived(asked.found)
</script>

<div class="bg-base-200 my-1 rounded-xl p-4">
  {#if detail}
    <p class="mb-3 text-lg">
      <bdi>{detail.name}</bdi>, {detail.method}:
      <strong>{detail.verdict}</strong>, ± {fixed(detail.sd, 1)} stop; the chance that it reaches is
      {Math.round(detail.p_reach * 100)} in 100.
    </p>
    <table class="w-full text-sm">
      <caption class="sr-only">The chain of {detail.name}</caption>
      <thead class="text-quiet text-left">
        <tr>
          <th class="w-40 py-1 font-medium">What</th>
          <th class="w-16 text-right font-medium">Stops</th>
          <th class="w-14 pr-4 text-right font-medium">±</th>
          <th class="font-medium">Why</th>
        </tr>
      </thead>
      <tbody>
        {#each detail.steps as step, i (i)}
          <tr class="border-base-300 border-t align-top">
            <th scope="row" class="py-1.5 text-left font-semibold"><bdi>{step.cause}</bdi></th>
            <td class="py-1.5 text-right font-semibold">{signed(step.stops, 2)}</td>
            <td class="text-quiet py-1.5 pr-4 text-right">{step.sd ? fixed(step.sd, 2) : ''}</td>
            <td class="py-1.5 leading-snug">
              <bdi>{step.why}</bdi>
              <span class="text-quiet block text-xs"
                >{marks[step.mark]}{step.source ? `: ${step.source}` : ''}</span
              >
            </td>
          </tr>
        {/each}
        <tr class="border-base-content border-t-2">
          <th scope="row" class="py-1.5 text-left font-bold">in hand</th>
          <td class="py-1.5 text-right font-bold">{signed(detail.spare, 2)}</td>
          <td class="py-1.5 pr-4 text-right">{fixed(detail.sd, 2)}</td>
          <td class="text-quiet py-1.5">The sum; independent uncertainties partly cancel.</td>
        </tr>
      </tbody>
    </table>
  {:else}
    <p>{asked.wrong || 'Reading the chain …'}</p>
  {/if}
</div>
