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

  /** The options, the same ones while they say the same: a shelf of 200 is not drawn anew at every key press. */
  let last: [string, string][] = []
  const listed = $derived.by(() => {
    const same =
      options.length === last.length &&
      options.every(([key, words], i) => key === last[i]![0] && words === last[i]![1])
    if (!same) last = options
    return last
  })

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
    {#each listed as [key, words] (key)}
      <option value={key} dir="auto">{words}</option>
    {/each}
  </select>
</span>

<style>
  .word {
    position: relative;
    display: inline-block;
    font-weight: 700;
    line-height: 1.45;
    background: var(--color-base-200);
    border: 1px solid var(--color-base-300);
    border-radius: 4px;
    padding: 0 1.05em 0 0.3em;
  }
  .word::after {
    content: '';
    position: absolute;
    right: 0.35em;
    top: 50%;
    width: 0.32em;
    height: 0.32em;
    border: solid currentColor;
    border-width: 0 1.5px 1.5px 0;
    transform: translateY(-70%) rotate(45deg);
    pointer-events: none;
  }
  @media (pointer: coarse), (max-width: 639px) {
    .word {
      display: inline-flex;
      align-items: center;
      min-height: var(--touch);
    }
  }
  .word:hover,
  .word:focus-within {
    background: color-mix(in oklab, currentColor 14%, var(--color-base-100));
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
    height: 100%;
    opacity: 0;
    cursor: pointer;
    font-size: 1rem;
  }
  option {
    color: var(--color-base-content);
    background: var(--color-base-100);
  }
</style>
