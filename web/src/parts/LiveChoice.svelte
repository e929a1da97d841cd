<!-- A word in a sentence that can be changed for another: a native select dressed as the word. -->
<script lang="ts" generics="T extends string">
  import { hotkey as register } from '../lib/hotkeys'

  type Props = {
    label: string
    value: T
    options: [string, string][]
    tone?: 'ambient' | 'flash' | 'plain'
    hotkey?: string
    choose: (value: T) => void
  }
  let { label, value, options, tone = 'plain', hotkey, choose }: Props = $props()

  let select = $state<HTMLSelectElement>()
  $effect(() => (hotkey ? register(hotkey, label, () => select?.focus()) : undefined))

  const colour = $derived(
    { ambient: 'text-ambient', flash: 'text-flash', plain: 'text-base-content' }[tone] as string,
  )
  const shown = $derived(options.find(([key]) => key === value)?.[1] ?? value)
</script>

<span class={`word ${colour}`}>
  <bdi aria-hidden="true">{shown}</bdi>
  <select
    aria-label={label}
    bind:this={select}
    title={`${label}${hotkey ? ` · key ${hotkey}` : ''}`}
    {value}
    onchange={(event) => choose(event.currentTarget.value as T)}
  >
    {#each options as [key, words] (key)}
      <option value={key} dir="auto">{words}</option>
    {/each}
  </select>
</span>

<style>
  .word {
    position: relative;
    display: inline-block;
    font-family: var(--font-sans);
    font-size: 0.92em;
    font-weight: 650;
    line-height: 1.35;
    border-bottom: 2px dotted currentColor;
    padding: 0 0.12em;
  }
  .word:hover,
  .word:focus-within {
    background: color-mix(in oklab, currentColor 12%, transparent);
  }
  .word:focus-within {
    outline: 2.5px solid var(--color-base-content);
    outline-offset: 2px;
    border-radius: 4px;
  }
  select {
    position: absolute;
    inset: 0;
    width: 100%;
    opacity: 0;
    cursor: pointer;
    font-size: 1rem;
  }
  option {
    color: var(--color-base-content);
    background: var(--color-base-100);
  }
</style>
