<!-- The stage: the frame as it would come out, the set from above, and every light in a line. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'
  import type { SetupSession } from '../lib/session.svelte'
  import Frame from './Frame.svelte'
  import FromAbove from './FromAbove.svelte'

  let { session, stage }: { session: SetupSession; stage: StageText } = $props()
  let flash = $state(true)
  const switchOver = (index: number) =>
    session.edit('Light on or off', (s) => (s.lights[index]!.on = !s.lights[index]!.on))
</script>

<section aria-labelledby="frame-title" class="space-y-1">
  <div class="flex items-baseline justify-between gap-2">
    <h2 id="frame-title" class="ask">The frame</h2>
    <button
      type="button"
      class="link-button text-[0.85rem]"
      aria-pressed={!flash}
      onclick={() => (flash = !flash)}>{flash ? 'without flash' : 'with flash'}</button
    >
  </div>
  <Frame frame={stage.frame} {flash} />
  <p class="text-quiet text-[0.8rem] leading-snug">{stage.frame.says}</p>
</section>

<section aria-labelledby="above-title" class="space-y-1">
  <h2 id="above-title" class="ask">From above</h2>
  <FromAbove {session} {stage} />
  <p class="text-quiet no-print text-[0.8rem] leading-snug">
    Rings: exposure on faces. Drag a light, or move it with the arrow keys.
  </p>
</section>

<section aria-labelledby="all-lights" class="space-y-0.5">
  <h2 id="all-lights" class="ask">All lights</h2>
  <ul class="space-y-1 text-[0.85rem] leading-snug">
    {#each stage.lights as light, i (i)}
      <li class="flex items-start gap-2">
        <input
          type="checkbox"
          class="checkbox checkbox-xs mt-0.5"
          checked={light.on}
          aria-label={`Light ${i + 1}, ${light.role}, on`}
          onchange={() => switchOver(i)}
        />
        <button
          type="button"
          class="min-w-0 cursor-pointer text-left"
          aria-pressed={i === session.light}
          onclick={() => session.look(i)}
        >
          <span class={i === session.light ? 'font-bold' : ''}>{i + 1} {light.role}</span>
          {#if light.on}
            {#if light.dial}<span class="text-flash font-semibold">{light.dial}</span>{/if}
            <span class="text-quiet"
              ><bdi>{light.unit}</bdi> · {light.where}{light.level ? ` · ${light.level}` : ''}</span
            >
            {#if light.off}<span class="text-short font-semibold">{light.off}</span>{/if}
          {:else}<span class="text-quiet">off</span>{/if}
        </button>
      </li>
    {/each}
  </ul>
</section>
