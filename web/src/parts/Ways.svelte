<!-- The ways to get the camera there, side by side; what the chosen one costs; those that cannot be, with the reason. -->
<script lang="ts">
  import { CircleSlash, Compass, TriangleAlert } from '@lucide/svelte'
  import type { WayCard } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import Chip from '../ask/Chip.svelte'
  import Film from './Film.svelte'

  const answer = $derived(bench.answer!)
  const possible = $derived(answer.ways.filter((way) => way.possible))
  const others = $derived(answer.ways.filter((way) => !way.possible))
  const chosen = $derived(possible.find((way) => way.kind === answer.chosen))

  function choose(way: WayCard) {
    bench.edit(way.title, (s) => (s.way = way.kind))
  }

  async function avoid(way: WayCard) {
    const rest = (person.preferences.avoid ?? []).filter((kind) => kind !== way.kind)
    await bench.settle()
    await person.choose({ avoid: way.avoided ? rest : [...rest, way.kind] })
    await bench.again()
  }
</script>

<section aria-labelledby="ways-title">
  <div class="mb-2 flex items-baseline gap-3">
    <h2 id="ways-title" class="ask">Ways to get there</h2>
    {#if bench.doc?.way}
      <button
        type="button"
        class="text-quiet cursor-pointer text-sm underline underline-offset-4"
        onclick={() => bench.edit('Advised way', (s) => (s.way = null))}>take the advised way</button
      >
    {/if}
  </div>
  <div
    class="grid grid-cols-[repeat(auto-fit,minmax(11.5rem,1fr))] gap-2.5"
    role="group"
    style:max-width={`${possible.length * 19}rem`}
    aria-label="Ways"
  >
    {#each possible as way (way.kind)}
      {@const taken = way.kind === answer.chosen}
      <button
        type="button"
        aria-pressed={taken}
        class={`border-base-300 flex cursor-pointer flex-col rounded-xl border p-3 text-left transition-shadow ${taken ? 'bg-base-200 ring-base-content ring-2' : 'hover:bg-base-200'}`}
        onclick={() => choose(way)}
      >
        <span class="flex w-full items-center gap-1.5">
          <span class="font-bold">{way.title}</span>
          {#if way.kind === answer.advised}
            <span class="text-quiet ml-auto flex items-center gap-1 text-xs"
              ><Compass size={13} /> advised</span
            >
          {:else if way.avoided}
            <span class="text-quiet ml-auto text-xs">rather not</span>
          {/if}
        </span>
        <span class="mt-1 text-[0.95rem] font-medium">
          {way.camera.aperture} · {way.camera.shutter} · {way.camera.iso}
          {#if way.camera.nd}<span class="whitespace-nowrap">· {way.camera.nd}</span>{/if}
        </span>
        <span
          class={`mt-1 text-sm font-semibold ${(way.best_spare ?? -1) < 0 && way.reach_count === 0 ? 'text-short' : 'text-flash'}`}
        >
          {way.reach_count} of {answer.units} reach{#if way.best_spare !== null && way.best_spare !== undefined}<span
              class="font-medium">, best {signed(way.best_spare)}</span
            >{/if}
        </span>
        <span class="mt-1 text-[0.82rem] leading-snug">{way.judgement}</span>
        {#if way.background}
          <span class="text-ambient mt-1 text-[0.8rem]">{way.background}</span>
        {/if}
      </button>
    {/each}
  </div>
  {#if chosen}
    <div
      class="mt-2.5 flex flex-wrap items-start gap-x-6 gap-y-2 text-[0.84rem] leading-snug"
      data-testid="costs"
    >
      <dl class="costs min-w-0 flex-1 basis-80">
        <dt>Gives up</dt>
        <dd>{chosen.gives_up}</dd>
        <dt>Best unit</dt>
        <dd>{chosen.best}; its flash can lie <span class="text-flash font-semibold">{chosen.room}</span></dd>
        <dt>Frame, meter</dt>
        <dd>{chosen.evenness}; {chosen.metered}{chosen.charge ? `; ${chosen.charge}` : ''}</dd>
      </dl>
      <Chip on={chosen.avoided ?? false} onclick={() => avoid(chosen)}>rather not: {chosen.title}</Chip>
    </div>
    <Film way={chosen.kind} />
  {/if}
  {#if answer.traps.length}
    <ul class="mt-2.5 flex flex-wrap gap-x-5 gap-y-1 text-[0.82rem] leading-snug" aria-label="Mind">
      {#each answer.traps as trap (trap.key)}
        <li class="flex gap-1.5">
          <TriangleAlert size={14} class="mt-0.5 shrink-0" aria-hidden="true" />
          <span
            ><span class="font-semibold">{trap.title}:</span>
            <span class="text-quiet">{trap.says}</span></span
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if others.length}
    <details class="mt-2 text-[0.82rem]" open={!possible.length}>
      <summary class="text-quiet cursor-pointer py-1"
        >{others.length} ways that cannot be, or need not, and why</summary
      >
      <ul class="text-quiet grid gap-x-6 gap-y-1 leading-snug sm:grid-cols-2">
        {#each others as way (way.kind)}
          <li class="flex gap-1.5">
            <CircleSlash size={14} class="mt-0.5 shrink-0" aria-hidden="true" />
            <span><span class="text-base-content font-semibold">{way.title}:</span> {way.reason}</span>
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</section>

<style>
  .costs {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.15rem 0.75rem;
  }
  .costs dt {
    color: var(--color-quiet);
  }
</style>
