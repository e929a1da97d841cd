<!-- The look: background, aperture or blur, ISO, how the camera is held. -->
<script lang="ts">
  import type { ExposureAim, Lens } from '../lib/api/client'
  import { clamp, round, rounded, sayAperture, sayStops, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Fold from '../parts/Fold.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import Chip from './Chip.svelte'
  import Heading from '../parts/Heading.svelte'

  const WANTED = 0.01

  let { session }: { session: SetupSession } = $props()
  const aim = $derived(session.doc.aim)
  const lens = $derived(aim.lens)
  const body = $derived(session.doc.body)
  const under = $derived(aim.background_stops)
  const wanted = $derived(round((lens?.wanted_share ?? WANTED) * 100, 2))
  const bounds = (field: string) => person.bounds('ExposureAim', field)
  const lensBounds = (field: string) => person.bounds('Lens', field)

  function change(label: string, edit: (aim: ExposureAim) => void) {
    session.edit(label, (s) => edit(s.aim))
  }
  const look = (label: string, edit: (lens: Lens) => void) => change(label, (a) => a.lens && edit(a.lens))

  const background = (value: number) => change('Background', (a) => (a.background_stops = round(value, 2)))
  const aperture = (value: number) => change('Aperture', (a) => (a.f_number = value))
  /** A limit within which ISO may move frees it. */
  const may = (label: string, edit: (aim: ExposureAim) => void) =>
    session.edit(label, (s) => {
      edit(s.aim)
      s.fixed.iso = false
    })
  const ratio = (value: number) => change('Lighting ratio', (a) => (a.ratio = value))
  const floor = (value: number) => change('Lowest ISO', (a) => (a.iso_floor = value))
  const ceiling = (value: number) => change('Highest ISO', (a) => (a.iso_ceiling = value))
  const focal = (value: number) => look('Focal length', (l) => (l.focal_mm = value))
  const subject = (value: number) => look('Subject distance', (l) => (l.subject_m = value))
  const behind = (value: number) => look('Background distance', (l) => (l.background_m = value))
  const share = (value: number) => look('Blur wanted', (l) => (l.wanted_share = value / 100))

  function by(kind: ExposureAim['by']) {
    change('Aperture set by', (a) => {
      a.by = kind
      if (kind === 'blur')
        a.lens = { ...(a.lens ?? person.scales.blank.lens), wanted_share: a.lens?.wanted_share ?? 2 * WANTED }
    })
  }
  const percent = $derived<[number, number]>([
    lensBounds('wanted_share')[0] * 100,
    lensBounds('wanted_share')[1] * 100,
  ])
</script>

<section aria-labelledby="ask-look">
  <Heading id="ask-look" word="look">Look</Heading>
  <p>
    The background
    <LiveFigure
      label="Background"
      hotkey="b"
      tone="ambient"
      value={under}
      text={under === 0 ? 'as metered' : `${sayStops(Math.abs(under))} ${under < 0 ? 'under' : 'over'}`}
      hint="stops from correct"
      fixed={session.doc.fixed.background}
      fix={() => session.edit('Background fixed', (s) => (s.fixed.background = !s.fixed.background))}
      step={(by) => background(clamp(under + (by * person.thirds) / 3, ...bounds('background_stops')))}
      reads={quantity('background', 'Background', bounds('background_stops'), background)}
    />

    {#if aim.by === 'blur' && lens}
      with
      <LiveFigure
        label="Blur wanted"
        value={wanted}
        text={`${wanted} %`}
        hint="share of the frame that a point behind becomes"
        step={(by) => share(round(clamp(wanted * 2 ** (by / 6), ...percent), 2))}
        reads={quantity('share', 'Blur wanted', lensBounds('wanted_share'), (part) => share(part * 100))}
      />
      of blur, which takes {session.answer ? sayAperture(session.answer.f_number) : '…'},
    {:else}
      at
      <LiveFigure
        label="Aperture"
        hotkey="a"
        value={aim.f_number}
        text={sayAperture(aim.f_number)}
        step={(by) => aperture(stepOn(person.scales.apertures, aim.f_number, by))}
        reads={quantity('aperture', 'Aperture', bounds('f_number'), aperture, {
          widest: session.answer?.widest ?? null,
        })}
      />
    {/if}{#if aim.iso_floor}, ISO in sun down to
      <LiveFigure
        label="Lowest ISO"
        value={aim.iso_floor}
        text={`${aim.iso_floor}`}
        step={(by) => floor(Math.min(aim.iso, stepOn(person.scales.isos, aim.iso_floor ?? aim.iso, by)))}
        reads={quantity('iso', 'Lowest ISO', [bounds('iso')[0], aim.iso], floor)}
      />{/if}{#if aim.iso_ceiling}, ISO in the dark up to
      <LiveFigure
        label="Highest ISO"
        value={aim.iso_ceiling}
        text={`${aim.iso_ceiling}`}
        step={(by) => ceiling(Math.max(aim.iso, stepOn(person.scales.isos, aim.iso_ceiling ?? aim.iso, by)))}
        reads={quantity('iso', 'Highest ISO', [aim.iso, bounds('iso')[1]], ceiling)}
      />{/if}, held
    <LiveChoice
      label="Landscape or upright"
      hotkey="o"
      value={aim.orientation}
      options={[
        ['landscape', 'landscape'],
        ['grip_up', 'upright, grip up'],
        ['grip_down', 'upright, grip down'],
      ]}
      choose={(held) => change('Landscape or upright', (a) => (a.orientation = held))}
    />.
  </p>
  {#if aim.ratio}
    <p>
      Lit side to shadow side
      <LiveFigure
        label="Lighting ratio"
        tone="flash"
        value={aim.ratio}
        text={`${rounded(aim.ratio, 2)} : 1`}
        hint="worked out by the fill"
        step={(by) => ratio(round(clamp((aim.ratio ?? 3) * 2 ** (by / 3), ...bounds('ratio')), 2))}
        reads={quantity('ratio', 'Lighting ratio', bounds('ratio'), (value) => ratio(round(value, 2)))}
      />
    </p>
  {/if}
  <Fold words="ISO limits, lens, ratio">
    <p class="flex flex-wrap gap-1">
      <Chip on={!!aim.ratio} onclick={() => change('Lighting ratio', (a) => (a.ratio = a.ratio ? null : 3))}
        >lighting ratio</Chip
      >
      <Chip
        on={!!aim.iso_floor}
        onclick={() =>
          may('ISO may fall', (a) => (a.iso_floor = a.iso_floor ? null : Math.min(a.iso, body.iso_min)))}
        >ISO may fall</Chip
      >
      <Chip
        on={!!aim.iso_ceiling}
        onclick={() =>
          may(
            'ISO may rise',
            (a) => (a.iso_ceiling = a.iso_ceiling ? null : Math.max(a.iso, Math.min(1600, body.iso_max))),
          )}>ISO may rise</Chip
      >
      <Chip
        on={!!lens}
        onclick={() =>
          change('Lens and distances', (a) => {
            a.lens = a.lens ? null : person.scales.blank.lens
            if (!a.lens) a.by = 'aperture'
          })}>lens and distances</Chip
      >
      {#if lens}
        <Chip on={aim.by === 'blur'} onclick={() => by(aim.by === 'blur' ? 'aperture' : 'blur')}
          >by blur wanted</Chip
        >
      {/if}
    </p>
  </Fold>
  {#if lens}
    <p>
      With
      <LiveFigure
        label="Focal length"
        hotkey="l"
        value={lens.focal_mm}
        text={`${rounded(lens.focal_mm, 1)} mm`}
        step={(by) => focal(stepOn(person.scales.focals_mm, lens.focal_mm, Math.sign(by)))}
        reads={quantity('focal', 'Focal length', lensBounds('focal_mm'), focal)}
      />, the subject
      <LiveLength label="Subject at" value={lens.subject_m} bounds={lensBounds('subject_m')} set={subject} />
      off, the background
      <LiveLength
        label="Backdrop at"
        value={lens.background_m}
        bounds={lensBounds('background_m')}
        set={behind}
      />.
    </p>
    <p class="text-quiet text-[0.82rem] leading-snug" data-testid="blur">{session.answer?.blur}</p>
  {/if}
</section>
