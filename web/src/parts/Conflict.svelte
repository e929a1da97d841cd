<!-- Two changed the same: which of the two is kept is the person's to say. Escape only puts it off. -->
<script lang="ts">
  import type { Change } from '../lib/document.svelte'
  import { outbox } from '../lib/outbox.svelte'
  import ClashFields from './ClashFields.svelte'
  import Dialog from './Dialog.svelte'

  /** The clash that was put off; another one is asked of anew. */
  let later = $state.raw<Change | null>(null)
  const session = $derived(outbox.sessions.find((one) => one.changes.some((change) => change.clash)))
  const change = $derived(session?.changes.find((one) => one.clash))
</script>

{#if session && change && later === change}
  <div
    role="alert"
    class="no-print border-short bg-base-100 fixed inset-x-0 bottom-0 z-40 flex flex-wrap items-center gap-3 border-t-2 px-4 py-3"
  >
    <span class="text-short font-semibold">Changed elsewhere: what you see is not saved.</span>
    <button class="btn btn-sm btn-primary" onclick={() => (later = null)}>Decide which to keep</button>
  </div>
{:else if session && change}
  <Dialog title="Changed elsewhere" close={() => (later = change)}>
    <p>
      <strong><bdi>{session.title}</bdi></strong> was changed in another tab or on another device, in the same place
      as here. Nothing has been overwritten.
    </p>
    <ClashFields {session} {change} />
    <div class="mt-4 flex flex-wrap gap-2">
      <button class="btn btn-primary" onclick={() => session.choose(change, 'theirs')}
        >Take the other version</button
      >
      <button class="btn" onclick={() => session.choose(change, 'mine')}>Keep what is on this screen</button>
    </div>
  </Dialog>
{/if}
