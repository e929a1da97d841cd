<!-- The look: background, aperture or blur, ISO, how the camera is held. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { between, clamp, round, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import Chip from './Chip.svelte'

  type LookDoc = NonNullable<Setup['look']>
  type Blur = NonNullable<LookDoc['blur']>

  const doc = $derived(bench.doc as Setup)
  const look = $derived(doc.look as LookDoc)
  const blur = $derived(look.blur)
  const third = $derived({ full: 1, half: 0.5, third: 1 / 3 }[person.preferences.step] ?? 1 / 3)
  const under = $derived(look.background_stops ?? -1)

  function change(label: string, edit: (look: LookDoc) => void) {
    bench.edit(label, (s) => edit(s.look as LookDoc))
  }
  const lens = (label: string, edit: (blur: Blur) => void) => change(label, (l) => edit(l.blur!))

  const background = (value: number) =>
    change(`Background ${round(value, 1)}`, (l) => (l.background_stops = round(value, 2)))
  const aperture = (value: number) => change(`Aperture f/${value}`, (l) => (l.f_number = value))
  const iso = (value: number) =>
    change(`ISO ${value}`, (l) => {
      l.iso = value
      if (l.iso_floor && l.iso_floor > value) l.iso_floor = value
      if (l.iso_ceiling && l.iso_ceiling < value) l.iso_ceiling = value
    })
  const floor = (value: number) => change(`ISO down to ${value}`, (l) => (l.iso_floor = value))
  const ceiling = (value: number) => change(`ISO up to ${value}`, (l) => (l.iso_ceiling = value))
  const focal = (value: number) => lens(`Lens ${value} mm`, (b) => (b.focal_mm = value))
  const subject = (value: number) => lens('Subject distance', (b) => (b.subject_m = value))
  const behind = (value: number) => lens('Background distance', (b) => (b.background_m = value))
  const share = (value: number) => lens('Blur wanted', (b) => (b.wanted_share = value / 100))

  function by(kind: 'aperture' | 'blur') {
    change(kind === 'blur' ? 'Look by blur' : 'Look by aperture', (l) => {
      l.by = kind
      if (kind === 'blur') l.blur = { ...(l.blur ?? LENS), wanted_share: l.blur?.wanted_share ?? 0.02 }
    })
  }
  const LENS = { focal_mm: 85, subject_m: 2.5, background_m: 10, wanted_share: null }
  const FOCALS = [14, 16, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200, 300, 400, 600]
  const PRESETS = [0, -1, -1.5, -2]
</script>

<section aria-labelledby="ask-look">
  <h2 id="ask-look" class="ask">The look</h2>
  <p>
    The background
    <LiveFigure
      label="Background"
      hotkey="b"
      tone="ambient"
      value={under}
      text={under === 0 ? 'as metered' : `${round(Math.abs(under), 1)} ${under < 0 ? 'under' : 'over'}`}
      hint="stops from correct"
      step={(by) => background(clamp(under + by * third, -8, 4))}
      type={between('Background', -8, 4, background)}
    />
    <span class="inline-flex gap-1" role="group" aria-label="Usual backgrounds">
      {#each PRESETS as preset (preset)}
        <Chip
          plain
          label={`Background ${preset === 0 ? '0' : `−${Math.abs(preset)}`}`}
          onclick={() => background(preset)}>{preset === 0 ? '0' : `−${Math.abs(preset)}`}</Chip
        >
      {/each}
    </span>
  </p>
  <p>
    {#if look.by === 'blur' && blur}
      with
      <LiveFigure
        label="Blur wanted"
        value={round((blur.wanted_share ?? 0.01) * 100, 2)}
        text={`${round((blur.wanted_share ?? 0.01) * 100, 1)} %`}
        hint="share of the frame that a point behind becomes"
        step={(by) => share(round(clamp((blur.wanted_share ?? 0.01) * 100 * 2 ** (by / 6), 0.05, 30), 2))}
        type={between('Blur wanted', 0.05, 30, share)}
      />
      of blur, which takes f/{bench.answer?.f_number ?? '…'},
    {:else}
      at
      <LiveFigure
        label="Aperture"
        hotkey="a"
        value={look.f_number ?? 2.8}
        text={`f/${look.f_number}`}
        step={(by) => aperture(stepOn(person.scales.apertures, look.f_number ?? 2.8, by))}
        type={between('Aperture', 0.5, 128, aperture)}
      />
    {/if}
    and
    <LiveFigure
      label="ISO"
      hotkey="i"
      value={look.iso ?? 100}
      text={`ISO ${look.iso}`}
      step={(by) => iso(stepOn(person.scales.isos, look.iso ?? 100, by))}
      type={between('ISO', 3, 4000000, iso)}
    />{#if look.iso_floor}, in sun down to
      <LiveFigure
        label="Lowest ISO"
        value={look.iso_floor}
        text={`${look.iso_floor}`}
        step={(by) => floor(Math.min(look.iso ?? 100, stepOn(person.scales.isos, look.iso_floor ?? 100, by)))}
        type={between('Lowest ISO', 3, look.iso ?? 100, floor)}
      />{/if}{#if look.iso_ceiling}, in the dark up to
      <LiveFigure
        label="Highest ISO"
        value={look.iso_ceiling}
        text={`${look.iso_ceiling}`}
        step={(by) =>
          ceiling(Math.max(look.iso ?? 100, stepOn(person.scales.isos, look.iso_ceiling ?? 100, by)))}
        type={between('Highest ISO', look.iso ?? 100, 4000000, ceiling)}
      />{/if}, held
    <LiveChoice
      label="Landscape or upright"
      hotkey="o"
      value={look.orientation ?? 'landscape'}
      options={[
        ['landscape', 'landscape'],
        ['grip_up', 'upright, grip up'],
        ['grip_down', 'upright, grip down'],
      ]}
      choose={(held) => change(`Held ${held}`, (l) => (l.orientation = held as LookDoc['orientation']))}
    />.
  </p>
  <p class="flex flex-wrap gap-1">
    <Chip
      on={!!look.iso_floor}
      onclick={() =>
        change(
          'ISO floor',
          (l) => (l.iso_floor = l.iso_floor ? null : Math.min(l.iso ?? 100, doc.body?.iso_min ?? 50)),
        )}>ISO may fall</Chip
    >
    <Chip
      on={!!look.iso_ceiling}
      onclick={() =>
        change(
          'ISO ceiling',
          (l) =>
            (l.iso_ceiling = l.iso_ceiling
              ? null
              : Math.max(l.iso ?? 100, Math.min(1600, doc.body?.iso_max ?? 1600))),
        )}>ISO may rise</Chip
    >
    <Chip
      on={!!blur}
      onclick={() =>
        change('Lens and distances', (l) => {
          l.blur = l.blur ? null : LENS
          if (!l.blur) l.by = 'aperture'
        })}>lens and distances</Chip
    >
    {#if blur}
      <Chip on={look.by === 'blur'} onclick={() => by(look.by === 'blur' ? 'aperture' : 'blur')}
        >by blur wanted</Chip
      >
    {/if}
  </p>
  {#if blur}
    <p>
      With
      <LiveFigure
        label="Focal length"
        hotkey="l"
        value={blur.focal_mm ?? 85}
        text={`${round(blur.focal_mm ?? 85, 0)} mm`}
        step={(by) => focal(stepOn(FOCALS, blur.focal_mm ?? 85, Math.sign(by)))}
        type={between('Focal length', 4, 2000, focal)}
      />, the subject
      <LiveLength label="Subject at" value={blur.subject_m ?? 2.5} low={0.1} high={500} set={subject} />
      off, the background
      <LiveLength label="Backdrop at" value={blur.background_m ?? 10} low={0.1} high={100000} set={behind} />.
    </p>
    <p class="font-sans text-[0.82rem] leading-snug" data-testid="blur">{bench.answer?.blur}</p>
  {/if}
</section>
