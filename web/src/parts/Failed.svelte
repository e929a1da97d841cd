<!-- What cannot be shown: why, and a button that asks again. -->
<script lang="ts">
  let { sentence, again }: { sentence: string; again: () => void } = $props()
</script>

<div class="sheet max-w-xl space-y-2 p-3" role="alert">
  <p class="text-short font-semibold">{sentence}</p>
  <button type="button" class="btn btn-sm" onclick={again}>Try again</button>
</div>
