/** Taking a unit for a light, and giving it back. */
import { api, sentenceOf, type ChangeText } from './api/client'
import { history } from './history.svelte'
import type { SetupSession } from './session.svelte'

/** Take a unit of the shelf for the light looked at; the setup keeps a copy of it. */
export async function take(session: SetupSession, id: string): Promise<void> {
  const { data, error } = await api.GET('/api/units/{item_id}', { params: { path: { item_id: id } } })
  if (!data) return history.tell(sentenceOf(error))
  session.edit('Unit', (s) => {
    const light = s.lights[session.light]!
    light.unit = { ...data.doc, id }
    light.dial_stops = null
    light.distance_free = false
  })
}

/** Do a change that was offered; undo takes it back. */
export function apply(session: SetupSession, change: ChangeText): void {
  session.edit(change.says, (s) => Object.assign(s, structuredClone(change.setup)))
}

/** Let the whole shelf be compared again. */
export function giveBack(session: SetupSession): void {
  session.edit('Unit', (s) => {
    const light = s.lights[session.light]!
    light.unit = null
    light.dial_stops = null
    light.distance_free = false
  })
}
