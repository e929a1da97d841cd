/** Layout of the jump chart: one scale for all lanes, and where arcs and their labels go. No light is computed here. */
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import type { Arc, Lanes } from '../lib/api/client'
import { signed } from '../lib/figures'

export type Ruler = ScaleLinear<number, number>

export interface Hop {
  effect: string
  path: string
  gain: boolean
  label: string
  labelX: number
  labelY: number
  title: string
  ambient: boolean
}

export interface Track {
  takeOff: number
  /** What it gives bare at one metre, rounded so that all figures add up. */
  start: number
  hops: Hop[]
  landing: number
  low: number
  high: number
  height: number
  base: number
}

/** One unit on the chart: a row of the answer's columns. */
export type Lane = { [Column in keyof Lanes]: Lanes[Column][number] }

export function laneAt(lanes: Lanes, index: number): Lane {
  const lane: Record<string, unknown> = {}
  for (const column in lanes) lane[column] = lanes[column as keyof Lanes][index]
  return lane as Lane
}

const END = 0.5 // stops: where a ruler may end
const MARGIN = 0.3 // stops beyond what is on it, at the least

/** An arc's size for one unit: where all agree, it is given once. */
export function sizeOf(arc: Arc, index: number): number {
  return (arc.stops.length === 1 ? arc.stops[0] : arc.stops[index]) ?? 0
}

/**
 * From the farthest landing to the farthest take-off of all lanes that can; 0 always on it. It ends at half stops, so that
 * it stands still while a figure is nudged, and only what the figure moves is seen to move.
 */
export function rulerOf(arcs: Arc[], lanes: Lanes, width: number): Ruler {
  let low = -1
  let high = 1
  for (let i = 0; i < lanes.id.length; i++) {
    if (lanes.word[i] === 'blocked') continue
    let at = 0
    for (const arc of arcs) {
      at += sizeOf(arc, i)
      low = Math.min(low, at)
      high = Math.max(high, at)
    }
    low = Math.min(low, lanes.spare[i]! - lanes.sd[i]!)
  }
  return scaleLinear()
    .domain([Math.floor((low - MARGIN) / END) * END, Math.ceil((high + MARGIN) / END) * END])
    .range([0, width])
}

const LETTER = 6
const ROW = 11 // from one row of names to the next [px]
const ROWS = 8 // of names, over and under the line, at the most
const TOUCH = 1e-6 // [px]: what is beside another touches it, but for rounding
const NAMED = 0.05 // stops: what is smaller is not named

/** Heights of a lane: the one in hand has its arcs named, and is as tall as their names need; the others are low. */
export const TALL = { arc: 26, least: 84 }
export const LOW = { height: 27, base: 18, arc: 12 }

/** Figures rounded to tenths so that they add up to what their sum is rounded to. */
export function tenths(sizes: number[], sum: number): number[] {
  const down = sizes.map((size) => Math.floor(size * 10 + 1e-9))
  let left = Math.round(sum * 10) - down.reduce((all, one) => all + one, 0)
  const order = sizes
    .map((size, i) => [size * 10 - down[i]!, i] as const)
    .sort(([a], [b]) => b - a)
    .map(([, i]) => i)
  for (const i of order) {
    if (left <= 0) break
    down[i]! += 1
    left -= 1
  }
  return down.map((one) => one / 10)
}

interface Box {
  low: number
  high: number
  row: number
}

/**
 * Where names go: for each a row over (losses) or under (gains) the line and a place along it, the largest jump first;
 * none overlaps another, or what stands on the line (`kept`).
 */
function places(
  wanted: { middle: number; letters: number; gain: boolean; size: number }[],
  width: number,
  kept: Box,
) {
  const taken: Box[] = []
  const found: ({ x: number; row: number } | null)[] = wanted.map(() => null)
  const order = wanted.map((_, i) => i).sort((a, b) => Math.abs(wanted[b]!.size) - Math.abs(wanted[a]!.size))
  const meets = (one: Box, low: number, high: number) => one.low < high - TOUCH && one.high > low + TOUCH
  for (const i of order) {
    const { middle, letters, gain, size } = wanted[i]!
    if (Math.abs(size) < NAMED) continue
    const half = (letters * LETTER) / 2 + 3
    const inside = (x: number) => Math.min(width - half, Math.max(half, x))
    const here = inside(middle)
    // over its jump, or, where the needed line runs through that, beside the line
    const along = meets(kept, here - half, here + half)
      ? [kept.high + half, kept.low - half].map(inside)
      : [here]
    for (let turn = 1; turn <= ROWS && !found[i]; turn++) {
      const row = gain ? turn : -turn
      const x = along.find(
        (one) =>
          !meets(kept, one - half, one + half) &&
          !taken.some((other) => other.row === row && meets(other, one - half, one + half)),
      )
      if (x === undefined) continue
      taken.push({ low: x - half, high: x + half, row })
      found[i] = { x, row }
    }
  }
  return found
}

/** One lane's hops: losses leap over the line to the left, gains swing under it to the right. */
export function trackOf(arcs: Arc[], lane: Lane, index: number, ruler: Ruler, tall: boolean): Track {
  const MOST = tall ? TALL.arc : LOW.arc
  const start = arcs[0] ? sizeOf(arcs[0], index) : 0
  const jumps = arcs
    .slice(1)
    .map((arc) => ({ arc, size: sizeOf(arc, index) }))
    .filter(({ size }) => Math.abs(size) >= 0.005)
  const [, width] = ruler.range() as [number, number]
  const rounded = tenths([start, ...jumps.map(({ size }) => size)], lane.spare)
  let at = start
  const ways = jumps.map(({ arc, size }, i) => {
    const from = ruler(at)
    at += size
    const to = ruler(at)
    return { arc, size, from, to, said: `${arc.cause} ${signed(rounded[i + 1]!)}` }
  })
  const line = ruler(0)
  const kept = { low: line - 4, high: line + 4, row: 0 }
  const wanted = ways.map(({ size, from, to, said }) => ({
    middle: (from + to) / 2,
    letters: said.length,
    gain: size > 0,
    size,
  }))
  const named = tall ? places(wanted, width, kept) : wanted.map(() => null)
  const over = Math.max(0, ...named.map((one) => -(one?.row ?? 0)))
  const under = Math.max(0, ...named.map((one) => one?.row ?? 0))
  const height = tall ? Math.max(TALL.least, over * ROW + MOST + 5 + under * ROW + 17) : LOW.height
  const base = tall ? Math.max(over * ROW + MOST + 5, height - under * ROW - 17) : LOW.base
  const hops = ways.map(({ arc, size, from, to, said }, i) => {
    const wide = Math.abs(to - from)
    const tip = Math.min(MOST, MOST * 0.3 + wide * 0.2) * (size > 0 ? -0.5 : 1)
    const place = named[i]
    return {
      effect: arc.effect,
      gain: size > 0,
      ambient: arc.effect === 'ambient',
      path: `M${from} ${base}C${from + (to - from) * 0.15} ${base - tip * 1.33} ${to - (to - from) * 0.15} ${base - tip * 1.33} ${to} ${base}`,
      label: place ? said : '',
      labelX: place?.x ?? 0,
      labelY: !place
        ? 0
        : place.row > 0
          ? base + TALL.arc / 2 + place.row * ROW - 2
          : base - MOST - 6 - (-place.row - 1) * ROW,
      title: said,
    }
  })
  return {
    takeOff: ruler(start),
    start: rounded[0]!,
    hops,
    landing: ruler(lane.spare),
    low: ruler(lane.spare - lane.sd),
    high: ruler(lane.spare + lane.sd),
    height,
    base,
  }
}

export type Sort = 'spare' | 'dial' | 'ready' | 'flashes' | 'packs' | 't01' | 'weight' | 'price'

/** Lane indices in the person's order: unstated figures last, units that cannot be used at the very end. */
export function sorted(lanes: Lanes, sort: Sort): number[] {
  const figure = (i: number): number => {
    if (sort === 'spare') return -lanes.spare[i]!
    if (sort === 'dial') return -lanes.below_full[i]!
    if (sort === 'ready') return lanes.recycle_s[i] ?? Infinity
    if (sort === 'flashes') return lanes.mains[i] ? -Infinity : -(lanes.flashes[i] ?? -Infinity)
    if (sort === 'packs') return lanes.mains[i] ? 0 : (lanes.charges[i] ?? Infinity)
    if (sort === 't01') return lanes.t01_s[i] ?? Infinity
    return (sort === 'weight' ? lanes.weight_g[i] : lanes.price[i]) ?? Infinity
  }
  const blocked = (i: number) => Number(lanes.word[i] === 'blocked')
  return lanes.id
    .map((_, i) => i)
    .sort((a, b) => blocked(a) - blocked(b) || figure(a) - figure(b) || lanes.spare[b]! - lanes.spare[a]!)
}
