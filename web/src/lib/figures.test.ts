import { describe, expect, it, test } from 'vitest'
import { shown, taken } from './fields'
import {
  about,
  between,
  readDial,
  readNd,
  stepDial,
  readClock,
  readDay,
  readDistance,
  readNumber,
  readSeconds,
  sayClock,
  signed,
  stepDay,
  stepDistance,
  stepOn,
} from './figures'

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

test('a person may type a distance in any unit', () => {
  expect(readDistance('2,4', 'm', FEET)).toBe(2.4)
  expect(readDistance('180 cm', 'ft', FEET)).toBe(1.8)
  expect(readDistance('10', 'ft', FEET)).toBeCloseTo(3.048, 2)
  expect(readDistance('near', 'm', FEET)).toBeNull()
})

test('numbers are found behind their prefixes', () => {
  expect(readNumber('f/5.6')).toBe(5.6)
  expect(readNumber('−1.5')).toBe(-1.5)
  expect(readNumber('ISO')).toBeNull()
  expect(signed(-0.04)).toBe('0.0')
  expect(signed(-1.3)).toBe('−1.3')
})

describe('what a person types', () => {
  it('is read as time, clock, date or share', () => {
    expect(readSeconds('1/250')).toBe(1 / 250)
    expect(readSeconds('0.5 s')).toBe(0.5)
    expect(readClock('7.15')).toBe(435)
    expect(readClock('24:00')).toBeNull()
    expect(readDay('24 June 2026')).toBe('2026-06-24')
    expect(readDay('24/6/2026')).toBe('2026-06-24')
    expect(readDay('soon')).toBeNull()
    expect(stepDay('2026-02-28', 1)).toBe('2026-03-01')
    expect(sayClock(1450)).toBe('00:10')
  })

  it('is refused with a sentence where it cannot be', () => {
    const took: number[] = []
    const read = between('ISO', [3, 4000], (value) => took.push(value))
    expect(read('ISO 400')).toBeNull()
    expect(read('9000')).toBe('ISO must be between 3 and 4000.')
    expect(read('fast')).toBe('ISO must be a number.')
    expect(took).toEqual([400])
  })
})

describe('the fields of a form', () => {
  it('show shares as fractions and take them back', () => {
    for (const share of [1, 1 / 3, 1 / 128, 0.004])
      expect(taken(shown(share, 'share'), 'share')).toBeCloseTo(share, 6)
    expect(shown(1 / 128, 'share')).toBe('1/128')
    expect(taken('', 'number')).toBeNull()
    expect(taken('much', 'number')).toBe('much') // for the server to refuse, with the field's name
  })
})

test('neutral density is taken in its three markings; “ND 3.0” is three stops only as a density', () => {
  expect(readNd('3')).toBe(3)
  expect(readNd('3 stops')).toBe(3)
  expect(readNd('ND8')).toBe(3) // 2^3 = 8
  expect(readNd('nd64')).toBe(6)
  expect(readNd('ND1000')).toBe(10)
  expect(readNd('0.9')).toBe(3) // density 0.3 a stop
  expect(readNd('1.8')).toBe(6)
  expect(readNd('no filter')).toBe(null)
})

describe('a dial', () => {
  const fractions = [
    { stops: 0, says: '1/1' },
    { stops: 1 / 3, says: '1/2 + ⅔' },
    { stops: 1, says: '1/2' },
    { stops: 3, says: '1/8' },
  ]
  const numbers = [0, 0.1, 0.2, 1, 2].map((stops) => ({
    stops,
    says: `${(10 - stops).toFixed(1)} of 10`,
  }))
  const joules = [
    { stops: 0, says: '400 Ws' },
    { stops: 1, says: '200 Ws' },
    { stops: 2, says: '100 Ws' },
  ]

  it('is typed as it reads', () => {
    expect(readDial('1/8', fractions)).toBe(3)
    expect(readDial('1/2 + 2/3', fractions)).toBe(1 / 3)
    expect(readDial('full', fractions)).toBe(0)
    expect(readDial('9.8', numbers)).toBe(0.2)
    expect(readDial('8.0 of 10', numbers)).toBe(2)
    expect(readDial('1/4', numbers)).toBe(2)
    expect(readDial('200 Ws', joules)).toBe(1)
    expect(readDial('210', joules)).toBe(1)
  })

  it('has no setting for what it does not reach', () => {
    expect(readDial('1/64', fractions)).toBe(null)
    expect(readDial('3 Ws', joules)).toBe(null)
    expect(readDial('bright', numbers)).toBe(null)
    expect(readDial('-2', numbers)).toBe(null)
  })

  it('steps to another setting while there is one', () => {
    expect(stepDial(0, 1 / 3, numbers)).toBe(0.2)
    expect(stepDial(1, 1 / 3, fractions)).toBe(3)
    expect(stepDial(0, -1, fractions)).toBe(0)
  })
})

test('a count is said to two figures', () => {
  expect(about(480)).toBe('480')
  expect(about(1_003)).toBe('1,000')
  expect(about(18_714)).toBe('19,000')
})
