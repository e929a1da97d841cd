/** Formatting and stepping of figures for the screen. No rule of the trade lives here. */
import { format } from 'd3-format'
import { decimal, withSign } from './decimal.svelte'

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

/** A distance a number of thirds of a stop farther (or nearer), to three digits. */
export function stepDistance(metres: number, thirds: number): number {
  return Number((metres * 2 ** (thirds / 6)).toPrecision(3))
}

/** A distance to three digits, which is what is typed back. */
export function sayDistance(metres: number, unit: 'm' | 'ft', feetPerMetre: number): string {
  return `${digits(unit === 'm' ? metres : metres * feetPerMetre, 3)} ${unit}`
}

const BETWEEN: [number, string][] = [
  [0, ''],
  [1 / 3, '⅓'],
  [1 / 2, '½'],
  [2 / 3, '⅔'],
]

/** Stops as one writes them, thirds and halves as fractions: 1⅓, −⅔; with `plus` a sign before what is more. */
export function sayStops(value: number, plus = false): string {
  const size = Math.abs(value)
  const whole = Math.floor(size + 0.01)
  const part = BETWEEN.find(([between]) => Math.abs(size - whole - between) < 0.01)
  const text = part ? `${whole || !part[1] ? whole : ''}${part[1]}` : rounded(size, 2)
  return text === '0' ? text : `${value < 0 ? '−' : plus ? '+' : ''}${text}`
}

/** A time as cameras show it: 1/250 s, 0.5 s. */
export function sayTime(seconds: number): string {
  return seconds >= 0.3 ? `${digits(seconds, 3)} s` : `1/${Math.round(1 / seconds)} s`
}

/** An aperture: f/2.8. */
export function sayAperture(f_number: number): string {
  return `f/${withSign(String(f_number))}`
}

/** An illuminance, with its thousands told apart. */
export function sayLux(lux: number): string {
  return lux < 10 ? rounded(lux, 2) : count(Math.round(lux))
}

/** A figure a third of a stop on, whole, inside its bounds. */
export function nudged(value: number, by: number, [low, high]: readonly [number, number]): number {
  return clamp(Math.max(1, Math.round(value * 2 ** (by / 3))), low, high)
}

/** The mark a third, a half or a whole stop on from a setting, always another one while there is one. */
export function stepDial(now: number, by: number, marks: readonly { stops: number }[]): number {
  const beyond = marks.filter((mark) => (mark.stops - now) * by > 0.01)
  const near = (mark: { stops: number }) => Math.abs(mark.stops - now - by)
  return beyond.sort((a, b) => near(a) - near(b))[0]?.stops ?? now
}

/** A count as one says it: two figures are enough. */
export function about(value: number): string {
  return count(value < 1000 ? value : Number(value.toPrecision(2)))
}

/** Minutes since midnight of a clock as documents hold it, HH:MM. */
export function clockMinutes(clock: string): number {
  return Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5))
}

export function sayClock(minutes: number): string {
  const inside = ((Math.round(minutes) % 1440) + 1440) % 1440
  return `${String(Math.floor(inside / 60)).padStart(2, '0')}:${String(inside % 60).padStart(2, '0')}`
}

/** A date some days later, as YYYY-MM-DD. */
export function stepDay(day: string, by: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10)
}

/** A date, so many days after 1 January 1970. */
export function dayOf(days: number): string {
  return new Date(days * 86_400_000).toISOString().slice(0, 10)
}

export function sayDay(day: string): string {
  const when = new Date(`${day}T00:00:00Z`)
  return when.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })
}

export function clamp(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, value))
}

export function round(value: number, digits: number): number {
  return Math.round(value * 10 ** digits) / 10 ** digits
}

/** A figure to so many decimals at the most, as it is said. */
export function rounded(value: number, decimals: number): string {
  return withSign(String(round(value, decimals)))
}

/** A figure to so many decimals exactly. */
export function fixed(value: number, decimals: number): string {
  return withSign(value.toFixed(decimals))
}

/** A figure to so many digits. */
export function digits(value: number, of: number): string {
  return withSign(String(Number(value.toPrecision(of))))
}

export function signed(value: number, decimals = 1): string {
  const text = fixed(Math.abs(value), decimals)
  if (Number(Math.abs(value).toFixed(decimals)) === 0) return text
  return `${value < 0 ? '−' : '+'}${text}`
}

export function grams(value: number | null | undefined): string {
  if (value === null || value === undefined) return '–'
  return value >= 1000 ? `${rounded(value / 1000, 1)} kg` : `${value} g`
}

const thousands = format(',.3~f') // an Intl.NumberFormat takes 25 ms of the first view

/** A whole number with its thousands told apart. */
export function count(value: number): string {
  const text = thousands(value)
  return decimal.comma ? text.replaceAll(',', '\u202f').replace('.', ',') : text
}

/** An amount of money in whole units of a currency. */
export function money(value: number, currency: string): string {
  return `${currency}${count(Math.round(value))}`
}

/** A count, or the two figures of a range: 150–300. */
export function rangeOf(least: number | null, most: number | null): string {
  return least === null ? '' : most === null ? String(least) : `${least}–${most}`
}
