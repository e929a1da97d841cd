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

const BASE = 31
const LETTER = 5.6

/** One lane's hops: losses leap over the line to the left, gains swing under it to the right. */
export function trackOf(arcs: Arc[], lane: Lane, index: number, ruler: Ruler): Track {
  let at = arcs[0] ? sizeOf(arcs[0], index) : 0
  const takeOff = ruler(at)
  const hops: Hop[] = []
  const taken: { low: number; high: number; gain: boolean }[] = []

  /** The longest wording that has room between the labels already set on its side of the line; none where none has. */
  function room(words: string[], middle: number, gain: boolean): string {
    for (const text of words) {
      const half = (text.length * LETTER) / 2 + 2
      const box = { low: middle - half, high: middle + half, gain }
      if (taken.some((one) => one.gain === gain && one.low < box.high && one.high > box.low)) continue
      taken.push(box)
      return text
    }
    return ''
  }

  for (const arc of arcs.slice(1)) {
    const size = sizeOf(arc, index)
    if (Math.abs(size) < 0.005) continue
    const from = ruler(at)
    at += size
    const to = ruler(at)
    const wide = Math.abs(to - from)
    const height = Math.min(17, 5 + wide * 0.2) * (size > 0 ? -0.5 : 1)
    const middle = (from + to) / 2
    const full = `${arc.cause} ${signed(size)}`
    const fits = [full.length * LETTER < wide + 6 ? full : '', wide > 23 ? signed(size) : ''].filter(Boolean)
    const label = room(fits, middle, size > 0)
    hops.push({
      effect: arc.effect,
      gain: size > 0,
      ambient: arc.effect === 'ambient',
      path: `M${from} ${BASE}C${from + (to - from) * 0.15} ${BASE - height * 1.33} ${to - (to - from) * 0.15} ${BASE - height * 1.33} ${to} ${BASE}`,
      label,
      labelX: middle,
      labelY: size > 0 ? BASE - height + 10 : BASE - height - 3,
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

export type Sort = 'spare' | 'ready' | 'flashes' | 'packs' | 'weight' | 'price'

/** Lane indices in the person's order; unstated figures last, units that cannot be used at the very end. */
export function sorted(lanes: Lanes, sort: Sort): number[] {
  const figure = (i: number): number => {
    if (sort === 'spare') return -lanes.spare[i]!
    if (sort === 'ready') return lanes.recycle_s[i] ?? Infinity
    if (sort === 'flashes') return lanes.mains[i] ? -Infinity : -(lanes.flashes[i] ?? -Infinity)
    if (sort === 'packs') return lanes.mains[i] ? 0 : (lanes.charges[i] ?? Infinity)
    return (sort === 'weight' ? lanes.weight_g[i] : lanes.price[i]) ?? Infinity
  }
  const blocked = (i: number) => Number(lanes.word[i] === 'blocked')
  return lanes.id
    .map((_, i) => i)
    .sort((a, b) => blocked(a) - blocked(b) || figure(a) - figure(b) || lanes.spare[b]! - lanes.spare[a]!)
}
