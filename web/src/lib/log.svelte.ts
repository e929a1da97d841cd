/** The log as this page writes it: entries wait here, over a reload too, until the server says that it has them. */
import { api, sentenceOf, UNREACHABLE, type LogEntry, type LogText, type ReadingToTake } from './api/client'
import { Newest } from './newest'
import { freshId } from './stamp'

const KEY = 'log-waiting'
const AGAIN_MS = 3000

/** An entry with nothing in it. */
export const BARE: Omit<LogEntry, 'name' | 'at'> = {
  format: 'jumpstop-log',
  version: 1,
  job: null,
  setup: null,
  was: null,
  seen: null,
  filter: null,
  curtain: null,
  ambient: null,
  celsius: null,
  flashes: null,
  swapped: '',
  note: '',
  aside: false,
}

interface Waiting {
  id: string
  entry: LogEntry
}

class Log {
  waiting = $state.raw<Waiting[]>(kept())
  /** What the server said of the newest entry, and of which. */
  said = $state('')
  /** An entry that the server will not have, and why. */
  refused = $state('')
  text = $state.raw<LogText | null>(null)
  next = $state.raw<ReadingToTake[]>([])
  /** Raised when an entry has arrived. */
  arrived = $state(0)
  dial = $state.raw<{ id: string; stops: number | null } | null>(null)
  private sending = false
  private newest = new Newest()

  /** Keep an entry here, and send it. */
  write(entry: LogEntry, id = freshId()): Promise<void> {
    this.hold([...this.waiting, { id, entry }])
    return this.send()
  }

  /** Send what waits, the oldest first; where there is no server, again after a while. */
  async send(): Promise<void> {
    if (this.sending) return
    this.sending = true
    while (this.waiting.length) {
      const [one] = this.waiting as [Waiting]
      const asked = api.POST('/api/log/keep/{item_id}', {
        params: { path: { item_id: one.id } },
        body: one.entry,
      })
      const { data, error, response } = await asked
      if (!data && (response.status === UNREACHABLE || response.status >= 500)) {
        setTimeout(() => void this.send(), AGAIN_MS)
        break
      }
      this.hold(this.waiting.filter((waits) => waits.id !== one.id))
      if (data) {
        this.said = data.says
        this.dial = { id: one.id, stops: data.dial_stops }
        this.arrived += 1
      } else this.refused = `${one.entry.name}: ${sentenceOf(error)}`
    }
    this.sending = false
  }

  load(job: string): Promise<void> {
    const query = job ? { job } : {}
    return this.newest.take(api.GET('/api/log/text', { params: { query } }), ({ data }) => {
      if (data) this.text = data
    })
  }

  async propose(job: string): Promise<void> {
    if (!job) return
    const { data } = await api.GET('/api/log/next', { params: { query: { job } } })
    this.next = data ?? []
  }

  private hold(waiting: Waiting[]): void {
    this.waiting = waiting
    try {
      localStorage.setItem(KEY, JSON.stringify(waiting))
    } catch {
      this.refused = 'This browser keeps nothing: keep the page open until the server answers.'
    }
  }
}

function kept(): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Waiting[]
  } catch {
    return []
  }
}

export const log = new Log()
