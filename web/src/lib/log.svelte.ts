/**
 * The log as this page writes it: entries wait here, over a reload too, until the server says that it has them. Each is
 * kept by itself, so that tabs that wait beside each other keep what all of them wrote.
 */
import {
  api,
  problemsOf,
  sentenceOf,
  type LogEntry,
  type LogText,
  type Problem,
  type ReadingToTake,
} from './api/client'
import { keep } from './keep.svelte'
import { outbox, type Queue } from './outbox.svelte'
import { newest } from './question.svelte'
import { whyWaiting } from './reply'
import { freshId } from './stamp'

const KEY = 'log-waiting/'
const LIST = 'log-waiting' // all in one, as they were kept before
const AGAIN_MS = 3000
const PAGE = 100
const MOST = 500

/** An entry that the server does not have yet. form: where it was typed. problems: why the server will not have it. */
export interface Waiting {
  id: string
  entry: LogEntry
  since: number
  form?: string
  problems?: Problem[]
}

class Log implements Queue {
  /** All that is kept here, of every tab, the oldest first. */
  kept = $state.raw<Waiting[]>([])
  waits = $state('')
  /** What the server said of the newest entry, and of which. */
  said = $state('')
  text = $state.raw<LogText | null>(null)
  /** Why it cannot be shown. */
  trouble = $state('')
  next = $state.raw<ReadingToTake[]>([])
  /** Raised when an entry has arrived. */
  arrived = $state(0)
  dial = $state.raw<{ id: string; stops: number | null } | null>(null)
  /** How many entries are shown, the newest first. */
  shown = PAGE
  private sending: Promise<void> | null = null

  constructor() {
    for (const one of keep.value<Waiting[]>(LIST) ?? []) this.hold({ ...one, since: Date.now() })
    keep.drop(LIST)
    this.look()
  }

  /** Entries on their way, and those that were refused and are to be mended. */
  get waiting(): Waiting[] {
    return this.kept.filter((one) => !one.problems)
  }

  get refusals(): Waiting[] {
    return this.kept.filter((one) => one.problems)
  }

  get count(): number {
    return this.waiting.length
  }

  get since(): number {
    return this.waiting[0]?.since ?? Infinity
  }

  get refused(): number {
    return this.refusals.length
  }

  /** Send what is left of before, and hear of what other tabs write. */
  start(): void {
    outbox.queues = [...outbox.queues, this]
    addEventListener('storage', (event) => {
      if (event.key?.startsWith(KEY) !== false) this.look()
    })
    void this.send()
  }

  /** Keep an entry here, and send it. One of the same id takes the other's place. */
  async write(entry: LogEntry, id = freshId(), form = ''): Promise<void> {
    this.hold({ id, entry, since: Date.now(), form })
    this.look(id)
    await this.send()
  }

  /** Let an entry go that the server will not have. */
  forget(id: string): void {
    keep.drop(KEY + id)
    this.kept = this.kept.filter((one) => one.id !== id)
  }

  /** Send what waits, the oldest first; where the server does not take it now, again after a while. */
  send(): Promise<void> {
    this.sending ??= this.sendAll().finally(() => (this.sending = null))
    return this.sending
  }

  private async sendAll(): Promise<void> {
    for (let one = this.waiting[0]; one; one = this.waiting[0]) {
      if (await this.post(one)) continue
      void outbox.pause(AGAIN_MS).then(() => this.send())
      return
    }
    this.waits = ''
  }

  /** Send one; false where it has to wait. */
  private async post({ id, entry, since, form }: Waiting): Promise<boolean> {
    const asked = api.POST('/api/log/keep/{item_id}', { params: { path: { item_id: id } }, body: entry })
    const { data, error, response } = await asked
    if (data?.id === id) {
      this.forget(id)
      this.said = data.says
      this.dial = { id, stops: data.dial_stops }
      this.arrived += 1
    } else if (response.status === 422) {
      this.hold({ id, entry, since, form, problems: problemsOf(error) })
      this.look(id)
    } else {
      this.waits = whyWaiting(response.status, error)
      return false
    }
    this.waits = ''
    return true
  }

  /** Read the log of a job, as far back as it has been asked for here. */
  async load(job: string): Promise<void> {
    const query = { ...(job ? { job } : {}), most: this.shown }
    const answer = await newest('log', () => api.GET('/api/log/text', { params: { query } }))
    if (!answer) return
    if (answer.data?.entries) this.text = answer.data
    this.trouble = answer.data?.entries ? '' : sentenceOf(answer.error)
  }

  /** Show more of the log: the next page while they are few, then from there on. */
  async further(job: string): Promise<void> {
    const before = this.text
    if (!before) return
    if (this.shown < MOST) {
      this.shown = Math.min(MOST, this.shown + PAGE)
      return this.load(job)
    }
    const query = { ...(job ? { job } : {}), most: MOST, after: before.entries.length }
    const data = (await newest('log', () => api.GET('/api/log/text', { params: { query } })))?.data
    if (!data?.entries) return
    const known = new Set(before.entries.map((one) => one.id)) // newer ones may have moved the page
    const older = data.entries.filter((one) => !known.has(one.id))
    this.text = { ...data, entries: [...before.entries, ...older] }
  }

  async propose(job: string): Promise<void> {
    if (!job) return
    const { data } = await api.GET('/api/log/next', { params: { query: { job } } })
    this.next = Array.isArray(data) ? data : []
  }

  private hold(one: Waiting): void {
    keep.write(KEY + one.id, JSON.stringify(one))
    this.kept = [...this.kept.filter((other) => other.id !== one.id), one]
  }

  /** What is kept in this browser, by whichever tab; `fresh` was just written here, and may be kept nowhere else. */
  private look(fresh = ''): void {
    const found = keep.keys(KEY).map((key) => keep.value<Waiting>(key))
    const all = found.filter((one): one is Waiting => !!one?.entry)
    const own = this.kept.filter((one) => one.id === fresh || !keep.works)
    this.kept = [...all, ...own.filter((one) => all.every((other) => other.id !== one.id))].sort(
      (a, b) => a.since - b.since,
    )
  }
}

export const log = new Log()
