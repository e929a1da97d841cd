<!-- The stage: the frame as it would come out, the set from above, and every light in a line. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'
  import type { SetupSession } from '../lib/session.svelte'
  import Fold from '../parts/Fold.svelte'
  import Frame from './Frame.svelte'
  import FromAbove from './FromAbove.svelte'
  import SideView from './SideView.svelte'
  import Heading from '../parts/Heading.svelte'

  let { session, stage }: { session: SetupSession; stage: StageText } = $props()
  let flash = $state(true)
  let side = $state(false)
  const lens = (one: StageText['frame']['lenses'][number]) =>
    session.edit('Lens', (s) => {
      if (s.aim.lens)
        Object.assign(s.aim.lens, {
          focal_mm: one.focal_mm,
          subject_m: one.subject_m,
          background_m: one.background_m,
        })
    })
  const switchOver = (index: number) =>
    session.edit('Light on or off', (s) => (s.lights[index]!.on = !s.lights[index]!.on))
</script>

<section aria-labelledby="frame-title" class="space-y-1">
  <div class="flex items-baseline justify-between gap-2">
    <Heading id="frame-title" word="frame">The frame</Heading>
    <button
      type="button"
      class="link-button text-[0.85rem]"
      aria-pressed={!flash}
      onclick={() => (flash = !flash)}>{flash ? 'without flash' : 'with flash'}</button
    >
  </div>
  <Frame frame={stage.frame} {flash} />
  <p class="text-quiet text-[0.8rem] leading-snug">{stage.frame.says}</p>
  {#if stage.frame.lenses.length}
    <Fold words="another lens, the subject as large">
      <ul class="text-[0.82rem] leading-snug">
        {#each stage.frame.lenses as one (one.focal_mm)}
          <li>
            <button type="button" class="link-button text-left" onclick={() => lens(one)}>{one.says}</button>
          </li>
        {/each}
      </ul>
    </Fold>
  {/if}
</section>

<section aria-labelledby="above-title" class="space-y-1">
  <div class="flex items-baseline justify-between gap-2">
    <Heading id="above-title" word="above">{side ? 'From the side' : 'From above'}</Heading>
    <button type="button" class="link-button text-[0.85rem]" onclick={() => (side = !side)}
      >{side ? 'from above' : 'from the side'}</button
    >
  </div>
  {#if side}<SideView {stage} light={session.light} />{:else}<FromAbove {session} {stage} />{/if}
  <p class="text-quiet no-print text-[0.8rem] leading-snug">
    Rings: exposure on faces. Drag a light, or move it with the arrow keys.
  </p>
</section>

<section aria-labelledby="all-lights" class="space-y-0.5">
  <Heading id="all-lights" word="all_lights">All lights</Heading>
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
              ><bdi>{light.unit}</bdi> · {light.where}{light.soft ? ` · ${light.soft}` : ''}{light.level
                ? ` · ${light.level}`
                : ''}</span
            >
            {#if light.off}<span class="text-short font-semibold">{light.off}</span>{/if}
          {:else}<span class="text-quiet">off</span>{/if}
        </button>
      </li>
    {/each}
  </ul>
</section>
