<!-- A labelled text input of a form, with a hint and what is wrong with it. -->
<script lang="ts">
  type Props = {
    label: string
    value: string
    hint?: string
    wrong?: string
    wide?: boolean
    list?: string
    type?: string
  }
  let {
    label,
    value = $bindable(),
    hint = '',
    wrong = '',
    wide = false,
    list,
    type = 'text',
  }: Props = $props()
  const id = $props.id()
</script>

<label class={`block text-sm ${wide ? 'col-span-full' : ''}`}>
  <span class="text-quiet block">{label}</span>
  <input
    {type}
    {list}
    bind:value
    class="border-base-300 bg-base-100 aria-invalid:border-short h-9 w-full rounded-lg border px-2"
    aria-invalid={wrong !== ''}
    aria-describedby={wrong || hint ? id : undefined}
  />
  {#if wrong}
    <span {id} class="text-short block text-xs">{wrong}</span>
  {:else if hint}
    <span {id} class="text-quiet block text-xs">{hint}</span>
  {/if}
</label>
