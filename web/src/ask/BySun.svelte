<!-- Light by place, date and time: the sentence, and the day's course. -->
<script lang="ts">
  import type { Setup, There } from '../lib/api/client'
  import { between, readClock, readDay, sayClock, sayDay, stepDay } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import Chip from './Chip.svelte'
  import DayCurve from './DayCurve.svelte'
  import PlaceDialog from './PlaceDialog.svelte'

  const there = $derived((bench.doc as Setup).there!)
  const minutes = $derived(readClock((there.clock ?? '12:00').slice(0, 5)) ?? 720)
  const day = $derived(there.day ?? '2026-06-24')
  let asking = $state(false)
  const place = $derived(there.place?.name || `${there.place?.latitude}°, ${there.place?.longitude}°`)

  function change(label: string, edit: (there: There) => void) {
    bench.edit(label, (s) => edit(s.there!))
  }
  const clock = (value: number) => change(`Time ${sayClock(value)}`, (t) => (t.clock = sayClock(value)))
  const bearing = (value: number) =>
    change(`Sun from ${value}°`, (t) => (t.shade_open_deg = ((value % 360) + 360) % 360))
  const date = (text: string) => {
    const found = readDay(text)
    if (!found) return 'Type a date such as 24 June 2026.'
    change(sayDay(found), (t) => (t.day = found))
    return null
  }
</script>

<p>
  At <Chip plain label={`Place: ${place}`} onclick={() => (asking = true)}>{place}</Chip>
  on
  <LiveFigure
    label="Date"
    hotkey="j"
    tone="ambient"
    value={Math.round(Date.parse(day) / 86400000)}
    text={sayDay(day)}
    hint="a day, with Shift three"
    step={(by) => change(sayDay(stepDay(day, by)), (t) => (t.day = stepDay(day, by)))}
    type={date}
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
    type={between('Time of day', 0, 1439, clock, readClock)}
  />, under
  <LiveChoice
    label="Sky"
    hotkey="s"
    tone="ambient"
    value={there.sky ?? 'clear'}
    options={Object.entries(person.scales.skies)}
    choose={(sky) => change('Sky', (t) => (t.sky = sky as There['sky']))}
  />. The sun reaches the shade
  {#if there.shade_open_deg === null || there.shade_open_deg === undefined}
    <Chip onclick={() => bearing(240)}>from a bearing</Chip>
  {:else}
    from
    <LiveFigure
      label="Bearing of the open side"
      tone="ambient"
      value={there.shade_open_deg}
      text={`${Math.round(there.shade_open_deg)}°`}
      hint="bearing from north, clockwise"
      step={(by) => bearing((there.shade_open_deg ?? 0) + by * 5)}
      type={between('Bearing', 0, 360, bearing)}
    />
    <Chip plain onclick={() => change('No bearing', (t) => (t.shade_open_deg = null))}>never mind</Chip>
  {/if}
</p>
<DayCurve choose={(text) => clock(readClock(text) ?? minutes)} />
{#if asking}<PlaceDialog close={() => (asking = false)} />{/if}
