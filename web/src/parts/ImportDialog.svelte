<!-- Import: the file is shown first; nothing is written until the person agrees. -->
<script lang="ts">
  import { api, asItIs, sentenceOf, type ImportOut } from '../lib/api/client'
  import { count } from '../lib/figures'
  import Dialog from './Dialog.svelte'

  let { close, done }: { close: () => void; done: (written: number) => void } = $props()
  let file = $state<File | null>(null)
  let shown = $state<ImportOut | null>(null)
  let wrong = $state('')
  let busy = $state(false)

  async function send(agreed?: string) {
    if (!file) return
    busy = true
    wrong = ''
    try {
      const { data, error } = await api.POST('/api/shelf/import', {
        params: { query: agreed ? { agreed } : {} },
        ...asItIs(file),
        headers: { 'content-type': 'text/csv' },
      })
      if (!data) wrong = sentenceOf(error)
      else if (agreed) {
        done(data.written)
        close()
      } else shown = data
    } catch {
      wrong = 'The file could not be sent: it is too large, or the server is away.'
    }
    busy = false
  }
</script>

<Dialog title="Import units" {close} wide>
  <p class="mb-3 text-sm">
    CSV (UTF-8) with a column “name” and “guide_number” as printed, such as “GN 60 (ISO 100, m, 200 mm)”; or
    JSON from an export.
  </p>
  <input
    type="file"
    class="file-input"
    aria-label="File to import"
    accept=".csv,.json,text/csv,application/json"
    onchange={(event) => {
      file = event.currentTarget.files?.[0] ?? null
      shown = null
      void send()
    }}
  />
  {#if busy}<p class="mt-3" role="status">Reading …</p>{/if}
  {#if wrong}<p class="text-short mt-3 font-semibold" role="alert">{wrong}</p>{/if}
  {#if shown}
    <p class="mt-4 font-semibold" data-testid="import-count">
      {count(shown.good)} good, {count(shown.bad)} bad
    </p>
    {#if shown.unknown_columns.length}<p class="text-quiet text-sm">
        Not read: {shown.unknown_columns.join(', ')}
      </p>{/if}
    {#if shown.problems.length}
      <ul class="text-short mt-2 max-h-40 overflow-auto text-sm">
        {#each shown.problems as problem, i (i)}<li>
            Row {problem.row}{problem.column ? `, ${problem.column}` : ''}: <bdi>{problem.reason}</bdi>
          </li>{/each}
        {#if shown.unlisted}<li>And {count(shown.unlisted)} more bad rows.</li>{/if}
      </ul>
    {/if}
    <ul class="mt-3 max-h-52 overflow-auto text-sm">
      {#each shown.lines as line, i (i)}<li>
          <strong><bdi>{line.name}</bdi></strong>: <bdi>{line.printed}</bdi> → {line.comes_to}
        </li>{/each}
    </ul>
  {/if}
  <div class="mt-5 flex gap-2">
    <button class="btn btn-primary" disabled={!shown?.good || busy} onclick={() => send(shown?.digest)}
      >{!shown ? 'Add' : shown.good === 1 ? 'Add 1 unit' : `Add ${count(shown.good)} units`}</button
    >
    <button class="btn" onclick={close}>Cancel</button>
  </div>
</Dialog>
