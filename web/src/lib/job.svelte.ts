/** The job in hand: one document, its edits stored one after the other, and a count that tells when it was stored. */
import { api, sentenceOf, type Job, type Stored } from './api/client'
import { history } from './history.svelte'
import { setups } from './setups.svelte'

const LAST = 'job'

class JobSession {
  id = $state('')
  doc = $state.raw<Job | null>(null)
  all = $state.raw<{ id: string; name: string }[]>([])
  /** Raised whenever the stored job, or a setup of it, may come to something else. */
  stored = $state(0)
  saving = $state(false)
  private revision = 0
  /** Raised with every edit, so that a list read before one is known to be old. */
  private edits = 0
  private queue: Promise<void> = Promise.resolve()

  /** Read the jobs, and open the one asked for, the one opened last, or the first. */
  async open(wanted = ''): Promise<void> {
    await this.queue
    const before = this.edits
    const { data, error } = await api.GET('/api/jobs')
    if (!data) return history.tell(sentenceOf(error))
    if (this.edits !== before) return this.open(wanted) // an edit made meanwhile is not in what was read
    this.all = data.map((one) => ({ id: one.id, name: one.doc.name }))
    const ids = [wanted, this.id, localStorage.getItem(LAST) ?? '', data[0]?.id ?? '']
    const found = ids.map((id) => data.find((one) => one.id === id)).find(Boolean)
    if (found) this.take(found)
    else {
      this.id = ''
      this.doc = null
    }
  }

  /** Change the document here at once, and store it after what is under way. */
  edit(label: string, change: (job: Job) => void): Promise<void> {
    if (!this.doc) return Promise.resolve()
    const next = structuredClone(this.doc)
    change(next)
    this.doc = next
    this.edits += 1
    const id = this.id
    this.queue = this.queue.then(() => this.store(id, next, label))
    return this.queue
  }

  /** A new job, by the name it is given. */
  async begin(name: string): Promise<void> {
    const made = await history.done(api.POST('/api/jobs', { body: { name } }), () => `Added ${name}`)
    if (!made) return
    await this.open(made.id)
  }

  /** A usual job with its setups, on the camera of a setup used last. */
  async from(name: string, like: string | null): Promise<void> {
    const asked = api.POST('/api/jobs/begin', { params: { query: { name, like } } })
    const made = await history.done(asked, () => `Added ${name}`)
    if (!made) return
    await Promise.all([this.open(made.id), setups.load()])
  }

  async remove(): Promise<void> {
    await this.queue
    if (!this.doc || !(await history.remove('jobs', this.id, this.doc.name))) return
    this.id = ''
    await this.open()
  }

  /** A job from a file; says what is wrong with it. */
  async take_in(file: File): Promise<void> {
    const made = await history.done(
      api.POST('/api/jobs/import', { body: file as never, bodySerializer: (body) => body as never }),
      (job) => `Imported ${job.doc.name}`,
    )
    if (made) await this.open(made.id)
  }

  /** The roster from a table, in place of the one there is. */
  async rosterFrom(file: File): Promise<void> {
    await this.queue
    const made = await history.done(
      api.PUT('/api/jobs/{item_id}/roster', {
        params: { path: { item_id: this.id }, header: { 'if-match': `"${this.revision}"` } },
        body: file as never,
        bodySerializer: (body) => body as never,
      }),
      (job) => `Roster of ${job.doc.roster.length}`,
    )
    if (made) this.take(made)
  }

  private async store(id: string, doc: Job, label: string): Promise<void> {
    this.saving = true
    const { data, error } = await api.PUT('/api/jobs/{item_id}', {
      params: { path: { item_id: id }, query: { label }, header: { 'if-match': `"${this.revision}"` } },
      body: doc,
    })
    this.saving = false
    if (this.id !== id) return
    if (!data) {
      history.tell(sentenceOf(error))
      await this.reload()
      return
    }
    this.revision = data.revision
    this.stored += 1
    this.all = this.all.map((one) => (one.id === id ? { id, name: data.doc.name } : one))
    history.later()
  }

  private async reload(): Promise<void> {
    const { data } = await api.GET('/api/jobs/{item_id}', { params: { path: { item_id: this.id } } })
    if (data) this.take(data)
  }

  private take(found: Stored<Job>): void {
    this.id = found.id
    this.doc = found.doc
    this.revision = found.revision
    this.stored += 1
    localStorage.setItem(LAST, found.id)
  }
}

export const job = new JobSession()

/** In a view of a job: open the one asked for as the view opens, and after every undo; `done` once it is there. */
export function opening(wanted: () => string): { readonly done: boolean } {
  let done = $state(false)
  $effect(() => {
    void history.turned
    void job.open(wanted()).then(() => (done = true))
  })
  return {
    get done() {
      return done
    },
  }
}
