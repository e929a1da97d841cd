/** Reading, by address: what each asks for and gives, of the schema. */
import { api } from './client'
import type { paths } from './schema'

type Get<P extends keyof paths> = paths[P] extends { get: infer G } ? G : never
type Given<G> = G extends { responses: { 200: { content: { 'application/json': infer T } } } } ? T : never

/** Addresses that give something readable. */
export type GetPath = {
  [P in keyof paths]: Given<Get<P>> extends never ? never : P
}[keyof paths]
/** What an address gives. */
export type Found<P extends GetPath> = Given<Get<P>>
/** What is asked for there: where, and by which query. */
export type Params<P extends GetPath> =
  Get<P> extends { parameters: infer A }
    ? { [K in 'path' | 'query' as K extends keyof A ? K : never]?: K extends keyof A ? A[K] : never }
    : never

type Loose = (
  at: string,
  init: { params: unknown; signal: AbortSignal },
) => Promise<{ data?: unknown; error?: unknown }>

/** Read from an address; throws what the server says where it refuses. */
export async function read<P extends GetPath>(
  at: P,
  params: Params<P>,
  signal: AbortSignal,
): Promise<Found<P>> {
  const { data, error } = await (api.GET as unknown as Loose)(at, { params, signal })
  if (data === undefined) throw error
  return data as Found<P>
}
