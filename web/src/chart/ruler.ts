/** Layout of the jump chart: one scale for all lanes, and where arcs and their labels go. No light is computed here. */
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import type { Arcs, Lane } from '../lib/api/client'
import { signed } from '../lib/figures'

export type Ruler = ScaleLinear<number, number>

export interface Hop {
  key: string
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

/** From the farthest landing to the farthest take-off of all lanes that can; 0 always on it. */
export function rulerOf(arcs: Arcs[], lanes: Lane[], width: number): Ruler {
  let low = -1
  let high = 1
  lanes.forEach((lane, i) => {
    if (lane.word === 'cannot') return
    let at = 0
    for (const arc of arcs) {
      at += arc.stops[i] ?? 0
      if (arc.key === 'take_off') high = Math.max(high, at)
      low = Math.min(low, at)
      high = Math.max(high, at)
    }
    low = Math.min(low, lane.spare - lane.sd)
  })
  return scaleLinear()
    .domain([low - 0.4, high + 0.4])
    .range([0, width])
}

const BASE = 31
const LETTER = 5.6

/** One lane's hops: losses leap over the line to the left, gains swing under it to the right. */
export function trackOf(arcs: Arcs[], lane: Lane, index: number, ruler: Ruler): Track {
  let at = arcs[0]?.stops[index] ?? 0
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
    const size = arc.stops[index] ?? 0
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
      key: arc.key,
      gain: size > 0,
      ambient: arc.key === 'ambient',
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

/** Lane indices in the person's order; unstated figures last, units that cannot at the very end. */
export function sorted(lanes: Lane[], sort: Sort): number[] {
  const figure = (lane: Lane): number => {
    if (sort === 'spare') return -lane.spare
    if (sort === 'ready') return lane.ready_s ?? Infinity
    if (sort === 'flashes') return lane.mains ? -Infinity : -(lane.flashes ?? -Infinity)
    if (sort === 'packs') return lane.mains ? 0 : (lane.packs ?? Infinity)
    return (sort === 'weight' ? lane.weight_g : lane.price) ?? Infinity
  }
  return lanes
    .map((_, i) => i)
    .sort((a, b) => {
      const one = lanes[a]!
      const two = lanes[b]!
      const able = Number(one.word === 'cannot') - Number(two.word === 'cannot')
      return able || figure(one) - figure(two) || two.spare - one.spare
    })
}
