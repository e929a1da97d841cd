/**
 * One setup being edited, with its answer. A session belongs to one document for good (see DocumentSession); here is what
 * the setup comes to: asked with every edit, and never an older answer over a newer.
 */
import { laidOver } from './sight'
import { api, inPassing, once, type Answer, type Setup, type Solved } from './api/client'
import { DocumentSession, type Change } from './document.svelte'
import { inAMoment } from './foresight'
import type { Held, Reply } from './reply'

const QUIET_MS = 700 // longer than it takes to press a key again

export class SetupSession extends DocumentSession<Setup> {
  answer = $state.raw<Answer | null>(null)
  trouble = $state('')
  light = $state(0)
  /** Raised with every answer, so that an open lane asks for its chain again. */
  answered = $state(0)
  /** Ids of the units in sight: an edit asks for their lanes only; the others follow in a quiet moment. None: all. */
  sight: string[] = []
  /** Whether lanes out of sight are still to follow. */
  partial = $state(false)
  private follower: ReturnType<typeof setTimeout> | undefined
  /** Raised with every question, so that an older answer to one is dropped. */
  private turn = 0
  /** The newest answer that came, and whether it tells the lanes in sight only. */
  private came: { solved: Solved; partial: boolean } | null = null
  /** What the setup would come to as it is likely to be next, by its text. */
  private foreseen: Record<string, Answer> = {}
  /** The foreseen answer that shows, as text, until the server has the edit that it is of. */
  private ahead = ''

  constructor(
    id: string,
    private onsaved: () => void = () => {},
    solved?: Solved,
  ) {
    super('setups', id)
    if (solved) this.open(solved)
  }

  /** What the server says of the setup as it stands there. */
  open(solved: Solved): void {
    if (solved.revision < this.revision) return
    this.came = { solved, partial: false }
    this.take({ revision: solved.revision, doc: solved.setup })
    if (!this.unsent.length) this.show()
  }

  override take(held: Held<Setup>): void {
    super.take(held)
    this.light = Math.max(0, Math.min(this.light, (this.doc?.lights.length ?? 1) - 1))
  }

  /** Change the light that is looked at. */
  editLight(label: string, change: (light: Setup['lights'][number]) => void): void {
    this.edit(label, (draft) => change(draft.lights[this.light]!))
  }

  override edit(label: string, change: (draft: Setup) => void): void {
    const before = this.doc
    super.edit(label, change)
    if (this.doc === before) return
    this.turn += 1 // an answer asked for before this is old
    const known = this.foreseen[JSON.stringify(this.doc)]
    if (!known) return
    this.ahead = JSON.stringify(known)
    this.lay(known, this.sight.length > 0)
  }

  /** Ask what the setup would come to as these say, so that it can be shown at once where one of them is made of it. */
  foresee(drafts: object[]): void {
    if (this.unsent.length || !this.answer) return
    const found: Record<string, Answer> = (this.foreseen = {})
    for (const draft of drafts as Setup[]) void this.askAhead(draft, found)
  }

  private async askAhead(draft: Setup, found: Record<string, Answer>): Promise<void> {
    const { data } = await api.POST('/api/setups/{item_id}/foreseen', {
      params: { path: { item_id: this.id }, query: { light: this.light, sight: this.sight } },
      body: draft,
      fetch: inPassing,
    })
    if (data?.answer) found[JSON.stringify(draft)] = data.answer
  }

  /** Ask again without a change: preferences, the shelf or the light looked at are different now. */
  async refresh(): Promise<void> {
    this.foreseen = {}
    await this.settle()
    await this.renew()
  }

  private async renew(): Promise<void> {
    const solved = await this.askUnchanged()
    if (solved) this.open(solved)
  }

  /** Look at another light of the setup. */
  look(light: number): void {
    this.light = light
    void this.refresh()
  }

  protected override async get(): Promise<Reply<Setup>> {
    const { data, error, response } = await api.GET('/api/setups/{item_id}/answer', {
      params: { path: { item_id: this.id }, query: { light: this.light } },
    })
    return this.reply(data, error, response.status, false)
  }

  protected override async put(doc: Setup, { label, goesOn }: Change): Promise<Reply<Setup>> {
    const { data, error, response } = await api.PUT('/api/setups/{item_id}', {
      params: {
        path: { item_id: this.id },
        query: {
          label,
          goes_on: goesOn,
          light: Math.min(this.light, doc.lights.length - 1),
          sight: this.sight,
        },
        header: { 'if-match': `"${this.revision}"` },
      },
      body: doc,
      fetch: once,
    })
    return this.reply(data, error, response.status, this.sight.length > 0)
  }

  protected override async fetched(): Promise<boolean> {
    const came = await super.fetched()
    if (came && !this.unsent.length) this.show()
    return came
  }

  protected override arrived(): void {
    if (this.unsent.length) return
    this.show()
    this.onsaved()
    inAMoment()
  }

  /** What was merged, refused or let go leaves the screen with an older answer: ask anew. */
  protected override async idle(): Promise<void> {
    if (this.came?.solved.revision !== this.revision) await this.renew()
    else if (this.ahead || (this.trouble === '' && this.answer === null)) this.show()
  }

  private reply(solved: Solved | undefined, error: unknown, status: number, partial: boolean): Reply<Setup> {
    const good = typeof solved?.revision === 'number' && solved.setup !== undefined
    if (good) this.came = { solved, partial }
    return { data: good ? { revision: solved.revision, doc: solved.setup } : undefined, error, status }
  }

  /** The answer, unless something was changed or asked anew meanwhile. */
  private async askUnchanged(): Promise<Solved | undefined> {
    const turn = ++this.turn
    const { data } = await api.GET('/api/setups/{item_id}/answer', {
      params: { path: { item_id: this.id }, query: { light: this.light } },
    })
    return this.turn === turn && typeof data?.revision === 'number' ? data : undefined
  }

  /** What was out of sight comes into it: ask for it at once. */
  hurry(): void {
    if (this.partial) this.follow(0)
  }

  /** Ask for the lanes out of sight, once nothing has been changed for a moment. */
  private follow(quiet = QUIET_MS): void {
    clearTimeout(this.follower)
    this.follower = setTimeout(async () => {
      const solved = await this.askUnchanged()
      if (!this.partial) return
      if (solved?.revision !== this.revision) return this.follow()
      this.answer = solved.answer
      this.partial = false
    }, quiet)
  }

  private show(): void {
    if (!this.came) return
    const { solved, partial } = this.came
    const known = this.ahead !== '' && this.ahead === JSON.stringify(solved.answer)
    this.ahead = ''
    if (!known) this.lay(solved.answer, partial)
    clearTimeout(this.follower)
    if (this.partial) this.follow()
    this.trouble = solved.trouble
    this.answered += 1
  }

  /** Show an answer; one that tells some lanes only is laid over the one before. */
  private lay(answer: Answer | null, partial: boolean): void {
    this.partial = partial && answer !== null
    this.answer = this.partial ? (laidOver(this.answer, answer!) ?? this.answer) : answer
  }
}
