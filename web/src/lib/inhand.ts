/** What there is to say of the unit in hand, asked for once for all parts that show it, and only while one does. */
import { question } from './question.svelte'
import type { SetupSession } from './session.svelte'

const QUIET_MS = 60

export const inHand = (session: () => SetupSession | null) =>
  question(() => {
    const one = session()
    if (!one) return null
    return {
      at: '/api/setups/{item_id}/in-hand',
      params: { path: { item_id: one.id }, query: { light: one.light } },
      since: one.answered,
      quiet: QUIET_MS,
    }
  })
