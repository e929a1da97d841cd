/**
 * All that this page still has to give to the server, of every document, and the readings of the log: kept in the
 * browser a record each, taken over by the next page where a tab was closed, and told in one word.
 */
import { freshName, pageName, rename } from './api/client'
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
  /** This page as it was opened, which no other is, not even a tab that was duplicated from it, or this one reloaded. */
  private opening = freshName()

  /** Remember what a session still holds. */
  keep(session: object): void {
    const one = session as Session
    const key = keyOf(this.opening, one)
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

  /** Begin: take over what this page left before a reload, or tabs that are closed. open: a document's session. */
  async start(open: (kind: DocKind, id: string) => Session): Promise<void> {
    addEventListener('online', this.hurry)
    this.live()
    const before = turned(this.opening)
    // Once the page before this one is gone: at once after a reload, when it is closed where this is its duplicate.
    if (before && navigator.locks)
      void navigator.locks.request(ALIVE + before, () => this.takeOver(open, before))
    await Promise.all([this.claim(), this.takeOver(open)])
    setInterval(() => void this.takeOver(open), LOOK_MS)
  }

  /** Say, as long as this page is open, that it is. */
  private live(): void {
    const name = ALIVE + this.opening
    if (navigator.locks) return void navigator.locks.request(name, hold)
    const beat = () => keep.write(name, String(Date.now()))
    beat()
    setInterval(beat, BEAT_MS)
    addEventListener('pagehide', () => keep.drop(name))
  }

  /** Hold this page's name while it lives, or take another where a tab that was duplicated holds it. */
  private claim(): Promise<void> {
    if (!navigator.locks) return Promise.resolve()
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

  /** Take over what pages that are gone left; or what one did. */
  private async takeOver(open: (kind: DocKind, id: string) => Session, of?: string): Promise<void> {
    if (!keep.keys(UNSENT).length) return
    const alive = of === undefined ? await living() : new Set<string>()
    for (const key of keep.keys(UNSENT)) {
      const left = key.split('/')[1]!
      if (left === this.opening || (of !== undefined && left !== of) || alive.has(left)) continue
      const record = keep.value<Record>(key)
      keep.drop(key)
      if (record?.changes.length) open(record.kind, record.id).adopt(record.changes, record.name)
    }
  }
}

const hold = () => new Promise<void>(() => {})

/** The page that this tab showed before, known over a reload; where a tab was duplicated, the other's. */
function turned(now: string): string | null {
  try {
    const before = sessionStorage.getItem('opening')
    sessionStorage.setItem('opening', now)
    return before
  } catch {
    return null
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
