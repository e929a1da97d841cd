/** What is asked of the job in hand, and of the setup in hand: anew when the server has a change of it. */
import type { GetPath, Params } from './api/get'
import { job } from './job.svelte'
import { question } from './question.svelte'
import type { SetupSession } from './session.svelte'

const QUIET_MS = 60

type Of<Kind extends 'jobs' | 'setups'> = Extract<GetPath, `/api/${Kind}/{item_id}/${string}`>
type Query<P extends GetPath> = Params<P> extends { query?: infer Q } ? Q : never
type More<P extends GetPath> = { query?: Query<P>; quiet?: number }

const params = <P extends GetPath>(item_id: string, query?: Query<P>) =>
  ({ path: { item_id }, ...(query ? { query } : {}) }) as unknown as Params<P>

/** Of the job in hand; nothing where there is none, or `more` gives null. */
export const ofJob = <P extends Of<'jobs'>>(at: P, more: () => More<P> | null = () => ({})) =>
  question(() => {
    const asked = job.id ? more() : null
    return asked && { at, params: params<P>(job.id, asked.query), since: job.stored, quiet: asked.quiet }
  })

/** Of a setup, once nothing has changed for a moment; nothing where there is none. */
export const ofSetup = <P extends Of<'setups'>>(
  session: () => SetupSession | null,
  at: P,
  more: (one: SetupSession) => More<P> = () => ({}),
) =>
  question(() => {
    const one = session()
    if (!one) return null
    const { query, quiet = QUIET_MS } = more(one)
    return { at, params: params<P>(one.id, query), since: one.answered, quiet }
  })

/** What there is to say of the unit in hand: asked once for all parts that show it, and only while one does. */
export const inHand = (session: () => SetupSession | null) =>
  ofSetup(session, '/api/setups/{item_id}/in-hand', (one) => ({ query: { light: one.light } }))
