<!-- What is seldom used, folded away behind a line; once opened it stays open, in other setups too. -->
<script module lang="ts">
  import { SvelteSet } from 'svelte/reactivity'

  const open = new SvelteSet<string>()
</script>

<script lang="ts">
  import type { Snippet } from 'svelte'

  let { words, children }: { words: string; children: Snippet } = $props()
</script>

<details
  class="more"
  open={open.has(words)}
  ontoggle={(event) => (event.currentTarget.open ? open.add(words) : open.delete(words))}
>
  <summary>{words}</summary>
  {@render children()}
</details>
