<!-- Ways to tame the light that is there: one touch each, with its EV and what it does to the rest. -->
<script lang="ts">
  import type { Setup, There } from '../lib/api/client'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveLength from '../parts/LiveLength.svelte'

  const there = $derived((bench.doc as Setup).there!)
  const tamings = $derived(bench.answer?.tamings ?? [])
  const said = $derived(tamings.find((taming) => taming.stand === there.subject)?.says ?? '')
  const panel = $derived(there.panel!)

  function change(label: string, edit: (there: There) => void) {
    bench.edit(label, (s) => edit(s.there!))
  }
  const size = (value: number) => change('Panel size', (t) => (t.panel!.size_m = value))
  const height = (value: number) => change('Panel height', (t) => (t.panel!.height_m = value))
</script>

{#if tamings.length}
  <p>The subject stands</p>
  <div class="grid grid-cols-4 gap-1.5 font-sans" role="group" aria-label="Where the subject stands">
    {#each tamings as taming (taming.stand)}
      <button
        type="button"
        class="border-base-300 aria-pressed:border-ambient aria-pressed:bg-base-200 cursor-pointer rounded-lg border px-1 py-1 text-left leading-tight"
        aria-pressed={there.subject === taming.stand}
        data-hotkey={there.subject === taming.stand ? 'w' : undefined}
        title={taming.says}
        onclick={() => change(`Subject ${taming.title}`, (t) => (t.subject = taming.stand))}
      >
        <span class="block text-[0.78rem] font-semibold">{taming.title}</span>
        <span class="text-ambient block text-[0.72rem]">EV {taming.subject_ev.toFixed(1)}</span>
      </button>
    {/each}
  </div>
  {#if there.subject === 'panel'}
    <p>
      under
      <LiveChoice
        label="Panel"
        tone="ambient"
        value={panel.kind ?? 'opaque'}
        options={[
          ['opaque', 'an opaque panel'],
          ['diffusing', 'a diffusing panel'],
        ]}
        choose={(kind) => change(`Panel ${kind}`, (t) => (t.panel!.kind = kind as 'opaque'))}
      />
      <LiveLength
        label="Panel size"
        tone="ambient"
        value={panel.size_m ?? 1.8}
        low={0.2}
        high={12}
        set={size}
      />
      long, held
      <LiveLength
        label="Panel height"
        tone="ambient"
        value={panel.height_m ?? 2.4}
        low={0.3}
        high={10}
        set={height}
      />
      up.
    </p>
  {/if}
  <p class="font-sans text-[0.82rem] leading-snug" data-testid="taming">{said}</p>
{/if}
