import { readFileSync, writeFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { shown } from './fields'
import {
  about,
  clockMinutes,
  count,
  dayOf,
  rangeOf,
  sayClock,
  sayDay,
  sayDistance,
  sayLux,
  sayStops,
  sayTime,
  signed,
  stepDay,
  stepDial,
  stepDistance,
  stepOn,
} from './figures'
import { decimal } from './decimal.svelte'

const FEET = 1 / 0.3048 // international foot

test('a scale steps by marks, in either direction, and stops at its ends', () => {
  expect(stepOn([2, 2.2, 2.5, 2.8], 2.5, 1)).toBe(2.8)
  expect(stepOn([2, 2.2, 2.5, 2.8], 2.8, 3)).toBe(2.8)
  expect(stepOn([1 / 60, 1 / 80, 1 / 100], 1 / 80, 1)).toBe(1 / 60)
})

test('six thirds of a stop double a distance', () => {
  expect(stepDistance(1.8, 6)).toBe(3.6)
  expect(stepDistance(stepDistance(2, 3), -3)).toBe(2)
})

test('stops are said as one writes them, and minus is minus', () => {
  expect(sayStops(-4 / 3)).toBe('−1⅓')
  expect(sayStops(-0.67)).toBe('−⅔')
  expect(sayStops(0.5, true)).toBe('+½')
  expect(sayStops(-2)).toBe('−2')
  expect(sayStops(0)).toBe('0')
  expect(sayStops(1.17)).toBe('1.17')
  expect(signed(-0.04)).toBe('0.0')
  expect(signed(-1.3)).toBe('−1.3')
})

test('clocks and days go there and back', () => {
  expect(clockMinutes('07:15')).toBe(435)
  expect(sayClock(1450)).toBe('00:10')
  expect(dayOf(20628)).toBe('2026-06-24')
  expect(stepDay('2026-02-28', 1)).toBe('2026-03-01')
})

test('a range is shown by its two figures', () => {
  expect(rangeOf(null, null)).toBe('')
  expect(rangeOf(44, null)).toBe('44')
  expect(rangeOf(150, 300)).toBe('150–300')
})

test('the fields of a form show shares and times as fractions', () => {
  expect(shown(1 / 128, 'power')).toBe('1/128')
  expect(shown(1, 'power')).toBe('1')
  expect(shown(1 / 4000, 'duration')).toBe('1/4000')
  expect(shown(2, 'shutter')).toBe('2 s') // a bare 2 would be asked about
  expect(shown(-1, 'level')).toBe('−1')
  expect(shown(null, 'level')).toBe('')
})

/**
 * What the page shows can be typed back: for the values of each scale, what is shown of them. The tests of the reader
 * read it back (tests/formats); SHOWN=write writes it anew.
 */
test('what is shown stands in the table that is read back', () => {
  const file = new URL('../../../tests/data/shown.json', import.meta.url)
  const thirds = Array.from({ length: 49 }, (_, i) => (i - 24) / 3).map((one) => Math.round(one * 100) / 100)
  const metres = Array.from({ length: 60 }, (_, i) => stepDistance(0.1, i))
  const times = [
    30,
    15,
    8,
    2,
    1,
    0.8,
    0.5,
    0.3,
    1 / 3,
    1 / 4,
    1 / 8,
    1 / 50,
    1 / 60,
    1 / 250,
    1 / 4000,
    1 / 32000,
  ]
  type Row = [kind: string, text: string, value: number, feet: boolean]
  const rows = (): Row[] => [
    ...thirds.map((one): Row => [
      'background',
      one === 0 ? 'as metered' : `${sayStops(Math.abs(one))} ${one < 0 ? 'under' : 'over'}`,
      one,
      false,
    ]),
    ...thirds.map((one): Row => ['level', sayStops(one, true), one, false]),
    ...thirds.map((one): Row => ['level', shown(one, 'level'), one, false]),
    ...metres.map((one): Row => ['distance', sayDistance(one, 'm', FEET), one, false]),
    ...metres.map((one): Row => ['distance', sayDistance(one, 'ft', FEET), one, true]),
    ...times.map((one): Row => ['shutter', sayTime(one), one, false]),
    ...times.map((one): Row => ['shutter', shown(one, 'shutter'), one, false]),
    ...[0.5, 7, 500, 12_000, 100_000].map((one): Row => ['lux', `${sayLux(one)} lx`, one, false]),
    ...[0, 435, 720, 1430].map((one): Row => ['clock', sayClock(one), one, false]),
    ...[20_000, 20_628].map((one): Row => ['date', sayDay(dayOf(one)), one, false]),
    ...[1, 0.5, 1 / 3, 1 / 128].map((one): Row => ['power', shown(one, 'power'), one, false]),
  ]
  const signed = [false, true].flatMap((comma) => {
    decimal.comma = comma
    return rows().map((row) => [...row, comma])
  })
  decimal.comma = false
  const text = `[\n${signed.map((row) => JSON.stringify(row)).join(',\n')}\n]\n`
  if (process.env.SHOWN === 'write') writeFileSync(file, text)
  expect(readFileSync(file, 'utf8')).toBe(text)
})

describe('a dial', () => {
  const thirds = [0, 1 / 3, 1, 3].map((stops) => ({ stops }))
  const tenths = [0, 0.1, 0.2, 1, 2].map((stops) => ({ stops }))

  it('steps to another setting while there is one', () => {
    expect(stepDial(0, 1 / 3, tenths)).toBe(0.2)
    expect(stepDial(1, 1 / 3, thirds)).toBe(3)
    expect(stepDial(0, -1, thirds)).toBe(0)
  })
})

test('a count is said to two figures', () => {
  expect(about(480)).toBe('480')
  expect(about(1_003)).toBe('1,000')
  expect(about(18_714)).toBe('19,000')
})

test('thousands are told apart, and not by the sign of decimals', () => {
  expect([count(1_234_567), count(-1_500), count(0.25)]).toEqual(['1,234,567', '−1,500', '0.25'])
  decimal.comma = true
  expect([count(18_714), count(1_500.5)]).toEqual(['18\u202f714', '1\u202f500,5'])
  decimal.comma = false
})
