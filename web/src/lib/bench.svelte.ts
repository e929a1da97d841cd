/** Which setup is in hand. */
import { address } from './addresses'
import { api, sentenceOf } from './api/client'
import { outbox } from './outbox.svelte'
import { SetupSession } from './session.svelte'

class Bench {
  session = $state.raw<SetupSession | null>(null)
  missing = $state(false)
  /** The one that was in hand before. */
  private before = ''
  /** The address asked for last; a document that arrives later than a newer question is dropped. */
  wanted = ''
  onsaved: () => void = () => {}
  ontrouble: (sentence: string) => void = () => {}

  /** Told by every setup's session that an edit of it is stored. */
  saved = (): void => this.onsaved()

  async open(id: string): Promise<void> {
    this.wanted = id
    const { data, error, response } = await api.GET('/api/setups/{item_id}/answer', {
      params: { path: { item_id: id }, query: { light: 0 } },
    })
    if (this.wanted !== id) return
    this.missing = response.status === 404
    if (!data) {
      if (!this.missing) this.ontrouble(sentenceOf(error))
      return
    }
    const held = outbox.find('setups', id) as unknown as SetupSession | undefined
    if (held) held.open(data)
    if (this.session && this.session.id !== id) this.before = this.session.id
    this.session = held ?? new SetupSession(id, this.saved, data)
  }

  /** Where to go where the setup in hand is none of these any more: the one before it, or the first; '' where it is
   * there, or holds what is not stored. What is gone is put away. */
  left(there: string[]): string {
    const gone = this.session
    if (!gone || there.includes(gone.id) || gone.unsent.length) return ''
    this.close()
    const next = there.includes(this.before) ? this.before : there[0]
    return next ? address.setup(next) : '#/'
  }

  /** Put the setup in hand away: it is gone. */
  close(): void {
    this.session = null
    this.wanted = ''
  }

  /** Ask again for the setup in hand: preferences or the shelf are different now. */
  async refresh(): Promise<void> {
    await this.session?.refresh()
  }
}

export const bench = new Bench()
