<!-- A heading of a section, with the word it stands for explained beside it. -->
<script lang="ts">
  import type { Snippet } from 'svelte'
  import Word from './Word.svelte'

  type Props = { id: string; word: string; children: Snippet }
  let { id, word, children }: Props = $props()
</script>

<div class="flex items-baseline gap-1">
  <h2 {id} class="ask">{@render children()}</h2>
  <Word {word} />
</div>
