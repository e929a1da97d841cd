/** The typed client; every call answers with data or a list of problems, never an exception. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

/** A server that cannot be reached answers like one that refuses, with this status. */
export const UNREACHABLE = 503

const reach: typeof fetch = (...request) =>
  fetch(...request).catch(() => {
    const problems = [{ where: '', field: '', sentence: 'The server does not answer.' }]
    return new Response(JSON.stringify({ problems }), { status: UNREACHABLE })
  })

export const api = createClient<paths>({ baseUrl: '/', fetch: (request) => reach(request) })

type Schemas = components['schemas']
export type Setup = Schemas['Setup']
export type Light = Schemas['Light']
export type Modifier = Schemas['Modifier']
export type Body = Schemas['Body']
export type Filter = Schemas['Filter']
export type Unit = Schemas['Unit']
export type Answer = Schemas['Answer']
export type Lane = Schemas['Lane']
export type Arcs = Schemas['Arcs']
export type WayCard = Schemas['WayCard']
export type LaneDetail = Schemas['LaneDetail']
export type Preferences = Schemas['Preferences']
export type There = Schemas['There']
export type Reading = Schemas['Reading']
export type Day = Schemas['Day']
export type Film = Schemas['Film']
export type WayKind = WayCard['kind']
export type Scales = Schemas['Scales']
export type UnitLine = Schemas['UnitLine']
export type ImportOut = Schemas['ImportOut']
export type Problem = Schemas['ProblemOut']
export type Stored<T> = { id: string; revision: number; job_id?: string | null; doc: T }

/** The sentences of a refusal. */
export function problemsOf(error: unknown): Problem[] {
  const found = (error as { problems?: Problem[] } | undefined)?.problems
  return found?.length ? found : [{ where: '', field: '', sentence: 'The server could not answer.' }]
}
