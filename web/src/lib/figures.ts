/** Formatting and stepping of figures for the screen. No rule of the trade lives here. */

export const FEET = 3.2808

/** The next mark up or down a scale from a value, `by` marks away. */
export function stepOn(scale: readonly number[], value: number, by: number): number {
  if (!scale.length) return value
  const rising = scale[0]! < scale[scale.length - 1]!
  const near = scale.reduce((best, mark, i) => {
    const off = Math.abs(Math.log(mark / value))
    return off < Math.abs(Math.log(scale[best]! / value)) ? i : best
  }, 0)
  const index = near + (rising ? by : -by)
  return scale[Math.min(scale.length - 1, Math.max(0, index))]!
}

/** A distance a number of thirds of a stop farther (or nearer), to the centimetre. */
export function stepDistance(metres: number, thirds: number): number {
  return Math.round(metres * 2 ** (thirds / 6) * 100) / 100
}

/** Metres from what a person typed: “2.4”, “8 ft”, “180 cm”; null where it is no distance. */
export function readDistance(text: string, unit: 'm' | 'ft'): number | null {
  const found = /^\s*(-?\d+(?:[.,]\d+)?)\s*(m|cm|ft|feet|')?\s*$/i.exec(text)
  if (!found) return null
  const value = Number(found[1]!.replace(',', '.'))
  const said = found[2]?.toLowerCase() ?? unit
  const metres = said === 'cm' ? value / 100 : said === 'm' ? value : value / FEET
  return Math.round(metres * 1000) / 1000
}

export function sayDistance(metres: number, unit: 'm' | 'ft'): string {
  return unit === 'm' ? `${round(metres, 2)} m` : `${round(metres * FEET, 1)} ft`
}

/** A number from text that may carry a prefix or unit (“f/5.6”, “ISO 200”, “-1.5”, “−1.5”); null if there is none. */
export function readNumber(text: string): number | null {
  const found = /-?\d+(?:[.,]\d+)?(?:e\d+)?/i.exec(text.replace('−', '-').replace(/^\s*f\//i, ''))
  return found ? Number(found[0].replace(',', '.')) : null
}

export function round(value: number, digits: number): number {
  return Math.round(value * 10 ** digits) / 10 ** digits
}

export function signed(value: number, digits = 1): string {
  const text = Math.abs(value).toFixed(digits)
  if (Number(text) === 0) return text
  return `${value < 0 ? '−' : '+'}${text}`
}

export function grams(value: number | null | undefined): string {
  if (value === null || value === undefined) return '–'
  return value >= 1000 ? `${round(value / 1000, 1)} kg` : `${value} g`
}

export function count(value: number): string {
  return value.toLocaleString('en-GB')
}
