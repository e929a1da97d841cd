<!-- Motion: none, frozen, or left to draw. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { between, readSeconds, round, saySeconds, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'

  type MotionDoc = NonNullable<Setup['motion']>
  const motion = $derived((bench.doc as Setup).motion as MotionDoc)

  function change(label: string, edit: (motion: MotionDoc) => void) {
    bench.edit(label, (s) => edit(s.motion as MotionDoc))
  }
  const fall = (value: number) => change('Fall height', (m) => (m.fall_m = value))
  const field = (value: number) => change('Width of the field', (m) => (m.field_width_m = value))
  const speed = (value: number) => change('Speed', (m) => (m.speed_m_s = round(value, 2)))
  const trail = (value: number) => change('Trail', (m) => (m.trail_s = value))
  const blur = (value: number) => change('Tolerable blur', (m) => (m.blur_mm = round(value, 3)))

  function mover(key: string) {
    change('What moves', (m) => {
      m.mover = key as MotionDoc['mover']
      m.speed_m_s = key === 'other' ? (m.speed_m_s ?? 2) : null
    })
  }
</script>

<section aria-labelledby="ask-motion">
  <h2 id="ask-motion" class="ask">Motion</h2>
  <p>
    <LiveChoice
      label="Motion"
      hotkey="e"
      value={motion.kind ?? 'none'}
      options={[
        ['none', 'Nothing that matters moves'],
        ['freeze', 'Freeze'],
        ['trails', 'Let it draw'],
      ]}
      choose={(kind) => change(`Motion: ${kind}`, (m) => (m.kind = kind as MotionDoc['kind']))}
    />{#if motion.kind === 'freeze'}
      <LiveChoice
        label="What moves"
        value={motion.mover ?? 'fall'}
        options={Object.entries(person.scales.movers)}
        choose={mover}
      />
      {#if motion.mover === 'fall'}
        from
        <LiveLength label="Fall height" value={motion.fall_m ?? 0.2} low={0.001} high={200} set={fall} />
      {:else if motion.speed_m_s}
        at
        <LiveFigure
          label="Speed"
          value={motion.speed_m_s}
          text={`${motion.speed_m_s} m/s`}
          step={(by) => speed(Math.min(1500, Math.max(0.01, (motion.speed_m_s ?? 1) * 2 ** (by / 3))))}
          type={between('Speed', 0.01, 1500, speed)}
        />
      {/if}
      in a field
      <LiveLength
        label="Width of the field"
        value={motion.field_width_m ?? 0.6}
        low={0.005}
        high={200}
        set={field}
      />
      wide, blurred by no more than
      <LiveFigure
        label="Tolerable blur"
        value={motion.blur_mm ?? 0.03}
        text={motion.blur_mm ? `${motion.blur_mm} mm` : 'sharpness allows'}
        hint="millimetres on the sensor"
        step={(by) => blur(Math.min(1, Math.max(0.002, (motion.blur_mm ?? 0.03) * 2 ** (by / 3))))}
        type={between('Tolerable blur', 0.001, 1, blur)}
      />.
    {:else if motion.kind === 'trails'}
      for
      <LiveFigure
        label="Trail"
        value={motion.trail_s ?? 0.25}
        text={saySeconds(motion.trail_s ?? 0.25)}
        hint="shutter time"
        step={(by) =>
          trail(Math.min(30, Math.max(1 / 250, stepOn(person.scales.shutters, motion.trail_s ?? 0.25, by))))}
        type={between('Trail', 1 / 250, 60, trail, readSeconds)}
      />.
    {:else}.{/if}
  </p>
  {#if bench.answer?.motion}
    <p class="font-sans text-[0.82rem] leading-snug" data-testid="motion">{bench.answer.motion}</p>
  {/if}
</section>
