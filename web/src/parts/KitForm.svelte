<!-- A piece of kit to be added or changed. What is sent is kept until the server has it; what it refuses stays here. -->
<script lang="ts">
  import { onDestroy } from 'svelte'
  import type { Problem } from '../lib/api/client'
  import { sessionOf } from '../lib/documents'
  import type { Doc } from '../lib/fields'
  import type { KitKind } from '../lib/kinds'
  import { forms } from '../lib/forms.svelte'
  import { person } from '../lib/person.svelte'
  import { Typed } from '../lib/quantities.svelte'
  import { freshId } from '../lib/stamp'
  import Dialog from './Dialog.svelte'
  import Fields from './Fields.svelte'

  type Props = {
    kind: KitKind
    item: { id: string; revision: number; doc: Doc } | null
    close: () => void
    done: (words: string) => void
  }
  let { kind, item, close, done }: Props = $props()
  // svelte-ignore state_referenced_locally
  let draft = $state<Doc>(item ? structuredClone($state.snapshot(item.doc)) : begun())
  /** A new one: a unit begins with a guide number to be filled. */
  function begun(): Doc {
    const blank = person.scales.blank.forms
    const doc = structuredClone($state.snapshot(blank[kind] ?? {})) as Doc
    if (kind !== 'units') return doc
    const claim = structuredClone($state.snapshot(blank.Claim ?? {}))
    return { ...doc, claims: [{ ...claim, guide_number: null }] }
  }

  /** Without guide numbers that nobody filled. */
  function filled(doc: Doc): Doc {
    const claims = doc.claims as Doc[] | undefined
    return claims ? { ...doc, claims: claims.filter((one) => one.guide_number != null) } : doc
  }

  // svelte-ignore state_referenced_locally
  const one = person.scales.kit[kind]!
  const fields = $derived(forms.of(kind))
  void forms.load()

  let problems = $state<Problem[]>([])
  let sending = $state(false)
  // svelte-ignore state_referenced_locally
  const session = sessionOf(kind, item?.id ?? freshId())

  session.inForm = true
  onDestroy(() => (session.inForm = false))

  async function save(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
    event.preventDefault()
    if (!(await Typed.ready(event.currentTarget))) return
    const doc = filled($state.snapshot(draft))
    const label = `${item ? 'Change' : 'Add'} ${one} ${String(doc.name)}`
    if (item) {
      session.take({ revision: item.revision, doc: $state.snapshot(item.doc) })
      session.edit(label, (one) => {
        for (const key of Object.keys(one)) delete (one as Doc)[key]
        Object.assign(one, doc)
      })
    } else session.create(label, doc)
    sending = true
    await session.settle()
    sending = false
    problems = session.aside.flatMap((change) => change.refused ?? [])
    if (problems.length) return
    if (session.waits) done(`${String(doc.name)} waits for the server`)
    else if (!session.changes.length) done(`${item ? 'Changed' : 'Added'} ${session.doc.name}`)
    close()
  }

  /** What was refused is let go with the form that it stands in. */
  function cancel() {
    for (const change of session.aside) session.forget(change)
    close()
  }
</script>

<Dialog title={item ? `Edit ${item.doc.name}` : `Add a ${one}`} close={cancel} wide>
  <form class="grid gap-3 sm:grid-cols-2" novalidate onsubmit={save}>
    {#if fields}
      <Fields {fields} bind:draft {problems} id={`${kind}/${session.id}`} />
    {:else}
      <p class="col-span-full" role="status">{forms.trouble || 'Opening the form'}</p>
    {/if}
    {#if problems.length}
      <ul role="alert" class="text-short col-span-full text-sm font-semibold">
        {#each problems as problem, i (i)}<li><bdi>{problem.sentence}</bdi></li>{/each}
      </ul>
    {/if}
    <div class="bg-base-100 sticky -bottom-6 col-span-full flex gap-2 py-3">
      <button class="btn btn-primary" type="submit" disabled={sending || !fields}
        >{item ? 'Save' : 'Add'}</button
      >
      <button class="btn" type="button" onclick={cancel}>Cancel</button>
    </div>
  </form>
</Dialog>
