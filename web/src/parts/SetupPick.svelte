<!-- Which setup is in hand: its name, to be changed in place; the others; and to begin, copy or delete one. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import Copy from '@lucide/svelte/icons/copy'
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import { job } from '../lib/job.svelte'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../lib/addresses'
  import Begin from './Begin.svelte'

  let { session }: { session: SetupSession } = $props()
  let beginning = $state(false)

  /** Setups under their job, those of none last. */
  const groups = $derived.by(() => {
    const out: [string, typeof setups.all][] = []
    for (const one of setups.all) {
      const of = one.job_id
        ? (job.all.find((other) => other.id === one.job_id)?.name ?? 'A job')
        : 'In no job'
      const there = out.find(([name]) => name === of)
      if (there) there[1].push(one)
      else out.push([of, [one]])
    }
    return out.sort(([a], [b]) => Number(a === 'In no job') - Number(b === 'In no job'))
  })

  async function copy() {
    await session.settle()
    const made = await history.copy('setups', session.id)
    if (!made) return
    await setups.load()
    location.hash = address.setup(made.id)
  }

  async function remove() {
    await session.settle()
    if (!(await history.remove('setups', session.id, session.doc.name))) return
    const next = setups.all.find((one) => one.id !== session.id)
    bench.close()
    location.hash = next ? address.setup(next.id) : '#/'
    await setups.load()
  }

  function rename(event: Event & { currentTarget: HTMLInputElement }) {
    const name = event.currentTarget.value.trim()
    if (name) session.edit('Rename', (s) => (s.name = name))
    else event.currentTarget.value = session.doc.name
  }
</script>

{#snippet options(some: typeof setups.all)}
  {#each some as one (one.id)}
    <option value={one.id} dir="auto">{one.id === session.id ? session.doc.name : one.name}</option>
  {/each}
{/snippet}

<div class="flex flex-wrap items-center justify-end gap-0.5">
  <input
    class="hover:bg-base-200 focus:bg-base-200 min-w-[7rem] flex-1 rounded px-1 py-0.5 text-[1.15rem] leading-tight font-bold"
    aria-label="Name of the setup"
    dir="auto"
    maxlength="80"
    value={session.doc.name}
    onchange={rename}
  />
  <span class="flex items-center">
    <span class="tool no-print relative grid h-8 w-7 place-items-center max-sm:w-11">
      <ChevronDown size={18} aria-hidden="true" />
      <select
        class="absolute inset-0 w-full cursor-pointer opacity-0"
        aria-label="Setup on the bench"
        title="Another setup"
        value={session.id}
        onchange={(event) => (location.hash = address.setup(event.currentTarget.value))}
      >
        {#each groups as [name, some] (name)}
          {#if groups.length > 1}<optgroup label={name}>{@render options(some)}</optgroup
            >{:else}{@render options(some)}{/if}
        {/each}
      </select>
    </span>
    <button
      type="button"
      class="btn btn-xs btn-ghost btn-square no-print"
      aria-label="New setup"
      title="New setup"
      onclick={() => (beginning = true)}><Plus size={16} /></button
    >
    <button
      type="button"
      class="btn btn-xs btn-ghost btn-square no-print"
      aria-label="Copy this setup"
      title="Copy this setup"
      onclick={copy}><Copy size={15} /></button
    >
    <button
      type="button"
      class="btn btn-xs btn-ghost btn-square no-print"
      aria-label="Delete this setup"
      title="Delete this setup"
      onclick={remove}><Trash2 size={15} /></button
    >
  </span>
</div>
{#if beginning}<Begin like={session.id} close={() => (beginning = false)} />{/if}
