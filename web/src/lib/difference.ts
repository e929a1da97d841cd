/**
 * What a person changed in a document, as single changes that name their place, so that they can be made again on a
 * document that somebody else has changed meanwhile. Rows are named by what they are known by, never by their number.
 */

export type Json = unknown
type Doc = Record<string, Json>

/** A field by its name, or a row of a list: `by` is the field it is known by, '' where the row is a text itself. */
export type Step = string | { by: string; is: string }

/**
 * One change. was, now: the value before and after, undefined where there is none. follows: of a row that is new, what
 * the row before it is known by, null for the first. order: where a list's rows were put in another order, how they are
 * known before and after.
 */
export interface Op {
  path: Step[]
  was?: Json
  now?: Json
  follows?: string | null
  order?: { by: string; was: string[]; now: string[] }
}

/** What rows of the documents are known by, the surest first. */
const KEYS = ['id', 'key', 'unit', 'of', 'name']

export function same(a: Json, b: Json): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const keys = Object.keys(a)
  if (keys.length !== Object.keys(b).length) return false
  return keys.every((key) => key in b && same((a as Doc)[key], (b as Doc)[key]))
}

/** The changes that lead from one document to another. */
export function difference(was: Json, now: Json, path: Step[] = []): Op[] {
  if (same(was, now)) return []
  if (Array.isArray(was) && Array.isArray(now)) return ofLists(was, now, path)
  if (!plain(was) || !plain(now) || another(was, now)) return [{ path, was, now }]
  const names = [...new Set([...Object.keys(was), ...Object.keys(now)])]
  return names.flatMap((name) => difference(was[name], now[name], [...path, name]))
}

/**
 * A document with changes made on it, and those that cannot be made: somebody else changed the same. What is there
 * already, by these or by the later ones, is passed over. `force`: all are made, whatever is there.
 */
export function applied<T>(
  doc: T,
  ops: Op[],
  { force = false, later = [] }: { force?: boolean; later?: Op[] } = {},
): { doc: T; clashes: Op[] } {
  const clashes: Op[] = []
  let out: Json = doc
  ops.forEach((op, at) => {
    const made = place(out, op.path, op, force)
    if (made !== CLASH) out = made
    else if (![...ops.slice(at + 1), ...later].some((next) => arrived(out, next, op))) clashes.push(op)
  })
  return { doc: out as T, clashes }
}

/** Whether a later change of the same place has been made already. */
const arrived = (doc: Json, next: Op, op: Op) =>
  same(next.path, op.path) && !next.order && same(standing(doc, next.path), next.now)

/** What stands in a document at a change's place. */
export function standing(doc: Json, path: Step[]): Json {
  let here: Json = doc
  for (const step of path) {
    if (typeof step === 'string') here = plain(here) ? here[step] : undefined
    else here = Array.isArray(here) ? here.find((row) => known(row, step.by) === step.is) : undefined
  }
  return here
}

/** Whether two places are one, or one of them lies in the other. */
export function overlap(a: Step[], b: Step[]): boolean {
  return a.every((step, at) => at >= b.length || same(step, b[at]))
}

const CLASH = Symbol('clash')

const plain = (value: Json): value is Doc =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Two things of which each has an id of its own are not one thing that was changed. */
const another = (a: Doc, b: Doc) => 'id' in a && 'id' in b && a.id !== b.id

function known(row: Json, by: string): string | undefined {
  const key = by === '' ? row : plain(row) ? row[by] : undefined
  return typeof key === 'string' && key !== '' ? key : undefined
}

/** What the rows of a list are known by, each by another; null where they are not. */
function keyOf(...lists: Json[][]): string | null {
  return (
    ['', ...KEYS].find((by) =>
      lists.every((rows) => {
        const all = rows.map((row) => known(row, by))
        return all.every((one) => one !== undefined) && new Set(all).size === all.length
      }),
    ) ?? null
  )
}

function ofLists(was: Json[], now: Json[], path: Step[]): Op[] {
  const by = keyOf(was, now)
  if (by === null) return [{ path, was, now }]
  const keys = (rows: Json[]) => rows.map((row) => known(row, by)!)
  const [before, after] = [keys(was), keys(now)]
  const ops: Op[] = []
  const at = (is: string): Step[] => [...path, { by, is }]
  before.forEach((key, i) => {
    if (!after.includes(key)) ops.push({ path: at(key), was: was[i] })
  })
  const [stayed, stay] = [
    before.filter((key) => after.includes(key)),
    after.filter((key) => before.includes(key)),
  ]
  if (!same(stayed, stay)) ops.push({ path, order: { by, was: stayed, now: stay } })
  after.forEach((key, i) => {
    const old = before.indexOf(key)
    if (old === -1) ops.push({ path: at(key), now: now[i], follows: after[i - 1] ?? null })
    else ops.push(...difference(was[old], now[i], at(key)))
  })
  return ops
}

/** `doc` with one change made, copied along its path only; CLASH where it cannot be made. */
function place(doc: Json, path: Step[], op: Op, force: boolean): Json {
  const [step, ...rest] = path
  if (step === undefined) return op.order ? ordered(doc, op.order, force) : changed(doc, op, force)
  if (typeof step === 'string') {
    if (!plain(doc)) return op.now === undefined && !op.order ? doc : CLASH
    const made = place(doc[step], rest, op, force)
    if (made === CLASH) return CLASH
    if (made !== undefined) return { ...doc, [step]: made }
    return Object.fromEntries(Object.entries(doc).filter(([name]) => name !== step))
  }
  if (!Array.isArray(doc)) return op.now === undefined && !op.order ? doc : CLASH
  const at = doc.findIndex((row) => known(row, step.by) === step.is)
  if (at === -1 && rest.length) return op.now === undefined && !op.order ? doc : CLASH
  // A row that is new, and there already: it came before, whatever has been made of it since. An id is given once.
  if (at !== -1 && !rest.length && op.was === undefined && step.by === 'id') return doc
  const made = place(doc[at], rest, op, force)
  if (made === CLASH) return CLASH
  if (made === undefined) return doc.filter((_, i) => i !== at)
  if (at !== -1) return doc.map((row: Json, i) => (i === at ? made : row))
  const before = doc.findIndex((row) => known(row, step.by) === op.follows)
  const to = before === -1 && op.follows != null ? doc.length : before + 1
  return [...doc.slice(0, to), made, ...doc.slice(to)]
}

function changed(here: Json, op: Op, force: boolean): Json {
  return force || same(here, op.was) || same(here, op.now) ? op.now : CLASH
}

function ordered(rows: Json, order: NonNullable<Op['order']>, force: boolean): Json {
  if (!Array.isArray(rows)) return CLASH
  const keys = rows.map((row) => known(row, order.by))
  const here = keys.filter((key): key is string => key !== undefined && order.was.includes(key))
  const in_ = (all: string[]) => all.filter((key) => here.includes(key))
  if (same(here, in_(order.now))) return rows
  if (!force && !same(here, in_(order.was))) return CLASH
  const wanted = in_(order.now)
  return rows.map((row, at) => (here.includes(keys[at] ?? '') ? rows[keys.indexOf(wanted.shift())] : row))
}
