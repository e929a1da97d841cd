/**
 * One setup being edited. A session belongs to one document for good: edits show at once, are saved one at a time
 * with this document's own revision, newest wins, and nothing is lost silently.
 */
import { laidOver } from '../chart/sight'
import {
  api,
  once,
  problemsOf,
  UNREACHABLE,
  BUSY,
  type Answer,
  type Problem,
  type Setup,
  type Solved,
} from './api/client'

type Saving = 'saved' | 'saving' | 'refused' | 'unreachable'
type Change = (draft: Setup) => void

const AGAIN_MS = 1500
const QUIET_MS = 700 // longer than it takes to press a key again

export class SetupSession {
  readonly id: string
  doc: Setup = $state.raw() as Setup
  answer = $state.raw<Answer | null>(null)
  trouble = $state('')
  saving = $state<Saving>('saved')
  problems = $state<Problem[]>([])
  conflict = $state(false)
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
  private revision = 0
  private theirs = 0
  /** Raised with every edit, so that an answer asked for before it is known to be old. */
  private edits = 0
  private waiting: { doc: Setup; label: string } | null = null
  private running: Promise<void> | null = null
  private reloading: Promise<void> | null = null

  constructor(
    solved: Solved,
    private onsaved: () => void,
  ) {
    this.id = solved.id
    this.take(solved)
  }

  /** Change the setup; `label` is what undo will call it: the figure's name, so that nudges of one figure merge. */
  edit(label: string, change: Change): void {
    if (this.reloading) {
      void this.reloading.then(() => this.edit(label, change))
      return
    }
    if (this.conflict) return
    const draft = structuredClone(this.doc)
    change(draft)
    this.doc = draft
    this.edits += 1
    this.waiting = { doc: draft, label }
    this.saving = 'saving'
    this.running ??= this.run()
  }

  /** Change the light that is looked at. */
  editLight(label: string, change: (light: Setup['lights'][number]) => void): void {
    this.edit(label, (draft) => change(draft.lights[this.light]!))
  }

  /** Wait until everything changed so far is saved, or was refused. */
  async settle(): Promise<void> {
    await this.running
  }

  get unsaved(): boolean {
    return this.saving !== 'saved'
  }

  /** Ask again without a change: preferences, the shelf or the light looked at are different now. */
  async refresh(): Promise<void> {
    await this.settle()
    const solved = await this.askUnchanged()
    if (solved) this.take(solved)
  }

  /** Take the document as the server has it now, after an undo; what is changed meanwhile is changed in that. */
  async reload(): Promise<void> {
    await this.settle()
    this.reloading = this.ask().then((solved) => {
      this.reloading = null
      if (solved) this.take(solved)
    })
    await this.reloading
  }

  /** Look at another light of the setup. */
  look(light: number): void {
    this.light = light
    void this.refresh()
  }

  /** Settle a conflict: keep what is on this screen, or take what the other tab saved. */
  async resolve(keep: 'mine' | 'theirs'): Promise<void> {
    this.conflict = false
    if (keep === 'theirs') return this.reload()
    this.revision = this.theirs
    this.edit('Keep this version', () => {})
  }

  private async ask(): Promise<Solved | undefined> {
    const { data } = await api.GET('/api/setups/{item_id}/answer', {
      params: { path: { item_id: this.id }, query: { light: this.light } },
    })
    return data
  }

  /** The answer, unless something was changed or asked anew meanwhile. */
  private async askUnchanged(): Promise<Solved | undefined> {
    const [edits, turn] = [this.edits, ++this.turn]
    const solved = await this.ask()
    return this.edits === edits && this.turn === turn ? solved : undefined
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

  private async run(): Promise<void> {
    while (this.waiting) {
      const { doc, label } = this.waiting
      this.waiting = null
      if (!(await this.put(doc, label))) break
    }
    this.running = null
  }

  private async put(doc: Setup, label: string): Promise<boolean> {
    const { data, error, response } = await api.PUT('/api/setups/{item_id}', {
      params: {
        path: { item_id: this.id },
        query: { label, light: this.light, sight: this.sight },
        header: { 'if-match': `"${this.revision}"` },
      },
      body: doc,
      fetch: once,
    })
    if (data) {
      this.revision = data.revision
      if (!this.waiting) {
        this.show(data, this.sight.length > 0)
        this.onsaved()
      }
      return true
    }
    if (response.status === UNREACHABLE || response.status === BUSY) {
      this.saving = 'unreachable'
      this.waiting ??= { doc, label }
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
      return true
    }
    if (response.status === 412) {
      this.theirs = (error as { current: { revision: number } }).current.revision
      this.conflict = true
    }
    this.problems = problemsOf(error)
    this.saving = 'refused'
    return this.waiting !== null && response.status === 422
  }

  private take(solved: Solved): void {
    this.revision = solved.revision
    this.doc = solved.setup
    this.light = Math.min(this.light, solved.setup.lights.length - 1)
    this.conflict = false
    this.show(solved)
  }

  private show(solved: Solved, partial = false): void {
    this.partial = partial && solved.answer !== null
    if (!this.partial) this.answer = solved.answer
    else this.answer = laidOver(this.answer, solved.answer!) ?? this.answer
    clearTimeout(this.follower)
    if (this.partial) this.follow()
    this.trouble = solved.trouble
    this.saving = 'saved'
    this.problems = []
    this.answered += 1
  }
}
