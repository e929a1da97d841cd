<!-- Where the subject stands: one touch each, with its EV and what it does to the rest. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  import type { AmbientSpec } from '../lib/api/client'
  import { hotkey } from '../lib/hotkeys'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveLength from '../parts/LiveLength.svelte'

  let { session }: { session: SetupSession } = $props()
  const spec = $derived(session.doc.ambient)
  const placements = $derived(session.answer?.placements ?? [])
  const said = $derived(placements.find((one) => one.subject === spec.subject)?.says ?? '')
  let group = $state<HTMLElement>()

  $effect(() =>
    hotkey('w', 'Where the subject stands', () =>
      group?.querySelector<HTMLElement>('[aria-pressed="true"]')?.focus(),
    ),
  )

  function change(label: string, edit: (spec: AmbientSpec) => void) {
    session.edit(label, (s) => edit(s.ambient))
  }
  const size = (value: number) => change('Panel size', (a) => (a.panel.size_m = value))
  const height = (value: number) => change('Panel height', (a) => (a.panel.height_m = value))
</script>

{#if placements.length}
  <p>The subject stands</p>
  <div class="grid grid-cols-4 gap-1.5" role="group" aria-label="Where the subject stands" bind:this={group}>
    {#each placements as place (place.subject)}
      <button
        type="button"
        class="border-base-300 aria-pressed:border-ambient aria-pressed:bg-base-200 cursor-pointer rounded-lg border px-1 py-1 text-left leading-tight"
        aria-pressed={spec.subject === place.subject}
        title={place.says}
        onclick={() => change('Where the subject stands', (a) => (a.subject = place.subject))}
      >
        <span class="block text-[0.78rem] font-semibold">{place.title}</span>
        <span class="text-ambient block text-[0.72rem]">EV {fixed(place.subject_ev, 1)}</span>
      </button>
    {/each}
  </div>
  {#if spec.subject === 'panel'}
    <p>
      under
      <LiveChoice
        label="Panel"
        tone="ambient"
        value={spec.panel.kind}
        options={[
          ['opaque', 'an opaque panel'],
          ['diffusing', 'a diffusing panel'],
        ]}
        choose={(kind) => change('Panel', (a) => (a.panel.kind = kind))}
      />
      <LiveLength
        label="Panel size"
        tone="ambient"
        value={spec.panel.size_m}
        bounds={person.bounds('Panel', 'size_m')}
        set={size}
      />
      long, held
      <LiveLength
        label="Panel height"
        tone="ambient"
        value={spec.panel.height_m}
        bounds={person.bounds('Panel', 'height_m')}
        set={height}
      />
      up.
    </p>
  {/if}
  <p class="text-[0.82rem] leading-snug" data-testid="placement">{said}</p>
{/if}
