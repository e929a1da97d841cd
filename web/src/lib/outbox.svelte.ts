/**
 * All that this page still has to give to the server, of every document, and the readings of the log: kept in the
 * browser a record each, taken over by the next page where a tab was closed, and told in one word.
 */
import { pageName, rename } from './api/client'
import type { Change, DocKind, DocumentSession } from './document.svelte'
import { keep } from './keep.svelte'

type Session = DocumentSession<{ name?: string }>

interface Record {
  kind: DocKind
  id: string
  name: string
  changes: Change[]
}

/** Something else that waits: how many, since when, why; and what the server refused. */
export interface Queue {
  readonly count: number
  readonly since: number
  readonly waits: string
  readonly refused: number
}

const UNSENT = 'unsent/'
const ALIVE = 'alive/'
const BEAT_MS = 5000
const DEAD_MS = 150_000 // a tab in the background beats once a minute
const LOOK_MS = 10_000
const CLAIM_MS = 400

class Outbox {
  /** Sessions that hold changes, whether sent or stepped aside. */
  sessions = $state.raw<Session[]>([])
  queues = $state.raw<Queue[]>([])
  private wakers = new Set<() => void>()

  /** Remember what a session still holds. */
  keep(session: object): void {
    const one = session as Session
    const key = keyOf(pageName(), one)
    if (one.changes.length) {
      const record: Record = { kind: one.kind, id: one.id, name: one.title, changes: one.changes }
      keep.write(key, JSON.stringify(record))
      if (!this.sessions.includes(one)) this.sessions = [...this.sessions, one]
    } else {
      keep.drop(key)
      if (this.sessions.includes(one)) this.sessions = this.sessions.filter((other) => other !== one)
    }
  }

  /** The session of a document that still holds changes. */
  find(kind: DocKind, id: string): Session | undefined {
    return this.sessions.find((one) => one.kind === kind && one.id === id)
  }

  /** How many changes and readings the server does not have, and since when. */
  get waiting(): number {
    const changes = this.sessions.reduce((sum, one) => sum + one.unsent.length, 0)
    return this.queues.reduce((sum, one) => sum + one.count, changes)
  }

  get since(): number {
    const changes = this.sessions.flatMap((one) => one.unsent.map((change) => change.since))
    return Math.min(...changes, ...this.queues.filter((one) => one.count).map((one) => one.since))
  }

  /** How many were refused, or clash with what somebody else changed. */
  get aside(): number {
    const changes = this.sessions.reduce((sum, one) => sum + (one.inForm ? 0 : one.aside.length), 0)
    return this.queues.reduce((sum, one) => sum + one.refused, changes)
  }

  /** Why the server does not have them; '' while they are on their way. */
  get why(): string {
    return [...this.sessions, ...this.queues].map((one) => one.waits).find(Boolean) ?? ''
  }

  get state(): 'saved' | 'saving' | 'waiting' | 'aside' {
    if (this.aside) return 'aside'
    if (!this.waiting) return 'saved'
    return this.why ? 'waiting' : 'saving'
  }

  /** Why changes of documents do not reach the server just now, where some wait; readings hold up nothing. */
  get held(): string {
    return this.sessions.find((one) => one.unsent.length && one.waits)?.waits ?? ''
  }

  /** Wait until the server has everything, or is seen not to answer. */
  async settle(): Promise<void> {
    await Promise.all(this.sessions.map((one) => one.settle()))
  }

  /** Wait a while, or until there is reason to try again. */
  pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const wake = () => {
        clearTimeout(timer)
        this.wakers.delete(wake)
        resolve()
      }
      const timer = setTimeout(wake, ms)
      this.wakers.add(wake)
    })
  }

  /** Try again now. */
  hurry = (): void => this.wakers.forEach((wake) => wake())

  /** Begin: claim this page's name, and take over what it, or tabs that are closed, left. open: a document's session. */
  async start(open: (kind: DocKind, id: string) => Session): Promise<void> {
    addEventListener('online', this.hurry)
    await this.claim()
    await this.takeOver(open, true)
    setInterval(() => void this.takeOver(open, false), LOOK_MS)
  }

  /** Hold this page's name while it lives, or take another where a tab that was duplicated holds it. */
  private claim(): Promise<void> {
    const hold = () => new Promise<void>(() => {})
    if (!navigator.locks) {
      const beat = () => keep.write(ALIVE + pageName(), String(Date.now()))
      beat()
      setInterval(beat, BEAT_MS)
      addEventListener('pagehide', () => keep.drop(ALIVE + pageName()))
      return Promise.resolve()
    }
    return new Promise((resolve) => {
      const waiting = new AbortController()
      const late = setTimeout(() => {
        waiting.abort() // another tab has the name for good
        rename()
        void navigator.locks.request(ALIVE + pageName(), hold)
        resolve()
      }, CLAIM_MS)
      const own = navigator.locks.request(ALIVE + pageName(), { signal: waiting.signal }, () => {
        clearTimeout(late)
        resolve()
        return hold()
      })
      own.catch(() => {}) // given up: it has another name by now
    })
  }

  private async takeOver(open: (kind: DocKind, id: string) => Session, own: boolean): Promise<void> {
    const keys = keep.keys(UNSENT)
    if (!keys.length) return
    const here = UNSENT + pageName() + '/'
    const alive = await living()
    for (const key of keys) {
      const mine = key.startsWith(here)
      if (mine ? !own : alive.has(key.split('/')[1]!)) continue
      const record = keep.value<Record>(key)
      if (!mine) keep.drop(key)
      if (record?.changes.length) open(record.kind, record.id).adopt(record.changes, record.name)
    }
  }
}

const keyOf = (page: string, one: { kind: string; id: string }) => `${UNSENT}${page}/${one.kind}/${one.id}`

/** The names of the pages that are open. */
async function living(): Promise<Set<string>> {
  if (navigator.locks) {
    const { held = [] } = await navigator.locks.query()
    return new Set(held.map((lock) => lock.name?.slice(ALIVE.length) ?? ''))
  }
  const now = Date.now()
  const beating = keep.keys(ALIVE).filter((key) => now - Number(keep.read(key)) < DEAD_MS)
  return new Set(beating.map((key) => key.slice(ALIVE.length)))
}

export const outbox = new Outbox()
