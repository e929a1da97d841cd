<!-- Modifiers, bodies or filters: a line each, with what matters of it. -->
<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy'
  import Pencil from '@lucide/svelte/icons/pencil'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import { kit } from '../lib/kit.svelte'
  import type { Doc } from '../lib/fields'
  import type { KitKind } from '../lib/kinds'
  import { person } from '../lib/person.svelte'
  import KitForm from './KitForm.svelte'

  let { kind }: { kind: Exclude<KitKind, 'units'> } = $props()
  const one = $derived(person.scales.kit[kind])
  type Item = { id: string; revision: number; doc: { name: string }; line: string }
  const items = $derived<Item[]>(kit[kind])
  let editing = $state.raw<Item | 'new' | null>(null)

  $effect(() => {
    void history.turned
    void kit.load()
  })

  async function renew() {
    await Promise.all([kit.load(), history.look(), bench.refresh()])
  }

  async function changed(words: string) {
    history.say(words)
    await renew()
  }

  async function remove(item: Item) {
    if (await history.remove(kind, item.id, item.doc.name)) await renew()
  }

  async function copy(item: Item) {
    if (await history.copy(kind, item.id)) await renew()
  }
</script>

<button class="btn btn-sm btn-primary mb-3" onclick={() => (editing = 'new')}>Add a {one}</button>
<ul class="border-base-300 border-t">
  {#each items as item (item.id)}
    <li class="border-base-300 flex items-center gap-3 border-b py-1.5">
      <span class="min-w-0 flex-1">
        <span class="block font-semibold"><bdi>{item.doc.name}</bdi></span>
        <span class="text-quiet block text-sm leading-snug"><bdi>{item.line}</bdi></span>
      </span>
      <span class="whitespace-nowrap">
        <button
          class="btn btn-sm btn-ghost btn-square"
          aria-label={`Edit ${item.doc.name}`}
          onclick={() => (editing = item)}><Pencil size={16} /></button
        >
        <button
          class="btn btn-sm btn-ghost btn-square"
          aria-label={`Duplicate ${item.doc.name}`}
          onclick={() => copy(item)}><Copy size={16} /></button
        >
        <button
          class="btn btn-sm btn-ghost btn-square"
          aria-label={`Delete ${item.doc.name}`}
          onclick={() => remove(item)}><Trash2 size={16} /></button
        >
      </span>
    </li>
  {/each}
</ul>
{#if editing}<KitForm
    {kind}
    item={editing === 'new' ? null : (editing as Item & { doc: Doc })}
    close={() => (editing = null)}
    done={changed}
  />{/if}
