/** The session of a document: the one in hand, or that still holds changes, where there is one; else a fresh one. */
import { bench } from './bench.svelte'
import type { DocKind, DocumentSession } from './document.svelte'
import { job, JobDocument } from './job.svelte'
import { KitDocument } from './kit.svelte'
import { outbox } from './outbox.svelte'
import { person } from './person.svelte'
import { SetupSession } from './session.svelte'

type Named = DocumentSession<{ name?: string }>

export function sessionOf(kind: DocKind, id: string): Named {
  const inHand: unknown[] = [bench.session, job.session, person.session]
  const found = (inHand as (Named | null)[]).find((one) => one?.kind === kind && one.id === id)
  return found ?? outbox.find(kind, id) ?? (fresh(kind, id) as unknown as Named)
}

function fresh(kind: DocKind, id: string) {
  if (kind === 'setups') return new SetupSession(id, bench.saved)
  if (kind === 'jobs') return new JobDocument(id)
  return kind === 'preferences' ? person.session : new KitDocument(kind, id)
}
