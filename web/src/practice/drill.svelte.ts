/** A drill in this page: its seed and the moves that were made, kept so that a reload loses nothing. */
import { api, sentenceOf, type PlayText, type PracticeMove } from '../lib/api/client'
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
    this.turn = this.turn.then(() => {
      this.moves = [...this.moves, { do: kind, what, value, light }]
      return this.play()
    })
    return this.turn
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
    this.text = data
    keep.write(KEPT, JSON.stringify({ key: this.key, moves: this.moves } satisfies Kept))
    const { frame } = data
    if (frame && this.strip.at(-1)?.number !== frame.number)
      this.strip = [...this.strip, { number: frame.number, picture: frame.picture, says: frame.says }]
  }
}
