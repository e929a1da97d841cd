<!-- The jump chart: every unit of the shelf on one ruler of stops, the one in hand first and labelled. -->
<script lang="ts">
  import { flushSync, untrack } from 'svelte'
  import type { Answer, Lanes, Preferences } from '../lib/api/client'
  import { about, count, fixed, grams, signed } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import { giveBack, take } from '../lib/takes'
  import Dialog from '../parts/Dialog.svelte'
  import Word from '../parts/Word.svelte'
  import LaneDetail from './LaneDetail.svelte'
  import LaneTrack from './LaneTrack.svelte'
  import { sightOf } from '../lib/sight'
  import { laneAt, LOW, rulerOf, sorted, type Lane, type Sort } from './ruler'

  type Props = { session: SetupSession; answer: Answer; lanes: Lanes }
  let { session, answer, lanes }: Props = $props()
  type Column = Preferences['columns'][number]

  const FIRST = 7
  const PAGE = 40
  const SHEET = 640 // an upright A4 sheet inside its margins [px]
  const HALF = 0.5 // of the sheet is the ruler's, whatever columns there are
  const ROOM = 150 // what it needs to be read at all [px]
  let measured = $state(460)
  let whole = $state(920)
  let most = $state(FIRST)
  let paper = $state(false)
  let why = $state(false)
  let choosing = $state(false)

  const COLUMNS: Record<Column, { head: string; width: string; title: string; sorts: [Sort, string][] }> = {
    dial: { head: 'dial', width: '5.6rem', title: 'What to dial', sorts: [['dial', 'dial']] },
    ready: { head: 'recycles', width: '4.2rem', title: 'Ready again in', sorts: [['ready', 'recycles']] },
    flashes: {
      head: 'flashes, batteries',
      width: '8.2rem',
      title: 'Flashes a charge, and batteries for the frames',
      sorts: [
        ['flashes', 'flashes'],
        ['packs', 'batteries'],
      ],
    },
    t01: { head: 't.1', width: '5rem', title: 'Flash duration at the dial', sorts: [['t01', 't.1']] },
    weight: { head: 'weight', width: '4.2rem', title: 'Weight', sorts: [['weight', 'weight']] },
    price: { head: 'price', width: '4.2rem', title: 'Price', sorts: [['price', 'price']] },
  }
  const ORDER = Object.keys(COLUMNS) as Column[]

  const sort = $derived<Sort>(person.preferences.sort)
  const chosen = $derived(ORDER.filter((one) => person.preferences.columns.includes(one)))
  /** As many of the columns chosen as leave the ruler room to be read; the one sorted by always, first chosen first. */
  const fitting = $derived.by(() => {
    const rem = parseFloat(getComputedStyle(document.documentElement).fontSize)
    const takes = (one: Column) => rem * parseFloat(COLUMNS[one].width) + 12
    const sorted = ORDER.filter((one) => COLUMNS[one].sorts.some(([key]) => key === sort))
    let left = whole - rem * (7.5 + 4.9) - 36 - sorted.reduce((sum, one) => sum + takes(one), 0)
    const more = chosen.filter((one) => {
      if (sorted.includes(one) || left - takes(one) < (one === 'dial' ? ROOM : Math.max(ROOM, whole * HALF)))
        return false
      left -= takes(one)
      return true
    })
    return ORDER.filter((one) => sorted.includes(one) || more.includes(one))
  })
  const columns = $derived(paper ? chosen.slice(0, 2) : fitting)
  const template = $derived(
    `minmax(6.5rem, 7.5rem) minmax(0, 1fr) 4.9rem ${columns.map((one) => COLUMNS[one].width).join(' ')}`,
  )
  const order = $derived(sorted(lanes, sort))
  const able = $derived(order.filter((i) => lanes.word[i] !== 'blocked'))
  const blocked = $derived(order.filter((i) => lanes.word[i] === 'blocked'))
  const inHand = $derived(lanes.id.indexOf(answer.unit))
  const listed = $derived([...able.filter((i) => i === inHand), ...able.filter((i) => i !== inHand)])
  const shown = $derived(paper && !session.partial ? listed : listed.slice(0, most))
  const reasons = $derived.by(() => {
    const counts: Record<string, number> = {}
    for (const i of blocked) counts[lanes.verdict[i]!] = (counts[lanes.verdict[i]!] ?? 0) + 1
    return Object.entries(counts)
      .map(([words, number]) => `${words} (${number})`)
      .join(', ')
  })
  /** What the sheet leaves the ruler beside name, verdict and columns. */
  const onPaper = $derived(
    columns.reduce(
      (left, one) => left - 16 * parseFloat(COLUMNS[one].width) - 12,
      SHEET - 16 * (9.5 + 5.8) - 36,
    ),
  )
  const width = $derived(paper ? Math.max(90, onPaper) : Math.max(110, measured))
  const ruler = $derived(rulerOf(answer.arcs, lanes, width))
  const ticks = $derived(ruler.ticks(Math.min(14, Math.round(width / 44))).filter(Number.isInteger))

  $effect(() => {
    session.sight = sightOf(
      shown.map((i) => lanes.id[i]!),
      lanes.id.length,
    )
  })

  $effect(() => {
    if (most > FIRST) untrack(() => session.hurry())
  })

  /** On paper there is no scrolling: every lane is drawn. */
  function unroll() {
    paper = true
    flushSync()
  }

  /** More lanes come by themselves once the end of a long list is scrolled near. */
  function near(node: HTMLElement) {
    const end = new IntersectionObserver(
      ([entry]) => entry!.isIntersecting && most > FIRST && (most += PAGE),
      {
        rootMargin: '600px',
      },
    )
    end.observe(node)
    return { destroy: () => end.disconnect() }
  }

  async function choose(change: Partial<Preferences>) {
    const wrong = await person.choose(change)
    if (wrong) history.tell(wrong)
  }

  function toggle(one: Column) {
    const rest = person.preferences.columns.filter((other) => other !== one)
    void choose({ columns: chosen.includes(one) ? rest : [...rest, one] })
  }

  function touch(id: string) {
    why = false
    if (answer.typical) return
    if (answer.taken && id === answer.unit) giveBack(session)
    else void take(session, id)
  }

  function hand(lane: Lane): string {
    if (lane.word === 'too_bright') return 'too bright'
    if (lane.word === 'on_the_line') return `${signed(lane.spare)} ± ${fixed(lane.sd, 1)}`
    return lane.word === 'short' ? `${signed(lane.spare)} short` : signed(lane.spare)
  }

  function cell(lane: Lane, column: Column): string {
    if (column === 'dial') return lane.dial
    if (column === 'ready') return lane.recycle
    if (column === 't01') return lane.t01.replace('t.1 ', '') || '–'
    if (column === 'weight') return grams(lane.weight_g)
    if (column === 'price')
      return lane.price === null ? '–' : `${person.preferences.currency}${count(lane.price)}`
    if (lane.mains) return 'mains'
    if (lane.flashes === null) return 'not stated'
    return `${about(lane.flashes)}${(lane.charges ?? 1) > 1 ? `, ${count(lane.charges!)} batt.` : ''}`
  }
</script>

<svelte:window onbeforeprint={unroll} onafterprint={() => (paper = false)} />

<section
  aria-labelledby="chart-title"
  class={answer.typical ? 'typical' : ''}
  bind:clientWidth={whole}
  style={`--lane: ${template}`}
>
  <div class="lane head text-quiet border-base-300 bg-base-100 items-end border-b text-[0.78rem]">
    <div class="flex items-end">
      <h2 id="chart-title" class="font-normal">Unit</h2>
      <Word word="needed" />
    </div>
    <div class="ruler h-6" bind:clientWidth={measured}>
      <svg {width} height="24" class="block overflow-visible" aria-hidden="true">
        {#each ticks as tick (tick)}
          <line x1={ruler(tick)} x2={ruler(tick)} y1="22" y2="24" class="stroke-quiet" />
          {#if ruler(tick) > 8 && ruler(tick) < width - 8}
            <text x={ruler(tick)} y="20" text-anchor="middle" font-size="11" class="fill-quiet"
              >{tick === 0 ? '0' : signed(tick, 0)}</text
            >
          {/if}
        {/each}
        <text
          x={Math.max(22, ruler(0))}
          y="8"
          text-anchor="middle"
          font-size="11.5"
          font-weight="700"
          class="fill-base-content">needed</text
        >
      </svg>
    </div>
    {@render heading('in hand', [['spare', 'in hand']], 'Stops in hand at full power')}
    {#each columns as one (one)}{@render heading(
        COLUMNS[one].head,
        COLUMNS[one].sorts,
        COLUMNS[one].title,
      )}{/each}
  </div>

  <div>
    <ol aria-label="Flash units">
      {#each shown as index (lanes.id[index])}
        {@const lane = laneAt(lanes, index)}
        {@const tall = index === inHand}
        <li class={tall ? 'bg-base-200/80 rounded' : ''}>
          <button
            type="button"
            class="lane hover:bg-base-content/5 w-full cursor-pointer items-center rounded text-left text-[0.87rem]"
            aria-pressed={tall && answer.taken}
            title={answer.typical
              ? 'A typical class, not a unit of yours'
              : tall && answer.taken
                ? 'Give it back: compare the shelf'
                : `Take ${lane.name} for this light`}
            onclick={() => touch(lane.id)}
          >
            <span class={`name min-w-0 leading-tight ${tall ? 'font-bold' : ''}`}>
              <bdi class="block truncate">{lane.name}</bdi>
              {#if tall}<span class="text-quiet block truncate text-xs font-normal"
                  >{answer.typical ? 'would do' : answer.taken ? 'in hand' : 'compared by'} · {lane.basis}</span
                >{/if}
            </span>
            <span class="ruler" style={`min-height: ${LOW.height}px`}>
              <LaneTrack arcs={answer.arcs} {lane} {index} {ruler} {width} {tall} />
            </span>
            <span
              class={`verdict font-bold whitespace-nowrap ${lane.word === 'short' || lane.word === 'too_bright' ? 'text-short' : 'text-flash'}`}
              >{hand(lane)}</span
            >
            {#each columns as one (one)}<span class="cell" data-column={one}>{cell(lane, one)}</span>{/each}
          </button>
          {#if tall}
            <p class="flex flex-wrap gap-x-4 px-1 pb-1 text-[0.82rem] leading-snug">
              <span
                ><span class="font-semibold">{lane.verdict}</span>, dial {lane.dial}{lane.dial_note
                  ? `: ${lane.dial_note}`
                  : ''}{!columns.includes('ready') && lane.recycle_s !== null
                  ? `, recycles in ${lane.recycle}`
                  : ''}</span
              >
              <button
                type="button"
                class="no-print link-button"
                aria-expanded={why}
                onclick={() => (why = !why)}>{why ? 'Hide the reasons' : 'Why: every gain and loss'}</button
              >
            </p>
            {#if why}<LaneDetail {session} unit={lane.id} />{/if}
          {/if}
        </li>
      {/each}
    </ol>
  </div>
  <div class="no-print text-quiet flex flex-wrap items-center gap-x-5 gap-y-1 pt-1.5 text-[0.82rem]">
    {#if listed.length > shown.length}
      <button type="button" class="btn btn-xs" use:near onclick={() => (most += PAGE)}
        >{count(listed.length - shown.length)} more {listed.length - shown.length === 1
          ? 'unit'
          : 'units'}</button
      >
    {/if}
    {#if blocked.length}
      <details class="min-w-0">
        <summary class="cursor-pointer py-0.5"
          >{count(blocked.length)} cannot be used: <bdi>{reasons}</bdi></summary
        >
        <ul class="pb-1">
          {#each blocked.slice(0, 60) as index (lanes.id[index])}
            <li>
              <bdi class="text-base-content font-semibold">{lanes.name[index]}</bdi>: {lanes.verdict[index]}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
    <button type="button" class="link-button ml-auto" onclick={() => (choosing = true)}
      >Columns and signs</button
    >
  </div>
</section>

{#snippet heading(words: string, sorts: [Sort, string][], title: string)}
  <span class={words === 'in hand' ? 'verdict' : 'cell'} {title}>
    {#each sorts as [key, said], i (key)}{i ? ', ' : ''}<button
        type="button"
        class={`link-button plain ${sort === key ? 'text-base-content font-bold' : ''}`}
        aria-pressed={sort === key}
        aria-label={`Sort by ${said}`}
        onclick={() => choose({ sort: key })}>{said}{sort === key ? ' ▾' : ''}</button
      >{/each}
  </span>
{/snippet}

{#if choosing}
  <Dialog title="Columns and signs" close={() => (choosing = false)}>
    <fieldset class="mb-4 grid grid-cols-2 gap-2">
      <legend class="text-quiet mb-1 text-sm">Columns of the chart</legend>
      {#each ORDER as one (one)}
        <label class="flex min-h-9 items-center gap-2"
          ><input
            type="checkbox"
            class="checkbox checkbox-sm"
            checked={chosen.includes(one)}
            onchange={() => toggle(one)}
          />
          {COLUMNS[one].title}</label
        >
      {/each}
    </fieldset>
    <div class="mb-4 flex items-center gap-3">
      <span class="text-quiet text-sm" aria-hidden="true">Sort by</span>
      <select
        class="select select-sm w-auto"
        aria-label="Sort by"
        value={sort}
        onchange={(event) => choose({ sort: event.currentTarget.value as Sort })}
      >
        <option value="spare">in hand</option>
        {#each ORDER.flatMap((one) => COLUMNS[one].sorts) as [key, said] (key)}
          <option value={key}>{said}</option>
        {/each}
      </select>
    </div>
    <ul class="space-y-1 text-sm">
      <li>○ what the unit gives bare at one metre, full power, on the right</li>
      <li>⌒ to the left, above the line: a loss</li>
      <li>
        <span class="text-flash">⌣</span> to the right, under the line: a gain;
        <span class="text-ambient">⌣</span> what the ambient adds
      </li>
      <li>
        <span class="text-flash">●</span> reaches · <span class="text-flash">◐</span> on the line ·
        <span class="text-short">◇</span>
        short · <span class="text-short">▶</span> too bright even at its lowest power
      </li>
      <li>the bar: one standard deviation either way</li>
    </ul>
    <button class="btn btn-primary mt-4" onclick={() => (choosing = false)}>Close</button>
  </Dialog>
{/if}

<style>
  .lane {
    display: grid;
    grid-template-columns: var(--lane);
    column-gap: 0.75rem;
    padding-inline: 0.25rem;
  }
  .typical li:not(.bg-base-200\/80) .ruler {
    opacity: 0.55;
  }
  .ruler {
    display: block;
    min-width: 0;
  }
  .verdict,
  .cell {
    text-align: right;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 639px) {
    .lane {
      grid-template-columns: minmax(0, 1fr) auto auto;
      row-gap: 0;
      padding-block: 0.25rem;
    }
    .lane .ruler {
      grid-column: 1 / -1;
      order: 3;
    }
    .cell:not([data-column='dial']) {
      display: none;
    }
    .name {
      background: inherit;
    }
  }
</style>
