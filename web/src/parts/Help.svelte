<script lang="ts">
  import { hotkeys } from '../lib/hotkeys'
  import Dialog from './Dialog.svelte'

  let { close }: { close: () => void } = $props()
  const keys = hotkeys()
</script>

<Dialog title="Keys" {close}>
  <p class="mb-3">
    A letter takes a figure in hand. Arrows then nudge it by a third of a stop, with Shift by a full stop;
    Enter lets you type, x fixes a setting or frees it.
  </p>
  <dl class="grid grid-cols-[auto_1fr_auto_1fr] gap-x-3 gap-y-1.5">
    {#each keys as [key, words] (key)}<dt><kbd class="kbd kbd-sm">{key}</kbd></dt>
      <dd>{words}</dd>{/each}
    <dt><kbd class="kbd kbd-sm">Ctrl Z</kbd></dt>
    <dd>undo</dd>
    <dt><kbd class="kbd kbd-sm">Ctrl Y</kbd></dt>
    <dd>redo</dd>
  </dl>
  <p class="text-quiet mt-4 text-sm">
    Jump Stop plans; the maker’s manual, local codes, the venue and licensed people decide. Never open a flash
    unit: its capacitor holds a lethal charge.
  </p>
  <p class="mt-4 flex flex-wrap gap-2">
    <button class="btn btn-primary" onclick={close}>Close</button>
    <a class="btn" href="#/help" onclick={close}>How to read the chart, words, figures</a>
    <a class="btn" href="#/practice" onclick={close}>Practice</a>
  </p>
</Dialog>
