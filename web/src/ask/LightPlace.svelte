<!-- Where a light stands beside its distance: bearing and height; and how its head is turned, where that is said. -->
<script lang="ts">
  import type { Light } from '../lib/api/client'
  import { clamp, round } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import { standing, wrapped } from '../stage/above'
  import Chip from './Chip.svelte'

  let { session, light }: { session: SetupSession; light: Light } = $props()
  type Position = NonNullable<Light['position']>
  const stage = $derived(session.answer?.stage)
  const at = $derived(light.position)
  const bounds = (field: string) => person.bounds('Position', field)

  function change(label: string, edit: (position: Position) => void) {
    session.editLight(label, (l) => {
      if (stage) l.position = standing(l, stage)
      if (l.position) edit(l.position)
    })
  }
  const bearing = (deg: number) => change('Bearing', (p) => (p.bearing_deg = wrapped(Math.round(deg))))
  const angle = (field: 'turn_deg' | 'tilt_deg', label: string) => (deg: number) =>
    change(label, (p) => (p[field] = clamp(Math.round(deg), -90, 90)))
  const said = $derived(
    !at || at.bearing_deg === 0
      ? 'from the camera’s side'
      : `${round(Math.abs(at.bearing_deg), 0)}° to the ${at.bearing_deg > 0 ? 'right' : 'left'}`,
  )
</script>

,
<LiveFigure
  label="Bearing"
  hotkey="w"
  tone="flash"
  value={at?.bearing_deg ?? 0}
  text={said}
  hint="degrees from the camera, its right positive"
  step={(by) => bearing((at?.bearing_deg ?? 0) + by * 5)}
  reads={quantity('bearing', 'Bearing', bounds('bearing_deg'), bearing)}
/>{#if at},
  <LiveLength
    label="Light’s height"
    tone="flash"
    value={at.height_m}
    bounds={[0.05, bounds('height_m')[1]]}
    set={(metres) => change('Light’s height', (p) => (p.height_m = metres))}
  />
  up{#if light.modifier?.kind === 'bounce'}, off
    <LiveChoice
      label="Bounced off"
      tone="flash"
      value={at.bounces_off}
      options={[
        ['ceiling', 'the ceiling'],
        ['left', 'the left wall'],
        ['right', 'the right wall'],
      ]}
      choose={(surface) => change('Bounced off', (p) => (p.bounces_off = surface))}
    />{#if at.card}, with a card{/if}{/if}{#if at.boom_m}, on a boom of
    <LiveLength
      label="Boom arm"
      tone="flash"
      value={at.boom_m}
      bounds={[0.1, 6]}
      set={(metres) => change('Boom arm', (p) => (p.boom_m = metres))}
    />, its short arm
    <LiveLength
      label="Short arm of the boom"
      tone="flash"
      value={at.counter_m ?? 0.5}
      bounds={[0.05, 3]}
      set={(metres) => change('Short arm', (p) => (p.counter_m = metres))}
    />{/if}{#if at.turn_deg || at.tilt_deg}, its head turned
    <LiveFigure
      label="Turn of the head"
      tone="flash"
      value={at.turn_deg}
      text={`${at.turn_deg}°`}
      step={(by) => angle('turn_deg', 'Turn of the head')(at.turn_deg + by * 5)}
      reads={quantity('angle', 'Turn of the head', bounds('turn_deg'), angle('turn_deg', 'Turn of the head'))}
    />
    and tilted
    <LiveFigure
      label="Tilt of the head"
      tone="flash"
      value={at.tilt_deg}
      text={`${at.tilt_deg}°`}
      step={(by) => angle('tilt_deg', 'Tilt of the head')(at.tilt_deg + by * 5)}
      reads={quantity('angle', 'Tilt of the head', bounds('tilt_deg'), angle('tilt_deg', 'Tilt of the head'))}
    />
    off the subject{:else}{' '}<Chip
      plain
      onclick={() => change('Turn of the head', (p) => (p.turn_deg = 10))}>+ feather</Chip
    >{/if}{#if light.modifier?.kind === 'bounce'}{' '}<Chip
      on={at.card}
      onclick={() => change('Bounce card', (p) => (p.card = !p.card))}>card</Chip
    >{/if}{#if !at.boom_m}{' '}<Chip plain onclick={() => change('Boom arm', (p) => (p.boom_m = 1.5))}
      >+ boom</Chip
    >{/if}{/if}
