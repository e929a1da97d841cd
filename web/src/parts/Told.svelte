<!-- Below a field: what is wrong with what was typed, or what it can mean, to be chosen. -->
<script lang="ts">
  import type { Meaning, Typed } from '../lib/quantities.svelte'

  type Props = { id: string; typed: Typed; choose: (meaning: Meaning) => void }
  let { id, typed, choose }: Props = $props()
</script>

{#if typed.wrong || typed.asks}
  <span
    {id}
    role="alert"
    class={`told bg-base-100 ${typed.wrong ? 'border-short text-short' : 'border-base-content'}`}
  >
    <bdi>{typed.wrong || typed.asks}</bdi>
    {#if typed.meanings.length}
      <span class="mt-1.5 flex flex-wrap gap-1.5">
        {#each typed.meanings as meaning (meaning.value)}
          <button type="button" class="btn btn-sm" onclick={() => choose(meaning)}>{meaning.says}</button>
        {/each}
      </span>
    {/if}
  </span>
{/if}

<style>
  .told {
    position: absolute;
    top: 100%;
    left: 0;
    z-index: 20;
    width: max-content;
    max-width: min(17rem, 80vw);
    padding: 0.5rem;
    margin-top: 0.25rem;
    font-size: 0.875rem;
    line-height: 1.35;
    font-weight: 400;
    white-space: normal;
    text-align: left;
    border-width: 1px;
    border-radius: 0.5rem;
    box-shadow: 0 6px 18px rgb(0 0 0 / 0.18);
  }
</style>
