<!-- Single changes, each with what it brings the unit in hand; one touch does it, undo takes it back. -->
<script lang="ts">
  import type { ChangeText, InHand } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import type { SetupSession } from '../lib/session.svelte'
  import { apply } from '../lib/takes'

  let { session, found }: { session: SetupSession; found: InHand } = $props()
</script>

{#snippet list(title: string, changes: ChangeText[])}
  <h3 class="text-quiet text-[0.85rem]">{title}</h3>
  <ul class="mb-2 flex flex-wrap gap-1.5">
    {#each changes as change, i (i)}
      <li>
        <button type="button" class="btn btn-sm font-normal" onclick={() => apply(session, change)}
          ><bdi>{change.says}</bdi> <span class="text-flash font-bold">{signed(change.gain)}</span>
          <span class="text-quiet">{change.then}</span></button
        >
      </li>
    {/each}
  </ul>
{/snippet}

{#if found.cures.length}{@render list(`What cures it, for ${found.name}`, found.cures)}{/if}
{#if found.changes.length}{@render list(`What would bring ${found.name} more`, found.changes)}{/if}
{#if !found.changes.length && !found.cures.length}<p class="text-quiet">
    Nothing here: no unit can be used.
  </p>{/if}
