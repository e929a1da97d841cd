import { expect, test } from 'vitest'
import type { Arcs, Lane } from '../lib/api/client'
import { rulerOf, sorted, trackOf } from './ruler'

const lane = (name: string, spare: number, more: Partial<Lane> = {}): Lane =>
  ({ id: name, name, spare, sd: 0.5, word: 'reaches', mains: false, ready_s: 1, ...more }) as Lane
const arcs: Arcs[] = [
  { key: 'take_off', cause: 'at 1 m', stops: [6, 3], sd: [0, 0] },
  { key: 'distance', cause: '2 m', stops: [-2, -2], sd: [0, 0] },
  { key: 'ambient', cause: 'ambient', stops: [1, 1], sd: [0, 0] },
]
const lanes = [lane('a', 5), lane('b', 2, { ready_s: null })]

test('all lanes share one ruler that holds zero, every take-off and every landing', () => {
  const ruler = rulerOf(arcs, lanes, 500)
  const [low, high] = ruler.domain()
  expect(low).toBeLessThan(0)
  expect(high).toBeGreaterThan(6)
  expect(ruler(6) - ruler(4)).toBeCloseTo(ruler(3) - ruler(1))
})

test('a lane hops from its take-off to its landing', () => {
  const ruler = rulerOf(arcs, lanes, 500)
  const track = trackOf(arcs, lanes[0]!, 0, ruler)
  expect(track.hops.map((hop) => hop.gain)).toEqual([false, true])
  expect(track.takeOff).toBeCloseTo(ruler(6))
  expect(track.landing).toBeCloseTo(ruler(5))
})

test('units without the figure sort last, units that cannot after them', () => {
  const all = [...lanes, lane('c', 9, { word: 'cannot' })]
  expect(sorted(all, 'ready').map((i) => all[i]!.name)).toEqual(['a', 'b', 'c'])
})
