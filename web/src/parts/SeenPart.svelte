<!-- What did you see? A meter's reading or the look of the face, and at once the next dial. Kept with the setup. -->
<script lang="ts">
  import type { InHand, Seen } from '../lib/api/client'
  import { clamp, round, sayAperture, sayStops, stepDial, stepOn } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { log } from '../lib/log.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity, Typed } from '../lib/quantities.svelte'
  import { setups } from '../lib/setups.svelte'
  import { here } from '../lib/stamp'
  import type { SetupSession } from '../lib/session.svelte'
  import { take } from '../lib/takes'
  import LiveFigure from './LiveFigure.svelte'

  let { session, found }: { session: SetupSession; found: InHand } = $props()
  const blank = $derived(found.blank)
  let wanted = $state<Seen['kind'] | 'background'>('meter')
  /** No flash meter reads high-speed sync. */
  const metered = $derived(session.answer?.chosen !== 'hss')
  const kind = $derived(wanted === 'meter' && !metered ? 'face' : wanted)
  let f_number = $state<number | null>(null)
  let iso = $state<number | null>(null)
  let stops = $state(0)
  let ambient = $state<boolean | null>(null)
  let below = $state<number | null>(null)
  const read = $derived(f_number ?? blank?.f_number ?? 8)
  const speed = $derived(iso ?? blank?.iso ?? 100)
  const marks = $derived(session.answer?.settings.dials ?? [])
  const set = $derived(below ?? blank?.dial_stops ?? 0)
  const holds = $derived(ambient ?? blank?.holds_ambient ?? true)
  const third = $derived(person.thirds / 3)

  async function keep() {
    if (Typed.reading) await Typed.quiet()
    if (kind === 'background') {
      const reading = { ...found.background, needle_stops: round(found.background.needle_stops + stops, 2) }
      session.edit('What was seen', (s) => {
        s.ambient.by = 'reading'
        s.ambient.readings = [reading, ...s.ambient.readings.filter((one) => one.of !== 'background')].slice(
          0,
          3,
        )
      })
      stops = 0
      return
    }
    if (!blank) return
    const id = `r${Date.now().toString(36)}`
    const sd = person.scales.reading_sd[kind]!
    const seen: Seen = {
      ...blank,
      id,
      kind,
      f_number: read,
      iso: speed,
      stops,
      dial_stops: set,
      holds_ambient: holds,
      sd,
    }
    session.edit('What was seen', (s) => (s.seen = [...s.seen.slice(-59), seen]))
    f_number = null
    below = null
    stops = 0
  }

  function dial(stops: number) {
    session.edit('Dial', (s) => (s.lights[session.light]!.dial_stops = round(stops, 4)))
  }

  /** The setup counts from one reading of a light at a time. */
  function stand(id: string, stands: boolean) {
    session.edit('Count from a reading', (s) => {
      for (const one of s.seen) if (one.light === session.light) one.stands = one.id === id && stands
    })
  }

  /** Into the log, from which units, modifiers and layers are corrected wherever they are used. */
  async function teach(id: string) {
    const seen = session.doc!.seen.find((one) => one.id === id)
    if (!seen) return
    const was = { ...session.doc!, seen: [], variants: [] }
    const at = seen.light
    was.lights = was.lights.map((light, place) => (place === at ? seen.was : light))
    const known = setups.all.find((one) => one.id === session.id)
    await log.write(
      {
        ...person.scales.blank.log,
        name: `${was.name.slice(0, 60)}, ${seen.was.role}`,
        at: here(),
        job: known?.job_id ?? null,
        setup: session.id,
        was,
        seen: { ...seen, stands: false },
      },
      `${session.id.slice(0, 20)}${id}`.slice(0, 32),
    )
    const waits = log.waiting.length > 0
    if (!log.refused) history.say(waits ? 'It waits for the server' : 'In the log: the shelf learns from it')
    await session.reload()
  }

  const forget = (id: string) =>
    session.edit('Forget a reading', (s) => (s.seen = s.seen.filter((one) => one.id !== id)))
</script>

{#if !blank}
  <p>
    A reading belongs to a unit.
    {#if session.answer?.unit}
      <button type="button" class="btn btn-sm btn-primary" onclick={() => take(session, session.answer!.unit)}
        >Take <bdi>{found.name}</bdi></button
      > or touch another in the chart.
    {:else}Take one in the chart first.{/if}
  </p>
{:else}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <select
      class="tool border-base-300 bg-base-100 h-9 rounded border px-2"
      aria-label="Seen"
      value={kind}
      onchange={(event) => (wanted = event.currentTarget.value as typeof wanted)}
    >
      {#if metered}<option value="meter">The flash meter reads</option>{/if}
      <option value="face">In the test frame the light is</option>
      <option value="background">In the test frame the background is</option>
    </select>
    {#if kind === 'meter'}
      <LiveFigure
        label="Meter reads"
        tone="flash"
        value={read}
        text={sayAperture(read)}
        step={(by) => (f_number = stepOn(person.scales.apertures, read, by))}
        reads={quantity(
          'meter',
          'What the meter reads',
          person.bounds('Seen', 'f_number'),
          (value) => (f_number = value),
        )}
      />
      at
      <LiveFigure
        label="Meter set to"
        value={speed}
        text={`ISO ${speed}`}
        step={(by) => (iso = stepOn(person.scales.isos, speed, by))}
        reads={quantity('iso', 'ISO', person.bounds('Seen', 'iso'), (value) => (iso = value))}
      />
    {:else}
      <LiveFigure
        label="Brighter than wanted"
        tone="flash"
        value={stops}
        text={stops ? `${sayStops(Math.abs(stops))} ${stops > 0 ? 'too bright' : 'too dark'}` : 'as wanted'}
        hint="stops from what was wanted"
        step={(by) => (stops = round(clamp(stops + by * third, -12, 12), 2))}
        reads={quantity(
          'seen',
          'What you saw',
          person.bounds('Seen', 'stops'),
          (value) => (stops = round(value, 2)),
        )}
      />
    {/if}
    {#if kind !== 'background'}
      at dial
      <LiveFigure
        label="Dial then"
        tone="flash"
        value={set}
        text={marks.find((mark) => Math.abs(mark.stops - set) < 0.01)?.says ??
          session.answer?.settings.dial ??
          ''}
        hint="arrows up: more light"
        step={(by) => (below = stepDial(set, -by * third, marks))}
        reads={quantity('dial', 'The dial', null, (value) => (below = value), {
          dial: session.answer?.settings.scale ?? null,
        })}
      />
      <label class="flex min-h-9 items-center gap-2"
        ><input
          type="checkbox"
          class="checkbox checkbox-sm"
          checked={holds}
          onchange={(event) => (ambient = event.currentTarget.checked)}
        /> ambient included</label
      >
    {/if}
    <button type="button" class="btn btn-sm btn-primary" onclick={keep}>Tell it</button>
  </div>
  {#if found.next}
    <p class="mt-2 text-[1.05rem] font-bold" data-testid="next" role="status">
      {found.next.says}
      {#if found.next.dial_stops !== null && found.next.dial_stops !== session.answer?.settings.dial_stops}
        <button type="button" class="btn btn-sm ml-2" onclick={() => dial(found.next!.dial_stops!)}
          >Set it so</button
        >
      {/if}
    </p>
    {#if found.aperture}<p class="text-[0.9rem]">{found.aperture}</p>{/if}
  {/if}
  {#if found.seen.length}
    <ul class="mt-2 text-[0.88rem]" aria-label="Readings">
      {#each [...found.seen].reverse() as one (one.id)}
        <li class="border-base-300 flex flex-wrap items-center gap-x-4 border-t py-1">
          <span class="min-w-0 flex-1">{one.says}</span>
          <label class="flex min-h-9 items-center gap-2"
            ><input
              type="checkbox"
              class="checkbox checkbox-sm"
              checked={one.stands}
              onchange={(event) => stand(one.id, event.currentTarget.checked)}
            /> count from this reading</label
          >
          <button type="button" class="link-button" onclick={() => teach(one.id)}>teach the shelf</button>
          <button type="button" class="link-button" onclick={() => forget(one.id)}>forget it</button>
        </li>
      {/each}
    </ul>
  {/if}
{/if}
