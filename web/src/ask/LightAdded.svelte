<!-- The light we add: role, heads, distance, what is in front of it, how many frames, fed from what. -->
<script lang="ts">
  import type { Light, Setup } from '../lib/api/client'
  import { between, clamp, sayDistance, signed } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import LiveLength from '../parts/LiveLength.svelte'
  import Chip from './Chip.svelte'

  const doc = $derived(bench.doc as Setup)
  const light = $derived((doc.lights![bench.light] ?? doc.lights![0]) as Light)
  const unit = $derived(person.preferences.length)
  const thirds = $derived({ full: 3, half: 1.5, third: 1 }[person.preferences.step] ?? 1)
  const modifiers = $derived(kit.modifiers.map((stored) => stored.doc))
  const zoomable = $derived(!light.modifier || light.modifier.needs_zoom_head)

  function change(label: string, edit: (light: Light) => void) {
    bench.edit(label, (draft) => edit(draft.lights![bench.light] as Light))
  }
  const distance = (metres: number) =>
    change(`Distance ${sayDistance(metres, unit)}`, (l) => (l.distance_m = metres))
  const frames = (value: number) =>
    bench.edit(`${value} frames`, (s) => (s.frames = Math.max(1, Math.round(value))))
  const heads = (value: number) =>
    change(`${value} heads`, (l) => (l.heads = clamp(Math.round(value), 1, 16)))
  const level = (value: number) => change('Level', (l) => (l.target_stops = Math.round(value * 100) / 100))

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

  function role(value: string) {
    change(`As ${value}`, (l) => {
      l.role = value as Light['role']
      l.target_stops = value === 'fill' ? -2 : value === 'rim' ? 0.5 : 0
    })
  }

  function add() {
    bench.edit('Another light', (s) =>
      s.lights!.push({ ...structuredClone($state.snapshot(light) as Light), role: 'rim', target_stops: 0.5 }),
    )
    bench.look(doc.lights!.length - 1)
  }

  function remove() {
    const gone = bench.light
    bench.light = 0
    bench.edit('One light less', (s) => s.lights!.splice(gone, 1))
  }

  const sources: [string, string][] = [
    ['', 'its usual source'],
    ['aa', 'AA cells'],
    ['lithium', 'lithium packs'],
    ['external', 'external packs'],
    ['mains', 'the mains'],
  ]
</script>

<section aria-labelledby="ask-light">
  <h2 id="ask-light" class="ask">The light we add</h2>
  <p class="flex flex-wrap gap-1">
    {#if doc.lights!.length > 1}
      {#each doc.lights! as one, i (i)}
        <Chip on={i === bench.light} onclick={() => bench.look(i)}>{i + 1}: {one.role}</Chip>
      {/each}
      <Chip plain onclick={remove}>take this one away</Chip>
    {/if}
    {#if doc.lights!.length < 8}<Chip plain onclick={add}>+ another light</Chip>{/if}
  </p>
  <p>
    As
    <LiveChoice
      label="Role"
      hotkey="r"
      tone="flash"
      value={light.role ?? 'key'}
      options={[
        ['key', 'key'],
        ['fill', 'fill'],
        ['rim', 'rim'],
        ['background', 'background light'],
      ]}
      choose={role}
    />
    at
    <LiveFigure
      label="Level"
      tone="flash"
      value={light.target_stops ?? 0}
      text={light.target_stops ? signed(light.target_stops) : 'full exposure'}
      hint="stops against a full exposure"
      step={(by) => level(clamp((light.target_stops ?? 0) + (by * thirds) / 3, -6, 4))}
      type={between('Level', -6, 4, level)}
    />,
    <LiveFigure
      label="Heads"
      hotkey="h"
      tone="flash"
      value={light.heads ?? 1}
      text={(light.heads ?? 1) === 1 ? 'one head' : `${light.heads} heads`}
      step={(by) => heads((light.heads ?? 1) + Math.sign(by))}
      type={between('Heads', 1, 16, heads)}
    />
    <LiveLength
      label="Distance"
      tone="flash"
      hotkey="d"
      value={light.distance_m ?? 2}
      low={0.05}
      high={500}
      set={distance}
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
        <Chip on={on(layer.name)} onclick={() => toggle(layer.name)}
          >{layer.name} <span class="text-quiet">{signed(layer.stops)}</span></Chip
        >{' '}
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
      type={between('Frames', 1, 1000000, frames)}
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
