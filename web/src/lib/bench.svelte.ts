/** Which setup is in hand. */
import { api, sentenceOf } from './api/client'
import { SetupSession } from './session.svelte'

class Bench {
  session = $state.raw<SetupSession | null>(null)
  missing = $state(false)
  /** The address asked for last; a document that arrives later than a newer question is dropped. */
  wanted = ''
  onsaved: () => void = () => {}
  ontrouble: (sentence: string) => void = () => {}
  private sessions = new Set<WeakRef<SetupSession>>()

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
    this.session = new SetupSession(data, () => this.onsaved())
    this.sessions.add(new WeakRef(this.session))
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

  /** Whether anything typed here is not stored yet, in the setup in hand or in one left a moment ago. */
  get unsaved(): boolean {
    return [...this.sessions].some((one) => one.deref()?.unsaved)
  }

  async settle(): Promise<void> {
    await Promise.all([...this.sessions].map((one) => one.deref()?.settle()))
  }
}

export const bench = new Bench()
