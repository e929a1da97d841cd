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
  hops: Hop[]
  landing: number
  low: number
  high: number
}

/** One unit on the chart: a row of the answer's columns. */
export type Lane = { [Column in keyof Lanes]: Lanes[Column][number] }

export function laneAt(lanes: Lanes, index: number): Lane {
  const lane: Record<string, unknown> = {}
  for (const column in lanes) lane[column] = lanes[column as keyof Lanes][index]
  return lane as Lane
}

/** An arc's size for one unit: where all agree, it is given once. */
export function sizeOf(arc: Arc, index: number): number {
  return (arc.stops.length === 1 ? arc.stops[0] : arc.stops[index]) ?? 0
}

/** From the farthest landing to the farthest take-off of all lanes that can; 0 always on it. */
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
    .domain([low - 0.4, high + 0.4])
    .range([0, width])
}

const LETTER = 6

/** Heights of a lane: the one in hand is tall and has every arc labelled, the others are low and quiet. */
export const TALL = { height: 98, base: 62, arc: 24 }
export const LOW = { height: 30, base: 20, arc: 13 }

/** One lane's hops: losses leap over the line to the left, gains swing under it to the right. */
export function trackOf(arcs: Arc[], lane: Lane, index: number, ruler: Ruler, tall: boolean): Track {
  const { base: BASE, arc: MOST } = tall ? TALL : LOW
  let at = arcs[0] ? sizeOf(arcs[0], index) : 0
  const takeOff = ruler(at)
  const hops: Hop[] = []
  const taken: { low: number; high: number; row: number }[] = []
  const [, width] = ruler.range() as [number, number]

  /** A free row for a label: the nearest to its arc of three above (losses) or of two under (gains) the line. */
  function rowFor(middle: number, letters: number, gain: boolean): number | null {
    const half = (letters * LETTER) / 2 + 3
    for (let turn = 0; turn < (gain ? 2 : 3); turn++) {
      const row = (gain ? 1 : -1) * (turn + 1)
      const box = { low: middle - half, high: middle + half, row }
      if (taken.some((one) => one.row === row && one.low < box.high && one.high > box.low)) continue
      taken.push(box)
      return row
    }
    return null
  }

  for (const arc of arcs.slice(1)) {
    const size = sizeOf(arc, index)
    if (Math.abs(size) < 0.005) continue
    const from = ruler(at)
    at += size
    const to = ruler(at)
    const wide = Math.abs(to - from)
    const height = Math.min(MOST, MOST * 0.3 + wide * 0.2) * (size > 0 ? -0.5 : 1)
    const middle = (from + to) / 2
    const full = `${arc.cause} ${signed(size)}`
    const half = (full.length * LETTER) / 2
    const labelX = Math.min(width - half, Math.max(half, middle))
    const row = tall && Math.abs(size) >= 0.05 ? rowFor(labelX, full.length, size > 0) : null
    hops.push({
      effect: arc.effect,
      gain: size > 0,
      ambient: arc.effect === 'ambient',
      path: `M${from} ${BASE}C${from + (to - from) * 0.15} ${BASE - height * 1.33} ${to - (to - from) * 0.15} ${BASE - height * 1.33} ${to} ${BASE}`,
      label: row === null ? '' : full,
      labelX,
      labelY: row === null ? 0 : row > 0 ? BASE + 8 + row * 11 : BASE - MOST - 6 - (-row - 1) * 11.5,
      title: full,
    })
  }
  return {
    takeOff,
    hops,
    landing: ruler(lane.spare),
    low: ruler(lane.spare - lane.sd),
    high: ruler(lane.spare + lane.sd),
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
