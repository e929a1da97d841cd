<!-- The ambient: how it is known, where the subject stands in it, and what it comes to. -->
<script lang="ts">
  import type { AmbientSpec } from '../lib/api/client'
  import { clamp, fixed, nudged, sayLux, sayStops } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import BySun from './BySun.svelte'
  import Chip from './Chip.svelte'
  import Placement from './Placement.svelte'
  import ReadingFigures from './ReadingFigures.svelte'
  import Heading from '../parts/Heading.svelte'

  let { session }: { session: SetupSession } = $props()
  const spec = $derived(session.doc.ambient)
  const ambient = $derived(session.answer?.ambient)
  const lampLit = $derived(spec.by !== 'sun' && person.scales.lamp_lit.includes(spec.condition))
  const metered = $derived(spec.by === 'reading' || (spec.by === 'sun' && spec.readings.length > 0))
  const known: [AmbientSpec['by'], string][] = [
    ['condition', 'by eye'],
    ['reading', 'by meter'],
    ['lux', 'by lux'],
    ['sun', 'by the sun'],
  ]
  const HOME = { name: 'Home', latitude: 50.9, longitude: -0.1 }

  function change(label: string, edit: (spec: AmbientSpec) => void) {
    session.edit(label, (s) => edit(s.ambient))
  }

  function by(how: AmbientSpec['by']) {
    change('How the ambient is known', (a) => {
      a.by = how
      if (how === 'lux') a.lux ??= 80000
      if (how === 'reading' && !a.readings.length) a.readings = [person.scales.blank.reading]
      if (how === 'sun') {
        a.place ??= { ...HOME, zone: Intl.DateTimeFormat().resolvedOptions().timeZone }
        a.day ??= new Date().toISOString().slice(0, 10)
        a.readings = []
      }
    })
  }

  /** Another reading, pointed at what is not metered yet. */
  function another() {
    change('Another reading', (a) => {
      const left = (['background', 'subject', 'shade'] as const).find(
        (of) => !a.readings.some((one) => one.of === of),
      )
      a.readings.push({
        ...(a.readings.at(-1) ?? person.scales.blank.reading),
        of: left ?? 'background',
        needle_stops: 0,
      })
    })
  }
  const shadow = (value: number) => change('Shadow side', (a) => (a.shadow_stops = value))

  const plain = (value: number) => fixed(value, 1).replace('-', '−')
  const bounds = (field: string) => person.bounds('AmbientSpec', field)
  const lux = (value: number) => change('Lux', (a) => (a.lux = value))
  const lamps = (value: number) => change('Lamps', (a) => (a.lamps_lux = value))
  const warmth = (value: number) => change('Colour of the lamps', (a) => (a.lamps_k = value))
</script>

<section aria-labelledby="ask-ambient">
  <Heading id="ask-ambient" word="ambient">Light</Heading>
  <div
    class="mb-1 flex flex-wrap gap-x-3 text-[0.82rem] leading-normal"
    role="group"
    aria-label="How the light is known"
  >
    {#each known as [key, words] (key)}
      <button
        type="button"
        class="cursor-pointer py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
        aria-pressed={spec.by === key}
        onclick={() => by(key)}>{words}</button
      >
    {/each}
  </div>
  {#if spec.by === 'sun'}
    <BySun {session} />
  {:else}
    <p>
      {#if spec.by === 'lux'}
        <LiveFigure
          label="Illuminance"
          tone="ambient"
          value={spec.lux ?? 0}
          text={`${sayLux(spec.lux ?? 0)} lx`}
          step={(by) => lux(nudged(spec.lux ?? 1, by, bounds('lux')))}
          reads={quantity('lux', 'Illuminance', bounds('lux'), lux)}
        />
        on the scene, under
      {:else if spec.by === 'reading'}
        The meter read
        {#each spec.readings.keys() as i (i)}<ReadingFigures {session} index={i} />
          {#if spec.readings.length > 1}<Chip
              plain
              label={`Forget reading ${i + 1}`}
              onclick={() => change('Forget a reading', (a) => a.readings.splice(i, 1))}>×</Chip
            >{/if}{i < spec.readings.length - 1 ? '; ' : ''}{/each}{#if spec.readings.length < 3}{' '}<Chip
            onclick={another}>another</Chip
          >{/if}, under
      {/if}
      <LiveChoice
        label="Condition"
        hotkey="s"
        tone="ambient"
        value={spec.condition}
        options={Object.entries(person.scales.conditions)}
        choose={(key) => change('Condition', (a) => (a.condition = key))}
      />.
    </p>
  {/if}
  {#if metered && spec.by === 'sun'}
    <p>
      Metered <ReadingFigures {session} index={0} /> at {spec.readings[0]?.clock?.slice(0, 5) ?? 'this time'}:
      the day moves with it.
      <Chip plain onclick={() => change('Forget the reading', (a) => (a.readings = []))}>forget it</Chip>
    </p>
  {/if}
  <p>
    {#if spec.by === 'sun' && !metered}
      <Chip
        onclick={() =>
          change(
            'A meter reading',
            (a) => (a.readings = [{ ...person.scales.blank.reading, clock: a.clock }]),
          )}>a meter reading</Chip
      >
    {/if}
    {#if spec.lamps_lux}
      Lamps give
      <LiveFigure
        label="Lamps"
        tone="ambient"
        value={spec.lamps_lux}
        text={`${sayLux(spec.lamps_lux)} lx`}
        step={(by) => lamps(nudged(spec.lamps_lux ?? 1, by, bounds('lamps_lux')))}
        reads={quantity('lux', 'Lamps', bounds('lamps_lux'), lamps)}
      />
      of
      <LiveFigure
        label="Colour of the lamps"
        tone="ambient"
        value={spec.lamps_k}
        text={`${spec.lamps_k} K`}
        step={(by) => warmth(clamp(spec.lamps_k + by * 100, ...bounds('lamps_k')))}
        reads={quantity('kelvin', 'Colour of the lamps', bounds('lamps_k'), warmth)}
      />
      <Chip plain onclick={() => change('No lamps', (a) => (a.lamps_lux = null))}>no lamps</Chip>
    {:else if !lampLit}
      <Chip onclick={() => lamps(500)}>lamps</Chip>
    {/if}
    {#if spec.lamps_lux || lampLit}
      <Chip
        on={!spec.lamps_on}
        onclick={() =>
          change(spec.lamps_on ? 'All lamps off' : 'Lamps on', (a) => (a.lamps_on = !spec.lamps_on))}
        >all lamps off</Chip
      >
    {/if}
  </p>
  <Placement {session} />
  {#if spec.subject === 'sun' || spec.shadow_stops !== null}
    <p>
      Shadow side
      <LiveFigure
        label="Shadow side"
        tone="ambient"
        value={spec.shadow_stops ?? 0}
        text={spec.shadow_stops === null ? 'as the sky has it' : `${sayStops(spec.shadow_stops)} stops`}
        hint="stops against the lit side"
        step={(by) =>
          shadow(clamp((spec.shadow_stops ?? -2.5) + (by * person.thirds) / 3, ...bounds('shadow_stops')))}
        reads={quantity('level', 'Shadow side', bounds('shadow_stops'), shadow)}
      />
      {#if spec.shadow_stops !== null}<Chip
          plain
          onclick={() => change('Shadow side by the sky', (a) => (a.shadow_stops = null))}>by the sky</Chip
        >{/if}
    </p>
  {/if}
  {#if ambient}
    <p class="mt-1 text-[0.82rem] leading-normal">
      <span class="text-ambient font-semibold" data-testid="ambient">
        EV {plain(ambient.background_ev)} background · {plain(ambient.subject_ev)} subject · {plain(
          ambient.shade_ev,
        )} shade
      </span>
      <span class="text-quiet block">{ambient.how} {ambient.subject}</span>
    </p>
  {/if}
</section>
