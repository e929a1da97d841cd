/**
 * A document being edited. What a person changes shows at once and is kept, over a reload too, until the server has it.
 * Changes go out in their order, one at a time, each made on the newest revision; where somebody else changed the same,
 * the person chooses; what is refused steps aside and holds up nothing behind it.
 */
import { api, once, problemsOf, type Problem } from './api/client'
import { applied, difference, overlap, same, standing, type Op } from './difference'
import { onlyTried } from './foresight'
import type { KitKind } from './kinds'
import { outbox } from './outbox.svelte'
import { GONE, held, REFUSED, whyWaiting, type Held, type Reply } from './reply'
import { goesOn, turnOf, type Turn } from './turning'
import { afterTyping, typing } from './typing'

export type DocKind = KitKind | 'setups' | 'jobs' | 'preferences'

/**
 * What one edit changed. label: what undo calls it. goesOn: it is undone with the one before. sent: the server may have
 * it. refused, clash: it stepped aside.
 */
export interface Change {
  label: string
  goesOn?: boolean
  ops: Op[]
  since: number
  sent?: boolean
  refused?: Problem[]
  clash?: boolean
}

const AGAIN_MS = [600, 1500, 3000, 6000, 10000]

const aside = (change: Change) => change.clash || change.refused !== undefined
const MOST_LABEL = 200 // characters, as the server takes them

export class DocumentSession<T extends object> {
  readonly kind: DocKind
  readonly id: string
  /** As it shows: what the server has, with all changes made here. */
  doc = $state.raw() as T
  changes = $state.raw<Change[]>([])
  /** Whether what was refused stands in an open form, with the reason, to be mended there. */
  inForm = $state(false)
  /** Why the server does not have the changes yet; '' while all goes well. */
  waits = $state('')
  private named = ''
  protected stored: T | null = null
  protected revision = 0
  private running: Promise<void> | null = null
  private stuck: Promise<void> = Promise.resolve()
  private stick: () => void = () => {}
  private reloading: Promise<void> | null = null
  private lastEdit: Turn | undefined

  constructor(kind: DocKind, id: string) {
    this.kind = kind
    this.id = id
  }

  /** What it is called, known before it is read where a page before this one kept it. */
  get title(): string {
    return (this.doc as { name?: string } | undefined)?.name ?? this.named
  }

  /** Change the document; `label` is what undo will call it: the figure's name, so that nudges of one figure merge. */
  edit(label: string, change: (draft: T) => void): void {
    if (onlyTried(this, () => this.changed(change))) return
    if (this.reloading) return void this.reloading.then(() => this.edit(label, change))
    const draft = this.changed(change)
    const ops = difference(this.doc, draft)
    if (!ops.length) return
    this.doc = draft
    this.note(label, ops)
    this.go()
  }

  private changed(change: (draft: T) => void): T {
    const draft = structuredClone(this.doc)
    change(draft)
    return draft
  }

  /** Begin with a document that the server does not have at all; begun again, it takes the first one's place. */
  create(label: string, doc: T): void {
    this.doc = doc
    this.changes = [changeOf(label, [{ path: [], now: doc }])]
    outbox.keep(this)
    this.go()
  }

  /** Changes that a page before this one kept. */
  adopt(changes: Change[], named: string): void {
    this.named = named
    this.changes = [...changes, ...this.changes]
    outbox.keep(this)
    this.recompute()
    this.go()
  }

  /** The document as the server has it now; what is changed here stays on top. */
  take(held: Held<T>): void {
    if (held.revision < this.revision) return
    this.revision = held.revision
    this.stored = held.doc
    this.recompute()
  }

  /** The newest revision that is known here. */
  get newest(): number {
    return this.revision
  }

  get unsent(): Change[] {
    return this.changes.filter((one) => !aside(one))
  }

  get aside(): Change[] {
    return this.changes.filter(aside)
  }

  /** Wait until the server has everything changed so far, has refused it, or is seen not to answer. */
  async settle(): Promise<void> {
    if (this.running && !this.waits) await Promise.race([this.running, this.stuck])
  }

  /** Take the document as the server has it now, after an undo; what is changed meanwhile is changed in that. */
  async reload(): Promise<void> {
    this.lastEdit = undefined
    await this.settle()
    this.reloading = this.fetched().then(() => void (this.reloading = null))
    await this.reloading
  }

  /** Settle a change that somebody else made differently: make this one all the same, or let it go. */
  choose(change: Change, which: 'mine' | 'theirs'): void {
    if (which === 'theirs') return this.forget(change)
    const ops = change.ops.map((op) => ({ ...op, was: standing(this.stored, op.path) }))
    const able = ops.filter((op) => !applied(this.stored, [op]).clashes.length)
    this.replace(change, { ...change, ops: able, clash: undefined, sent: false })
    this.go()
  }

  /** What the server has in the place of a change. */
  theirs(op: Op): unknown {
    return standing(this.stored, op.path)
  }

  /** Let a change go: the document shows as it is without. */
  forget(change: Change): void {
    this.replace(change)
    this.recompute()
    if (!this.running) void this.idle()
  }

  /** Send what was refused again: what stood in its way may be gone. */
  again(change: Change): void {
    this.replace(change, { ...change, refused: undefined })
    this.go()
  }

  /** The document and its revision from the server; null where it does not answer, or has none. */
  protected async get(): Promise<Reply<T>> {
    const asked = api.GET(`/api/${this.kind as 'units'}/{item_id}`, {
      params: { path: { item_id: this.id } },
    })
    const { data, error, response } = await asked
    return { data: held(data), error, status: response.status }
  }

  /** Send the document as it is with one change made. */
  protected async put(doc: T, { label, goesOn }: Change): Promise<Reply<T>> {
    const { data, error, response } = await api.PUT(`/api/${this.kind as 'units'}/{item_id}`, {
      params: {
        path: { item_id: this.id },
        query: { label, goes_on: goesOn },
        header: { 'if-match': `"${this.revision}"` },
      },
      body: doc as never,
      fetch: once,
    })
    return { data: held(data), error, status: response.status }
  }

  /** Send a document that is new; sent twice it is kept once. */
  private async add(doc: T): Promise<Reply<T>> {
    const { data, error, response } = await api.POST(`/api/${this.kind as 'units'}/keep/{item_id}`, {
      params: { path: { item_id: this.id } },
      body: doc as never,
      fetch: once,
    })
    return { data: held(data), error, status: response.status }
  }

  /** Told whenever the server has taken a change. */
  protected arrived(): void {}

  /** Told when there is nothing left to send. */
  protected async idle(): Promise<void> {}

  /** Ask for the document; whether it came. */
  protected async fetched(): Promise<boolean> {
    const { data, error, status } = await this.get()
    if (data) this.take(data)
    else if (status === 404) this.unsent.forEach((one) => this.setAside(one, { refused: [GONE] }))
    else this.waits = whyWaiting(status, error)
    return data !== undefined
  }

  private note(label: string, ops: Op[]): void {
    const before = this.aside.flatMap((one) => one.ops)
    if (ops.some((op) => before.some((other) => overlap(op.path, other.path)))) ops = this.overAside(ops)
    const [edited, turn] = [this.lastEdit, turnOf(label)]
    this.lastEdit = turn
    const [last, next] = [this.changes.at(-1), { ...changeOf(label, ops), goesOn: goesOn(edited, turn) }]
    const merged = last && !last.sent && !aside(last) && last.label === next.label && mergedOps(last.ops, ops)
    if (merged) return this.replace(last, { ...last, ops: merged })
    this.changes = [...this.changes, next]
    outbox.keep(this)
  }

  /** What stepped aside and is now mended goes along with the new change, which counts from what the server has. */
  private overAside(ops: Op[]): Op[] {
    const touches = (op: Op, others: Op[]) => others.some((one) => overlap(one.path, op.path))
    const mended = this.aside.filter((one) => one.ops.some((op) => touches(op, ops)))
    const whole = [...ops, ...mended.flatMap((one) => one.ops)]
    for (const one of mended) this.replace(one)
    const below = this.unsent.flatMap((one) => one.ops)
    const base = applied(this.stored!, below, { force: true }).doc
    return difference(base, this.doc).filter((op) => touches(op, whole))
  }

  private go(): void {
    if (this.running || !this.unsent.length) return
    this.running = this.run().finally(() => {
      this.running = null
      this.go() // what was changed while the last answer was looked at
    })
  }

  private async run(): Promise<void> {
    this.stuck = new Promise((resolve) => (this.stick = resolve))
    this.waits = '' // what was asked for in vain before
    for (let turn = 0; this.unsent.length;) {
      const next = this.unsent[0]!
      const known = this.stored !== null || isNew(next)
      const done = known ? await this.send(next) : await this.fetched()
      if (done || !this.waits) {
        this.waits = ''
        turn = 0
        continue
      }
      this.stick()
      await outbox.pause(AGAIN_MS[Math.min(turn++, AGAIN_MS.length - 1)]!)
    }
    this.waits = ''
    await this.idle()
  }

  /** Send one change; false where it has to be sent again later, and `waits` says why. */
  private async send(next: Change): Promise<boolean> {
    if (isNew(next) && this.stored === null) return this.taken(next, await this.add(next.ops[0]!.now as T))
    const later = this.unsent.slice(1).flatMap((one) => one.ops)
    const { doc, clashes } = applied(this.stored!, next.ops, { later })
    if (clashes.length) this.setAside(next, { clash: true })
    else if (same(doc, this.stored)) this.replace(next)
    else {
      const sent = { ...next, sent: true }
      this.replace(next, sent)
      return this.taken(sent, await this.put(doc, next))
    }
    this.recompute()
    return true
  }

  private taken(sent: Change, { data, error, status }: Reply<T>): boolean {
    if (data) {
      this.replace(sent)
      this.take(data)
      this.arrived()
      return true
    }
    const current = held<T>((error as { current?: unknown } | undefined)?.current)
    if (status === 412 && current) this.take(current)
    else if (status === 412) this.stored = null
    else if (status === 404) this.setAside(sent, { refused: [GONE] })
    else if (REFUSED.includes(status)) this.setAside(sent, { refused: problemsOf(error) })
    else {
      this.waits = whyWaiting(status, error)
      return false
    }
    return true
  }

  /** A change steps aside; those after it that change the same take its place. */
  private setAside(change: Change, why: Pick<Change, 'refused' | 'clash'>): void {
    let ops = change.ops
    this.changes = this.changes.map((one) => {
      if (one === change || aside(one)) return one
      const taken = one.ops.map((op) => {
        const before = ops.find((other) => same(other.path, op.path))
        if (!before) return op
        ops = ops.filter((other) => other !== before)
        return { ...op, was: before.was }
      })
      return { ...one, ops: taken }
    })
    this.replace(change, { ...change, ...why, ops })
    this.recompute()
  }

  /** Put a change in another's place, or (none, or an empty one) take it away; and keep what is left. */
  private replace(change: Change, by?: Change): void {
    this.changes = this.changes.flatMap((one) => (one !== change ? [one] : by?.ops.length ? [by] : []))
    outbox.keep(this)
  }

  private readonly recompute = (): void => {
    if (this.doc !== undefined && typing()) return afterTyping(this.recompute)
    if (this.stored === null && !this.changes.some(isNew)) return
    const { doc } = applied(
      this.stored ?? (undefined as T | undefined),
      this.changes.flatMap((one) => one.ops),
      { force: true },
    )
    if (doc !== undefined && !same(doc, this.doc)) this.doc = doc
  }
}

const changeOf = (label: string, ops: Op[]): Change => ({
  label: label.slice(0, MOST_LABEL),
  ops,
  since: Date.now(),
})

/** Whether a change is the whole document, which the server does not have. */
const isNew = ({ ops: [first] }: Change) => first?.path.length === 0 && first.was === undefined

/** One edit made of two of the same figures; null where they are of others. */
function mergedOps(before: Op[], after: Op[]): Op[] | null {
  const plain = [...before, ...after].every((op) => op.was !== undefined && op.now !== undefined)
  const alike = before.length === after.length && after.every((op, at) => same(op.path, before[at]!.path))
  if (!plain || !alike) return null
  return after.map((op, at) => ({ ...op, was: before[at]!.was })).filter((op) => !same(op.was, op.now))
}
