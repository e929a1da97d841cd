<!-- The coverage: units down, lights of setups across; each cell the stops in hand and the dial, by word and sign too. -->
<script lang="ts">
  import { untrack } from 'svelte'
  import type { BoardText } from '../lib/api/client'
  import { grams, signed } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import Quantity from '../parts/Quantity.svelte'
  import { address } from '../lib/addresses'
  import Chain from './Chain.svelte'

  let { board }: { board: BoardText } = $props()
  type Sort = 'covers' | 'name' | 'weight' | 'price'
  let find = $state('')
  let holding = $state('')
  let kind = $state('')
  let heaviest = $state<number | null>(null)
  let dearest = $state<number | null>(null)
  let sort = $state<Sort>('covers')
  let most = $state(24)
  const BEFORE = 2 // cells of a row before those of the lights
  let looked = $state.raw<{
    setup: string
    light: number
    unit: string
    name: string
    warning: string
  } | null>(null)

  const SIGNS: Record<string, [string, string]> = {
    reaches: ['●', 'reaches'],
    on_the_line: ['◐', 'on the line'],
    too_bright: ['▶', 'too bright'],
    short: ['✕', 'short'],
    blocked: ['–', 'cannot be used'],
  }
  const HOLDINGS: Record<string, string> = { owned: '', hire: 'for hire, ', wanted: 'wanted, ' }
  const kinds = $derived([...new Set(board.units.map((unit) => unit.kind))])
  const rows = $derived.by(() => {
    const within = (figure: number | null, most: number) => most === Infinity || (figure ?? Infinity) <= most
    const shown = board.units
      .map((unit, at) => ({ unit, at }))
      .filter(
        ({ unit }) =>
          unit.name.toLowerCase().includes(find.toLowerCase()) &&
          (!holding || unit.holding === holding) &&
          (!kind || unit.kind === kind) &&
          within(unit.weight_g, heaviest ?? Infinity) &&
          within(unit.price, dearest ?? Infinity),
      )
    const by = {
      covers: (one: (typeof shown)[number]) => -one.unit.covers,
      name: () => 0,
      weight: (one: (typeof shown)[number]) => one.unit.weight_g ?? Infinity,
      price: (one: (typeof shown)[number]) => one.unit.price ?? Infinity,
    }[sort]
    return shown.sort((a, b) => by(a) - by(b) || a.unit.name.localeCompare(b.unit.name))
  })

  type Row = (typeof rows)[number]
  const LATER_MS = 100 // for what is out of sight
  let body = $state<HTMLTableSectionElement>()
  /** The unit of each cell as it is drawn: in another order cells in sight come first, the others a moment later. */
  let drawn = $state.raw<{ of: BoardText; rows: Row[]; cell: (row: number, column: number) => Row }>()

  $effect.pre(() => {
    const now = rows.slice(0, most)
    const all = { of: board, rows: now, cell: (row: number) => now[row]! }
    const before = untrack(() => drawn)
    if (before?.of !== board) return void (drawn = all)
    const sight = untrack(inSight)
    const soon = (row: number, there: boolean) => (there ? now[row]! : (before.rows[row] ?? now[row]!))
    drawn = {
      of: board,
      rows: now.map((_, row) => soon(row, sight.row(row))),
      cell: (row, column) => soon(row, sight.row(row) && sight.column(column)),
    }
    const later = setTimeout(() => (drawn = all), LATER_MS)
    return () => clearTimeout(later)
  })

  /** Whether a row, and a light's column, are in sight; where no row is, all of them are. */
  function inSight() {
    const lines = [...(body?.rows ?? [])].map((row) => row.getBoundingClientRect())
    const cells = [...(body?.rows[0]?.cells ?? [])].slice(BEFORE).map((cell) => cell.getBoundingClientRect())
    const down = lines.map(({ top, bottom }) => bottom > 0 && top < innerHeight)
    const across = cells.map(({ left, right }) => right > 0 && left < innerWidth)
    const some = down.includes(true)
    return {
      row: (at: number) => !some || down[at] !== false,
      column: (at: number) => !some || across[at] !== false,
    }
  }

  function pick(unit: { id: string; name: string }, count: number) {
    void job.edit('Units taken along', (doc) => {
      doc.picked = doc.picked.filter((one) => one.unit !== unit.id)
      if (count > 0) doc.picked.push({ unit: unit.id, name: unit.name, count })
    })
  }
</script>

<div class="mb-1 flex flex-wrap items-center gap-2 text-[0.84rem]">
  <input
    class="input input-sm w-36"
    type="search"
    placeholder="Find a unit"
    aria-label="Find a unit"
    bind:value={find}
  />
  <select class="select select-sm w-auto" aria-label="Holding" bind:value={holding}>
    <option value="">owned, hired, wanted</option>
    <option value="owned">owned</option>
    <option value="hire">for hire</option>
    <option value="wanted">wanted</option>
  </select>
  <select class="select select-sm w-auto" aria-label="Kind of unit" bind:value={kind}>
    <option value="">all kinds</option>
    {#each kinds as one (one)}<option value={one}>{one.replace('_', ' ')}</option>{/each}
  </select>
  <label class="flex items-center gap-1"
    >to <span class="w-16"
      ><Quantity
        named
        label="Heaviest, grams"
        class="input input-sm w-16"
        value={String(heaviest ?? '')}
        reads={quantity('weight', 'Heaviest', null, (value) => (heaviest = Math.round(value)))}
        empty={() => (heaviest = null)}
      /></span
    > g</label
  >
  <label class="flex items-center gap-1"
    >to {person.preferences.currency}
    <span class="w-16"
      ><Quantity
        named
        label="Dearest"
        class="input input-sm w-16"
        value={String(dearest ?? '')}
        reads={quantity('money', 'Dearest', null, (value) => (dearest = value))}
        empty={() => (dearest = null)}
      /></span
    ></label
  >
  <select class="select select-sm w-auto" aria-label="Sort the units by" bind:value={sort}>
    <option value="covers">most covered first</option>
    <option value="name">by name</option>
    <option value="weight">lightest first</option>
    <option value="price">cheapest first</option>
  </select>
</div>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="relative overflow-x-auto" role="region" aria-label="Coverage" tabindex="0">
  <table class="coverage text-[0.8rem]">
    <caption class="sr-only">Units against the lights of this job’s setups</caption>
    <thead>
      <tr class="align-bottom">
        <th scope="col" class="unit text-left font-medium">Unit</th>
        <th scope="col" class="w-14 px-2 text-right font-medium">covers</th>
        {#each board.columns as column, i (i)}
          <th scope="col" class="setup text-left font-medium">
            <a class="link-button leading-tight" href={address.setup(column.setup)}
              ><bdi>{column.name}</bdi></a
            >
            <span class="text-quiet block text-[0.75rem] font-normal">{column.role}</span>
          </th>
        {/each}
      </tr>
    </thead>
    <tbody bind:this={body}>
      {#each drawn?.rows ?? [] as { unit }, row (row)}
        {@const all = unit.covers === board.columns.length}
        <tr class={`border-base-300 border-t ${unit.picked ? 'bg-base-200' : ''}`}>
          <th scope="row" class="unit text-left">
            <label class="flex cursor-pointer items-center gap-2">
              <input
                type="checkbox"
                class="checkbox checkbox-xs"
                checked={unit.picked > 0}
                aria-label={`Take ${unit.name} along`}
                onchange={(event) => pick(unit, event.currentTarget.checked ? 1 : 0)}
              />
              <span class="min-w-0">
                <bdi class="font-semibold">{unit.name}</bdi>
                <span class="text-quiet block text-[0.74rem] font-normal"
                  >{HOLDINGS[unit.holding]}{unit.count > 1 ? `${unit.count} of them, ` : ''}{grams(
                    unit.weight_g,
                  )}</span
                >
              </span>
              {#if unit.picked > 0}
                <span class="ml-auto w-8"
                  ><Quantity
                    named
                    label={`How many of ${unit.name}`}
                    class="input input-xs h-6 w-8 px-1 text-center"
                    value={String(unit.picked)}
                    reads={quantity('count', 'How many', [0, 16], (count) => pick(unit, count))}
                  /></span
                >
              {/if}
            </label>
          </th>
          <td class={`px-2 text-right ${all ? 'text-flash font-bold' : ''}`}
            >{all ? 'all' : `${unit.covers}/${board.columns.length}`}</td
          >
          {#each board.columns as column, i (i)}
            {@const { unit, at } = drawn!.cell(row, i)}
            {@const cells = board.cells[i]!}
            {@const word = cells.word[at]!}
            {@const spare = cells.spare[at]!}
            {@const warning = column.warnings[cells.method[at]!]}
            <td class="cell">
              {#if spare === null}
                <abbr class="text-quiet no-underline" title="cannot be used">–</abbr>
              {:else}
                {@const figure = word === 'too_bright' ? 'bright' : signed(spare)}
                <button
                  type="button"
                  class={word === 'reaches' ? 'text-flash' : word === 'on_the_line' ? '' : 'text-short'}
                  title={`${SIGNS[word]![1]}, ${column.methods[cells.method[at]!]}${warning ? `. ${warning}` : ''}`}
                  onclick={() =>
                    (looked = {
                      setup: column.setup,
                      light: column.light,
                      unit: unit.id,
                      name: column.name,
                      warning: warning ?? '',
                    })}><b>{SIGNS[word]![0]} {figure}</b>{' '}<small>{cells.dial[at]}</small></button
                >
              {/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
    <tfoot>
      <tr class="border-base-content border-t text-[0.78rem]">
        <th scope="row" class="unit text-left font-medium">Units that reach</th>
        <td></td>
        {#each board.columns as column, i (i)}
          <td class={`cell ${column.covered ? '' : 'text-short font-bold'}`}
            >{column.covered ? column.covered : 'none'}{board.picked.covered[i] ? ', picked' : ''}</td
          >
        {/each}
      </tr>
    </tfoot>
  </table>
</div>
{#if rows.length > most}
  <button type="button" class="btn btn-sm mt-2" onclick={() => (most += 24)}
    >{rows.length - most} more {rows.length - most === 1 ? 'unit' : 'units'}</button
  >
{/if}
<p class="text-quiet mt-1 text-[0.78rem]">
  ● reaches · ◐ on the line · ✕ short · ▶ too bright even at its lowest · – cannot be used. A cell opens its
  reasons.
</p>
{#if looked}<Chain {...looked} close={() => (looked = null)} />{/if}

<style>
  /* Fixed, so that another order asks for no new layout of every column. */
  .coverage {
    table-layout: fixed;
    width: max-content;
    min-width: 100%;
  }
  .coverage th,
  .coverage td {
    padding-block: 0.2rem;
    vertical-align: top;
  }
  .unit {
    position: sticky;
    left: 0;
    z-index: 1;
    width: 10.5rem;
    background: var(--color-base-100);
  }
  tr.bg-base-200 .unit {
    background: var(--color-base-200);
  }
  .setup {
    width: 4.7rem;
    padding-inline: 0.3rem;
    overflow-wrap: anywhere;
  }
  .cell {
    padding-inline: 0.3rem;
    white-space: nowrap;
  }
  .cell small {
    display: block;
    color: var(--color-quiet);
    font-size: 0.74rem;
  }
  .cell button {
    text-align: left;
    cursor: pointer;
    min-height: 24px;
  }
  .cell button:hover {
    text-decoration: underline;
  }
</style>
