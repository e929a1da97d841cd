/** What an answer of the server is to a page that keeps what was done until the server has it. */
import { BUSY, problemsOf, sentenceOf, UNREACHABLE, type Problem } from './api/client'

/** A document as the server has it. */
export interface Held<T> {
  revision: number
  doc: T
}

export type Reply<T> = { data?: Held<T>; error?: unknown; status: number }

/** A stored document out of an answer; undefined where that is not one. */
export function held<T>(answer: unknown): Held<T> | undefined {
  const found = answer as { revision?: unknown; doc?: unknown } | null | undefined
  return typeof found?.revision === 'number' && typeof found.doc === 'object' && found.doc !== null
    ? { revision: found.revision, doc: found.doc as T }
    : undefined
}

/** What the server refuses for good, so that sending it again as it is helps nothing. */
export const REFUSED = [400, 404, 405, 409, 413, 415, 422, 428]

/** What is wrong with a change of a document that is no longer there. */
export const GONE: Problem = {
  where: '',
  field: 'Document',
  sentence: 'It was deleted elsewhere. Once it is brought back there by Undo, send this again; or let it go.',
}

/** The reason that needs nothing done. */
export const AWAY = 'The server does not answer. It is sent again by itself.'

/** Why something waits for the server, and what to do. */
export function whyWaiting(status: number, error: unknown): string {
  if (status === 401 || status === 403)
    return 'The server no longer lets this device in. Open its link again (Kit shows a new one where the server runs).'
  if (status === 404)
    return 'The server does not know this address. Reload the page: it may have a newer version.'
  if (status === 413) return `${problemsOf(error, TOO_LARGE)[0]!.sentence} Then try again, or let it go.`
  if (status === 429) return 'The server is asked too much just now. It is sent again by itself.'
  if (status === UNREACHABLE || status === BUSY || status < 500) return AWAY
  return sentenceOf(error)
}

const TOO_LARGE = 'It is larger than the server takes.'
