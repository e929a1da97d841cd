/** A drill in this page: its seed and the moves that were made, kept so that a reload loses nothing. */
import { api, sentenceOf, type PlayText, type PracticeControl, type PracticeMove } from '../lib/api/client'
import { keep } from '../lib/keep.svelte'

type Do = PracticeMove['do']
type Kept = { key: string; moves: PracticeMove[] }
const KEPT = 'practice'

export class DrillSession {
  text = $state.raw<PlayText | null>(null)
  trouble = $state('')
  /** Frames as they were shown, the newest last. */
  strip = $state.raw<{ number: number; picture: string; says: string }[]>([])
  moves: PracticeMove[] = []
  /** One move after the other: each is made on what the one before has come to. */
  private turn: Promise<void> = Promise.resolve()
  /** How many moves are not answered yet: what is shown is of the last of them. */
  private waiting = 0

  constructor(
    readonly code: string,
    readonly seed: number,
    readonly hard: boolean,
  ) {
    const there = keep.read(KEPT)
    try {
      const found = there ? (JSON.parse(there) as Kept) : null
      if (found?.key === this.key && Array.isArray(found.moves)) this.moves = found.moves
    } catch {
      // what is kept there is not ours to read: the drill begins anew
    }
    void this.play()
  }

  private get key() {
    return `${this.code}/${this.seed}/${this.hard}`
  }

  move(kind: Do, what: PracticeMove['what'] = null, value = 0, light = 0): Promise<void> {
    this.waiting += 1
    this.turn = this.turn.then(() => {
      this.moves = [...this.moves, { do: kind, what, value, light }]
      this.waiting -= 1
      return this.play()
    })
    return this.turn
  }

  /** Set a control to one of its choices: it stands there at once, so that a further step is made from there. */
  set(control: PracticeControl, at: number): void {
    const choice = control.choices[at]
    if (!choice || !this.text || at === control.at) return
    const controls = this.text.controls.map((one) =>
      one.what === control.what && one.light === control.light ? { ...one, at } : one,
    )
    this.text = { ...this.text, controls }
    void this.move('set', control.what, choice.value, control.light)
  }

  again(): Promise<void> {
    this.moves = []
    this.strip = []
    return this.play()
  }

  private async play(): Promise<void> {
    const { data, error } = await api.POST('/api/practice/play', {
      body: { drill: this.code as PlayText['code'], seed: this.seed, hard: this.hard, moves: this.moves },
    })
    if (!data) {
      this.trouble = sentenceOf(error)
      return
    }
    this.trouble = ''
    if (!this.waiting) this.text = data
    keep.write(KEPT, JSON.stringify({ key: this.key, moves: this.moves } satisfies Kept))
    const { frame } = data
    if (frame && this.strip.at(-1)?.number !== frame.number)
      this.strip = [...this.strip, { number: frame.number, picture: frame.picture, says: frame.says }]
  }
}
