/** Which setup is in hand. */
import { api, sentenceOf } from './api/client'
import { outbox } from './outbox.svelte'
import { SetupSession } from './session.svelte'

class Bench {
  session = $state.raw<SetupSession | null>(null)
  missing = $state(false)
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
    this.session = held ?? new SetupSession(id, this.saved, data)
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
