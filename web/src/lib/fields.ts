/** What a form asks for, as data: one list of fields for each kind of kit. Words and layout only. */
import { readNumber } from './figures'

export type Doc = Record<string, unknown>

export type Field =
  | { key: string; label: string; kind: 'text' | 'number' | 'share' | 'check'; hint?: string; wide?: boolean }
  | {
      key: string
      label: string
      kind: 'choice'
      options: [unknown, string][]
      hint?: string
      wide?: boolean
    }
  | { key: string; label: string; kind: 'set'; options: [string, string][]; hint?: string; wide?: boolean }
  | { key: string; label: string; kind: 'rows'; fields: Field[]; blank: string; add: string }
  | { key: string; label: string; kind: 'part'; fields: Field[]; blank: string; always?: boolean }

/** How a field's value stands in its input; shares and times under a third as fractions. */
export function shown(value: unknown, kind: Field['kind']): string {
  if (value === null || value === undefined) return ''
  if (kind === 'share' && typeof value === 'number' && value > 0 && value < 0.6) {
    const parts = Math.round(1 / value)
    if (Math.abs(1 / value / parts - 1) < 0.002) return `1/${parts}`
  }
  return typeof value === 'number' ? String(Number(value.toPrecision(8))) : String(value)
}

/** What was typed, as a value; what is no number stays text, so that the server can say so. */
export function taken(text: string, kind: Field['kind']): unknown {
  const bare = text.trim()
  if (kind === 'text') return text
  if (bare === '') return null
  const parts = kind === 'share' ? /^1\s*\/\s*(\d+(?:\.\d+)?)\s*s?$/.exec(bare) : null
  if (parts) return 1 / Number(parts[1])
  const number = /^[-−]?[\d.,e]+\s*[a-zA-Z°]*$/.test(bare) ? readNumber(bare) : null
  return number ?? bare
}
