import { expect, test } from 'vitest'
import type { Arc, Lanes } from '../lib/api/client'
import { laneAt, rulerOf, sizeOf, sorted, trackOf } from './ruler'

const arcs: Arc[] = [
  { effect: 'rated_output', cause: 'at 1 m', stops: [6, 3, 12] },
  { effect: 'distance', cause: '2 m', stops: [-2] },
  { effect: 'ambient', cause: 'ambient', stops: [1] },
]
const lanes = {
  id: ['a', 'b', 'c'],
  name: ['a', 'b', 'c'],
  spare: [5, 2, 9],
  sd: [0.5, 0.5, 0.5],
  word: ['reaches', 'reaches', 'blocked'],
  mains: [false, false, false],
  recycle_s: [1, null, 0.1],
} as Partial<Lanes> as Lanes

test('all lanes share one ruler that holds zero, every take-off and every landing of those that can be used', () => {
  const ruler = rulerOf(arcs, lanes, 500)
  const [low, high] = ruler.domain()
  expect(low).toBeLessThan(0)
  expect(high).toBeGreaterThan(6)
  expect(high).toBeLessThan(12)
  expect(ruler(6) - ruler(4)).toBeCloseTo(ruler(3) - ruler(1))
})

test('a size that all units share is given once', () => {
  expect([sizeOf(arcs[0]!, 1), sizeOf(arcs[1]!, 1)]).toEqual([3, -2])
})

test('a lane goes from its take-off to its landing', () => {
  const ruler = rulerOf(arcs, lanes, 500)
  const track = trackOf(arcs, laneAt(lanes, 1), 1, ruler, false)
  expect(track.hops.map((hop) => hop.gain)).toEqual([false, true])
  expect(track.takeOff).toBeCloseTo(ruler(3))
  expect(track.landing).toBeCloseTo(ruler(2))
})

test('units without the figure sort last, units that cannot be used after them', () => {
  expect(sorted(lanes, 'ready').map((i) => lanes.name[i])).toEqual(['a', 'b', 'c'])
})

test('the lane in hand has every arc labelled, in rows that do not run into each other', () => {
  const many: Arc[] = [
    arcs[0]!,
    ...[1, 2, 3].map((i) => ({ effect: 'layer', cause: `layer ${i}`, stops: [-0.2] })),
  ]
  const { hops } = trackOf(many, laneAt(lanes, 0), 0, rulerOf(many, lanes, 500), true)
  expect(hops.map((hop) => hop.label)).toEqual(['layer 1 −0.2', 'layer 2 −0.2', 'layer 3 −0.2'])
  expect(new Set(hops.map((hop) => hop.labelY)).size).toBe(3)
})
