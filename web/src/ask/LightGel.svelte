<!-- The gel of a light: which, whether it matches or colours, and of one's own what it passes and where it shifts. -->
<script lang="ts">
  import { rounded } from '../lib/figures'
  import type { Light } from '../lib/api/client'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'

  let { session, light }: { session: SetupSession; light: Light } = $props()

  const change = (label: string, edit: (light: Light) => void) => session.editLight(label, edit)
  function put(gel: string) {
    change('Gel', (l) => {
      l.gel = gel as Light['gel']
      if (gel === 'own') l.own_gel ??= { name: 'Own colour', transmission: 0.5, mired: null }
      if (gel === 'none') l.gel_for = 'match'
    })
  }
  const own = (edit: (gel: NonNullable<Light['own_gel']>) => void) =>
    change('Own gel', (l) => l.own_gel && edit(l.own_gel))
  const passed = (share: number) => own((gel) => (gel.transmission = Math.min(1, Math.max(0.003, share))))
  const shift = (mired: number) => own((gel) => (gel.mired = Math.min(400, Math.max(-400, mired))))
</script>

<LiveChoice
  label="Gel"
  hotkey="g"
  tone="flash"
  value={light.gel}
  options={Object.entries(person.scales.gels)}
  choose={put}
/>{#if light.gel !== 'none'}{' '}
  <LiveChoice
    label="What the gel is for"
    tone="flash"
    value={light.gel_for}
    options={[
      ['match', 'to match'],
      ['effect', 'for its colour'],
    ]}
    choose={(to) => change('What the gel is for', (l) => (l.gel_for = to))}
  />{/if}{#if light.gel === 'own' && light.own_gel}{' '}(<input
    class="input input-xs w-28"
    aria-label="Name of the gel"
    maxlength="80"
    value={light.own_gel.name}
    onchange={(event) => {
      const name = event.currentTarget.value.trim()
      if (name) own((gel) => (gel.name = name))
      else event.currentTarget.value = light.own_gel?.name ?? ''
    }}
  />, passes
  <LiveFigure
    label="Light passed"
    tone="flash"
    value={light.own_gel.transmission}
    text={`${rounded(light.own_gel.transmission * 100, 1)} %`}
    step={(by) => passed((light.own_gel?.transmission ?? 0.5) + by * 0.05)}
    reads={quantity('share', 'Light passed', person.bounds('OwnGel', 'transmission'), passed)}
  />,
  <LiveFigure
    label="Shift"
    tone="flash"
    value={light.own_gel.mired ?? 0}
    text={light.own_gel.mired === null
      ? 'no shift said'
      : `${light.own_gel.mired > 0 ? '+' : ''}${rounded(light.own_gel.mired, 1)} mired`.replace('-', '−')}
    step={(by) => shift((light.own_gel?.mired ?? 0) + by * 10)}
    reads={quantity('mired', 'Shift', person.bounds('OwnGel', 'mired'), shift)}
  />){/if}
