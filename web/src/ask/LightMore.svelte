<!-- What is seldom said of a light: the side it reaches, automatic power; the frames and what feeds it. -->
<script lang="ts">
  import type { Light } from '../lib/api/client'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Fold from '../parts/Fold.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import Chip from './Chip.svelte'

  let { session, light }: { session: SetupSession; light: Light } = $props()
  const doc = $derived(session.doc)

  const change = (label: string, edit: (light: Light) => void) => session.editLight(label, edit)
  function supply(kind: string) {
    session.edit('Power supply', (s) => {
      s.lights[session.light]!.power_supply = (kind || null) as Light['power_supply']
      if (!kind) s.power_supply = null
    })
  }
  const frames = (value: number) => session.edit('Frames', (s) => (s.frames = Math.max(1, Math.round(value))))
  const pops = (count: number) =>
    change('Flashes into one frame', (l) => (l.pops = Math.max(1, Math.min(100, Math.round(count)))))
  const channel = (number: number) =>
    change('Channel', (l) => (l.channel = Math.max(1, Math.min(99, Math.round(number)))))
  const side = (value: NonNullable<Light['side']> | '') =>
    change('Side it reaches', (l) => (l.side = value === '' ? null : value))
  const supplies = $derived<[string, string][]>([
    ['', 'its usual supply'],
    ...Object.entries(person.scales.supplies),
  ])
</script>

<Fold words="side, automatic power, group, frames, supply">
  {#if light.role !== 'background'}
    <p>
      {#if !light.position}
        It reaches
        <LiveChoice
          label="Side it reaches"
          tone="flash"
          value={light.side ?? ''}
          options={[
            ['', 'the side usual for it'],
            ['lit', 'the lit side'],
            ['shadow', 'the shadow side'],
            ['both', 'both sides'],
            ['none', 'the edge only'],
          ]}
          choose={side}
        />.
      {/if}
      <Chip
        on={light.automatic}
        onclick={() => change('Automatic power', (l) => (l.automatic = !l.automatic))}
        >automatic, through the lens</Chip
      >
    </p>
  {/if}
  <p>
    <LiveFigure
      label="Flashes into one frame"
      tone="flash"
      value={light.pops}
      text={light.pops === 1 ? 'one flash' : `${light.pops} flashes`}
      step={(by) => pops(light.pops + Math.sign(by))}
      reads={quantity('count', 'Flashes into one frame', person.bounds('Light', 'pops'), pops)}
    />
    into each frame; channel
    <LiveFigure
      label="Channel"
      value={light.channel ?? 1}
      text={light.channel === null ? 'not said' : String(light.channel)}
      step={(by) => channel((light.channel ?? 0) + Math.sign(by))}
      reads={quantity('count', 'Channel', [1, 99], channel)}
    />, group
    <LiveChoice
      label="Group"
      value={light.group}
      options={[['', 'none'], ...['A', 'B', 'C', 'D', 'E'].map((one): [string, string] => [one, one])]}
      choose={(group) => change('Group', (l) => (l.group = group))}
    />; it
    <LiveChoice
      label="Commands the others"
      value={light.sends ? 'yes' : ''}
      options={[
        ['', 'listens'],
        ['yes', 'commands the others'],
      ]}
      choose={(sends) => change('Commands the others', (l) => (l.sends = sends === 'yes'))}
    />.
  </p>
  <p>
    For
    <LiveFigure
      label="Frames"
      hotkey="f"
      value={doc.frames}
      text={`${doc.frames} frames`}
      step={(by) => frames(doc.frames + by * 10)}
      reads={quantity('count', 'Frames', person.bounds('Setup', 'frames'), frames)}
    />, fed from
    <LiveChoice
      label="Power supply"
      hotkey="p"
      tone="flash"
      value={light.power_supply ?? doc.power_supply ?? ''}
      options={supplies}
      choose={supply}
    />.
  </p>
</Fold>
