<!-- One drill: the scene as it stands, the camera's back, the meter, and at the end what was done. -->
<script lang="ts">
  import Controls from './Controls.svelte'
  import Back from './Back.svelte'
  import Review from './Review.svelte'
  import { DrillSession } from './drill.svelte'
  import { address } from '../lib/addresses'

  let { code, seed, hard }: { code: string; seed: number; hard: boolean } = $props()
  const session = $derived(new DrillSession(code, seed, hard))
  const text = $derived(session.text)
  let light = $state(0)
  let watched = $state<number | null>(null)
  const METERS = ['the flash', 'the ambient', 'both'] as const
  const old = $derived(session.strip.find((one) => one.number === watched))
</script>

{#if session.trouble}<p role="alert" class="sheet text-short mb-2 p-3 font-semibold">
    {session.trouble}
  </p>{/if}
{#if text}
  <div class="grid items-start gap-3 lg:grid-cols-[minmax(0,1fr)_24rem]">
    <div class="sheet space-y-3 p-4">
      <div>
        <p class="text-quiet text-[0.85rem]">
          <a class="link-button" href={address.practice()}>Practice</a> · scene {seed}{hard ? ', hard' : ''}
        </p>
        <h1 class="text-[1.5rem] leading-tight font-semibold">{text.name}</h1>
        <p class="mt-1 text-[1.05rem] font-semibold" data-testid="task">{text.task}</p>
        <p class="text-quiet mt-1 max-w-3xl text-[0.92rem]">{text.why}</p>
      </div>
      {#if text.frame}<Back frame={text.frame} />{:else}
        <div class="bg-frame grid h-44 max-w-md place-items-center text-white">No frame yet</div>
      {/if}
      {#if session.strip.length > 1}
        <div class="flex flex-wrap gap-1.5" role="group" aria-label="Frames so far">
          {#each session.strip as one (one.number)}
            <button
              type="button"
              class="border-base-300 border p-0.5"
              aria-pressed={watched === one.number}
              title={one.says}
              onclick={() => (watched = watched === one.number ? null : one.number)}
              ><img src={one.picture} alt={`Frame ${one.number}`} class="h-14" /></button
            >
          {/each}
        </div>
        {#if old}<figure>
            <img src={old.picture} alt={`Frame ${old.number}, as it came out`} class="max-h-56 max-w-full" />
            <figcaption class="text-[0.85rem]">Frame {old.number}: {old.says}</figcaption>
          </figure>{/if}
      {/if}
      {#if text.review}<Review review={text.review} />{/if}
    </div>
    <div class="sheet space-y-3 p-4">
      <div role="status" class="text-short font-semibold empty:hidden" data-testid="said">{text.said}</div>
      <Controls {session} controls={text.controls} off={text.done} />
      <div
        class="border-base-300 bg-base-100 flex flex-wrap gap-2 border-t py-3 max-lg:sticky max-lg:bottom-0 max-lg:z-10"
      >
        {#if text.done}
          <a class="btn btn-primary" href={address.practice(code, seed + 1, hard)}>Another scene</a>
          <button type="button" class="btn" onclick={() => session.again()}>The same again</button>
          <a class="btn" href={address.practice(code, seed, !hard)}>{hard ? 'Easier' : 'Harder'}</a>
        {:else}
          <button type="button" class="btn btn-primary" onclick={() => session.move('frame')}
            >Take a frame</button
          >
          {#if text.runs}<button type="button" class="btn" onclick={() => session.move('run')}
              >Take all the frames</button
            >{/if}
          <button type="button" class="btn" onclick={() => session.move('done')}>Done</button>
        {/if}
      </div>
      {#if text.meters && !text.done}
        <div class="flex flex-wrap items-center gap-1.5">
          <span class="text-quiet text-[0.9rem]">Meter</span>
          {#if text.lights.length > 1}
            <select
              class="border-base-300 bg-base-100 h-9 rounded border px-2"
              aria-label="Meter held at"
              value={String(light)}
              onchange={(event) => (light = Number(event.currentTarget.value))}
            >
              {#each text.lights as name, at (at)}<option value={String(at)}>{name}</option>{/each}
            </select>
          {/if}
          {#each METERS as words, at (words)}
            <button
              type="button"
              class="btn btn-sm"
              aria-label={`Meter ${words}`}
              onclick={() => session.move('meter', null, at, light)}>{words}</button
            >
          {/each}
        </div>
      {/if}
      {#if text.notes.length}
        <ul class="text-[0.92rem]" aria-label="Read so far">
          {#each text.notes as note, at (at)}<li>{note}</li>{/each}
        </ul>
      {/if}
      <div class="border-base-300 text-quiet space-y-0.5 border-t pt-2 text-[0.88rem]">
        <div>{text.needle_says}</div>
        <div>{text.patience_says} {text.seconds_says} gone, {text.frames} taken.</div>
        {#each text.charges as charge (charge)}<div>{charge}</div>{/each}
      </div>
    </div>
  </div>
{:else if !session.trouble}<p class="text-quiet">Setting up …</p>{/if}
