<!-- The light that is there: how it is known, how it is tamed, and what it comes to. -->
<script lang="ts">
  import type { Setup, There } from '../lib/api/client'
  import { between, clamp } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'
  import BySun from './BySun.svelte'
  import Chip from './Chip.svelte'
  import ReadingFigures from './ReadingFigures.svelte'
  import Taming from './Taming.svelte'

  const there = $derived((bench.doc as Setup).there!)
  const ambient = $derived(bench.answer?.ambient)
  const lampLit = $derived(there.by !== 'sun' && person.scales.lamp_lit.includes(there.condition ?? ''))
  const metered = $derived(there.by === 'reading' || (there.by === 'sun' && !!there.readings?.length))
  const ways: [There['by'], string][] = [
    ['condition', 'by eye'],
    ['reading', 'by meter'],
    ['lux', 'by lux'],
    ['sun', 'by the sun'],
  ]

  function change(label: string, edit: (there: There) => void) {
    bench.edit(label, (s) => edit(s.there!))
  }

  function known(by: There['by'], words: string) {
    change(`Light known ${words}`, (t) => {
      t.by = by
      if (by === 'lux') t.lux ??= 80000
      if (by === 'reading') t.readings = t.readings?.length ? t.readings : [FIRST]
      if (by === 'sun') {
        t.place ??= {
          name: 'Home',
          latitude: 50.9,
          longitude: -0.1,
          zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        }
        t.day ??= new Date().toISOString().slice(0, 10)
        t.readings = []
      }
    })
  }

  const plain = (value: number) => value.toFixed(1).replace('-', '−')
  const FIRST = { f_number: 8, shutter_s: 1 / 500, iso: 100, of: 'background' as const }
  const lux = (value: number) => change('Lux', (t) => (t.lux = value))
  const lamps = (value: number) => change('Lamps', (t) => (t.lamps_lux = value))
  const warmth = (value: number) => change('Colour of the lamps', (t) => (t.lamps_k = value))
</script>

<section aria-labelledby="ask-there">
  <h2 id="ask-there" class="ask">The light that is there</h2>
  <div
    class="mb-1 flex flex-wrap gap-x-3 font-sans text-[0.82rem] leading-normal"
    role="group"
    aria-label="How the light is known"
  >
    {#each ways as [key, words] (key)}
      <button
        type="button"
        class="cursor-pointer py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
        aria-pressed={there.by === key}
        onclick={() => known(key, words)}>{words}</button
      >
    {/each}
  </div>
  {#if there.by === 'sun'}
    <BySun />
  {:else}
    <p>
      {#if there.by === 'lux'}
        <LiveFigure
          label="Illuminance"
          tone="ambient"
          value={there.lux ?? 0}
          text={`${Math.round(there.lux ?? 0).toLocaleString('en-GB')} lx`}
          step={(by) => lux(clamp(Math.round((there.lux ?? 1) * 2 ** (by / 3)), 1, 200000))}
          type={between(
            'Illuminance',
            0.001,
            200000,
            lux,
            (text) => Number(text.replace(/[^\d.]/g, '')) || null,
          )}
        />
        on the scene, under
      {:else if there.by === 'reading'}
        The meter read <ReadingFigures />, under
      {/if}
      <LiveChoice
        label="Condition"
        hotkey="s"
        tone="ambient"
        value={there.condition ?? ''}
        options={Object.entries(person.scales.conditions)}
        choose={(key) => change('Condition', (t) => (t.condition = key as There['condition']))}
      />.
    </p>
  {/if}
  {#if metered && there.by === 'sun'}
    <p>
      Metered <ReadingFigures /> at {there.readings?.[0]?.clock?.slice(0, 5) ?? 'this time'}: the day moves
      with it.
      <Chip plain onclick={() => change('Forget the reading', (t) => (t.readings = []))}>forget it</Chip>
    </p>
  {/if}
  <p>
    {#if there.by === 'sun' && !metered}
      <Chip onclick={() => change('A meter reading', (t) => (t.readings = [{ ...FIRST, clock: t.clock }]))}
        >a meter reading</Chip
      >
    {/if}
    {#if there.lamps_lux}
      Lamps give
      <LiveFigure
        label="Lamps"
        tone="ambient"
        value={there.lamps_lux}
        text={`${Math.round(there.lamps_lux)} lx`}
        step={(by) => lamps(clamp(Math.round((there.lamps_lux ?? 1) * 2 ** (by / 3)), 1, 100000))}
        type={between('Lamps', 0.1, 100000, lamps)}
      />
      of
      <LiveFigure
        label="Colour of the lamps"
        tone="ambient"
        value={there.lamps_k ?? 3200}
        text={`${there.lamps_k} K`}
        step={(by) => warmth(clamp((there.lamps_k ?? 3200) + by * 100, 1500, 15000))}
        type={between('Colour of the lamps', 1500, 15000, warmth)}
      />
      <Chip plain onclick={() => change('No lamps', (t) => (t.lamps_lux = null))}>no lamps</Chip>
    {:else if !lampLit}
      <Chip onclick={() => lamps(500)}>lamps</Chip>
    {/if}
    {#if there.lamps_lux || lampLit}
      <Chip
        on={!there.lamps_on}
        onclick={() =>
          change(there.lamps_on ? 'All lamps off' : 'Lamps on', (t) => (t.lamps_on = !there.lamps_on))}
        >all lamps off</Chip
      >
    {/if}
  </p>
  <Taming />
  {#if ambient}
    <p class="mt-1 font-sans text-[0.82rem] leading-normal">
      <span class="text-ambient font-semibold" data-testid="ambient">
        EV {plain(ambient.background_ev)} behind · {plain(ambient.subject_ev)} on the subject · {plain(
          ambient.shade_ev,
        )} in the shade
      </span>
      <span class="text-quiet block">{ambient.how} {ambient.subject}</span>
    </p>
  {/if}
</section>
