<!-- Motion: none, frozen, or left to draw. -->
<script lang="ts">
  import { bench } from '../lib/bench.svelte'
  import type { Motion } from '../lib/api/client'
  import { clamp, round, rounded, sayTime, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Chip from './Chip.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import Heading from '../parts/Heading.svelte'

  let { session }: { session: SetupSession } = $props()
  const motion = $derived(session.doc.motion)
  const bounds = (field: string) => person.bounds('Motion', field)

  function change(label: string, edit: (motion: Motion) => void) {
    session.edit(label, (s) => edit(s.motion))
  }
  const fall = (value: number) => change('Fall height', (m) => (m.fall_m = value))
  const field = (value: number) => change('Width of the field', (m) => (m.field_width_m = value))
  const speed = (value: number) => change('Speed', (m) => (m.speed_m_s = round(value, 2)))
  const trail = (value: number) => change('Trail', (m) => (m.trail_s = value))
  const wanted = (value: number) => change('Flash duration wanted', (m) => (m.wanted_t01_s = value))
  const blur = (value: number) => change('Tolerable blur', (m) => (m.blur_mm = round(value, 3)))

  const tolerable = $derived(motion.blur_mm ?? bench.session?.answer?.tolerable_mm ?? NaN)

  function mover(key: Motion['mover']) {
    change('What moves', (m) => {
      m.mover = key
      m.speed_m_s = key === 'other' ? (m.speed_m_s ?? 2) : null
    })
  }
</script>

<section aria-labelledby="ask-motion">
  <Heading id="ask-motion" word="motion">Motion</Heading>
  <p>
    <LiveChoice
      label="Motion"
      hotkey="e"
      value={motion.kind}
      options={[
        ['none', 'Nothing that matters moves'],
        ['freeze', 'Freeze'],
        ['trails', 'Let it draw'],
      ]}
      choose={(kind) => change('Motion', (m) => (m.kind = kind))}
    />{#if motion.kind === 'freeze'}{' '}
      <LiveChoice
        label="What moves"
        value={motion.mover}
        options={Object.entries(person.scales.movers)}
        choose={mover}
      />
      {#if motion.mover === 'fall'}
        from
        <LiveLength label="Fall height" value={motion.fall_m} bounds={bounds('fall_m')} set={fall} />
      {:else if motion.speed_m_s}
        at
        <LiveFigure
          label="Speed"
          value={motion.speed_m_s}
          text={`${motion.speed_m_s} m/s`}
          step={(by) => speed(clamp((motion.speed_m_s ?? 1) * 2 ** (by / 3), ...bounds('speed_m_s')))}
          reads={quantity('speed', 'Speed', bounds('speed_m_s'), speed)}
        />
      {/if}
      in a field
      <LiveLength
        label="Width of the field"
        value={motion.field_width_m ?? session.answer?.field_m ?? 0.6}
        bounds={bounds('field_width_m')}
        set={field}
      />
      wide, blurred by no more than
      <LiveFigure
        label="Tolerable blur"
        value={tolerable}
        text={motion.blur_mm ? `${rounded(motion.blur_mm, 3)} mm` : 'sharpness allows'}
        hint="millimetres on the sensor"
        step={(by) => blur(clamp(tolerable * 2 ** (by / 3), ...bounds('blur_mm')))}
        reads={quantity('millimetres', 'Tolerable blur', bounds('blur_mm'), blur)}
      />; t.1 wanted
      <LiveFigure
        label="Flash duration wanted"
        value={motion.wanted_t01_s ?? 0}
        text={motion.wanted_t01_s ? sayTime(motion.wanted_t01_s) : 'by that'}
        hint="t.1; typed instead of worked out"
        step={(by) =>
          wanted(clamp((motion.wanted_t01_s ?? 1 / 4000) / 2 ** (by / 3), ...bounds('wanted_t01_s')))}
        reads={quantity('duration', 'Flash duration wanted', bounds('wanted_t01_s'), wanted)}
      />{#if motion.wanted_t01_s}{' '}<Chip
          plain
          onclick={() => change('No duration', (m) => (m.wanted_t01_s = null))}>by the blur</Chip
        >{/if}.
    {:else if motion.kind === 'trails'}
      for
      <LiveFigure
        label="Trail"
        value={motion.trail_s}
        text={sayTime(motion.trail_s)}
        hint="shutter time"
        step={(by) => trail(clamp(stepOn(person.scales.shutters, motion.trail_s, by), ...bounds('trail_s')))}
        reads={quantity('shutter', 'Trail', bounds('trail_s'), trail)}
      />.
    {:else}.{/if}
  </p>
  {#if session.answer?.motion}
    <p class="text-quiet text-[0.82rem] leading-snug" data-testid="motion">{session.answer.motion}</p>
  {/if}
</section>
