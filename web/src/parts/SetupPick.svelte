<!-- Which setup is in hand; and to begin, copy or delete one. -->
<script lang="ts">
  import { Copy, Plus, Trash2 } from '@lucide/svelte'
  import { api } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../routes'

  let { session }: { session: SetupSession } = $props()

  async function go(made: { id: string } | null) {
    if (!made) return
    await setups.load()
    location.hash = address.setup(made.id)
  }

  async function begin() {
    const { setup } = person.scales.blank
    await go(await history.done(api.POST('/api/setups', { body: setup }), (made) => `Added ${made.doc.name}`))
  }

  async function copy() {
    await session.settle()
    await go(await history.copy('setups', session.id))
  }

  async function remove() {
    await session.settle()
    if (!(await history.remove('setups', session.id, session.doc.name))) return
    const next = setups.all.find((one) => one.id !== session.id)
    bench.close()
    location.hash = next ? address.setup(next.id) : '#/'
    await setups.load()
  }
</script>

<div class="no-print mb-1 flex items-center gap-1 font-sans text-sm">
  <select
    class="border-base-300 bg-base-100 h-8 min-w-0 flex-1 cursor-pointer rounded-lg border px-2"
    aria-label="Setup on the bench"
    value={session.id}
    onchange={(event) => (location.hash = address.setup(event.currentTarget.value))}
  >
    {#each setups.all as one (one.id)}
      <option value={one.id} dir="auto">{one.id === session.id ? session.doc.name : one.name}</option>
    {/each}
  </select>
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="New setup"
    title="New setup"
    onclick={begin}><Plus size={16} /></button
  >
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="Copy this setup"
    title="Copy this setup"
    onclick={copy}><Copy size={16} /></button
  >
  <button
    type="button"
    class="btn btn-sm btn-ghost btn-square"
    aria-label="Delete this setup"
    title="Delete this setup"
    onclick={remove}><Trash2 size={16} /></button
  >
</div>
