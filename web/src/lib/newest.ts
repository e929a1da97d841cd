import { pressed } from './press'

/** Questions of which only the newest counts: an older answer that comes late is dropped. */
export class Newest {
  private turn = 0

  async take<T>(question: Promise<T>, apply: (answer: T) => void): Promise<void> {
    const mine = ++this.turn
    const answer = await question
    while (pressed()) await pressed()
    if (mine === this.turn) apply(answer)
  }
}
