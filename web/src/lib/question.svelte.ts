/**
 * Questions to the server of which the page shows the answer: asked again when what they are made of changes, only the
 * newest counts, and one that several parts ask is asked once. An answer is kept for a view that is come back to, until
 * something is changed; it is asked anew then all the same.
 */
import { createQuery, QueryClient } from '@tanstack/svelte-query'
import { onwritten, sentenceOf } from './api/client'
import { read, type Found, type GetPath, type Params } from './api/get'
import { pressed } from './press'

const KEPT_MS = 60_000

const client = new QueryClient({
  defaultOptions: {
    // the server is this machine's, which is there without a network; the client asks again where it is busy
    queries: { networkMode: 'always', retry: false, refetchOnWindowFocus: false, gcTime: KEPT_MS },
  },
})
onwritten(() => client.removeQueries({ type: 'inactive', fetchStatus: 'idle' }))

/**
 * at: the address. since: what else the answer hangs on. quiet: how long nothing must have changed before it is asked
 * [ms]. hold: whether the answer before stays where a newer one cannot be had.
 */
export interface Question<P extends GetPath> {
  at: P
  params: Params<P>
  since?: unknown
  quiet?: number
  hold?: boolean
}

export interface Answered<T> {
  /** The newest answer; while a newer one of the same thing is awaited, the one before. null: none yet, or it cannot be had. */
  readonly found: T | null
  /** Why it cannot be had. */
  readonly wrong: string
  again(): void
}

/** Ask while the part of the page stands that calls it as it is made; `of` gives null where there is nothing to ask. */
export function question<P extends GetPath>(of: () => Question<P> | null): Answered<Found<P>> {
  const asked = $derived(of())
  let held: { thing: string; answer: Found<P> } | null = null
  const query = createQuery<object>(
    () => {
      const now = asked
      return {
        queryKey: [now && thing(now), now?.params, now?.since],
        queryFn: ({ signal }) => answer(now!, signal),
        enabled: now !== null,
        placeholderData: (before, from) => (now && from?.queryKey[0] === thing(now) ? before : undefined),
      }
    },
    () => client,
  )
  return {
    get found() {
      if (asked === null) return null
      if (query.data !== undefined) held = { thing: thing(asked), answer: query.data as Found<P> }
      else if (!asked.hold || held?.thing !== thing(asked)) held = null
      return held?.answer ?? null
    },
    get wrong() {
      return asked === null || !query.error ? '' : sentenceOf(query.error)
    },
    again: () => void query.refetch(),
  }
}

/** What is asked about, whatever is asked of it. */
function thing({ at, params }: { at: string; params: { path?: unknown } }): string {
  return `${at} ${JSON.stringify(params.path ?? null)}`
}

async function answer<P extends GetPath>(
  { at, params, quiet }: Question<P>,
  signal: AbortSignal,
): Promise<object> {
  if (quiet) await new Promise((resolve) => setTimeout(resolve, quiet))
  signal.throwIfAborted()
  try {
    return (await read(at, params, signal)) as object
  } finally {
    while (pressed()) await pressed()
  }
}

let turn = 0

/** Ask once, and let go of an earlier question by the same name; undefined where a later one has taken its place. */
export async function newest<T>(name: string, ask: () => Promise<T>): Promise<T | undefined> {
  await client.cancelQueries({ queryKey: [name] })
  const queryFn = async ({ signal }: { signal: AbortSignal }) => {
    const found = await ask()
    while (pressed()) await pressed()
    signal.throwIfAborted()
    return { found }
  }
  try {
    return (await client.fetchQuery({ queryKey: [name, ++turn], queryFn, gcTime: 0 })).found
  } catch {
    return undefined
  }
}
