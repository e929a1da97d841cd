<!-- The shelf at a glance: a line a unit, a bar a measure, sorted by heading; on a phone a card a unit. -->
<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy'
  import Pencil from '@lucide/svelte/icons/pencil'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { GlanceText, UnitLine } from '../lib/api/client'
  import { fixed } from '../lib/figures'
  import Word from '../parts/Word.svelte'

  type Props = {
    glance: GlanceText
    units: UnitLine[]
    find: string
    ticked: string[]
    tick: (id: string, on: boolean) => void
    edit: (unit: UnitLine) => void
    duplicate: (unit: UnitLine) => void
    remove: (unit: UnitLine) => void
  }
  let { glance, units, find, ticked, tick, edit, duplicate, remove }: Props = $props()
  const FIRST = 40
  const PAGE = 100
  const MEANS: Record<string, string> = {
    light: 'guide',
    ws: 'ws',
    hss: 'hss',
    recycle: 'recycle',
    t01: 't1',
  }
  const HOLDINGS: Record<string, string> = { owned: '', hire: 'for hire', wanted: 'wanted' }
  let sort = $state('holding')
  let most = $state(FIRST)

  const line = $derived(new Map(units.map((one) => [one.id, one])))
  const column = $derived(glance.columns.find((one) => one.key === sort))
  const RANK = ['owned', 'hire', 'wanted']
  const order = $derived.by(() => {
    const words = find.trim().toLowerCase()
    const all = glance.ids.map((_, i) => i).filter((i) => glance.names[i]!.toLowerCase().includes(words))
    if (!column)
      return all.sort((a, b) => RANK.indexOf(glance.holdings[a]!) - RANK.indexOf(glance.holdings[b]!))
    const better = column.more_is_better ? -1 : 1
    const figure = (i: number) => {
      const value = column.figures[i]
      return value === null || value === undefined ? Infinity : better * value
    }
    return all.sort((a, b) => figure(a) - figure(b) || glance.names[a]!.localeCompare(glance.names[b]!))
  })
  const shown = $derived(order.slice(0, most))
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="overflow-x-auto" role="region" aria-label="Units" tabindex="0">
  <table class="glance w-full text-[0.84rem]">
    <thead class="text-quiet text-left">
      <tr>
        <th class="w-6"><span class="sr-only">Compare</span></th>
        <th scope="col" aria-sort={sort === 'holding' ? 'ascending' : undefined}
          ><button
            type="button"
            class="link-button plain"
            aria-label="Unit: sort by how it is held"
            aria-pressed={sort === 'holding'}
            onclick={() => (sort = 'holding')}>Unit</button
          ></th
        >
        {#each glance.columns as one (one.key)}
          <th
            scope="col"
            class="pr-3"
            aria-sort={sort === one.key ? (one.more_is_better ? 'descending' : 'ascending') : undefined}
            ><button
              type="button"
              class={`link-button plain ${sort === one.key ? 'text-base-content font-bold' : ''}`}
              aria-label={`Sort by ${one.title}`}
              aria-pressed={sort === one.key}
              onclick={() => (sort = one.key)}>{one.title}{sort === one.key ? ' ▾' : ''}</button
            >{#if MEANS[one.key]}<Word word={MEANS[one.key]!} />{/if}</th
          >
        {/each}
        <th><span class="sr-only">Actions</span></th>
      </tr>
    </thead>
    <tbody>
      {#each shown as i, place (place)}
        {@const unit = line.get(glance.ids[i]!)}
        <tr class="border-base-300 border-t">
          <td data-part="tick"
            ><input
              type="checkbox"
              class="checkbox checkbox-sm"
              aria-label={`Compare ${glance.names[i]}`}
              checked={ticked.includes(glance.ids[i]!)}
              onchange={(event) => tick(glance.ids[i]!, event.currentTarget.checked)}
            /></td
          >
          <th scope="row" class="py-1 pr-3 text-left font-semibold"
            ><bdi>{glance.names[i]}</bdi><span class="text-quiet block text-[0.76rem] font-normal"
              >{[HOLDINGS[glance.holdings[i]!], `${glance.known[i]}, ± ${fixed(glance.sd[i]!, 1)}`]
                .filter(Boolean)
                .join(' · ')}{#if glance.taught[i]}<strong class="text-base-content block"
                  >{glance.taught[i]}</strong
                >{/if}</span
            ></th
          >
          {#each glance.columns as one (one.key)}
            <td class="cell py-1 pr-3" data-title={one.title}>
              <span class={`block whitespace-nowrap ${one.key === 'light' ? 'font-bold' : ''}`}
                >{one.words[i]}</span
              >
              <span
                class="bar"
                style={`--bar-at: ${one.figures[i] === null ? 0 : one.bars[i]}`}
                data-key={one.key}
              ></span>
            </td>
          {/each}
          <td class="whitespace-nowrap" data-part="actions">
            {#if unit}
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Edit ${unit.name}`}
                onclick={() => edit(unit)}><Pencil size={15} /></button
              >
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Duplicate ${unit.name}`}
                onclick={() => duplicate(unit)}><Copy size={15} /></button
              >
              <button
                class="btn btn-sm btn-ghost btn-square"
                aria-label={`Delete ${unit.name}`}
                onclick={() => remove(unit)}><Trash2 size={15} /></button
              >
            {/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if order.length > most}<button class="btn btn-sm mt-3" onclick={() => (most += PAGE)}
    >Show more of {order.length}</button
  >{/if}

<style>
  .bar {
    display: block;
    height: 4px;
    width: 100%;
    min-width: 3.2rem;
    margin-top: 2px;
    border-radius: 2px;
    background: linear-gradient(
      to right,
      var(--bar-of, var(--color-quiet)) calc(var(--bar-at) * 100%),
      var(--color-base-200) calc(var(--bar-at) * 100%)
    );
  }
  .bar[data-key='light'],
  .bar[data-key='hss'] {
    --bar-of: var(--color-flash);
  }
  tr {
    content-visibility: auto;
    contain-intrinsic-size: auto 44px;
  }
  @media (max-width: 639px) {
    .glance,
    .glance tbody,
    .glance tr {
      display: block;
    }
    .glance thead {
      position: absolute;
      clip-path: inset(50%);
    }
    .glance tr {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr) auto;
      column-gap: 0.6rem;
      padding-block: 0.5rem;
    }
    .glance tr > th {
      grid-column: 2;
    }
    .glance td[data-part='actions'] {
      grid-column: 3;
      grid-row: 1;
    }
    .glance .cell {
      grid-column: 1 / -1;
      display: grid;
      grid-template-columns: 9rem 6rem minmax(0, 1fr);
      align-items: center;
      padding-block: 0.1rem;
    }
    .glance .cell::before {
      content: attr(data-title);
      color: var(--color-quiet);
    }
  }
</style>
