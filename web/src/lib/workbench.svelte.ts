/** One setup on the bench: edits show at once, are saved one at a time, newest wins, and nothing is lost silently. */
import { api, problemsOf, UNREACHABLE, type Answer, type Problem, type Setup } from './api/client'

type Saving = 'saved' | 'saving' | 'refused' | 'unreachable'

class Workbench {
  id = $state('')
  doc = $state.raw<Setup | null>(null)
  answer = $state.raw<Answer | null>(null)
  trouble = $state('')
  saving = $state<Saving>('saved')
  problems = $state<Problem[]>([])
  conflict = $state(false)
  light = $state(0)
  /** Raised with every answer, so that an open lane asks for its chain again. */
  answered = $state(0)
  missing = $state(false)
  onsaved: () => void = () => {}
  private revision = 0
  private theirs = 0
  private waiting: { doc: Setup; label: string } | null = null
  private running: Promise<void> | null = null

  async open(id: string): Promise<void> {
    await this.settle()
    const { data, response } = await api.GET('/api/setups/{item_id}/answer', {
      params: { path: { item_id: id }, query: { light: this.id === id ? this.light : 0 } },
    })
    this.missing = response.status === 404
    if (!data) return
    if (this.id !== id) this.light = 0
    this.id = id
    this.revision = data.revision
    this.doc = data.setup
    this.take(data.answer, data.trouble)
    this.saving = 'saved'
    this.problems = []
    this.conflict = false
  }

  /** Ask again without a change: preferences or the shelf are different now. */
  async again(): Promise<void> {
    if (this.id) await this.open(this.id)
  }

  /** Look at another light of the setup. */
  look(light: number): void {
    this.light = light
    void this.settle().then(() => this.again())
  }

  /** Change the setup; `label` is what undo will call it. */
  edit(label: string, change: (draft: Setup) => void): void {
    if (!this.doc || this.conflict) return
    const draft = structuredClone(this.doc)
    change(draft)
    this.doc = draft
    this.waiting = { doc: draft, label }
    this.saving = 'saving'
    this.running ??= this.run()
  }

  /** Wait until everything changed so far is saved, or was refused. */
  async settle(): Promise<void> {
    await this.running
  }

  get unsaved(): boolean {
    return this.saving !== 'saved'
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
        query: { label, light: this.light },
        header: { 'if-match': `"${this.revision}"` },
      },
      body: doc,
    })
    if (data) {
      this.revision = data.revision
      if (!this.waiting) {
        this.take(data.answer, data.trouble)
        this.saving = 'saved'
        this.problems = []
        this.onsaved()
      }
      return true
    }
    if (response.status === UNREACHABLE) {
      this.saving = 'unreachable'
      this.waiting ??= { doc, label }
      await new Promise((resolve) => setTimeout(resolve, 1500))
      return true
    }
    if (response.status === 412) {
      this.theirs = (error as unknown as { current: { revision: number } }).current.revision
      this.conflict = true
    }
    this.problems = problemsOf(error)
    this.saving = 'refused'
    return this.waiting !== null && response.status === 422
  }

  /** Settle a conflict: keep what is on this screen, or take what the other tab saved. */
  async resolve(keep: 'mine' | 'theirs'): Promise<void> {
    this.conflict = false
    if (keep === 'theirs') return this.open(this.id)
    this.revision = this.theirs
    this.edit('Keep this version', () => {})
  }

  private take(answer: Answer | null | undefined, trouble: string): void {
    if (answer) this.answer = answer
    this.trouble = trouble
    this.answered += 1
  }
}

export const bench = new Workbench()
