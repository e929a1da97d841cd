<!-- The tones on the subject: its skin, and what else must not burn out. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { clamp } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import Chip from './Chip.svelte'

  let { session }: { session: SetupSession } = $props()
  type Stage = Setup['stage']
  const stage = $derived(session.doc.stage)
  const bounds = person.bounds('SubjectTone', 'reflectance')
  const edit = (label: string, change: (stage: Stage) => void) => session.edit(label, (s) => change(s.stage))
  const skins = $derived<[string, string][]>([
    ...Object.entries(person.scales.skins).map(([name, share]): [string, string] => [String(share), name]),
    ...(Object.values(person.scales.skins).includes(stage.skin)
      ? []
      : [[String(stage.skin), `skin of ${stage.skin}`] as [string, string]]),
  ])
  const left = $derived(
    person.scales.tones.filter((one) => !stage.tones.some((other) => other.name === one.name)),
  )
  const reflects = (at: number, share: number) =>
    edit('Reflectance', (s) => (s.tones[at]!.reflectance = clamp(Math.round(share * 100) / 100, ...bounds)))
</script>

<p>
  {stage.kind === 'object' ? 'Its ground tone' : 'It has'}
  <LiveChoice
    label="Skin"
    value={String(stage.skin)}
    options={skins}
    choose={(value) => edit('Skin', (s) => (s.skin = Number(value)))}
  />{#each stage.tones as tone, at (at)},
    <bdi>{tone.name}</bdi>
    {tone.mirrors ? 'that mirrors' : 'of'}
    <LiveFigure
      label={`${tone.name}, reflectance`}
      value={tone.reflectance}
      text={`${Math.round(tone.reflectance * 100)} %`}
      hint="share of the light that it gives back"
      step={(by) => reflects(at, tone.reflectance + by * 0.05)}
      reads={quantity('share', `${tone.name}, reflectance`, bounds, (share) => reflects(at, share))}
    />
    <Chip plain onclick={() => edit('Tone', (s) => s.tones.splice(at, 1))}>without it</Chip>{/each}.
  {#each left as tone (tone.name)}
    <Chip onclick={() => edit('Tone', (s) => s.tones.push({ ...tone }))}>{tone.name}</Chip>
  {/each}
</p>
