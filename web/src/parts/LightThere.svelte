<!-- The light that is there: how it is known, and what it comes to. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { readNumber, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from './LiveChoice.svelte'
  import LiveFigure from './LiveFigure.svelte'

  const there = $derived((bench.doc as Setup).there!)
  const reading = $derived(there.readings?.[0])
  const ambient = $derived(bench.answer?.ambient)
  const places: [string, string][] = [
    ['sun', 'in the sun'],
    ['back', 'with the sun behind'],
    ['shade', 'in open shade'],
  ]

  type Reading = NonNullable<typeof reading>

  function known(by: string) {
    bench.edit(`Light known by ${by}`, (s) => {
      const draft = s.there!
      draft.by = by as typeof there.by
      if (by === 'lux') draft.lux ??= 80000
      if (by === 'reading' && !draft.readings?.length)
        draft.readings = [{ f_number: 8, shutter_s: 1 / 500, iso: 100, of: 'background' }]
    })
  }

  function read(label: string, edit: (reading: Reading) => void) {
    bench.edit(label, (s) => edit(s.there!.readings![0]!))
  }

  function shutterText(seconds: number): string {
    return seconds >= 0.3 ? `${Number(seconds.toFixed(1))} s` : `1/${Math.round(1 / seconds)}`
  }

  function typed(low: number, high: number, name: string, apply: (value: number) => void) {
    return (text: string) => {
      const parts = /^\s*1\s*\/\s*(\d+(?:\.\d+)?)/.exec(text)
      const value = parts ? 1 / Number(parts[1]) : readNumber(text)
      if (value === null || !Number.isFinite(value)) return `${name} must be a number.`
      if (value < low || value > high) return `${name} is out of range.`
      apply(value)
      return null
    }
  }
</script>

<section aria-labelledby="ask-there">
  <h2 id="ask-there" class="ask">The light that is there</h2>
  <p>
    {#if there.by === 'reading' && reading}
      The meter read
      <LiveFigure
        label="Metered aperture"
        tone="ambient"
        value={reading.f_number}
        text={`f/${reading.f_number}`}
        step={(by) =>
          read('Metered aperture', (r) => (r.f_number = stepOn(person.scales.apertures, r.f_number, by)))}
        type={typed(0.5, 128, 'Aperture', (value) => read('Metered aperture', (r) => (r.f_number = value)))}
      />
      <LiveFigure
        label="Metered time"
        tone="ambient"
        value={reading.shutter_s}
        text={shutterText(reading.shutter_s)}
        step={(by) =>
          read('Metered time', (r) => (r.shutter_s = stepOn(person.scales.shutters, r.shutter_s, by)))}
        type={typed(1 / 64000, 3600, 'Time', (value) => read('Metered time', (r) => (r.shutter_s = value)))}
      />
      at
      <LiveFigure
        label="Metered ISO"
        tone="ambient"
        value={reading.iso ?? 100}
        text={`ISO ${reading.iso}`}
        step={(by) => read('Metered ISO', (r) => (r.iso = stepOn(person.scales.isos, r.iso ?? 100, by)))}
        type={typed(3, 4000000, 'ISO', (value) => read('Metered ISO', (r) => (r.iso = value)))}
      />
      off the
      <LiveChoice
        label="Pointed at"
        tone="ambient"
        value={reading.of ?? 'background'}
        options={[
          ['background', 'background'],
          ['subject', 'subject'],
          ['shade', 'shade'],
        ]}
        choose={(of) => read(`Pointed at ${of}`, (r) => (r.of = of as Reading['of']))}
      />, under
    {:else if there.by === 'lux'}
      <LiveFigure
        label="Illuminance"
        tone="ambient"
        value={there.lux ?? 0}
        text={`${Math.round(there.lux ?? 0).toLocaleString('en-GB')} lx`}
        step={(by) =>
          bench.edit(
            'Lux',
            (s) => (s.there!.lux = Math.min(200000, Math.round((there.lux ?? 1) * 2 ** (by / 3)))),
          )}
        type={typed(0.001, 200000, 'Illuminance', (value) =>
          bench.edit('Lux', (s) => (s.there!.lux = value)),
        )}
      />
      on the scene, under
    {/if}
    <LiveChoice
      label="Condition"
      hotkey="s"
      tone="ambient"
      value={there.condition ?? ''}
      options={Object.entries(person.scales.conditions)}
      choose={(key) => bench.edit('Condition', (s) => (s.there!.condition = key as typeof there.condition))}
    />; the subject stands
    <LiveChoice
      label="Where the subject stands"
      hotkey="w"
      tone="ambient"
      value={there.subject ?? 'shade'}
      options={places}
      choose={(key) =>
        bench.edit('Where the subject stands', (s) => (s.there!.subject = key as typeof there.subject))}
    />.
  </p>
  <p class="font-sans text-[0.82rem] leading-normal">
    {#if ambient}
      <span class="text-ambient font-semibold" data-testid="ambient">
        EV {ambient.background_ev.toFixed(1)} behind · {ambient.subject_ev.toFixed(1)} on the subject
      </span>
      <span class="text-quiet block">{ambient.how}</span>
    {/if}
    <span class="mt-1 flex flex-wrap gap-x-3" role="group" aria-label="How the light is known">
      {#each [['condition', 'by eye'], ['reading', 'by meter'], ['lux', 'by lux']] as [key, words] (key)}
        <button
          type="button"
          class="cursor-pointer py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
          aria-pressed={there.by === key}
          onclick={() => known(key!)}>{words}</button
        >
      {/each}
    </span>
  </p>
</section>
