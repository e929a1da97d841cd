<!-- The ask: the setup as sentences with live figures, in the order of work. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { api, type Body, type Filter, type Light, type Modifier, type Setup } from '../lib/api/client'
  import { readDistance, readNumber, round, sayDistance, signed, stepDistance, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LightThere from './LightThere.svelte'
  import LiveChoice from './LiveChoice.svelte'
  import LiveFigure from './LiveFigure.svelte'

  let modifiers = $state<Modifier[]>([])
  let bodies = $state<Body[]>([])
  let filters = $state<Filter[]>([])

  onMount(async () => {
    const [m, b, f] = await Promise.all([
      api.GET('/api/modifiers'),
      api.GET('/api/bodies'),
      api.GET('/api/filters'),
    ])
    modifiers = (m.data ?? []).map((stored) => stored.doc)
    bodies = (b.data ?? []).map((stored) => stored.doc)
    filters = (f.data ?? []).map((stored) => stored.doc)
  })

  const doc = $derived(bench.doc as Setup)
  const light = $derived(doc.lights[bench.light] as Light)
  const unit = $derived(person.preferences.length)
  const thirds = $derived({ full: 3, half: 1.5, third: 1 }[person.preferences.step] ?? 1)
  const under = $derived(doc.look.background_stops)

  function change(label: string, edit: (light: Light) => void) {
    bench.edit(label, (draft) => edit(draft.lights[bench.light] as Light))
  }

  function number(name: string, text: string, apply: (value: number) => void): string | null {
    const value = readNumber(text)
    if (value === null) return `${name} must be a number.`
    apply(value)
    return null
  }

  function distance(text: string): string | null {
    const metres = readDistance(text, unit)
    if (metres === null) return 'Type a distance such as 2.4 m or 8 ft.'
    if (metres < 0.05 || metres > 500) return 'Distance must be between 0.05 m and 500 m.'
    change(`Distance ${sayDistance(metres, unit)}`, (l) => (l.distance_m = metres))
    return null
  }

  function bounded(name: string, low: number, high: number, apply: (value: number) => void) {
    return (text: string) =>
      number(name, text, () => {}) ??
      ((value) =>
        value < low || value > high ? `${name} must be between ${low} and ${high}.` : (apply(value), null))(
        readNumber(text)!,
      )
  }

  const aperture = (value: number) => bench.edit(`Aperture f/${value}`, (s) => (s.look.f_number = value))
  const iso = (value: number) => bench.edit(`ISO ${value}`, (s) => (s.look.iso = value))
  const background = (value: number) =>
    bench.edit(`Background ${signed(value)}`, (s) => (s.look.background_stops = round(value, 2)))
  const frames = (value: number) =>
    bench.edit(`${value} frames`, (s) => (s.frames = Math.max(1, Math.round(value))))
  const heads = (value: number) =>
    change(`${value} heads`, (l) => (l.heads = Math.min(16, Math.max(1, Math.round(value)))))

  function mount(name: string) {
    change(name === '' ? 'No modifier' : name, (l) => {
      l.modifier = modifiers.find((modifier) => modifier.name === name) ?? null
      l.layers = null
    })
  }

  function on(name: string): boolean {
    const layer = light.modifier?.layers?.find((one) => one.name === name)
    return light.layers ? light.layers.includes(name) : !!layer?.usually_on
  }

  function toggle(name: string) {
    change(`${name} ${on(name) ? 'off' : 'on'}`, (l) => {
      const all = light.modifier?.layers ?? []
      l.layers = all.map((layer) => layer.name).filter((layer) => on(layer) !== (layer === name))
    })
  }

  function pack(name: string) {
    const has = doc.filters?.some((one) => one.name === name)
    bench.edit(`${name} ${has ? 'left at home' : 'packed'}`, (s) => {
      s.filters = filters.filter((one) =>
        one.name === name ? !has : s.filters?.some((own) => own.name === one.name),
      )
    })
  }

  const zoomable = $derived(!light.modifier || light.modifier.needs_zoom_head)
  const sources: [string, string][] = [
    ['', 'its usual source'],
    ['aa', 'AA cells'],
    ['lithium', 'lithium packs'],
    ['external', 'external packs'],
    ['mains', 'the mains'],
  ]
</script>

<div class="font-prose space-y-4 text-[1.075rem] leading-[1.95]">
  <LightThere />

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
        step={(by) => background(Math.min(4, Math.max(-8, under + (by * thirds) / 3)))}
        type={bounded('Background', -8, 4, background)}
      />, at
      <LiveFigure
        label="Aperture"
        hotkey="a"
        value={doc.look.f_number}
        text={`f/${doc.look.f_number}`}
        step={(by) => aperture(stepOn(person.scales.apertures, doc.look.f_number, by))}
        type={bounded('Aperture', 0.5, 128, aperture)}
      />
      and
      <LiveFigure
        label="ISO"
        hotkey="i"
        value={doc.look.iso ?? 100}
        text={`ISO ${doc.look.iso}`}
        step={(by) => iso(stepOn(person.scales.isos, doc.look.iso ?? 100, by))}
        type={bounded('ISO', 3, 4000000, iso)}
      />.
    </p>
    <p>
      On the
      <LiveChoice
        label="Camera body"
        hotkey="c"
        value={doc.body.name}
        options={bodies.some((body) => body.name === doc.body.name)
          ? bodies.map((body) => [body.name, body.name])
          : [
              [doc.body.name, doc.body.name],
              ...bodies.map((body) => [body.name, body.name] as [string, string]),
            ]}
        choose={(name) =>
          bench.edit(name, (s) => (s.body = bodies.find((body) => body.name === name) ?? s.body))}
      />, which syncs at 1/{Math.round(1 / (doc.body.sync_s ?? 1))}.
      {#if filters.length}
        In the bag:
        {#each filters as filter (filter.name)}
          {@const has = doc.filters?.some((own) => own.name === filter.name) ?? false}
          <button type="button" class="chip" aria-pressed={has} onclick={() => pack(filter.name)}>
            <span aria-hidden="true">{has ? '✓' : '+'}</span>
            {filter.name}
          </button>{' '}
        {/each}
      {/if}
    </p>
  </section>

  <section aria-labelledby="ask-light">
    <h2 id="ask-light" class="ask">The light we add</h2>
    <p>
      As {light.role ?? 'key'},
      <LiveFigure
        label="Heads"
        hotkey="h"
        tone="flash"
        value={light.heads ?? 1}
        text={(light.heads ?? 1) === 1 ? 'one head' : `${light.heads} heads`}
        step={(by) => heads((light.heads ?? 1) + Math.sign(by))}
        type={bounded('Heads', 1, 16, heads)}
      />
      <LiveFigure
        label="Distance"
        hotkey="d"
        tone="flash"
        value={light.distance_m ?? 2}
        text={sayDistance(light.distance_m ?? 2, unit)}
        step={(by) =>
          distance(
            String(Math.min(500, Math.max(0.05, stepDistance(light.distance_m ?? 2, by * thirds)))) + ' m',
          )}
        type={distance}
      />
      from the subject, through
      <LiveChoice
        label="Modifier"
        hotkey="m"
        tone="flash"
        value={light.modifier?.name ?? ''}
        options={[
          ['', 'nothing: bare'],
          ...(light.modifier && !modifiers.some((one) => one.name === light.modifier?.name)
            ? [[light.modifier.name, light.modifier.name] as [string, string]]
            : []),
          ...modifiers.map((one) => [one.name, one.name] as [string, string]),
        ]}
        choose={mount}
      />{#if light.modifier?.layers?.length}{' '}with
        {#each light.modifier.layers as layer (layer.name)}
          <button type="button" class="chip" aria-pressed={on(layer.name)} onclick={() => toggle(layer.name)}>
            <span aria-hidden="true">{on(layer.name) ? '✓' : '+'}</span>
            {layer.name} <span class="text-quiet">{signed(layer.stops)}</span>
          </button>{' '}
        {/each}
      {:else}{' '}{/if}and
      <LiveChoice
        label="Gel"
        hotkey="g"
        tone="flash"
        value={light.gel ?? 'none'}
        options={Object.entries(person.scales.gels)}
        choose={(gel) => change(person.scales.gels[gel] ?? gel, (l) => (l.gel = gel as Light['gel']))}
      />{#if zoomable}, zoomed to
        <LiveChoice
          label="Zoom position"
          hotkey="z"
          tone="flash"
          value={String(light.zoom_mm ?? '')}
          options={[
            ['', '35 mm, as compared'],
            ...[24, 28, 50, 70, 85, 105, 135, 200].map((mm) => [String(mm), `${mm} mm`] as [string, string]),
          ]}
          choose={(mm) =>
            change(mm ? `Zoom ${mm} mm` : 'Zoom 35 mm', (l) => (l.zoom_mm = mm ? Number(mm) : null))}
        />{/if}.
    </p>
    <p>
      For
      <LiveFigure
        label="Frames"
        hotkey="f"
        value={doc.frames ?? 200}
        text={`${doc.frames} frames`}
        step={(by) => frames((doc.frames ?? 200) + by * 10)}
        type={bounded('Frames', 1, 1000000, frames)}
      />, fed from
      <LiveChoice
        label="Power source"
        hotkey="p"
        tone="flash"
        value={doc.source ?? ''}
        options={sources}
        choose={(kind) => bench.edit('Power source', (s) => (s.source = (kind || null) as Setup['source']))}
      />.
    </p>
  </section>
</div>

<style>
  .chip {
    font-family: var(--font-sans);
    font-size: 0.8rem;
    line-height: 1.5;
    padding: 0 0.5rem;
    min-height: 1.6rem;
    border: 1px solid var(--color-base-300);
    border-radius: 999px;
    cursor: pointer;
    white-space: nowrap;
  }
  .chip[aria-pressed='true'] {
    border-color: currentColor;
    background: var(--color-base-200);
    font-weight: 600;
  }
</style>
