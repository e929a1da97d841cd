<script lang="ts">
  import { bench } from '../lib/workbench.svelte'
  import Dialog from './Dialog.svelte'
</script>

<Dialog title="Changed elsewhere" close={() => bench.resolve('theirs')}>
  <p>This setup was changed in another tab since you opened it. Nothing has been overwritten.</p>
  <div class="mt-4 flex gap-2">
    <button class="btn btn-primary" onclick={() => bench.resolve('theirs')}>Take the other version</button>
    <button class="btn" onclick={() => bench.resolve('mine')}>Keep what is on this screen</button>
  </div>
</Dialog>
