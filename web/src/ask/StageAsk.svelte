<!-- What stands where: the subject and its facing, the camera's height, the room and the wind. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { clamp } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Fold from '../parts/Fold.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import { wrapped } from '../stage/above'
  import Chip from './Chip.svelte'
  import Tones from './Tones.svelte'
  import Heading from '../parts/Heading.svelte'

  let { session }: { session: SetupSession } = $props()
  type Stage = Setup['stage']
  const stage = $derived(session.doc.stage)
  const bounds = (field: string) => person.bounds('Stage', field)
  const change = (label: string, edit: (stage: Stage) => void) => session.edit(label, (s) => edit(s.stage))
  const facing = (deg: number) => change('Facing', (s) => (s.facing_deg = wrapped(Math.round(deg))))
  const looks = (deg: number) =>
    change('Camera looks to', (s) => (s.camera_looks_deg = ((Math.round(deg) % 360) + 360) % 360))
  const tilt = (deg: number) =>
    change('Camera tilted', (s) => (s.camera_tilt_deg = clamp(Math.round(deg), ...bounds('camera_tilt_deg'))))
  const people = (count: number) =>
    change('People', (s) => (s.people = clamp(Math.round(count), ...bounds('people'))))
  const wind = (speed: number) =>
    change('Wind', (s) => (s.wind_m_s = clamp(Math.round(speed * 10) / 10, 0, 60)))

  /** A group has a width of its own, and more than one in it. */
  function kind(value: Stage['kind']) {
    change('Subject', (s) => {
      s.kind = value
      if (value !== 'group') return
      s.people = Math.max(2, s.people)
      s.width_m = Math.max(s.width_m, 2)
    })
  }
</script>

<section aria-labelledby="ask-stage">
  <Heading id="ask-stage" word="stage">Place</Heading>
  <p>
    <LiveChoice
      label="Subject"
      value={stage.kind}
      options={[
        ['person', 'A person'],
        ['group', 'A group'],
        ['animal', 'An animal'],
        ['object', 'An object'],
      ]}
      choose={kind}
    />{#if stage.kind === 'group'}
      of
      <LiveFigure
        label="People"
        value={stage.people}
        text={String(stage.people)}
        step={(by) => people(stage.people + Math.sign(by))}
        reads={quantity('count', 'People', bounds('people'), people)}
      />,
      <LiveLength
        label="Width"
        value={stage.width_m}
        bounds={bounds('width_m')}
        set={(m) => change('Width', (s) => (s.width_m = m))}
      />
      wide,
      <LiveLength
        label="Depth"
        value={Math.max(0.05, stage.depth_m)}
        bounds={[0.05, 100]}
        set={(m) => change('Depth', (s) => (s.depth_m = m))}
      />
      deep{:else}, facing
      <LiveFigure
        label="Facing"
        value={stage.facing_deg}
        text={stage.facing_deg === 0
          ? 'the camera'
          : `${Math.abs(stage.facing_deg)}° to the ${stage.facing_deg > 0 ? 'left' : 'right'}`}
        hint="degrees from the camera, left and right as the camera sees it"
        step={(by) => facing(stage.facing_deg + by * 5)}
        reads={quantity('facing', 'Facing', bounds('facing_deg'), facing)}
      />{/if}.
  </p>
  <Fold words="heights, ceiling, walls, compass, wind">
    <p>
      It is
      <LiveLength
        label="Subject’s height"
        value={stage.height_m}
        bounds={bounds('height_m')}
        set={(m) => change('Subject’s height', (s) => (s.height_m = m))}
      />
      high, the camera
      <LiveLength
        label="Camera height"
        value={Math.max(0.05, stage.camera_height_m)}
        bounds={[0.05, 30]}
        set={(m) => change('Camera height', (s) => (s.camera_height_m = m))}
      />
      up{#if stage.camera_tilt_deg !== null}, tilted
        <LiveFigure
          label="Camera tilted"
          value={stage.camera_tilt_deg}
          text={`${stage.camera_tilt_deg}°`}
          hint="degrees, up is positive"
          step={(by) => tilt((stage.camera_tilt_deg ?? 0) + by)}
          reads={quantity('angle', 'Camera tilted', bounds('camera_tilt_deg'), tilt)}
        />{/if}{#if stage.camera_looks_deg !== null}, looking to
        <LiveFigure
          label="Camera looks to"
          tone="ambient"
          value={stage.camera_looks_deg}
          text={`${stage.camera_looks_deg}°`}
          hint="compass bearing, north 0"
          step={(by) => looks((stage.camera_looks_deg ?? 0) + by * 5)}
          reads={quantity('compass', 'Camera looks to', bounds('camera_looks_deg'), looks)}
        />
        of the compass{/if}{#if stage.ceiling_m !== null}, under a ceiling at
        <LiveLength
          label="Ceiling height"
          value={stage.ceiling_m}
          bounds={bounds('ceiling_m')}
          set={(m) => change('Ceiling height', (s) => (s.ceiling_m = m))}
        />{/if}{#if stage.left_wall_m !== null}, a wall
        <LiveLength
          label="Wall at the left"
          value={stage.left_wall_m}
          bounds={bounds('left_wall_m')}
          set={(m) => change('Wall at the left', (s) => (s.left_wall_m = m))}
        />
        to the left{/if}{#if stage.right_wall_m !== null}, a wall
        <LiveLength
          label="Wall at the right"
          value={stage.right_wall_m}
          bounds={bounds('right_wall_m')}
          set={(m) => change('Wall at the right', (s) => (s.right_wall_m = m))}
        />
        to the right{/if}{#if stage.back_wall_m !== null}, one behind the camera
        <LiveLength
          label="Wall behind the camera"
          value={stage.back_wall_m}
          bounds={bounds('back_wall_m')}
          set={(m) => change('Wall behind the camera', (s) => (s.back_wall_m = m))}
        />
        from it{/if}{#if stage.wind_m_s !== null}, in wind of
        <LiveFigure
          label="Wind"
          value={stage.wind_m_s}
          text={`${stage.wind_m_s} m/s`}
          step={(by) => wind((stage.wind_m_s ?? 0) + by * 0.5)}
          reads={quantity('speed', 'Wind', bounds('wind_m_s'), wind)}
        />{/if}; <LiveChoice
        label="Favoured"
        value={stage.favoured}
        options={stage.kind === 'group'
          ? [
              ['none', 'nobody matters most'],
              ['left', 'who matters most is at the left'],
              ['right', 'who matters most is at the right'],
            ]
          : [
              ['none', 'no favoured side'],
              ['left', 'the left side favoured'],
              ['right', 'the right side favoured'],
            ]}
        choose={(value) => change('Favoured', (s) => (s.favoured = value))}
      />.
      <Chip
        on={stage.camera_tilt_deg !== null}
        onclick={() =>
          change('Camera tilted', (s) => (s.camera_tilt_deg = s.camera_tilt_deg === null ? 0 : null))}
        >tilt</Chip
      >
      <Chip
        on={stage.camera_looks_deg !== null}
        onclick={() =>
          change('Camera looks to', (s) => (s.camera_looks_deg = s.camera_looks_deg === null ? 0 : null))}
        >compass</Chip
      >
      <Chip
        on={stage.ceiling_m !== null}
        onclick={() => change('Ceiling height', (s) => (s.ceiling_m = s.ceiling_m === null ? 2.6 : null))}
        >ceiling</Chip
      >
      <Chip
        on={stage.left_wall_m !== null}
        onclick={() => change('Wall at the left', (s) => (s.left_wall_m = s.left_wall_m === null ? 2 : null))}
        >left wall</Chip
      >
      <Chip
        on={stage.right_wall_m !== null}
        onclick={() =>
          change('Wall at the right', (s) => (s.right_wall_m = s.right_wall_m === null ? 2 : null))}
        >right wall</Chip
      >
      <Chip
        on={stage.back_wall_m !== null}
        onclick={() =>
          change('Wall behind the camera', (s) => (s.back_wall_m = s.back_wall_m === null ? 5 : null))}
        >wall behind the camera</Chip
      >
      <Chip
        on={stage.wind_m_s !== null}
        onclick={() => change('Wind', (s) => (s.wind_m_s = s.wind_m_s === null ? 5 : null))}>wind</Chip
      >
    </p>
  </Fold>
  <Fold words="skin, cloth, chrome">
    <Tones {session} />
  </Fold>
</section>
