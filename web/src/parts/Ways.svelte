<!-- The ways to get the camera there, side by side; those that cannot be, with the reason. -->
<script lang="ts">
  import { CircleSlash, Compass } from '@lucide/svelte'
  import type { WayCard } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { bench } from '../lib/workbench.svelte'

  const answer = $derived(bench.answer!)
  const possible = $derived(answer.ways.filter((way) => way.possible))
  const others = $derived(answer.ways.filter((way) => !way.possible))

  function choose(way: WayCard) {
    bench.edit(way.title, (s) => (s.way = way.kind))
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
  <div class="grid grid-cols-[repeat(auto-fit,minmax(11.5rem,1fr))] gap-2.5" role="group" aria-label="Ways">
    {#each possible as way (way.kind)}
      {@const chosen = way.kind === answer.chosen}
      <button
        type="button"
        aria-pressed={chosen}
        class={`border-base-300 flex cursor-pointer flex-col rounded-xl border p-3 text-left transition-shadow ${chosen ? 'bg-base-200 ring-base-content ring-2' : 'hover:bg-base-200'}`}
        onclick={() => choose(way)}
      >
        <span class="flex w-full items-center gap-1.5">
          <span class="font-bold">{way.title}</span>
          {#if way.kind === answer.advised}
            <span class="text-quiet ml-auto flex items-center gap-1 text-xs"
              ><Compass size={13} /> advised</span
            >
          {/if}
        </span>
        <span class="mt-1 text-[0.95rem] font-medium">
          {way.camera.aperture} · {way.camera.shutter} · {way.camera.iso}
          {#if way.camera.nd}<span class="whitespace-nowrap">· {way.camera.nd}</span>{/if}
        </span>
        <span
          class={`mt-1 text-sm font-semibold ${(way.best_spare ?? -1) < 0 && way.reach_count === 0 ? 'text-short' : 'text-flash'}`}
        >
          {way.reach_count} of {answer.lanes.length} reach{#if way.best_spare !== null && way.best_spare !== undefined}<span
              class="font-medium">, best {signed(way.best_spare)}</span
            >{/if}
        </span>
        <span class="text-quiet mt-1 text-[0.8rem] leading-snug">{way.gives_up}</span>
        {#if way.background !== 'background as asked'}
          <span class="text-ambient mt-1 text-[0.8rem]">{way.background}</span>
        {/if}
      </button>
    {/each}
  </div>
  {#if others.length}
    <ul class="text-quiet mt-2.5 grid gap-x-6 gap-y-1 text-[0.82rem] leading-snug sm:grid-cols-2">
      {#each others as way (way.kind)}
        <li class="flex gap-1.5">
          <CircleSlash size={14} class="mt-0.5 shrink-0" aria-hidden="true" />
          <span><span class="text-base-content font-semibold">{way.title}:</span> {way.reason}</span>
        </li>
      {/each}
    </ul>
  {/if}
</section>
