<!-- A small switch in a sentence: on or off, or a thing to add. -->
<script lang="ts">
  import type { Snippet } from 'svelte'
  type Props = {
    on?: boolean
    plain?: boolean
    /** One of several to look at: nothing is added by it. */
    choice?: boolean
    onclick: () => void
    label?: string
    children: Snippet
  }
  let { on = false, plain = false, choice = false, onclick, label, children }: Props = $props()
</script>

<button
  type="button"
  class={plain ? 'chip no-print' : 'chip'}
  aria-pressed={plain ? undefined : on}
  aria-label={label}
  {onclick}
>
  {#if !plain && (on || !choice)}<span aria-hidden="true">{on ? '✓' : '+'}</span>{/if}
  {@render children()}
</button>

<style>
  .chip {
    font-family: var(--font-sans);
    font-size: 0.8rem;
    line-height: 1.5;
    padding: 0 0.5rem;
    min-height: 1.6rem;
    border: 1px solid var(--color-base-300);
    border-radius: 999px;
    cursor: pointer;
    white-space: nowrap;
  }
  .chip[aria-pressed='true'] {
    border-color: currentColor;
    background: var(--color-base-200);
    font-weight: 600;
  }
  .chip:hover {
    background: var(--color-base-200);
  }
</style>
