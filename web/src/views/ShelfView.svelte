<!-- The shelf: what the maker prints beside what it comes to. -->
<script lang="ts">
  import { untrack } from 'svelte'
  import { api, sentenceOf, type UnitLine, type UnreadableOut } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import { forms } from '../lib/forms.svelte'
  import { history } from '../lib/history.svelte'
  import { kit } from '../lib/kit.svelte'
  import type { Doc } from '../lib/fields'
  import type { KitKind } from '../lib/kinds'
  import { newest, question } from '../lib/question.svelte'
  import FirstReading from '../parts/FirstReading.svelte'
  import ImportDialog from '../parts/ImportDialog.svelte'
  import KitForm from '../parts/KitForm.svelte'
  import KitList from '../parts/KitList.svelte'
  import Word from '../parts/Word.svelte'
  import { address } from '../lib/addresses'
  import Basis from '../shelf/Basis.svelte'
  import { BARE, query } from '../shelf/basis'
  import Compare from '../shelf/Compare.svelte'
  import Glance from '../shelf/Glance.svelte'
  import UnitMap from '../shelf/Map.svelte'
  import Modifiers from '../shelf/Modifiers.svelte'
  import Paste from '../shelf/Paste.svelte'
  import TypicalKit from '../shelf/TypicalKit.svelte'

  let { shelf = 'units' }: { shelf?: KitKind } = $props()
  let units = $state.raw<UnitLine[] | null>(null)
  let unreadable = $state.raw<UnreadableOut[]>([])
  let find = $state('')
  let importing = $state(false)
  let ticking = $state(false)
  /** What is being pasted; null: the box is shut. */
  let pasting = $state<string | null>(null)
  let reading = $state(false)
  /** Units ticked to be seen side by side, in the order they were. */
  let ticked = $state<string[]>([])
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

  const found = $derived((units ?? []).filter((unit) => unit.name.toLowerCase().includes(find.toLowerCase())))
  let basis = $state({ ...BARE })
  const WAYS = [
    ['lines', 'At a glance'],
    ['map', 'Map'],
  ] as const
  let way = $state<(typeof WAYS)[number][0]>('lines')
  $effect(() => untrack(() => void Promise.all([kit.load(), forms.load()])))
  const looked = question(() =>
    shelf === 'units' && units?.length
      ? { at: '/api/shelf/glance', params: { query: query(basis) }, since: units, hold: true }
      : null,
  )
  const glance = $derived(looked.found)

  async function load(): Promise<void> {
    const asked = await newest('shelf', () =>
      Promise.all([api.GET('/api/shelf'), api.GET('/api/unreadable')]),
    )
    if (!asked) return
    const [lines, bad] = asked
    if (lines.data) units = lines.data
    else history.tell(sentenceOf(lines.error))
    unreadable = bad.data ?? []
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
  <nav aria-label="Shelves" class="mr-4 flex flex-wrap gap-x-3 text-[0.95rem]">
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
    <button class="btn btn-sm" onclick={() => (reading = true)}>Add by a test</button>
    <button class="btn btn-sm" onclick={() => (importing = true)}>Import</button>
    <a class="btn btn-sm" href="/api/shelf/export.csv" download>Export CSV</a>
    <a class="btn btn-sm" href="/api/shelf/export.json" download>Export JSON</a>
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
  {#if shelf === 'modifiers'}<Modifiers />{/if}
  {#key shelf}<KitList kind={shelf} />{/key}
{:else if units && !units.length}
  <p class="max-w-xl text-lg">
    Nothing on the shelf yet. Add a unit with the guide number on its box; or, where nobody knows it, by one
    reading of a flash meter; or import a list. The box’s ISO, feet and zoom are sorted out for you.
  </p>
{:else if units}
  <div class="sheet p-3">
    <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Basis bind:basis />
      <div class="ml-auto flex gap-1.5" role="group" aria-label="How it is shown">
        <Word word="map" />
        {#each WAYS as [key, words] (key)}
          <button
            type="button"
            class={`btn btn-sm ${way === key ? 'btn-primary' : ''}`}
            aria-pressed={way === key}
            onclick={() => (way = key)}>{words}</button
          >
        {/each}
      </div>
    </div>
    {#if looked.wrong}<p role="alert" class="text-short font-semibold">{looked.wrong}</p>{/if}
    {#if glance && way === 'lines'}
      <Glance {glance} {units} {find} {ticked} {tick} {edit} {duplicate} {remove} />
    {:else if glance}
      <UnitMap {basis} columns={glance.columns} {ticked} {tick} />
    {/if}
  </div>
  {#if ticked.length > 1}<Compare
      units={ticked}
      setup={basis.on === 'setup' ? basis.of : ''}
      clear={() => (ticked = [])}
    />{:else if ticked.length}
    <p class="text-quiet mt-2 text-[0.88rem]">Tick one more, and they stand side by side here.</p>
  {/if}
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
