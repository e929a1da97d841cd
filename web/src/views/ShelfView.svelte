<!-- The shelf: what the maker prints beside what it comes to. -->
<script lang="ts">
  import { Copy, Pencil, Trash2 } from '@lucide/svelte'
  import { api, problemsOf, type UnitLine } from '../lib/api/client'
  import { grams } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import type { Doc } from '../lib/fields'
  import type { KitKind } from '../lib/kitfields'
  import ImportDialog from '../parts/ImportDialog.svelte'
  import KitForm from '../parts/KitForm.svelte'
  import KitList from '../parts/KitList.svelte'

  let units = $state<UnitLine[] | null>(null)
  let find = $state('')
  let most = $state(200)
  let importing = $state(false)
  let editing = $state<{ id: string; revision: number; doc: Doc } | 'new' | null>(null)
  let { shelf }: { shelf: KitKind } = $props()
  const shelves: [KitKind, string][] = [
    ['units', 'Units'],
    ['modifiers', 'Modifiers'],
    ['bodies', 'Bodies'],
    ['filters', 'Filters'],
  ]

  const found = $derived((units ?? []).filter((unit) => unit.name.toLowerCase().includes(find.toLowerCase())))

  async function load() {
    const { data } = await api.GET('/api/shelf')
    units = data ?? []
  }

  async function changed(words: string) {
    history.say(words)
    await Promise.all([load(), history.look(), bench.again()])
  }

  async function single(id: string) {
    const { data, error } = await api.GET('/api/units/{item_id}', { params: { path: { item_id: id } } })
    if (!data) history.say(problemsOf(error)[0]!.sentence)
    return data
  }

  async function duplicate(id: string) {
    const unit = await single(id)
    if (!unit) return
    const name = `${unit.doc.name.slice(0, 72)} (copy)`
    await api.POST('/api/units', { body: { ...unit.doc, name } })
    await changed(`Added ${name}`)
  }

  async function remove(unit: UnitLine) {
    await api.DELETE('/api/units', { params: { query: { item_id: [unit.id] } } })
    await changed(`Deleted ${unit.name}. Undo brings it back.`)
  }

  async function edit(id: string) {
    const unit = await single(id)
    if (unit) editing = unit as unknown as { id: string; revision: number; doc: Doc }
  }

  $effect(() => {
    void history.turned
    void load()
  })
</script>

<div class="mb-4 flex flex-wrap items-center gap-2">
  <h1 class="font-prose mr-4 text-[1.7rem] font-semibold">Shelf</h1>
  <nav aria-label="Shelves" class="mr-4 flex gap-3 text-[0.95rem]">
    {#each shelves as [key, words] (key)}
      <a
        href={`#/shelf/${key}`}
        class="aria-[current=page]:font-bold aria-[current=page]:underline"
        aria-current={shelf === key ? 'page' : undefined}>{words}</a
      >
    {/each}
  </nav>
  {#if shelf === 'units'}
    <input
      class="input input-sm w-44"
      type="search"
      placeholder="Find a unit"
      aria-label="Find a unit"
      bind:value={find}
    />
    <button class="btn btn-sm btn-primary" onclick={() => (editing = 'new')}>Add a unit</button>
    <button class="btn btn-sm" onclick={() => (importing = true)}>Import</button>
    <a class="btn btn-sm" href="/api/shelf/export.csv" download>Export CSV</a>
    <a class="btn btn-sm" href="/api/shelf/export.json" download>Export JSON</a>
  {/if}
</div>

{#if shelf !== 'units'}
  {#key shelf}<KitList kind={shelf} />{/key}
{:else if units && !units.length}
  <p class="font-prose max-w-xl text-lg">
    Nothing on the shelf yet. Add a unit with the guide number on its box, or import a list; the box’s ISO,
    feet and zoom are sorted out for you.
  </p>
{:else if units}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="overflow-x-auto" role="region" aria-label="Units" tabindex="0">
    <table class="w-full text-sm">
      <thead class="text-quiet border-base-300 border-b text-left">
        <tr>
          <th class="py-2 pr-4 font-medium">Unit</th>
          <th class="pr-4 font-medium">On the box</th>
          <th class="pr-4 font-medium">Comes to (ISO 100, 35 mm)</th>
          <th class="pr-4 text-right font-medium">Weight</th>
          <th class="pr-4 text-right font-medium">Price</th>
          <th><span class="sr-only">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        {#each found.slice(0, most) as unit (unit.id)}
          <tr class="border-base-300 border-b align-top">
            <th scope="row" class="py-2 pr-4 text-left text-[0.95rem] font-semibold whitespace-nowrap"
              >{unit.name}</th
            >
            <td class="max-w-64 py-2 pr-4">
              {unit.printed.slice(0, 2).join('; ')}{unit.printed.length > 2
                ? ` and ${unit.printed.length - 2} more`
                : ''}
              {#if !unit.printed.length}{unit.watt_seconds} Ws{/if}
            </td>
            <td class="py-2 pr-4">
              <span class="text-flash text-[0.95rem] font-bold">GN {unit.guide_number}</span>
              <span class="text-quiet">± {unit.sd.toFixed(2)} stop</span>
              <span class="text-quiet block max-w-md text-xs leading-snug">{unit.basis}</span>
            </td>
            <td class="py-2 pr-4 text-right whitespace-nowrap">{grams(unit.weight_g)}</td>
            <td class="py-2 pr-4 text-right whitespace-nowrap"
              >{unit.price === null || unit.price === undefined
                ? '–'
                : `${person.preferences.currency}${unit.price}`}</td
            >
            <td class="py-1 whitespace-nowrap">
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Edit ${unit.name}`}
                onclick={() => edit(unit.id)}><Pencil size={16} /></button
              >
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Duplicate ${unit.name}`}
                onclick={() => duplicate(unit.id)}><Copy size={16} /></button
              >
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Delete ${unit.name}`}
                onclick={() => remove(unit)}><Trash2 size={16} /></button
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if found.length > most}<button class="btn btn-sm mt-3" onclick={() => (most += 200)}
      >Show more of {found.length}</button
    >{/if}
{/if}

{#if importing}<ImportDialog
    close={() => (importing = false)}
    done={(n) => changed(`${n} units added. Undo takes them back.`)}
  />{/if}
{#if editing}<KitForm
    kind="units"
    item={editing === 'new' ? null : editing}
    close={() => (editing = null)}
    done={changed}
  />{/if}
