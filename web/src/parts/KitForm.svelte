<!-- A piece of kit to be added or changed. -->
<script lang="ts">
  import { api, problemsOf, type Problem } from '../lib/api/client'
  import type { Doc } from '../lib/fields'
  import { KIT, type KitKind } from '../lib/kitfields'
  import { person } from '../lib/person.svelte'
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
  let draft = $state<Doc>(
    structuredClone($state.snapshot(item?.doc ?? person.scales.blank.forms[kind] ?? {})),
  )
  let problems = $state<Problem[]>([])

  async function save(event: Event) {
    event.preventDefault()
    const body = $state.snapshot(draft) as never
    const { data, error } = item
      ? await api.PUT(`/api/${kind as 'units'}/{item_id}`, {
          params: { path: { item_id: item.id }, header: { 'if-match': `"${item.revision}"` } },
          body,
        })
      : await api.POST(`/api/${kind as 'units'}`, { body })
    if (!data) return void (problems = problemsOf(error))
    done(`${item ? 'Changed' : 'Added'} ${data.doc.name}`)
    close()
  }
</script>

<Dialog title={item ? `Edit ${item.doc.name}` : `Add a ${KIT[kind].one}`} {close} wide>
  <form class="grid gap-3 sm:grid-cols-2" novalidate onsubmit={save}>
    <Fields fields={KIT[kind].fields} bind:draft {problems} />
    {#if problems.length}
      <ul role="alert" class="text-short col-span-full text-sm font-semibold">
        {#each problems as problem, i (i)}<li><bdi>{problem.sentence}</bdi></li>{/each}
      </ul>
    {/if}
    <div class="bg-base-100 sticky -bottom-6 col-span-full flex gap-2 py-3">
      <button class="btn btn-primary" type="submit">{item ? 'Save' : 'Add'}</button>
      <button class="btn" type="button" onclick={close}>Cancel</button>
    </div>
  </form>
</Dialog>
