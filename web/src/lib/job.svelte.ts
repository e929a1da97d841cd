/** The job in hand: one document (see DocumentSession), and a count that tells when it was stored. */
import { api, asItIs, sentenceOf, type DayHelp, type Job, type Stored, type WayText } from './api/client'
import { bench } from './bench.svelte'
import { DocumentSession } from './document.svelte'
import { history } from './history.svelte'
import { keep } from './keep.svelte'
import { outbox } from './outbox.svelte'
import { setups } from './setups.svelte'

const LAST = 'job'

/** A job being edited; says when the server has taken a change. */
export class JobDocument extends DocumentSession<Job> {
  constructor(id: string) {
    super('jobs', id)
  }

  protected override arrived(): void {
    job.saved(this)
  }
}

class JobInHand {
  session = $state.raw<JobDocument | null>(null)
  all = $state.raw<{ id: string; name: string }[]>([])
  /** Raised whenever the stored job, or a setup of it, may come to something else. */
  stored = $state(0)

  /** Raised when the server has taken a change of a job: its setups may come to something else. */
  changed = $state(0)

  private turn = 0

  get id(): string {
    return this.session?.id ?? ''
  }

  get doc(): Job | null {
    return this.session?.doc ?? null
  }

  /**
   * Read the jobs, and open the one asked for, the one opened last, or the first. Why that cannot be; '' where it is, or
   * another has been asked for since. changed: whether what belongs to the job may be another than it was.
   */
  async open(wanted = '', changed = false): Promise<string> {
    const mine = ++this.turn
    await this.session?.settle()
    const { data, error } = await api.GET('/api/jobs')
    if (mine !== this.turn) return ''
    if (!Array.isArray(data)) return sentenceOf(error)
    this.all = data.map((one) => ({ id: one.id, name: one.doc.name }))
    const ids = [wanted, this.id, keep.read(LAST) ?? '', data[0]?.id ?? '']
    const found = ids.map((id) => data.find((one) => one.id === id)).find(Boolean)
    if (found) this.take(found, changed)
    else this.session = null
    return ''
  }

  /** Change the document here at once; the server gets it after what is under way. */
  edit(label: string, change: (job: Job) => void): void {
    this.session?.edit(label, change)
  }

  /** Told that the server has taken a change of a job. */
  saved(one: JobDocument): void {
    this.all = this.all.map((known) => (known.id === one.id ? { id: one.id, name: one.doc.name } : known))
    if (one === this.session) this.stored += 1
    this.changed += 1
    history.later()
  }

  /** A new job, by the name it is given. Its id, by which its address opens it; '' where there is none. */
  async begin(name: string): Promise<string> {
    const made = await history.done(api.POST('/api/jobs', { body: { name } }), () => `Added ${name}`)
    return made?.id ?? ''
  }

  /** A usual job with its setups, on the camera of a setup used last. */
  async from(name: string, like: string | null): Promise<string> {
    const asked = api.POST('/api/jobs/begin', { params: { query: { name, like } } })
    const made = await history.done(asked, () => `Added ${name}`)
    if (made) await setups.load()
    return made?.id ?? ''
  }

  /** The same job to be done again. readings: with what was seen at its setups. */
  async again(readings: boolean): Promise<string> {
    await this.session?.settle()
    const asked = api.POST('/api/jobs/{item_id}/again', {
      params: { path: { item_id: this.id }, query: { readings } },
    })
    const made = await history.done(asked, (one) => `Added ${one.doc.name}`)
    if (made) await setups.load()
    return made?.id ?? ''
  }

  async remove(): Promise<void> {
    await this.session?.settle()
    if (!this.doc || !(await history.remove('jobs', this.id, this.doc.name))) return
    this.session = null
    await this.open()
  }

  /** A job from a file; says what is wrong with it. */
  async take_in(file: File): Promise<string> {
    const made = await history.done(
      api.POST('/api/jobs/import', asItIs(file)),
      (job) => `Imported ${job.doc.name}`,
    )
    return made?.id ?? ''
  }

  /** The roster from a table, in place of the one there is. */
  async rosterFrom(file: File): Promise<void> {
    const session = this.session
    if (!session) return
    await session.settle()
    const made = await history.done(
      api.PUT('/api/jobs/{item_id}/roster', {
        params: { path: { item_id: session.id }, header: { 'if-match': `"${session.newest}"` } },
        ...asItIs(file),
      }),
      (job) => `Roster of ${job.doc.roster.length}`,
    )
    if (!made) return
    session.take(made)
    this.saved(session)
  }

  /** Do something that would help the day, in the job and its setups; undo takes it back. */
  async help(way: WayText): Promise<void> {
    const session = this.session
    if (!session) return
    await Promise.all([session.settle(), outbox.settle()])
    const { says, ...asked } = way
    const done = await history.done(
      api.POST('/api/jobs/{item_id}/day/help', {
        params: { path: { item_id: session.id }, header: { 'if-match': `"${session.newest}"` } },
        body: asked as DayHelp,
      }),
      () => `Done: ${says}`,
    )
    if (!done) return
    session.take(done)
    this.saved(session)
    await Promise.all([setups.load(), bench.session?.reload()])
  }

  private take(found: Stored<Job>, changed: boolean): void {
    const known = this.session?.newest
    const held = outbox.find('jobs', found.id) as unknown as JobDocument | undefined
    const session = held ?? (this.id === found.id ? this.session! : new JobDocument(found.id))
    session.take(found)
    if (changed || session !== this.session || session.newest !== known) this.stored += 1
    this.session = session
    keep.write(LAST, found.id)
  }
}

export const job = new JobInHand()
