<!-- Where the unit falls short or is too bright: what cures it, worked out, one touch each. -->
<script lang="ts">
  import { api, type ChangeText } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { Newest } from '../lib/newest'
  import type { SetupSession } from '../lib/session.svelte'
  import { apply } from '../lib/takes'

  let { session }: { session: SetupSession } = $props()
  let cures = $state.raw<ChangeText[]>([])
  const newest = new Newest()

  $effect(() => {
    void session.answered
    const timer = setTimeout(() => {
      const asked = api.GET('/api/setups/{item_id}/in-hand', {
        params: { path: { item_id: session.id }, query: { light: session.light } },
      })
      void newest.take(asked, ({ data }) => (cures = data?.cures ?? []))
    }, 120)
    return () => clearTimeout(timer)
  })
</script>

{#if cures.length}
  <p class="no-print flex flex-wrap items-center gap-1.5 text-[0.9rem]" data-testid="cures">
    {#each cures as cure, i (i)}
      <button type="button" class="btn btn-sm font-normal" onclick={() => apply(session, cure)}
        ><bdi>{cure.says}</bdi> <span class="text-flash font-bold">{signed(cure.gain)}</span></button
      >
    {/each}
  </p>
{/if}
