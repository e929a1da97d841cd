<!-- A test frame: dropped, a patch picked, how many stops off, what is clipped; two frames give the flash alone. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  import { patchOf, sentenceOf, type PatchText } from '../lib/api/client'
  import { newest } from '../lib/question.svelte'
  import FrameKeep from './FrameKeep.svelte'
  import FramePatch from '../parts/FramePatch.svelte'

  type Of = 'grey' | 'white' | 'skin' | 'dark_skin'
  const NAMES: [Of, string][] = [
    ['grey', 'grey card'],
    ['white', 'white'],
    ['skin', 'light skin'],
    ['dark_skin', 'dark skin'],
  ]
  let file = $state.raw<File | null>(null)
  let shown = $state('')
  let box = $state({ x: 0.45, y: 0.45, w: 0.1, h: 0.1 })
  let of = $state<Of>('grey')
  let found = $state.raw<PatchText | null>(null)
  let wrong = $state('')
  /** The frame that the next one is held against: its level, cast and settings. */
  let first = $state.raw<PatchText | null>(null)

  function take(one: File | null | undefined) {
    if (!one) return
    if (shown) URL.revokeObjectURL(shown)
    file = one
    shown = URL.createObjectURL(one)
    void read()
  }

  async function read(): Promise<void> {
    const one = file
    if (!one) return
    const answer = await newest('patch', () => patchOf(one, { ...box, of, ambient: first?.level ?? null }))
    if (!answer) return
    found = answer.data ?? null
    wrong = answer.data ? '' : sentenceOf(answer.error)
  }
</script>

<div
  class="space-y-2"
  role="group"
  aria-label="Test frame"
  ondragover={(event) => event.preventDefault()}
  ondrop={(event) => {
    event.preventDefault()
    take(event.dataTransfer?.files[0])
  }}
>
  <div class="flex flex-wrap items-center gap-2">
    <label class="btn btn-sm"
      >Choose a JPEG, or drop it here<input
        type="file"
        class="sr-only"
        accept="image/jpeg,.jpg,.jpeg"
        aria-label="Test frame"
        onchange={(event) => take(event.currentTarget.files?.[0])}
      /></label
    >
    <select
      class="select select-sm w-auto"
      aria-label="What the patch is"
      bind:value={of}
      onchange={() => void read()}
    >
      {#each NAMES as [value, name] (value)}<option {value}>{name}</option>{/each}
    </select>
    {#if found?.level != null && found.flash === false}
      <button type="button" class="btn btn-sm" onclick={() => (first = found)}
        >This is the ambient alone</button
      >
    {/if}
    {#if first?.level != null}
      <span class="text-ambient text-[0.86rem]"
        >ambient {fixed(first.level, 2)}; now the frame with flash, or with a filter</span
      >
      <button
        type="button"
        class="link-button text-[0.86rem]"
        onclick={() => {
          first = null
          void read()
        }}>forget it</button
      >
    {/if}
  </div>
  {#if shown}
    <FramePatch
      {shown}
      {box}
      pick={(to) => {
        box = to
        void read()
      }}
    />
  {/if}
  {#if wrong}<p class="text-short font-semibold" role="alert">{wrong}</p>{/if}
  {#if found}
    <div role="status" data-testid="frame-says">
      {#each found.says as line, i (i)}<p class={i === 0 ? 'text-[1.1rem] font-bold' : 'text-[0.88rem]'}>
          {line}
        </p>{/each}
    </div>
    <FrameKeep {found} {first} />
  {/if}
  <p class="text-quiet text-[0.82rem]">Read here and forgotten: no frame is kept.</p>
</div>
