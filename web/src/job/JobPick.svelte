<!-- Which job is in hand: its name, to be changed in place; the others; a new one, from a file, to a file. -->
<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { job } from '../lib/job.svelte'
  import { question } from '../lib/question.svelte'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../lib/addresses'

  let { view }: { view: 'job' | 'day' | 'kit' | 'log' } = $props()

  function rename(event: Event & { currentTarget: HTMLInputElement }) {
    const name = event.currentTarget.value.trim()
    if (name) void job.edit('Rename', (one) => (one.name = name))
    else event.currentTarget.value = job.doc!.name
  }

  /** The new one's address opens it: nothing is open in between that could be taken for it. */
  async function goTo(made: Promise<string>) {
    const id = await made
    if (id) location.hash = address[view](id)
  }
  const begin = () => goTo(job.begin('New job'))

  const asked = question(() => ({ at: '/api/jobs/begin/templates', params: {} }))
  const usual = $derived(asked.found ?? [])

  async function from(name: string) {
    if (!name) return
    await goTo(job.from(name, setups.all[0]?.id ?? null))
  }

  async function file(event: Event & { currentTarget: HTMLInputElement }) {
    const [one] = event.currentTarget.files ?? []
    event.currentTarget.value = ''
    if (one) await goTo(job.take_in(one))
  }
</script>

<div class="flex flex-wrap items-center gap-1">
  {#if job.doc}
    <input
      class="hover:bg-base-200 focus:bg-base-200 w-full rounded px-1 py-0.5 text-[1.15rem] leading-tight font-bold"
      aria-label="Name of the job"
      dir="auto"
      maxlength="80"
      value={job.doc.name}
      onchange={rename}
    />
  {/if}
  {#if job.all.length > 1}
    <select
      class="select select-xs w-auto max-w-40"
      aria-label="Job in hand"
      value={job.id}
      onchange={(event) => (location.hash = address[view](event.currentTarget.value))}
    >
      {#each job.all as one (one.id)}<option value={one.id} dir="auto">{one.name}</option>{/each}
    </select>
  {/if}
  <button
    type="button"
    class="btn btn-xs btn-ghost btn-square"
    aria-label="New job"
    title="New job"
    onclick={begin}><Plus size={16} /></button
  >
  <select
    class="select select-xs w-auto max-w-32"
    aria-label="Begin a usual job"
    value=""
    onchange={(event) => {
      void from(event.currentTarget.value)
      event.currentTarget.value = ''
    }}
  >
    <option value="">a usual job …</option>
    {#each usual as one (one.name)}<option value={one.name}>{one.name}: {one.use}</option>{/each}
  </select>
  <label class="btn btn-xs"
    >Import<input
      type="file"
      class="sr-only"
      accept=".json,application/json"
      aria-label="Job from a file"
      onchange={file}
    /></label
  >
  {#if job.doc}
    <a class="btn btn-xs" href={`/api/jobs/${job.id}/export.json`} download>Export</a>
    <select
      class="select select-xs w-auto max-w-24"
      aria-label="Copy this job"
      value=""
      onchange={(event) => {
        const how = event.currentTarget.value
        event.currentTarget.value = ''
        if (how) void goTo(job.again(how === 'with'))
      }}
    >
      <option value="">copy …</option>
      <option value="without">without its readings</option>
      <option value="with">with its readings</option>
    </select>
    <button
      type="button"
      class="btn btn-xs btn-ghost btn-square"
      aria-label="Delete this job"
      title="Delete this job; its setups stay"
      onclick={() => job.remove()}><Trash2 size={15} /></button
    >
  {/if}
</div>
