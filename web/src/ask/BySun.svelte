<!-- Light by place, date and time: the sentence, and the day's course. -->
<script lang="ts">
  import type { AmbientSpec } from '../lib/api/client'
  import { clockMinutes, dayOf, sayClock, sayDay, stepDay } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import Chip from './Chip.svelte'
  import DayCurve from './DayCurve.svelte'
  import PlaceDialog from './PlaceDialog.svelte'

  let { session }: { session: SetupSession } = $props()
  const spec = $derived(session.doc.ambient)
  const minutes = $derived(clockMinutes(spec.clock))
  const day = $derived(spec.day ?? '2026-06-24')
  let asking = $state(false)
  const place = $derived(spec.place?.name || `${spec.place?.latitude}°, ${spec.place?.longitude}°`)

  function change(label: string, edit: (spec: AmbientSpec) => void) {
    session.edit(label, (s) => edit(s.ambient))
  }
  const clock = (value: number) => change('Time of day', (a) => (a.clock = sayClock(value)))
  const bearing = (value: number) =>
    change('Bearing of the open side', (a) => (a.shade_open_deg = ((value % 360) + 360) % 360))
  const cameIn = (edit: (seen: NonNullable<AmbientSpec['sun_came_in']>) => void) =>
    change('When the sun came in', (a) => a.sun_came_in && edit(a.sun_came_in))
  const date = (days: number) => change('Date', (a) => (a.day = dayOf(days)))
</script>

<p>
  At <Chip plain label={`Place: ${place}`} onclick={() => (asking = true)}><bdi>{place}</bdi></Chip>
  on
  <LiveFigure
    label="Date"
    hotkey="j"
    tone="ambient"
    value={Math.round(Date.parse(day) / 86400000)}
    text={sayDay(day)}
    hint="a day, with Shift three"
    step={(by) => change('Date', (a) => (a.day = stepDay(day, by)))}
    reads={quantity('date', 'Date', null, date)}
  />
  at
  <LiveFigure
    label="Time of day"
    hotkey="t"
    tone="ambient"
    value={minutes}
    text={sayClock(minutes)}
    hint="ten minutes, with Shift half an hour"
    step={(by) => clock(Math.min(1430, Math.max(0, minutes + by * 10)))}
    reads={quantity('clock', 'Time of day', [0, 1439], clock)}
  />, under
  <LiveChoice
    label="Sky"
    hotkey="s"
    tone="ambient"
    value={spec.sky}
    options={Object.entries(person.scales.skies)}
    choose={(sky) => change('Sky', (a) => (a.sky = sky))}
  />.
  {#if spec.sun_came_in}
    The sun reaches the shade as on
    <LiveFigure
      label="Day the sun came in"
      tone="ambient"
      value={Math.round(Date.parse(spec.sun_came_in.day) / 86400000)}
      text={sayDay(spec.sun_came_in.day)}
      hint="a day, with Shift three"
      step={(by) => cameIn((seen) => (seen.day = stepDay(seen.day, by)))}
      reads={quantity('date', 'Day the sun came in', null, (days) =>
        cameIn((seen) => (seen.day = dayOf(days))),
      )}
    />
    at
    <LiveFigure
      label="Time the sun came in"
      tone="ambient"
      value={clockMinutes(spec.sun_came_in.clock)}
      text={spec.sun_came_in.clock.slice(0, 5)}
      hint="ten minutes, with Shift half an hour"
      step={(by) => cameIn((seen) => (seen.clock = sayClock(clockMinutes(seen.clock) + by * 10)))}
      reads={quantity('clock', 'Time the sun came in', [0, 1439], (at) =>
        cameIn((seen) => (seen.clock = sayClock(at))),
      )}
    />
    <Chip plain onclick={() => change('No time', (a) => (a.sun_came_in = null))}>never mind</Chip>
  {:else if spec.shade_open_deg === null}
    When the sun reaches the shade:
    <Chip onclick={() => bearing(240)}>by its open side</Chip>
    <Chip onclick={() => change('When the sun came in', (a) => (a.sun_came_in = { day, clock: '15:00' }))}
      >as it was seen</Chip
    >
  {:else}
    The shade is open to
    <LiveFigure
      label="Bearing of the open side"
      tone="ambient"
      value={spec.shade_open_deg}
      text={`${Math.round(spec.shade_open_deg)}°`}
      hint="bearing from north, clockwise"
      step={(by) => bearing((spec.shade_open_deg ?? 0) + by * 5)}
      reads={quantity(
        'compass',
        'Bearing of the open side',
        person.bounds('AmbientSpec', 'shade_open_deg'),
        bearing,
      )}
    />
    <Chip plain onclick={() => change('No bearing', (a) => (a.shade_open_deg = null))}>never mind</Chip>
  {/if}
</p>
<DayCurve {session} choose={(text) => clock(clockMinutes(text))} />
{#if asking}<PlaceDialog {session} close={() => (asking = false)} />{/if}
