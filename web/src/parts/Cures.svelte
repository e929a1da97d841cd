<!-- Where the unit falls short or is too bright: what cures it, worked out, one touch each. -->
<script lang="ts">
  import { signed } from '../lib/figures'
  import { inHand } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'
  import { apply } from '../lib/takes'

  let { session }: { session: SetupSession } = $props()
  const hand = inHand(() => session)
  const cures = $derived(hand.found?.cures ?? [])
</script>

{#if cures.length}
  <p class="no-print flex flex-wrap items-center gap-1.5 text-[0.9rem]" data-testid="cures">
    {#each cures as cure, i (i)}
      <button
        type="button"
        class="btn btn-sm h-auto min-h-8 flex-wrap justify-start py-1 text-left font-normal"
        onclick={() => apply(session, cure)}
        ><bdi>{cure.says}</bdi> <span class="text-flash font-bold">{signed(cure.gain)}</span>
        {#if cure.costs.length}<span class="text-quiet text-[0.8rem]">{cure.costs.join(', ')}</span
          >{/if}</button
      >
    {/each}
  </p>
{/if}
