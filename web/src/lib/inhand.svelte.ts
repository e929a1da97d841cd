/** What there is to say of the unit in hand, asked for once for all parts that show it, and only while one does. */
import { api, type InHand } from './api/client'
import { Newest } from './newest'
import type { SetupSession } from './session.svelte'

const QUIET_MS = 60

export class InHandQuestion {
  found = $state.raw<InHand | null>(null)
  private shown = $state(0)
  private newest = new Newest()

  constructor(private session: SetupSession) {}

  /** Ask, where a part shows it and once nothing has changed for a moment; call what comes back to leave it. */
  ask(): (() => void) | undefined {
    void this.session.answered
    if (!this.shown) return
    const timer = setTimeout(() => {
      const asked = api.GET('/api/setups/{item_id}/in-hand', {
        params: { path: { item_id: this.session.id }, query: { light: this.session.light } },
      })
      void this.newest.take(asked, ({ data }) => (this.found = data ?? null))
    }, QUIET_MS)
    return () => clearTimeout(timer)
  }

  /** One more part shows it; call what comes back when it does no longer. */
  want(): () => void {
    this.shown += 1
    return () => (this.shown -= 1)
  }
}
