<!-- The shelf: what the maker prints beside what it comes to. -->
<script lang="ts">
  import { Copy, Pencil, Trash2 } from '@lucide/svelte'
  import { api, sentenceOf, type UnitLine, type UnreadableOut } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import type { Doc } from '../lib/fields'
  import { fixed, grams } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import type { KitKind } from '../lib/kitfields'
  import { Newest } from '../lib/newest'
  import { person } from '../lib/person.svelte'
  import FirstReading from '../parts/FirstReading.svelte'
  import ImportDialog from '../parts/ImportDialog.svelte'
  import KitForm from '../parts/KitForm.svelte'
  import KitList from '../parts/KitList.svelte'
  import { address } from '../lib/addresses'
  import Compare from '../shelf/Compare.svelte'
  import Paste from '../shelf/Paste.svelte'
  import TypicalKit from '../shelf/TypicalKit.svelte'

  let { shelf = 'units' }: { shelf?: KitKind } = $props()
  let units = $state.raw<UnitLine[] | null>(null)
  let unreadable = $state.raw<UnreadableOut[]>([])
  let find = $state('')
  let most = $state(200)
  let importing = $state(false)
  let ticking = $state(false)
  /** What is being pasted; null: the box is shut. */
  let pasting = $state<string | null>(null)
  let reading = $state(false)
  /** Weight and price matter where one shops, not on the evening before. */
  let shopping = $state(false)
  /** Units ticked to be seen side by side, in the order they were. */
  let ticked = $state<string[]>([])
  let comparing = $state(false)
  const MOST = 5
  const tick = (id: string, on: boolean) =>
    (ticked = on ? [...ticked, id].slice(-MOST) : ticked.filter((one) => one !== id))
  let editing = $state.raw<{ id: string; revision: number; doc: Doc } | 'new' | null>(null)
  const shelves: [KitKind, string][] = [
    ['units', 'Units'],
    ['modifiers', 'Modifiers'],
    ['bodies', 'Bodies'],
    ['lenses', 'Lenses'],
    ['filters', 'Filters'],
    ['triggers', 'Triggers'],
    ['batteries', 'Batteries'],
    ['stands', 'Stands'],
  ]
  const newest = new Newest()

  const HOLDINGS = { owned: 'Owned', hire: 'For hire', wanted: 'Wanted' }
  const rank = (unit: UnitLine) => Object.keys(HOLDINGS).indexOf(unit.holding)
  const found = $derived(
    (units ?? [])
      .filter((unit) => unit.name.toLowerCase().includes(find.toLowerCase()))
      .sort((a, b) => rank(a) - rank(b)),
  )

  function load(): Promise<void> {
    const asked = Promise.all([api.GET('/api/shelf'), api.GET('/api/unreadable')])
    return newest.take(asked, ([lines, bad]) => {
      if (lines.data) units = lines.data
      else history.tell(sentenceOf(lines.error))
      unreadable = bad.data ?? []
    })
  }

  async function renew() {
    await Promise.all([load(), history.look(), bench.refresh()])
  }

  async function changed(words: string) {
    history.say(words)
    await renew()
  }

  async function duplicate(unit: UnitLine) {
    if (await history.copy('units', unit.id)) await renew()
  }

  async function remove(unit: UnitLine) {
    if (await history.remove('units', unit.id, unit.name)) await renew()
  }

  async function drop(bad: UnreadableOut) {
    if (await history.remove(bad.kind as KitKind, bad.id, bad.name)) await renew()
  }

  async function edit(unit: UnitLine) {
    const { data, error } = await api.GET('/api/units/{item_id}', { params: { path: { item_id: unit.id } } })
    if (data) editing = data
    else history.tell(sentenceOf(error))
  }

  /** A line such as “gn 58 m iso 100 105 mm 60 ws” and Enter adds a unit; what leaves something open opens the box. */
  async function addLine() {
    if (!find.trim() || found.length) return
    const { data } = await api.POST('/api/shelf/spec', { body: { text: find } })
    const one = data?.length === 1 ? data[0]! : null
    if (!one?.doc || one.open || one.judged.length) {
      pasting = find
      return
    }
    const made = await history.done(
      api.POST('/api/units', { body: one.doc as never }),
      (unit) => `Added ${unit.doc.name}: ${one.comes_to}. Undo takes it back.`,
    )
    if (!made) return
    find = ''
    await Promise.all([load(), bench.refresh()])
  }

  $effect(() => {
    void history.turned
    void load()
  })
</script>

<div class="mb-4 flex flex-wrap items-center gap-2">
  <h1 class="mr-4 text-[1.7rem] font-semibold">Shelf</h1>
  <nav aria-label="Shelves" class="mr-4 flex gap-3 text-[0.95rem]">
    {#each shelves as [key, words] (key)}
      <a
        href={address.shelf(key)}
        class="aria-[current=page]:font-bold aria-[current=page]:underline"
        aria-current={shelf === key ? 'page' : undefined}>{words}</a
      >
    {/each}
  </nav>
  {#if shelf === 'units'}
    <input
      class="input input-sm w-44"
      type="search"
      placeholder="Find, or gn 58 m 105 mm"
      title="Find a unit; or a line of figures and Enter adds one: gn 58 m iso 100 105 mm 60 ws"
      aria-label="Find a unit"
      bind:value={find}
      onkeydown={(event) => event.key === 'Enter' && void addLine()}
    />
    <button class="btn btn-sm btn-primary" onclick={() => (editing = 'new')}>Add a unit</button>
    <button class="btn btn-sm" onclick={() => (pasting = '')}>Paste a specification</button>
    <button class="btn btn-sm" onclick={() => (ticking = true)}>Tick typical kit</button>
    <button class="btn btn-sm" onclick={() => (reading = true)}>Add by a reading</button>
    <button class="btn btn-sm" onclick={() => (importing = true)}>Import</button>
    <a class="btn btn-sm" href="/api/shelf/export.csv" download>Export CSV</a>
    <a class="btn btn-sm" href="/api/shelf/export.json" download>Export JSON</a>
    <button class="btn btn-sm" disabled={ticked.length < 2} onclick={() => (comparing = true)}
      >Side by side{ticked.length ? ` (${ticked.length})` : ''}</button
    >
    <label class="ml-2 flex min-h-9 items-center gap-2 text-sm"
      ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={shopping} /> weight and price</label
    >
  {/if}
</div>

{#if unreadable.length}
  <ul role="alert" class="border-short mb-4 rounded-xl border p-3 text-sm">
    {#each unreadable as bad (bad.id)}
      <li>
        <bdi class="font-semibold">{bad.name}</bdi> (among the {bad.kind}) cannot be read:
        <bdi>{bad.why}</bdi>
        <button class="ml-2 cursor-pointer underline underline-offset-4" onclick={() => drop(bad)}
          >Delete it</button
        >
      </li>
    {/each}
  </ul>
{/if}

{#if shelf !== 'units'}
  {#key shelf}<KitList kind={shelf} />{/key}
{:else if units && !units.length}
  <p class="max-w-xl text-lg">
    Nothing on the shelf yet. Add a unit with the guide number on its box; or, where nobody knows it, by one
    reading of a flash meter; or import a list. The box’s ISO, feet and zoom are sorted out for you.
  </p>
{:else if units}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="overflow-x-auto" role="region" aria-label="Units" tabindex="0">
    <table class="w-full text-sm">
      <thead class="text-quiet border-base-300 border-b text-left">
        <tr>
          <th class="w-6"><span class="sr-only">Compare</span></th>
          <th class="py-2 pr-4 font-medium">Unit</th>
          <th class="pr-4 font-medium">On the box</th>
          <th class="pr-4 font-medium">Comes to (ISO 100, 35 mm)</th>
          {#if shopping}<th class="pr-4 text-right font-medium">Weight</th>
            <th class="pr-4 text-right font-medium">Price</th>{/if}
          <th><span class="sr-only">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        {#each found.slice(0, most) as unit (unit.id)}
          <tr class="border-base-300 border-b align-top">
            <td class="py-2"
              ><input
                type="checkbox"
                class="checkbox checkbox-sm"
                aria-label={`Compare ${unit.name}`}
                checked={ticked.includes(unit.id)}
                onchange={(event) => tick(unit.id, event.currentTarget.checked)}
              /></td
            >
            <th scope="row" class="py-2 pr-4 text-left text-[0.95rem] font-semibold whitespace-nowrap"
              ><bdi>{unit.name}</bdi>{#if unit.holding !== 'owned'}<span
                  class="text-quiet block text-xs font-normal"
                  >{HOLDINGS[unit.holding as keyof typeof HOLDINGS]}</span
                >{/if}</th
            >
            <td class="max-w-64 py-2 pr-4">
              <bdi>{unit.printed.slice(0, 2).join('; ')}</bdi>{unit.printed.length > 2
                ? ` and ${unit.printed.length - 2} more`
                : ''}
              {#if !unit.printed.length}{unit.watt_seconds} Ws{/if}
            </td>
            <td class="py-2 pr-4">
              <span class="text-flash text-[0.95rem] font-bold">{unit.guide_number}</span>
              <span class="text-quiet">± {fixed(unit.sd, 2)} stop</span>
              <span class="text-quiet block max-w-md text-xs leading-snug"><bdi>{unit.basis}</bdi></span>
            </td>
            {#if shopping}
              <td class="py-2 pr-4 text-right whitespace-nowrap">{grams(unit.weight_g)}</td>
              <td class="py-2 pr-4 text-right whitespace-nowrap"
                >{unit.price === null ? '–' : `${person.preferences.currency}${unit.price}`}</td
              >
            {/if}
            <td class="py-1 whitespace-nowrap">
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Edit ${unit.name}`}
                onclick={() => edit(unit)}><Pencil size={16} /></button
              >
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Duplicate ${unit.name}`}
                onclick={() => duplicate(unit)}><Copy size={16} /></button
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

{#if pasting !== null}<Paste begin={pasting} close={() => (pasting = null)} done={changed} />{/if}
{#if ticking}<TypicalKit close={() => (ticking = false)} done={() => void renew()} />{/if}
{#if reading}<FirstReading close={() => (reading = false)} done={changed} />{/if}
{#if importing}<ImportDialog
    close={() => (importing = false)}
    done={(n) => changed(`${n === 1 ? '1 unit' : `${n} units`} added. Undo takes them back.`)}
  />{/if}
{#if editing}<KitForm
    kind="units"
    item={editing === 'new' ? null : editing}
    close={() => (editing = null)}
    done={changed}
  />{/if}
{#if comparing}<Compare units={ticked} close={() => (comparing = false)} />{/if}
