<!-- A new setup: where it is says what is likely; body and bag are those used last. -->
<script lang="ts">
  import BeginHere from './BeginHere.svelte'
  import Dialog from './Dialog.svelte'

  let {
    like = null,
    job = null,
    close,
  }: { like?: string | null; job?: string | null; close: () => void } = $props()
</script>

<Dialog title="Where is it?" {close}>
  <BeginHere {like} {job} begun={close} />
  <p class="text-quiet mt-3 text-sm">A likely picture to start from; every figure of it can be changed.</p>
</Dialog>
