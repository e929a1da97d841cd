/** What a form asks for, as data: one list of fields for each kind of kit. Words and layout only. */
import { digits, sayStops } from './figures'
import type { Kind } from './quantities.svelte'

export type Doc = Record<string, unknown>

export type Field =
  | {
      key: string
      label: string
      kind: 'text' | 'names' | 'check'
      hint?: string
      wide?: boolean
      only?: string[]
    }
  | {
      key: string
      label: string
      kind: 'quantity'
      reads: Kind
      hint?: string
      wide?: boolean
      /** Kinds of thing that have it; a figure that stands is shown for all. */
      only?: string[]
    }
  | {
      key: string
      label: string
      kind: 'choice'
      options: [unknown, string][]
      hint?: string
      wide?: boolean
      only?: string[]
    }
  | { key: string; label: string; kind: 'set'; options: [string, string][]; hint?: string; wide?: boolean }
  | { key: string; label: string; kind: 'rows'; fields: Field[]; blank: string; add: string; only?: string[] }
  | { key: string; label: string; kind: 'part'; fields: Field[]; blank: string; always?: boolean }
  | { key: string; label: string; kind: 'fold'; fields: Field[] }

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
