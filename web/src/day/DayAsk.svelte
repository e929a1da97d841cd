<!-- What the day is told: its date and hours, the cold, the batteries there are, and chargers. -->
<script lang="ts">
  import type { DayPlanText, Job } from '../lib/api/client'
  import { sayClock } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { job } from '../lib/job.svelte'
  import { quantity, type Kind } from '../lib/quantities.svelte'
  import Quantity from '../parts/Quantity.svelte'

  let { day }: { day: DayPlanText } = $props()
  const doc = $derived(job.doc!)

  type Figure = 'celsius' | 'chargers' | 'charge_h' | 'swap_min' | 'late_min' | 'night_charges'
  const clock = (key: 'begins' | 'ends', label: string) =>
    quantity('clock', label, [0, 1439], (at) =>
      job.edit('Hours of the day', (one) => (one[key] = sayClock(at))),
    )
  const set = (key: Figure, value: number | null) =>
    void job.edit('The day', (one) => ((one as Record<string, unknown>)[key] = value))
  const figure = (key: Figure, kind: Kind, label: string) =>
    quantity(kind, label, person.bounds('Job', key), (value) => set(key, value))

  const charges = (unit: string, name: string) =>
    quantity('count', `Batteries of ${name}`.slice(0, 80), person.bounds('Batteries', 'charges'), (count) =>
      job.edit('Batteries', (one: Job) => {
        one.batteries = one.batteries.filter((other) => other.unit !== unit)
        one.batteries.push({ unit, name, charges: count })
      }),
    )
</script>

<div class="grid grid-cols-[8.5rem_1fr] items-center gap-x-2 gap-y-1 text-[0.86rem]">
  <label for="day-date">Date</label>
  <input
    id="day-date"
    type="date"
    class="input input-xs"
    value={doc.day ?? ''}
    onchange={(event) => job.edit('Day', (one) => (one.day = event.currentTarget.value || null))}
  />
  <label for="day-begins">Begins</label>
  <Quantity
    id="day-begins"
    label="Begins"
    class="input input-xs w-20"
    value={doc.begins}
    reads={clock('begins', 'Begins')}
  />
  <label for="day-ends">Ends</label>
  <Quantity
    id="day-ends"
    label="Ends"
    class="input input-xs w-20"
    value={doc.ends}
    reads={clock('ends', 'Ends')}
  />
  {#if day.dates.length > 1}
    <label for="day-night">Charged over night</label>
    <Quantity
      id="day-night"
      label="Charged over night"
      class="input input-xs w-20"
      placeholder="all"
      value={String(doc.night_charges ?? '')}
      reads={figure('night_charges', 'count', 'Charged over night')}
      empty={() => set('night_charges', null)}
    />
    <label for="day-late-day">Day that runs late</label>
    <select
      id="day-late-day"
      class="select select-xs w-auto"
      value={doc.late_day ?? day.dates[0]!.date}
      onchange={(e) => job.edit('Day that runs late', (one) => (one.late_day = e.currentTarget.value))}
    >
      {#each day.dates as one (one.date)}<option value={one.date}>{one.says}</option>{/each}
    </select>
  {/if}
  <label for="day-late">Running late, min</label>
  <Quantity
    id="day-late"
    label="Running late"
    class="input input-xs w-20"
    value={String(doc.late_min)}
    reads={figure('late_min', 'minutes', 'Running late')}
  />
  <label for="day-swap">Minutes a swap</label>
  <Quantity
    id="day-swap"
    label="Minutes a swap"
    class="input input-xs w-20"
    value={String(doc.swap_min)}
    reads={figure('swap_min', 'minutes', 'Minutes a swap')}
  />
  <label for="day-cold">Temperature, °C</label>
  <Quantity
    id="day-cold"
    label="Temperature"
    class="input input-xs w-20"
    placeholder="mild"
    value={String(doc.celsius ?? '')}
    reads={figure('celsius', 'temperature', 'Temperature')}
    empty={() => set('celsius', null)}
  />
  <label for="day-cells">Cells still hold</label>
  <select
    id="day-cells"
    class="select select-xs w-auto"
    value={String(doc.cells)}
    onchange={(e) => job.edit('Cells', (one) => (one.cells = Number(e.currentTarget.value)))}
  >
    {#each [...new Set(['1', '0.9', '0.8', '0.7', '0.6', '0.5', String(doc.cells)])] as one (one)}<option
        value={one}>{one === '1' ? 'as new' : `${Math.round(Number(one) * 100)} %`}</option
      >{/each}
  </select>
  <label for="day-chargers">Chargers at work</label>
  <Quantity
    id="day-chargers"
    label="Chargers at work"
    class="input input-xs w-20"
    value={String(doc.chargers)}
    reads={figure('chargers', 'count', 'Chargers at work')}
  />
  {#if doc.chargers}
    <label for="day-charge">Hours to charge one</label>
    <Quantity
      id="day-charge"
      label="Hours to charge one"
      class="input input-xs w-20"
      value={String(doc.charge_h)}
      reads={figure('charge_h', 'hours', 'Hours to charge one')}
    />
  {/if}
  {#each day.units.filter((unit) => unit.course.length && unit.said) as unit (unit.unit)}
    <label for={`charges-${unit.unit}`}><bdi>{unit.name}</bdi></label>
    <span class="flex items-center gap-1"
      ><span class="w-14"
        ><Quantity
          id={`charges-${unit.unit}`}
          label={`charges of ${unit.unit}`}
          class="input input-xs w-14"
          value={String(unit.charges)}
          reads={charges(unit.unit, unit.name)}
        /></span
      >
      of {unit.wanted} wanted</span
    >
  {/each}
</div>
