import { expect, test } from 'vitest'
import type { Arc, Lanes } from '../lib/api/client'
import { laneAt, rulerOf, sizeOf, sorted, tenths, trackOf } from './ruler'

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

test('the ruler stands still while a figure is nudged, and all that is on it stays on it', () => {
  const told = new Set<string>()
  for (let nudge = 0; nudge < 40; nudge++) {
    const by = -2 - nudge / 20
    const here = [arcs[0]!, { ...arcs[1]!, stops: [by] }, arcs[2]!]
    const spare = [6 + by + 1, 3 + by + 1, 9]
    const [low, high] = rulerOf(here, { ...lanes, spare } as Lanes, 500).domain() as [number, number]
    expect(low).toBeLessThan(Math.min(0, 3 + by, spare[1]! - 0.5))
    expect(high).toBeGreaterThan(6)
    told.add(`${low} ${high}`)
  }
  expect(told.size).toBeLessThanOrEqual(5) // over two stops of nudges
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

const wide = (hop: { label: string }) => hop.label.length * 6

test.each([300, 316, 325, 351, 420, 777])(
  'at %i px every jump is named, none over another or the line',
  (width) => {
    for (const sizes of [
      [-0.2, -0.2, -0.2],
      [-2, -0.4, -1.3, 0.5, 0.4, -4.6, -0.1, 0.2],
      [-1.7, -0.4, -0.9, -0.1, -5, -0.2, 0.2],
      [-9, 8, -9, 8],
    ]) {
      const many: Arc[] = [
        { ...arcs[0]!, stops: [1.4 - sizes.reduce((sum, one) => sum + one, 0)] },
        ...sizes.map((size, i) => ({ effect: 'layer', cause: `layer ${i}`, stops: [size] })),
      ]
      const ruler = rulerOf(many, lanes, width)
      const { hops } = trackOf(many, laneAt(lanes, 0), 0, ruler, true)
      for (const [i, hop] of hops.entries()) {
        expect(hop.label).not.toBe('')
        const half = wide(hop) / 2
        expect(hop.labelX - half < ruler(0) && hop.labelX + half > ruler(0)).toBe(false)
        for (const other of hops.slice(i + 1))
          if (other.labelY === hop.labelY)
            expect(Math.abs(other.labelX - hop.labelX)).toBeGreaterThanOrEqual(half + wide(other) / 2)
      }
    }
  },
)

test('what the chart names adds up to the landing', () => {
  for (const [sizes, sum] of [
    [[6.27, -2.04, -1.35, 0.16], 3.04],
    [[3.33, -1.11, -1.11, -1.11], 0],
    [[-0.04, -0.04, -0.04], -0.12],
  ] as [number[], number][]) {
    const said = tenths(sizes, sum)
    expect(said.reduce((all, one) => all + one, 0)).toBeCloseTo(Math.round(sum * 10) / 10)
    said.forEach((one, i) => expect(Math.abs(one - sizes[i]!)).toBeLessThanOrEqual(0.1 + 1e-9))
  }
})
