<!-- Modifiers, bodies or filters: a line each, with what matters of it. -->
<script lang="ts">
  import { Copy, Pencil, Trash2 } from '@lucide/svelte'
  import { api } from '../lib/api/client'
  import { saySeconds, signed } from '../lib/figures'
  import type { Doc } from '../lib/fields'
  import { history } from '../lib/history.svelte'
  import { kit } from '../lib/kit.svelte'
  import { KIT, type KitKind } from '../lib/kitfields'
  import { bench } from '../lib/workbench.svelte'
  import KitForm from './KitForm.svelte'

  let { kind }: { kind: Exclude<KitKind, 'units'> } = $props()
  type Line = { id: string; revision: number; doc: Doc & { name: string } }
  const items = $derived(kit[kind] as unknown as Line[])
  let editing = $state<Line | 'new' | null>(null)

  $effect(() => {
    void history.turned
    void kit.load()
  })

  async function changed(words: string) {
    history.say(words)
    await Promise.all([kit.load(), history.look(), bench.again()])
  }

  async function remove(item: Line) {
    await api.DELETE(`/api/${kind as 'units'}`, { params: { query: { item_id: [item.id] } } })
    await changed(`Deleted ${item.doc.name}. Undo brings it back.`)
  }

  async function copy(item: Line) {
    const name = `${item.doc.name.slice(0, 72)} (copy)`
    await api.POST(`/api/${kind as 'units'}`, { body: { ...$state.snapshot(item.doc), name } as never })
    await changed(`Added ${name}`)
  }

  function says(doc: Doc): string {
    if (kind === 'filters')
      return doc.most_stops
        ? `${doc.stops as number} to ${doc.most_stops as number} stops`
        : `${doc.stops as number} stops`
    if (kind === 'modifiers') {
      const layers = (doc.layers as { name: string; stops: number }[]).map(
        (layer) => `${layer.name} ${signed(layer.stops)}`,
      )
      return [`${signed(doc.stops as number)} ± ${doc.sd as number}`, ...layers].join(' · ')
    }
    const speed = (key: string) => (doc[key] ? saySeconds(doc[key] as number) : null)
    return [
      `${(doc.shutter as string).replace('_', ' ')}, syncs at ${speed('sync_s')}`,
      speed('radio_sync_s') && `by radio ${speed('radio_sync_s')}`,
      `top speed ${speed('top_speed_s')}`,
      doc.hss ? 'HSS' : 'no HSS',
      doc.shutter === 'focal_plane' &&
        (doc.dark_edge === 'unknown'
          ? 'dark edge not tried'
          : `dark at the ${doc.dark_edge as string} past sync`),
    ]
      .filter(Boolean)
      .join(' · ')
  }
</script>

<button class="btn btn-sm btn-primary mb-3" onclick={() => (editing = 'new')}>Add a {KIT[kind].one}</button>
<ul class="border-base-300 border-t">
  {#each items as item (item.id)}
    <li class="border-base-300 flex items-center gap-3 border-b py-1.5">
      <span class="min-w-0 flex-1">
        <span class="block font-semibold">{item.doc.name}</span>
        <span class="text-quiet block text-sm leading-snug">{says(item.doc)}</span>
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
    item={editing === 'new' ? null : editing}
    close={() => (editing = null)}
    done={changed}
  />{/if}
