<!-- The map: two measures of choice against each other; the best trade-offs joined, a table behind. -->
<script lang="ts">
  import { scaleLinear, scaleLog, scaleSqrt } from 'd3-scale'
  import { line } from 'd3-shape'
  import type { GlanceText } from '../lib/api/client'
  import { question } from '../lib/question.svelte'
  import { query, type Basis } from './basis'

  type Props = {
    basis: Basis
    columns: GlanceText['columns']
    ticked: string[]
    tick: (id: string, on: boolean) => void
  }
  let { basis, columns, ticked, tick }: Props = $props()
  type Key = GlanceText['columns'][number]['key']
  const HEIGHT = 430
  const LEFT = 64
  const LETTER = 6.4
  let width = $state(800)
  let x = $state<Key>('weight')
  let y = $state<Key>('light')
  let pale = $state(false)
  let at = $state(0)
  /** The unit in hand, by its id. */
  let held = $state('')

  const measures = $derived({ x, y, ...query(basis) })
  const asked = question(() => ({ at: '/api/shelf/map', params: { query: measures } }))
  const behind = question(() =>
    pale ? { at: '/api/shelf/map', params: { query: { ...measures, classes: true } } } : null,
  )
  const found = $derived(asked.found)
  const classes = $derived(behind.found)

  const STRAIGHT = ['light', 'hss']
  const all = $derived([...(found?.points ?? []), ...(classes?.points ?? [])])
  function scale(key: Key, low: number[], high: number[], range: [number, number]) {
    const from = Math.min(...low)
    const to = Math.max(...high)
    if (STRAIGHT.includes(key)) return scaleLinear([from, to], range).nice()
    if (from <= 0) return scaleSqrt([from, to * 1.05], range)
    return scaleLog([from / 1.1, to * 1.1], range)
  }
  const across = $derived(
    scale(
      x,
      all.map((one) => one.x_low),
      all.map((one) => one.x_high),
      [LEFT, width - 24],
    ),
  )
  const up = $derived(
    scale(
      y,
      all.map((one) => one.y_low),
      all.map((one) => one.y_high),
      [HEIGHT - 40, 20],
    ),
  )
  /** Names beside their points, the best first; one that would run into another, or over a point, is left to the table. */
  const named = $derived.by(() => {
    const boxes: [number, number, number, number][] = []
    const free = (box: [number, number, number, number]) =>
      box[0] >= LEFT &&
      box[1] <= width &&
      !boxes.some((one) => one[0] < box[1] && one[1] > box[0] && one[2] < box[3] && one[3] > box[2])
    const points = found?.points ?? []
    for (const one of points) {
      const [px, py] = [across(one.x), up(one.y)]
      boxes.push([px - 5, px + 5, py - 5, py + 5])
    }
    const out: Record<string, { x: number; y: number; anchor: 'start' | 'end' }> = {}
    const own = [...points].sort((a, b) => Number(b.best) - Number(a.best))
    for (const one of [...own, ...(classes?.points ?? [])]) {
      const [px, py] = [across(one.x), up(one.y)]
      const long = one.name.length * LETTER
      for (const [dx, dy] of [
        [9, 4],
        [9, -8],
        [9, 16],
        [-9, 4],
        [-9, -8],
        [-9, 16],
      ] as const) {
        const start = dx > 0 ? px + dx : px + dx - long
        const box: [number, number, number, number] = [start, start + long, py + dy - 11, py + dy + 3]
        if (!free(box)) continue
        boxes.push(box)
        out[one.id] = { x: px + dx, y: py + dy, anchor: dx > 0 ? 'start' : 'end' }
        break
      }
    }
    return out
  })
  const best = $derived(
    (found?.line ?? []).map((id) => found!.points.find((one) => one.id === id)!).filter(Boolean),
  )
  const path = $derived(
    line<(typeof best)[number]>(
      (one) => across(one.x),
      (one) => up(one.y),
    )(best) ?? '',
  )
  const ends = (axis: 'x' | 'y') => {
    const points = found?.points ?? []
    if (!points.length) return []
    const low = points.reduce((a, b) => (b[axis] < a[axis] ? b : a))
    const high = points.reduce((a, b) => (b[axis] > a[axis] ? b : a))
    return [low, high].map((one) => [one[axis], axis === 'x' ? one.x_words : one.y_words] as const)
  }

  const inHand = $derived(found?.points.find((one) => one.id === held))
  /** A first touch takes a unit in hand, a second one sets it beside the others, or takes it away again. */
  function touch(id: string) {
    if (held === id) tick(id, !ticked.includes(id))
    else held = id
  }

  function keys(event: KeyboardEvent) {
    const points = found?.points ?? []
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
    if (!step || !points.length) return
    event.preventDefault()
    at = (at + step + points.length) % points.length
    ;(event.currentTarget as HTMLElement).querySelectorAll<SVGElement>('[data-point]')[at]?.focus()
  }
</script>

<div class="mb-2 flex flex-wrap items-center gap-2 text-[0.88rem]">
  {#each [['up', 'Up'], ['along', 'Along']] as const as [way, said] (way)}
    <label class="flex items-center gap-2"
      >{said}
      <select
        class="select select-sm w-auto"
        aria-label={`Measure ${way}`}
        value={way === 'up' ? y : x}
        onchange={(event) => {
          const key = event.currentTarget.value as Key
          if (way === 'up') y = key
          else x = key
        }}
      >
        {#each columns as one (one.key)}<option value={one.key}>{one.title}</option>{/each}
      </select></label
    >
  {/each}
  <label class="flex min-h-9 items-center gap-2"
    ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={pale} /> typical classes behind</label
  >
</div>
{#if asked.wrong}<p class="text-short font-semibold" role="alert">{asked.wrong}</p>{/if}
{#if found}
  <p class="mb-1 text-[0.92rem] font-semibold" data-testid="map-says"><bdi>{found.says}</bdi></p>
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <div class="relative" bind:clientWidth={width} role="group" aria-label="Map of units" onkeydown={keys}>
    <svg {width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} data-print="wide" class="block">
      <line x1={LEFT} x2={width} y1={HEIGHT - 32} y2={HEIGHT - 32} class="stroke-base-300" />
      <line x1={LEFT - 8} x2={LEFT - 8} y1="8" y2={HEIGHT - 32} class="stroke-base-300" />
      {#each ends('x') as [value, said], i (i)}
        <text x={across(value)} y={HEIGHT - 14} text-anchor="middle" class="fill-quiet text-[11px]"
          >{said}</text
        >
      {/each}
      {#each ends('y') as [value, said], i (i)}
        <text x={LEFT - 12} y={up(value) + 4} text-anchor="end" class="fill-quiet text-[11px]">{said}</text>
      {/each}
      <text x={width - 8} y={HEIGHT - 1} text-anchor="end" class="fill-base-content text-[12px] font-semibold"
        >{found.x_title} →</text
      >
      <text x="2" y="12" class="fill-base-content text-[12px] font-semibold">↑ {found.y_title}</text>
      {#each classes?.points ?? [] as one (one.id)}
        {@const place = named[one.id]}
        <circle cx={across(one.x)} cy={up(one.y)} r="4" class="fill-quiet" fill-opacity="0.25" />
        {#if place}<text
            x={place.x}
            y={place.y}
            text-anchor={place.anchor}
            class="name fill-quiet text-[11px]">{one.name}</text
          >{/if}
      {/each}
      <path d={path} fill="none" class="stroke-flash" stroke-opacity="0.6" stroke-width="1.5" />
      {#each found.points as one, i (one.id)}
        {@const place = named[one.id]}
        <line
          x1={across(one.x)}
          x2={across(one.x)}
          y1={up(one.y_low)}
          y2={up(one.y_high)}
          class="stroke-flash"
          stroke-opacity="0.3"
          stroke-width="4"
        />
        <line
          x1={across(one.x_low)}
          x2={across(one.x_high)}
          y1={up(one.y)}
          y2={up(one.y)}
          class="stroke-flash"
          stroke-opacity="0.3"
          stroke-width="4"
        />
        {#if place}<text
            x={place.x}
            y={place.y}
            text-anchor={place.anchor}
            class="name fill-base-content text-[12px]">{one.name}</text
          >{/if}
        <circle
          cx={across(one.x)}
          cy={up(one.y)}
          r={ticked.includes(one.id) || one.id === held ? 8 : one.best ? 6 : 4.5}
          class={one.holding === 'owned' ? 'fill-flash stroke-base-100' : 'fill-base-100 stroke-flash'}
          stroke-width="2"
          stroke-dasharray={one.typical ? '2 2' : undefined}
          role="button"
          aria-pressed={one.id === held}
          aria-label={`${one.name}: ${found.y_title} ${one.y_words}, ${found.x_title} ${one.x_words}${one.best ? ', among the best' : ''}${ticked.includes(one.id) ? ', side by side' : ''}`}
          tabindex={i === at ? 0 : -1}
          data-point
          onclick={() => touch(one.id)}
          onkeyup={(event) => (event.key === 'Enter' || event.key === ' ') && touch(one.id)}
          ><title>{one.name}: {one.y_words}, {one.x_words}</title></circle
        >
      {/each}
    </svg>
  </div>
  {#if inHand}
    <p class="mt-1 flex flex-wrap items-center gap-x-3 text-[0.9rem]" data-testid="map-held" role="status">
      <span
        ><strong><bdi>{inHand.name}</bdi></strong>: {found.y_title}
        {inHand.y_words}, {found.x_title}
        {inHand.x_words}</span
      >
      <button type="button" class="btn btn-sm" onclick={() => touch(inHand.id)}
        >{ticked.includes(inHand.id) ? 'Take it away again' : 'Set it side by side'}</button
      >
    </p>
  {/if}
  <p class="text-quiet text-[0.8rem]">
    Filled: owned; ring: for hire or wanted; dashed: typical. A touch takes a unit in hand, a second one sets
    it side by side below.
  </p>
  <details class="text-[0.84rem]">
    <summary class="cursor-pointer py-1">As a table</summary>
    <table class="w-full max-w-2xl">
      <thead class="text-quiet text-left"
        ><tr
          ><th class="font-medium">Unit</th><th class="font-medium">{found.y_title}</th><th
            class="font-medium">{found.x_title}</th
          ></tr
        ></thead
      >
      <tbody>
        {#each found.points as one (one.id)}<tr class="border-base-300 border-t"
            ><th scope="row" class="text-left font-medium"
              ><bdi>{one.name}</bdi>{one.best ? ' (best)' : ''}</th
            ><td>{one.y_words}</td><td>{one.x_words}</td></tr
          >{/each}
      </tbody>
    </table>
  </details>
{/if}

<style>
  .name {
    paint-order: stroke;
    stroke: var(--color-base-100);
    stroke-width: 4px;
  }
</style>
