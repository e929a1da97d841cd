<!-- A labelled text input of a form, with a hint. -->
<script lang="ts">
  type Props = { label: string; value: string; hint?: string; wide?: boolean; list?: string }
  let { label, value = $bindable(), hint = '', wide = false, list }: Props = $props()
  const id = $props.id()
</script>

<label class={`block text-sm ${wide ? 'col-span-full' : ''}`}>
  <span class="text-quiet block">{label}</span>
  <input
    {list}
    bind:value
    class="border-base-300 bg-base-100 h-9 w-full rounded-lg border px-2"
    aria-describedby={hint ? id : undefined}
  />
  {#if hint}<span {id} class="text-quiet block text-xs">{hint}</span>{/if}
</label>
