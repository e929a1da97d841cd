<!-- Which setup is on the bench; and to begin, copy or drop one. -->
<script lang="ts">
  import { Copy, Plus, Trash2 } from '@lucide/svelte'
  import { api, problemsOf, type Setup } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { setups } from '../lib/setups.svelte'
  import { bench } from '../lib/workbench.svelte'

  async function begin(doc: Setup) {
    const { data, error } = await api.POST('/api/setups', { body: doc })
    if (!data) return history.say(problemsOf(error)[0]!.sentence)
    await setups.load()
    location.hash = `#/setup/${data.id}`
    await history.look()
  }

  async function drop() {
    const gone = bench.id
    const name = bench.doc?.name ?? ''
    await bench.settle()
    await api.DELETE('/api/setups', { params: { query: { item_id: [gone] } } })
    await setups.load()
    location.hash = setups.all[0] ? `#/setup/${setups.all[0].id}` : '#/'
    bench.missing = !setups.all.length
    await history.look()
    history.say(`${name} deleted; undo brings it back`)
  }
</script>

<div class="no-print mb-1 flex items-center gap-1 font-sans text-sm">
  <select
    class="border-base-300 bg-base-100 h-8 min-w-0 flex-1 cursor-pointer rounded-lg border px-2"
    aria-label="Setup on the bench"
    value={bench.id}
    onchange={(event) => (location.hash = `#/setup/${event.currentTarget.value}`)}
  >
    {#each setups.all as one (one.id)}
      <option value={one.id}>{one.id === bench.id ? bench.doc?.name : one.name}</option>
    {/each}
  </select>
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="New setup"
    title="New setup"
    onclick={() => begin({ name: 'New setup' } as Setup)}><Plus size={16} /></button
  >
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="Copy this setup"
    title="Copy this setup"
    onclick={() =>
      begin({ ...($state.snapshot(bench.doc) as Setup), name: `${bench.doc?.name}, copy`.slice(0, 80) })}
    ><Copy size={16} /></button
  >
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="Delete this setup"
    title="Delete this setup"
    onclick={drop}><Trash2 size={16} /></button
  >
</div>
