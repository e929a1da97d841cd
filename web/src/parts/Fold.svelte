<!-- What is seldom used, folded away behind a line; once opened it stays open, in other setups too. -->
<script module lang="ts">
  import { SvelteSet } from 'svelte/reactivity'

  const open = new SvelteSet<string>()
</script>

<script lang="ts">
  import type { Snippet } from 'svelte'

  /** print: on paper it stands open. */
  type Props = { words: string; print?: boolean; children: Snippet }
  let { words, print = false, children }: Props = $props()
</script>

<details
  class={print ? 'more opened-in-print' : 'more'}
  open={open.has(words)}
  ontoggle={(event) => (event.currentTarget.open ? open.add(words) : open.delete(words))}
>
  <summary>{words}</summary>
  {@render children()}
</details>
