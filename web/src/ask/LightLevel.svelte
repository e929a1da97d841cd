<!-- What a light is wanted at: its level, of correct or of the key; or the compensation of automatic flash. -->
<script lang="ts">
  import type { Light } from '../lib/api/client'
  import { clamp, sayStops } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'

  let { session, light }: { session: SetupSession; light: Light } = $props()
  const doc = $derived(session.doc)
  const bounds = (field: string) => person.bounds('Light', field)

  const change = (label: string, edit: (light: Light) => void) => session.editLight(label, edit)
  const level = (value: number) => change('Level', (l) => (l.target_stops = Math.round(value * 100) / 100))
  const compensation = (value: number) =>
    change('Compensation', (l) => (l.compensation_stops = Math.round(value * 100) / 100))
  const said = $derived(
    light.target_stops === 0 && light.relative === 'key'
      ? 'as the key'
      : light.target_stops
        ? sayStops(light.target_stops, true)
        : 'correct',
  )
</script>

{#if light.automatic}on automatic, compensation
  <LiveFigure
    label="Compensation"
    tone="flash"
    value={light.compensation_stops ?? 0}
    text={light.compensation_stops === null ? 'as usual here' : sayStops(light.compensation_stops, true)}
    hint="stops of flash compensation"
    step={(by) =>
      compensation(
        clamp((light.compensation_stops ?? 0) + (by * person.thirds) / 3, ...bounds('compensation_stops')),
      )}
    reads={quantity('level', 'Compensation', bounds('compensation_stops'), compensation)}
  />{:else}{light.role === 'key' ? 'with the ambient' : 'alone'}
  <LiveFigure
    label="Level"
    tone="flash"
    value={light.target_stops}
    text={said}
    hint={light.role === 'key' ? 'key and ambient together, stops from correct' : 'this light alone, stops'}
    step={(by) => level(clamp(light.target_stops + (by * person.thirds) / 3, ...bounds('target_stops')))}
    reads={quantity('level', 'Level', bounds('target_stops'), level)}
  />{#if light.role !== 'key' && doc.lights.some((one) => one.role === 'key')}{' '}
    <LiveChoice
      label="Level counts from"
      tone="flash"
      value={light.relative}
      options={[
        ['correct', 'against correct'],
        ['key', 'against the key'],
      ]}
      choose={(value) => change('Level counts from', (l) => (l.relative = value))}
    />{/if}{/if}
