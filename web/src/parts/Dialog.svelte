<!-- A modal dialog with a heading; Escape closes it. -->
<script lang="ts">
  import type { Snippet } from 'svelte'

  let {
    title,
    close,
    children,
    wide = false,
    broad = false,
  }: { title: string; close: () => void; children: Snippet; wide?: boolean; broad?: boolean } = $props()
  const id = $props.id()
  let dialog = $state<HTMLDialogElement>()
  $effect(() => dialog?.showModal())
</script>

<!-- Back, and any other address, close what is open. -->
<svelte:window onhashchange={close} />

<dialog
  bind:this={dialog}
  aria-labelledby={id}
  class={`bg-base-100 text-base-content m-auto max-h-[90vh] w-[92vw] overflow-auto rounded-2xl p-6 shadow-2xl backdrop:bg-black/40 ${broad ? 'max-w-6xl' : wide ? 'max-w-3xl' : 'max-w-lg'}`}
  oncancel={(event) => {
    event.preventDefault()
    close()
  }}
>
  <h2 {id} class="mb-3 text-2xl font-semibold"><bdi>{title}</bdi></h2>
  {@render children()}
</dialog>
