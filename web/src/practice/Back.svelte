<!-- The camera's back: the frame, its histogram, what clips, and a patch of it read like a test frame. -->
<script lang="ts">
  import { patchOf, sentenceOf, type FrameShown } from '../lib/api/client'
  import { newest } from '../lib/question.svelte'
  import FramePatch from '../parts/FramePatch.svelte'

  let { frame }: { frame: FrameShown } = $props()
  type Box = { x: number; y: number; w: number; h: number }
  let box = $state.raw<Box>({ x: 0.45, y: 0.45, w: 0.05, h: 0.05 })
  let said = $state('')
  const most = $derived(Math.max(1, ...frame.histogram))

  $effect(() => {
    void frame.number
    said = ''
    const card = frame.cards[0]
    if (card) box = { x: card.x, y: card.y, w: card.w, h: card.h }
  })

  async function read(name: string, at: Box) {
    box = { x: at.x, y: at.y, w: at.w, h: at.h }
    const bytes = Uint8Array.from(atob(frame.picture.split(',')[1] ?? ''), (one) => one.charCodeAt(0))
    const file = new Blob([bytes], { type: 'image/jpeg' })
    const answer = await newest('patch', () => patchOf(file, { ...box, of: 'grey', ambient: null }))
    if (!answer) return
    const { data, error } = answer
    said = data ? `${name}${data.says[0]?.replace('Grey card', '') ?? ''}` : sentenceOf(error)
  }
</script>

<div class="space-y-1.5">
  <div class="flex flex-wrap items-end gap-3">
    <FramePatch
      size={frame.upright ? 'w-72' : 'w-[33rem]'}
      shown={frame.picture}
      {box}
      pick={(at) => void read('That patch, as grey', at)}
    />
    <figure class="w-44 shrink-0">
      <svg
        viewBox="0 0 128 48"
        class="bg-base-200 block w-full"
        role="img"
        aria-label="Histogram, dark to bright"
      >
        {#each frame.histogram as count, at (at)}
          {@const high = 46 * Math.sqrt(count / most)}
          <rect x={at * 2} y={48 - high} width="2" height={high} class="fill-base-content" />
        {/each}
        <line x1="0" x2="128" y1="47.5" y2="47.5" class="stroke-base-content" stroke-width="0.6" />
      </svg>
      <figcaption class="text-[0.82rem]">{frame.clipped}</figcaption>
    </figure>
  </div>
  <p class="text-[0.92rem]" data-testid="taken">Frame {frame.number}: {frame.says}</p>
  {#if frame.cards.length}
    <div class="flex flex-wrap items-center gap-1.5">
      {#each frame.cards as card (card.name)}
        <button type="button" class="btn btn-sm" onclick={() => void read(card.name, card)}
          >Read: {card.name}</button
        >
      {/each}
    </div>
    <p class="min-h-6 font-semibold" role="status" data-testid="patch">{said}</p>
  {/if}
</div>
