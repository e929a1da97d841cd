<!-- A question mark beside a heading: the word, in a sentence. -->
<script lang="ts">
  import { WORDS } from '../lib/words'

  let { word }: { word: string } = $props()
  const id = $props.id()
  let open = $state(false)
  const [name, says] = $derived(WORDS[word]!)
</script>

<span class="no-print relative inline-block font-normal">
  <button
    type="button"
    class="ask-word"
    aria-label={`What is ${name}?`}
    aria-expanded={open}
    aria-controls={id}
    onclick={() => (open = !open)}
    onblur={() => (open = false)}
    onkeydown={(event) => event.key === 'Escape' && (open = false)}>?</button
  >
  <span {id} role="status" class="absolute top-7 left-0 z-20 block w-64">
    {#if open}<span
        class="bg-base-100 border-base-300 block rounded border p-2 text-left text-[0.84rem] leading-snug whitespace-normal shadow-lg"
        ><strong>{name}.</strong> {says}</span
      >{/if}
  </span>
</span>

<style>
  .ask-word {
    min-width: 24px;
    min-height: 24px;
    border-radius: 50%;
    color: var(--color-quiet);
    font-size: 0.78rem;
    cursor: help;
  }
  .ask-word:hover {
    background: var(--color-base-200);
  }
</style>
