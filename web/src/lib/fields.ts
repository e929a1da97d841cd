/** What a form asks for, as the server says it: words and layout only. */
import type { FieldText } from './api/client'
import { digits, sayStops } from './figures'
import type { Kind } from './quantities.svelte'

export type Doc = Record<string, unknown>

/** What a field is called where its unit is not of interest. */
export const bareLabel = ({ label }: FieldText) => label.replace(/ \([^)]*\)$/, '')

const FRACTIONS: Kind[] = ['shutter', 'duration', 'power']

/** How a field's value stands in its input: shares and times as fractions, stops with a true minus. */
export function shown(value: unknown, kind?: Kind): string {
  if (value === null || value === undefined) return ''
  if (typeof value !== 'number') return String(value)
  if (kind === 'level') return sayStops(value)
  if (kind && FRACTIONS.includes(kind) && value > 0 && value < 0.6) {
    const parts = Math.round(1 / value)
    if (Math.abs(1 / value / parts - 1) < 0.002) return `1/${parts}`
  }
  return `${digits(value, 8)}${kind && FRACTIONS.includes(kind) && kind !== 'power' ? ' s' : ''}`
}
