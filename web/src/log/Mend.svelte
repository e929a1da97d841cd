<!-- An entry that the server will not have: what was typed, to be mended and sent again, or let go. -->
<script lang="ts">
  import { sentences } from '../lib/api/client'
  import { log, type Waiting } from '../lib/log.svelte'
  import { quantity, Typed } from '../lib/quantities.svelte'
  import Quantity from '../parts/Quantity.svelte'

  let { waiting }: { waiting: Waiting } = $props()
  // svelte-ignore state_referenced_locally
  const { entry } = waiting
  let flashes = $state(entry.flashes)
  let celsius = $state(entry.celsius)
  let swapped = $state(entry.swapped)
  let note = $state(entry.note)

  async function send(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
    event.preventDefault()
    if (!(await Typed.ready(event.currentTarget))) return
    const mended = { ...entry, flashes, celsius, swapped: swapped.trim() }
    void log.write({ ...mended, note: note.trim() }, waiting.id, waiting.form)
  }
</script>

<form class="sheet mb-2 p-3" aria-label={`Not logged: ${entry.name}`} onsubmit={send}>
  <p role="alert" class="text-short font-semibold">
    <bdi>{entry.name}</bdi>: <bdi>{sentences(waiting.problems)}</bdi>
  </p>
  <div class="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-4">
    <label class="text-[0.84rem]"
      >Flashes<Quantity
        label="Flashes"
        key={`mend/${waiting.id}/flashes`}
        class="input input-sm w-full"
        value={String(flashes ?? '')}
        reads={quantity('count', 'Flashes', null, (value) => (flashes = value))}
        empty={() => (flashes = null)}
      /></label
    >
    <label class="text-[0.84rem]"
      >°C<Quantity
        label="Temperature"
        key={`mend/${waiting.id}/celsius`}
        class="input input-sm w-full"
        value={String(celsius ?? '')}
        reads={quantity('temperature', 'Temperature', null, (value) => (celsius = value))}
        empty={() => (celsius = null)}
      /></label
    >
    <label class="text-[0.84rem]"
      >Battery put in<input class="input input-sm w-full" maxlength="80" bind:value={swapped} /></label
    >
    <label class="text-[0.84rem]">Note<input class="input input-sm w-full" bind:value={note} /></label>
  </div>
  <p class="mt-2 flex gap-2">
    <button class="btn btn-sm btn-primary">Log it again</button>
    <button type="button" class="btn btn-sm" onclick={() => log.forget(waiting.id)}>Let it go</button>
  </p>
</form>
