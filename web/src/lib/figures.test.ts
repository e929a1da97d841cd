import { expect, test } from 'vitest'
import { readDistance, readNumber, signed, stepDistance, stepOn } from './figures'

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
  expect(readDistance('2,4', 'm')).toBe(2.4)
  expect(readDistance('180 cm', 'ft')).toBe(1.8)
  expect(readDistance('10', 'ft')).toBeCloseTo(3.048, 2)
  expect(readDistance('near', 'm')).toBeNull()
})

test('numbers are found behind their prefixes', () => {
  expect(readNumber('f/5.6')).toBe(5.6)
  expect(readNumber('−1.5')).toBe(-1.5)
  expect(readNumber('ISO')).toBeNull()
  expect(signed(-0.04)).toBe('0.0')
  expect(signed(-1.3)).toBe('−1.3')
})
