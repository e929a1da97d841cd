<!-- One light on the set: what to dial, how it came out, and the next dial once that is logged. -->
<script lang="ts">
  import { sentences, type LogEntry, type SetLightText } from '../lib/api/client'
  import { log } from '../lib/log.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity, Typed } from '../lib/quantities.svelte'
  import Quantity from '../parts/Quantity.svelte'
  import { freshId } from '../lib/stamp'
  import Off from './Off.svelte'

  type Props = { light: SetLightText; form: string; write: (id: string, more: Partial<LogEntry>) => void }
  let { light, form, write }: Props = $props()
  let how = $state<'face' | 'meter'>('face')
  let off = $state<number | null>(null)
  let read = $state(0)
  let set = $state<number | null>(null)
  let flashes = $state<number | null>(null)
  let celsius = $state<number | null>(null)
  let fields = $state<HTMLElement>()
  let swapped = $state('')
  let note = $state('')
  let mine = $state('')
  let last = $state.raw<{ dial: string; next: string } | null>(null)
  const blank = $derived(light.blank?.seen ?? null)
  const dials = $derived(light.dials)
  const shown = $derived(set ?? light.place)
  const ready = $derived(how === 'meter' || off !== null)

  $effect(() => {
    if (mine && log.dial?.id === mine) {
      last = { dial: dials[shown] ?? '', next: log.said }
      const to = log.dial.stops
      set = to === null ? null : Math.round(to / light.step)
      mine = ''
      off = null
    }
  })

  /** What the server would not have comes back to where it was typed, over a reload too. */
  const refused = $derived(log.refusals.find((one) => one.form === form))
  let back = ''
  let more = $state(false)
  $effect(() => {
    if (!refused || refused.id === back) return
    const { entry } = refused
    back = refused.id
    mine = ''
    more = true
    flashes = entry.flashes
    celsius = entry.celsius
    swapped = entry.swapped
    note = entry.note
    const { seen } = entry
    if (!seen) return
    how = seen.kind === 'meter' ? 'meter' : 'face'
    set = Math.round(seen.dial_stops / light.step)
    if (how === 'face') off = seen.stops
    else read = seen.f_number
  })

  async function keep(withReading: boolean) {
    // nothing to wait for: the entry is kept at once
    if ((Typed.reading || Typed.unreadIn(fields)) && !(await Typed.ready(fields))) return
    const seen = blank && {
      ...blank,
      kind: how,
      sd: person.scales.reading_sd[how]!,
      stops: how === 'face' ? (off ?? 0) : 0,
      f_number: how === 'meter' ? read || blank.f_number : blank.f_number,
      dial_stops: Math.round(shown * light.step * 1e4) / 1e4,
    }
    const id = refused?.id ?? freshId()
    write(id, {
      seen: withReading ? seen : null,
      flashes,
      celsius,
      swapped: swapped.trim(),
      note: note.trim(),
    })
    back = ''
    if (withReading) mine = id
    flashes = null
    swapped = ''
    note = ''
  }
</script>

<section class="sheet space-y-2 p-3" aria-label={`${light.role}, ${light.unit}`}>
  <div class="flex items-baseline justify-between gap-2">
    <p class="min-w-0">
      <strong>{light.role}</strong>: <bdi>{light.unit}</bdi>
      <span class="text-quiet block text-[0.88rem]"><bdi>{light.through}</bdi></span>
    </p>
    <p class="text-flash text-[1.7rem] leading-none font-bold whitespace-nowrap" data-testid="set-dial">
      {dials[shown] ?? light.dial}
    </p>
  </div>
  {#if light.verdict}<p class="text-short font-semibold">{light.verdict}</p>{/if}
  {#if blank}
    <div class="flex gap-1" role="group" aria-label="What was read">
      <button
        type="button"
        class={`btn btn-sm flex-1 ${how === 'face' ? 'btn-primary' : ''}`}
        aria-pressed={how === 'face'}
        onclick={() => (how = 'face')}>How it looks</button
      >
      {#if light.metered}<button
          type="button"
          class={`btn btn-sm flex-1 ${how === 'meter' ? 'btn-primary' : ''}`}
          aria-pressed={how === 'meter'}
          onclick={() => (how = 'meter')}>Flash meter</button
        >{/if}
      <select
        class="select select-sm w-auto"
        aria-label="Dial as set"
        value={String(shown)}
        onchange={(event) => (set = Number(event.currentTarget.value))}
      >
        {#each dials as words, at (at)}<option value={String(at)}>{words}</option>{/each}
      </select>
    </div>
    {#if how === 'face'}
      <Off label="It came out" value={off} pick={(stops) => (off = stops)} />
    {:else}
      <label class="flex items-center gap-2"
        >The meter read
        <select
          class="select w-auto"
          aria-label="Meter reading"
          value={String(read || blank.f_number)}
          onchange={(event) => (read = Number(event.currentTarget.value))}
        >
          {#each person.scales.meter as mark (mark.f_number)}<option value={String(mark.f_number)}
              >{mark.says}</option
            >{/each}
        </select>
        at ISO {blank.iso}</label
      >
    {/if}
    <button type="button" class="btn btn-primary w-full" disabled={!ready} onclick={() => keep(true)}
      >Log it</button
    >
    {#if last}
      <p class="font-semibold" role="status" data-testid="next-dial">{last.next}</p>
    {/if}
    {#if refused}
      <div role="alert" class="border-short text-short rounded border p-2 font-semibold">
        Not logged: <bdi>{sentences(refused.problems)}</bdi>
        <button type="button" class="link-button" onclick={() => log.forget(refused.id)}>Let it go</button>
      </div>
    {/if}
    <details class="more" bind:open={more}>
      <summary>Flashes, temperature, battery, note</summary>
      <div bind:this={fields} class="grid grid-cols-2 gap-2">
        <Quantity
          named
          label="Flashes fired"
          key={`${form}/${light.role}/flashes`}
          class="input input-sm w-full"
          placeholder="flashes fired"
          value={String(flashes ?? '')}
          reads={quantity('count', 'Flashes fired', null, (value) => (flashes = value))}
          empty={() => (flashes = null)}
        />
        <Quantity
          named
          label="Temperature in °C"
          key={`${form}/${light.role}/celsius`}
          class="input input-sm w-full"
          placeholder="°C"
          value={String(celsius ?? '')}
          reads={quantity('temperature', 'Temperature', null, (value) => (celsius = value))}
          empty={() => (celsius = null)}
        />
        <input
          class="input input-sm w-full"
          placeholder="battery put in"
          aria-label="Battery or pack put in"
          maxlength="80"
          bind:value={swapped}
        />
        <input
          class="input input-sm w-full"
          placeholder="note"
          aria-label="Note"
          maxlength="200"
          bind:value={note}
        />
        <button type="button" class="btn btn-sm col-span-2" onclick={() => keep(false)}
          >Log without a reading</button
        >
      </div>
    </details>
  {/if}
</section>
