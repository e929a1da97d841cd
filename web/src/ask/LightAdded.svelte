<!-- The light we add: role, heads, distance, what is in front of it, how many frames, fed from what. -->
<script lang="ts">
  import type { Light } from '../lib/api/client'
  import { clamp, signed } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import { freshId } from '../lib/stamp'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import { giveBack, take } from '../lib/takes'
  import Chip from './Chip.svelte'
  import LightGel from './LightGel.svelte'
  import LightLevel from './LightLevel.svelte'
  import LightMore from './LightMore.svelte'
  import LightPlace from './LightPlace.svelte'
  import Heading from '../parts/Heading.svelte'

  /** Stands for a modifier that the shelf no longer has. */
  const GONE = 'gone'

  let { session }: { session: SetupSession } = $props()
  const doc = $derived(session.doc)
  const light = $derived(doc.lights[session.light] ?? doc.lights[0]!)
  const zoomable = $derived(!light.modifier || light.modifier.needs_zoom_head)
  const levels = $derived(session.answer?.levels ?? [])
  /** The units of the shelf, and the one taken where the shelf no longer has it. */
  const units = $derived<[string, string][]>([
    ['', 'a unit of the shelf'],
    ...(light.unit && !kit.units.some((one) => one.id === light.unit?.id)
      ? ([[GONE, light.unit.name]] as [string, string][])
      : []),
    ...kit.units.map((one): [string, string] => [one.id, one.name]),
  ])
  const taken = $derived(
    !light.unit ? '' : kit.units.some((one) => one.id === light.unit?.id) ? (light.unit.id ?? GONE) : GONE,
  )
  /** Where it is not made for the unit taken, one may say that it fits all the same. */
  const fits = $derived(session.answer?.stage?.lights[session.light]?.fits ?? true)
  const bounds = (field: string) => person.bounds('Light', field)
  const modifiers = $derived<[string, string][]>([
    ['', 'nothing: bare'],
    ...(light.modifier && !kit.modifiers.some((one) => one.id === light.modifier?.id)
      ? ([[GONE, light.modifier.name]] as [string, string][])
      : []),
    ...kit.modifiers.map((one): [string, string] => [one.id, one.doc.name]),
  ])
  const mounted = $derived(
    !light.modifier
      ? ''
      : kit.modifiers.some((one) => one.id === light.modifier?.id)
        ? (light.modifier.id ?? GONE)
        : GONE,
  )

  const change = (label: string, edit: (light: Light) => void) => session.editLight(label, edit)
  const distance = (metres: number) => change('Distance', (l) => (l.distance_m = metres))
  const heads = (value: number) =>
    change('Heads', (l) => (l.heads = clamp(Math.round(value), ...bounds('heads'))))

  function mount(id: string) {
    if (id === GONE) return
    const found = kit.modifiers.find((one) => one.id === id)
    change('Modifier', (l) => {
      l.modifier = found ? { ...found.doc, id } : null
      l.layers = null
    })
  }

  function on(name: string): boolean {
    const layer = light.modifier?.layers.find((one) => one.name === name)
    return light.layers ? light.layers.includes(name) : !!layer?.usually_on
  }

  function toggle(name: string) {
    change('Layers', (l) => {
      const all = light.modifier?.layers ?? []
      l.layers = all.map((layer) => layer.name).filter((layer) => on(layer) !== (layer === name))
    })
  }

  function role(value: Light['role']) {
    change('Role', (l) => {
      l.role = value
      l.target_stops = person.scales.roles[value]?.target_stops ?? 0
    })
  }

  /** Another light starts bare, as what is usually added next, with that role's own level. */
  function add() {
    const next: Light['role'] = doc.lights.some((one) => one.role === 'fill') ? 'rim' : 'fill'
    session.edit('Another light', (s) =>
      s.lights.push({
        ...structuredClone(person.scales.blank.light),
        id: freshId(),
        role: next,
        distance_m: light.distance_m,
        target_stops: person.scales.roles[next]?.target_stops ?? 0,
      }),
    )
    session.look(doc.lights.length - 1)
  }

  function unit(id: string) {
    if (id === '') giveBack(session)
    else if (id !== GONE) void take(session, id)
  }

  const tick = (field: 'wide_panel', name: string) => change(name, (l) => (l[field] = !l[field]))

  function remove() {
    const gone = session.light
    session.edit('Take a light away', (s) => s.lights.splice(gone, 1))
    session.look(0)
  }

  const zooms = $derived<[string, string][]>([
    ['', '35 mm, as compared'],
    ...person.scales.zooms_mm
      .filter((mm) => mm !== 35)
      .map((mm): [string, string] => [String(mm), `${mm} mm`]),
  ])
</script>

<section aria-labelledby="ask-light">
  <Heading id="ask-light" word="key">Lights</Heading>
  <p class="flex flex-wrap gap-1">
    {#if doc.lights.length > 1}
      {#each doc.lights as one, i (i)}
        <Chip choice on={i === session.light} onclick={() => session.look(i)}>{i + 1}: {one.role}</Chip>
      {/each}
      <Chip plain onclick={remove}>take this one away</Chip>
    {/if}
    {#if doc.lights.length < 8}<Chip plain onclick={add}>+ another light</Chip>{/if}
  </p>
  <p>
    <LiveChoice label="Unit" hotkey="u" tone="flash" value={taken} options={units} choose={unit} />
    as
    <LiveChoice
      label="Role"
      hotkey="r"
      tone="flash"
      value={light.role}
      options={Object.entries(person.scales.roles).map(([key, one]): [string, string] => [key, one.name])}
      choose={role}
    />
    <LightLevel {session} {light} />,
    <LiveFigure
      label="Heads"
      hotkey="h"
      tone="flash"
      value={light.heads}
      text={light.heads === 1 ? 'one head' : `${light.heads} heads`}
      step={(by) => heads(light.heads + Math.sign(by))}
      reads={quantity('count', 'Heads', bounds('heads'), heads)}
    />
    <LiveLength
      label="Distance"
      tone="flash"
      hotkey="d"
      value={light.distance_m}
      bounds={bounds('distance_m')}
      set={distance}
    />{#if light.role !== 'background'}<LightPlace {session} {light} />{/if}
    from the subject, through
    <LiveChoice
      label="Modifier"
      hotkey="m"
      tone="flash"
      value={mounted}
      options={modifiers}
      choose={mount}
    />{#if light.modifier?.layers.length}{' '}with
      {#each light.modifier.layers as layer (layer.name)}
        <Chip on={on(layer.name)} onclick={() => toggle(layer.name)}
          ><bdi>{layer.name}</bdi> <span class="text-quiet">{signed(layer.stops)}</span></Chip
        >{' '}
      {/each}
    {:else}{' '}{/if}and
    <LightGel {session} {light} />{#if zoomable}{#if !light.wide_panel}, zoomed to
        <LiveChoice
          label="Zoom position"
          hotkey="z"
          tone="flash"
          value={String(light.zoom_mm ?? '')}
          options={zooms}
          choose={(mm) => change('Zoom position', (l) => (l.zoom_mm = mm ? Number(mm) : null))}
        />{:else}, at its widest behind a{/if}{#each Object.entries(person.scales.ticks) as [field, name] (field)}{' '}
        <Chip on={light[field as 'wide_panel']} onclick={() => tick(field as 'wide_panel', name)}>{name}</Chip
        >{/each}{/if}.
  </p>
  {#if !fits || light.fits_anyway}
    <p>
      {#if !fits}{light.modifier?.name} is not made for this unit.{/if}
      <Chip on={light.fits_anyway} onclick={() => change('It fits', (l) => (l.fits_anyway = !l.fits_anyway))}
        >it fits all the same</Chip
      >
    </p>
  {/if}
  <LightMore {session} {light} />
  {#if levels.length}
    <p class="text-quiet text-[0.82rem] leading-snug" data-testid="levels">
      With all lights at their dials: {levels.map((level) => level.says).join(' · ')}.
    </p>
  {/if}
</section>
