<!-- What the day is told: its date and hours, the cold, the batteries there are, and chargers. -->
<script lang="ts">
  import type { DayPlanText, Job } from '../lib/api/client'
  import { readClock, sayClock } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'

  let { day }: { day: DayPlanText } = $props()
  const doc = $derived(job.doc!)

  function clock(key: 'begins' | 'ends', text: string) {
    const minutes = readClock(text)
    if (minutes === null) history.tell('The day begins and ends at a time such as 09:00.')
    else void job.edit('Hours of the day', (one) => (one[key] = sayClock(minutes)))
  }

  function figure(key: 'celsius' | 'chargers' | 'charge_h' | 'swap_min' | 'late_min', text: string) {
    const value =
      text.trim() === '' && key === 'celsius' ? null : Number(text.replace(',', '.').replace('−', '-'))
    void job.edit('The day', (one) => ((one as Record<string, unknown>)[key] = value))
  }

  const charges = (unit: string, name: string, text: string) =>
    job.edit('Batteries', (one: Job) => {
      one.batteries = one.batteries.filter((other) => other.unit !== unit)
      one.batteries.push({ unit, name, charges: Math.round(Number(text)) || 1 })
    })
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
  <input
    id="day-begins"
    class="input input-xs w-20"
    value={doc.begins}
    onchange={(e) => clock('begins', e.currentTarget.value)}
  />
  <label for="day-ends">Ends</label>
  <input
    id="day-ends"
    class="input input-xs w-20"
    value={doc.ends}
    onchange={(e) => clock('ends', e.currentTarget.value)}
  />
  <label for="day-late">Running late, min</label>
  <input
    id="day-late"
    class="input input-xs w-20"
    inputmode="decimal"
    value={doc.late_min}
    onchange={(e) => figure('late_min', e.currentTarget.value)}
  />
  <label for="day-swap">Minutes a swap</label>
  <input
    id="day-swap"
    class="input input-xs w-20"
    inputmode="decimal"
    value={doc.swap_min}
    onchange={(e) => figure('swap_min', e.currentTarget.value)}
  />
  <label for="day-cold">Temperature, °C</label>
  <input
    id="day-cold"
    class="input input-xs w-20"
    inputmode="text"
    placeholder="mild"
    value={doc.celsius ?? ''}
    onchange={(e) => figure('celsius', e.currentTarget.value)}
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
  <input
    id="day-chargers"
    class="input input-xs w-20"
    inputmode="numeric"
    value={doc.chargers}
    onchange={(e) => figure('chargers', e.currentTarget.value)}
  />
  {#if doc.chargers}
    <label for="day-charge">Hours to charge one</label>
    <input
      id="day-charge"
      class="input input-xs w-20"
      inputmode="decimal"
      value={doc.charge_h}
      onchange={(e) => figure('charge_h', e.currentTarget.value)}
    />
  {/if}
  {#each day.units.filter((unit) => unit.course.length) as unit (unit.unit)}
    <label for={`charges-${unit.unit}`}><bdi>{unit.name}</bdi></label>
    <span class="flex items-center gap-1"
      ><input
        id={`charges-${unit.unit}`}
        class="input input-xs w-14"
        inputmode="numeric"
        value={unit.charges}
        onchange={(e) => charges(unit.unit, unit.name, e.currentTarget.value)}
      />
      of {unit.wanted} wanted</span
    >
  {/each}
</div>
