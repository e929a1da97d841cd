<!-- The camera's settings, the dial and the distance: each can be nudged, and fixed; what is free is worked out. -->
<script lang="ts">
  import type { Answer, Setup } from '../lib/api/client'
  import {
    clamp,
    round,
    sayAperture,
    sayDistance,
    sayTime,
    stepDial,
    stepDistance,
    stepOn,
  } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveFigure from './LiveFigure.svelte'

  let { session, answer }: { session: SetupSession; answer: Answer } = $props()
  const doc = $derived(session.doc)
  const now = $derived(answer.settings)
  const light = $derived(doc.lights[session.light] ?? doc.lights[0]!)
  const packed = $derived(doc.filters)
  const feet = $derived(person.scales.feet_per_metre)
  const unit = $derived(person.preferences.length)
  /** The stops that one filter of the bag can take, in thirds, from none up. */
  const turns = $derived(
    [
      ...new Set([
        0,
        ...packed.flatMap((one) => {
          const most = one.most_stops ?? one.stops
          const count = Math.round((most - one.stops) * 3)
          return Array.from({ length: count + 1 }, (_, i) => round(one.stops + i / 3, 4))
        }),
      ]),
    ].sort((a, b) => a - b),
  )

  /** Place of the turn nearest to so many stops. */
  function nearest(all: number[], stops: number): number {
    return all.reduce((best, one, i) => (Math.abs(one - stops) < Math.abs(all[best]! - stops) ? i : best), 0)
  }

  const edit = (label: string, change: (s: Setup) => void) => session.edit(label, change)

  function aperture(value: number) {
    edit('Aperture', (s) => {
      s.aim.by = 'aperture'
      s.aim.f_number = value
      s.fixed.aperture = true
    })
  }
  function iso(value: number) {
    edit('ISO', (s) => {
      s.aim.iso = value
      s.fixed.iso = true
      if (s.aim.iso_floor && s.aim.iso_floor > value) s.aim.iso_floor = value
      if (s.aim.iso_ceiling && s.aim.iso_ceiling < value) s.aim.iso_ceiling = value
    })
  }
  const shutter = (value: number) => edit('Shutter', (s) => (s.fixed.shutter_s = value))

  function nd(stops: number) {
    const one = packed.find((f) => stops >= f.stops - 0.01 && stops <= (f.most_stops ?? f.stops) + 0.01)
    const same = stops > 0 && Math.abs(stops - now.nd_stops) < 0.01
    const filters = same ? now.nd_names : one ? [one.name] : []
    edit('ND', (s) => (s.fixed.nd = { filters: stops > 0 ? filters : [], stops: round(stops, 4) }))
  }

  function dial(stops: number) {
    edit('Dial', (s) => (s.lights[session.light]!.dial_stops = round(stops, 4)))
  }

  function distance(metres: number) {
    edit('Distance', (s) => {
      s.lights[session.light]!.distance_m = metres
      s.lights[session.light]!.distance_free = false
    })
  }

  const pins = {
    aperture: () =>
      doc.fixed.aperture ? edit('Aperture free', (s) => (s.fixed.aperture = false)) : aperture(now.f_number),
    iso: () => (doc.fixed.iso ? edit('ISO free', (s) => (s.fixed.iso = false)) : iso(now.iso)),
    shutter: () =>
      doc.fixed.shutter_s === null
        ? shutter(now.shutter_s)
        : edit('Shutter free', (s) => (s.fixed.shutter_s = null)),
    nd: () => (doc.fixed.nd === null ? nd(now.nd_stops) : edit('ND free', (s) => (s.fixed.nd = null))),
    dial: () =>
      light.dial_stops === null
        ? dial(now.dial_stops ?? 0)
        : edit('Dial free', (s) => {
            s.lights[session.light]!.dial_stops = null
            s.lights[session.light]!.distance_free = false
          }),
    distance: () =>
      edit(light.distance_free ? 'Distance fixed' : 'Distance free', (s) => {
        const one = s.lights[session.light]!
        one.distance_free = !one.distance_free
        if (!one.distance_free) one.distance_m = now.distance_m
      }),
  }
  const bounds = (document: string, field: string) => person.bounds(document, field)
  const ndText = $derived(
    answer.methods.find((method) => method.kind === answer.chosen)?.camera.nd || 'no ND',
  )
  const third = $derived(person.thirds / 3)
</script>

<div
  class="flex flex-wrap items-center gap-y-1.5 text-[1.02rem] sm:gap-x-2.5"
  role="group"
  aria-label="Settings"
>
  <LiveFigure
    label="Aperture set"
    hotkey="q"
    value={now.f_number}
    text={sayAperture(now.f_number)}
    fixed={doc.fixed.aperture}
    fix={pins.aperture}
    step={(by) => aperture(stepOn(person.scales.apertures, now.f_number, by))}
    reads={quantity('aperture', 'Aperture', bounds('ExposureAim', 'f_number'), aperture)}
  />
  <LiveFigure
    label="Shutter"
    hotkey="v"
    value={now.shutter_s}
    text={sayTime(now.shutter_s)}
    fixed={doc.fixed.shutter_s !== null}
    fix={pins.shutter}
    step={(by) => shutter(stepOn(person.scales.shutters, now.shutter_s, by))}
    reads={quantity('shutter', 'Shutter', bounds('Fixed', 'shutter_s'), shutter)}
  />
  <LiveFigure
    label="ISO"
    hotkey="i"
    value={now.iso}
    text={`ISO ${now.iso}`}
    fixed={doc.fixed.iso}
    fix={pins.iso}
    step={(by) => iso(stepOn(person.scales.isos, now.iso, by))}
    reads={quantity('iso', 'ISO', bounds('ExposureAim', 'iso'), iso)}
  />
  <LiveFigure
    label="ND"
    hotkey="n"
    value={now.nd_stops}
    text={ndText}
    fixed={doc.fixed.nd !== null}
    fix={pins.nd}
    step={(by) => nd(turns[clamp(nearest(turns, now.nd_stops) + by, 0, turns.length - 1)]!)}
    reads={quantity('nd', 'ND', bounds('FixedNd', 'stops'), nd)}
  />
  {#if answer.taken && now.dial_stops !== null}
    <span class="text-quiet">·</span>
    <LiveFigure
      label="Dial"
      hotkey="k"
      tone="flash"
      value={now.dial_stops}
      text={now.dial}
      hint="arrows up: more light"
      fixed={light.dial_stops !== null}
      fix={pins.dial}
      step={(by) => dial(stepDial(now.dial_stops!, -by * third, now.dials))}
      reads={quantity('dial', 'The dial', null, dial, { dial: now.scale })}
    />
    {#if light.dial_stops !== null}
      <span class="text-quiet">at</span>
      <LiveFigure
        label="Distance for this dial"
        tone="flash"
        value={now.distance_m}
        text={sayDistance(now.distance_m, unit, feet)}
        fixed={!light.distance_free}
        fix={pins.distance}
        step={(by) =>
          distance(clamp(stepDistance(now.distance_m, by * person.thirds), ...bounds('Light', 'distance_m')))}
        reads={quantity('distance', 'Distance', bounds('Light', 'distance_m'), distance)}
      />
    {/if}
  {/if}
</div>
