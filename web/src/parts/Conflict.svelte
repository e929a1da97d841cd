<!-- Two tabs changed one setup: which of the two is kept is the person's to say. Escape only puts it off. -->
<script lang="ts">
  import type { SetupSession } from '../lib/session.svelte'
  import Dialog from './Dialog.svelte'

  let { session }: { session: SetupSession } = $props()
  let later = $state(false)
</script>

{#if later}
  <div
    role="alert"
    class="no-print border-short bg-base-100 fixed inset-x-0 bottom-0 z-40 flex flex-wrap items-center gap-3 border-t-2 px-4 py-3"
  >
    <span class="text-short font-semibold">Changed elsewhere: what you see is not saved.</span>
    <button class="btn btn-sm btn-primary" onclick={() => (later = false)}>Decide which to keep</button>
  </div>
{:else}
  <Dialog title="Changed elsewhere" close={() => (later = true)}>
    <p>This setup was changed in another tab since you opened it. Nothing has been overwritten.</p>
    <div class="mt-4 flex flex-wrap gap-2">
      <button class="btn btn-primary" onclick={() => session.resolve('theirs')}>Take the other version</button
      >
      <button class="btn" onclick={() => session.resolve('mine')}>Keep what is on this screen</button>
    </div>
  </Dialog>
{/if}
