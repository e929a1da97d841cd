/** Formatting and stepping of figures for the screen. No rule of the trade lives here. */

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

/** Metres from what a person typed: “2.4”, “8 ft”, “180 cm”; null where it is no distance. */
export function readDistance(text: string, unit: 'm' | 'ft', feetPerMetre: number): number | null {
  const found = /^\s*(-?\d+(?:[.,]\d+)?)\s*(m|cm|ft|feet|')?\s*$/i.exec(text)
  if (!found) return null
  const value = Number(found[1]!.replace(',', '.'))
  const said = found[2]?.toLowerCase() ?? unit
  const metres = said === 'cm' ? value / 100 : said === 'm' ? value : value / feetPerMetre
  return Math.round(metres * 1000) / 1000
}

export function sayDistance(metres: number, unit: 'm' | 'ft', feetPerMetre: number): string {
  return unit === 'm' ? `${round(metres, 2)} m` : `${round(metres * feetPerMetre, 1)} ft`
}

/** A number from text that may carry a prefix or unit (“f/5.6”, “ISO 200”, “-1.5”, “−1.5”); null if there is none. */
export function readNumber(text: string): number | null {
  const found = /-?\d+(?:[.,]\d+)?(?:e\d+)?/i.exec(text.replace('−', '-').replace(/^\s*f\//i, ''))
  return found ? Number(found[0].replace(',', '.')) : null
}

/** A reader for a live figure: `apply` gets a number between two bounds; anything else is answered with a sentence. */
export function between(
  name: string,
  [low, high]: readonly [number, number],
  apply: (value: number) => void,
  read: (text: string) => number | null = readNumber,
  unit = '',
): (text: string) => string | null {
  return (text) => {
    const value = read(text)
    if (value === null || !Number.isFinite(value)) return `${name} must be a number.`
    if (value < low || value > high) return `${name} must be between ${tidy(low)} and ${tidy(high)}${unit}.`
    apply(value)
    return null
  }
}

/** A figure a third of a stop on, whole, inside its bounds. */
export function nudged(value: number, by: number, [low, high]: readonly [number, number]): number {
  return clamp(Math.max(1, Math.round(value * 2 ** (by / 3))), low, high)
}

/** Seconds from “1/250”, “0.5” or “2 s”. */
export function readSeconds(text: string): number | null {
  const parts = /^\s*1\s*\/\s*(\d+(?:\.\d+)?)/.exec(text)
  return parts ? 1 / Number(parts[1]) : readNumber(text)
}

export function saySeconds(seconds: number): string {
  return seconds >= 0.3 ? `${round(seconds, 1)} s` : `1/${Math.round(1 / seconds)}`
}

/** Stops of neutral density from any of its three markings: “3”, “3 stops”, “ND8”, “0.9”. */
export function readNd(text: string): number | null {
  const factor = /^\s*nd\s*(\d+)\s*$/i.exec(text)
  if (factor && Number(factor[1]) > 1) return Math.round(Math.log2(Number(factor[1])) * 3) / 3
  const value = readNumber(text.replace(/nd/i, ''))
  if (value === null || /stop/i.test(text) || Number.isInteger(value) || value > 4) return value
  return /^\s*(nd\s*)?\d?\.\d\s*$/i.test(text) && value % 0.3 < 0.02
    ? Math.round((value / 0.3) * 3) / 3
    : value
}

/** Stops below full of the mark that a person typed as the dial shows it: “1/8”, “8.6”, “300 Ws”, “full”. */
export function readDial(text: string, marks: readonly { stops: number; says: string }[]): number | null {
  const plain = (words: string) =>
    words
      .toLowerCase()
      .replace(/\s/g, '')
      .replace(/of.*|ws$/, '')
  const typed = plain(text.replace(/full/i, '1/1').replace('1/3', '⅓').replace('2/3', '⅔'))
  const same = marks.find((mark) => plain(mark.says) === typed)
  if (same) return same.stops
  const fraction = typed.includes('/')
  const value = fraction ? readSeconds(typed) : readNumber(typed)
  if (value === null || value <= 0) return null
  const off = (mark: { stops: number; says: string }) =>
    fraction ? mark.stops + Math.log2(value) : (readNumber(plain(mark.says)) ?? Infinity) - value
  const best = [...marks].sort((a, b) => Math.abs(off(a)) - Math.abs(off(b)))[0]
  return best && Math.abs(off(best)) < (fraction ? 0.34 : value * 0.15) ? best.stops : null
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

/** Minutes since midnight from “12:30”, “7.15” or “9”. */
export function readClock(text: string): number | null {
  const parts = /^\s*(\d{1,2})(?:[:.h](\d{2}))?\s*$/.exec(text)
  if (!parts) return null
  const minutes = Number(parts[1]) * 60 + Number(parts[2] ?? 0)
  return minutes < 1440 && Number(parts[2] ?? 0) < 60 ? minutes : null
}

export function sayClock(minutes: number): string {
  const inside = ((Math.round(minutes) % 1440) + 1440) % 1440
  return `${String(Math.floor(inside / 60)).padStart(2, '0')}:${String(inside % 60).padStart(2, '0')}`
}

/** A date some days later, as YYYY-MM-DD. */
export function stepDay(day: string, by: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10)
}

export function sayDay(day: string): string {
  const when = new Date(`${day}T00:00:00Z`)
  return when.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })
}

/** YYYY-MM-DD from “2026-06-24”, “24 June 2026” or “24/6/2026”; null where it is no date. */
export function readDay(text: string): string | null {
  const slashed = /^\s*(\d{1,2})[/.](\d{1,2})[/.](\d{4})\s*$/.exec(text)
  const iso = slashed
    ? `${slashed[3]}-${slashed[2]!.padStart(2, '0')}-${slashed[1]!.padStart(2, '0')}`
    : text.trim()
  const when = new Date(/^\d{4}-\d{2}-\d{2}$/.test(iso) ? `${iso}T00:00:00Z` : `${iso} UTC`)
  return Number.isNaN(when.getTime()) ? null : when.toISOString().slice(0, 10)
}

function tidy(value: number): string {
  return value > 0 && value < 0.05 ? `1/${Math.round(1 / value)}` : String(value)
}

export function clamp(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, value))
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

/** A whole number with its thousands told apart. */
export function count(value: number): string {
  return value.toLocaleString('en-GB')
}

/** An amount of money in whole units of a currency. */
export function money(value: number, currency: string): string {
  return `${currency}${count(Math.round(value))}`
}
