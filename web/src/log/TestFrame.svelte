<!-- A test frame: dropped, a patch picked, how many stops off, what is clipped; two frames give the flash alone. -->
<script lang="ts">
  import { api, sentenceOf, type PatchText, type LogEntry, type SetText } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { kit } from '../lib/kit.svelte'
  import { log } from '../lib/log.svelte'
  import { Newest } from '../lib/newest'
  import { here } from '../lib/stamp'
  import { setups } from '../lib/setups.svelte'

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
  let filter = $state('')
  let drag = $state.raw<{ x: number; y: number } | null>(null)
  let setup = $state('')
  let light = $state(0)
  let set = $state.raw<SetText | null>(null)
  const newest = new Newest()
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))
  const target = $derived(set?.lights.find((one) => one.light === light) ?? set?.lights[0])

  $effect(() => {
    if (!setup || !job.id) return
    const asked = api.GET('/api/log/set/{job_id}/{setup_id}', {
      params: { path: { job_id: job.id, setup_id: setup } },
    })
    void asked.then(({ data }) => (set = data ?? null))
  })

  $effect(() => void kit.load())

  function take(one: File | null | undefined) {
    if (!one) return
    if (shown) URL.revokeObjectURL(shown)
    file = one
    shown = URL.createObjectURL(one)
    void read()
  }

  function read(): Promise<void> {
    if (!file) return Promise.resolve()
    const asked = api.POST('/api/frame', {
      params: { query: { ...box, of, ambient: first?.level ?? null } },
      body: file as never,
      bodySerializer: (body) => body as never,
      headers: { 'content-type': 'image/jpeg' },
    })
    return newest.take(asked, ({ data, error }) => {
      found = data ?? null
      wrong = data ? '' : sentenceOf(error)
    })
  }

  function place(event: PointerEvent & { currentTarget: HTMLElement }) {
    const area = event.currentTarget.getBoundingClientRect()
    return {
      x: Math.min(1, Math.max(0, (event.clientX - area.left) / area.width)),
      y: Math.min(1, Math.max(0, (event.clientY - area.top) / area.height)),
    }
  }

  function end(event: PointerEvent & { currentTarget: HTMLElement }) {
    const to = place(event)
    if (drag) {
      const w = Math.abs(to.x - drag.x)
      const h = Math.abs(to.y - drag.y)
      box =
        w < 0.01 || h < 0.01
          ? { x: Math.max(0, to.x - 0.04), y: Math.max(0, to.y - 0.04), w: 0.08, h: 0.08 }
          : { x: Math.min(drag.x, to.x), y: Math.min(drag.y, to.y), w, h }
    }
    drag = null
    void read()
  }

  function nudge(event: KeyboardEvent) {
    const by = event.shiftKey ? 0.05 : 0.01
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }
    const move = moves[event.key]
    if (!move) return
    event.preventDefault()
    box = {
      ...box,
      x: Math.min(1 - box.w, Math.max(0, box.x + move[0])),
      y: Math.min(1 - box.h, Math.max(0, box.y + move[1])),
    }
    void read()
  }

  async function keep() {
    const blank = target?.blank
    if (!blank?.seen || found?.level == null) return
    const alone = found.flash_alone
    const seen = {
      ...blank.seen,
      kind: 'patch' as const,
      sd: 0.1,
      holds_ambient: alone === null,
      stops: Math.round(((alone ?? found.level) - blank.seen.wanted_stops) * 1000) / 1000,
      camera: {
        ...blank.seen.camera,
        f_number: found.f_number ?? blank.seen.camera.f_number,
        shutter_s: found.shutter_s ?? blank.seen.camera.shutter_s,
        iso: found.iso ?? blank.seen.camera.iso,
      },
    }
    const entry: LogEntry = { ...blank, at: found.taken || here(), seen }
    await log.write(entry)
  }

  /** Two frames of one patch without flash, the second through a filter: what the filter takes. */
  const taken = $derived(first?.level != null && found?.level != null ? first.level - found.level : null)
  const alike = $derived(
    first?.f_number === found?.f_number && first?.shutter_s === found?.shutter_s && first?.iso === found?.iso,
  )

  async function keepFilter() {
    const one = kit.filters.find((stored) => stored.id === filter)
    if (!one || taken === null || !first || !found || !set) return
    if (!alike) return history.tell('The two frames were taken at other settings: take both alike.')
    await log.write({
      ...set.ambient,
      at: found.taken || here(),
      name: one.doc.name,
      filter: {
        filter: { ...one.doc, id: one.id },
        marked_stops: one.doc.stops,
        stops: Math.max(0, Math.round(taken * 1000) / 1000),
        cast_red: Math.round((found.cast[0]! - first.cast[0]!) * 1000) / 1000,
        cast_blue: Math.round((found.cast[1]! - first.cast[1]!) * 1000) / 1000,
      },
    })
  }

  async function curtain() {
    const was = set?.lights[0]?.blank?.was
    if (!was || !found?.shutter_s)
      return history.tell('Choose the setup whose body this is, and a frame that says its time.')
    await log.write({
      ...set!.ambient,
      at: found.taken || here(),
      name: `${was.body.name.slice(0, 60)}, curtain`,
      curtain: {
        body: was.body,
        shutter_s: found.shutter_s,
        lit: Math.min(0.99, Math.max(0.02, found.lit)),
        dark_edge: found.dark_edge,
      },
    })
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
        >ambient {first.level.toFixed(2)}; now the frame with flash, or with a filter</span
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
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <div
      class="bg-frame relative inline-block max-w-full cursor-crosshair touch-none select-none"
      role="application"
      tabindex="0"
      aria-label="The frame: drag over a patch, or move it with the arrow keys"
      onpointerdown={(event) => (drag = place(event))}
      onpointerup={end}
      onkeydown={nudge}
    >
      <img src={shown} alt="The test frame" class="block max-h-72 max-w-full" draggable="false" />
      <svg
        class="pointer-events-none absolute inset-0 h-full w-full"
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <rect
          x={box.x * 100}
          y={box.y * 100}
          width={box.w * 100}
          height={box.h * 100}
          fill="none"
          stroke="#fff"
          stroke-width="1.6"
          vector-effect="non-scaling-stroke"
        />
        <rect
          x={box.x * 100}
          y={box.y * 100}
          width={box.w * 100}
          height={box.h * 100}
          fill="none"
          stroke="#000"
          stroke-dasharray="3"
          stroke-width="1.2"
          vector-effect="non-scaling-stroke"
        />
      </svg>
    </div>
  {/if}
  {#if wrong}<p class="text-short font-semibold" role="alert">{wrong}</p>{/if}
  {#if found}
    <div role="status" data-testid="frame-says">
      {#each found.says as line, i (line)}<p class={i === 0 ? 'text-[1.1rem] font-bold' : 'text-[0.88rem]'}>
          {line}
        </p>{/each}
    </div>
    <div class="flex flex-wrap items-center gap-2">
      <select class="select select-sm w-auto" aria-label="Setup of the frame" bind:value={setup}>
        <option value="">of which setup?</option>
        {#each own as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select>
      {#if set && set.lights.length > 1}
        <select class="select select-sm w-auto" aria-label="Light of the frame" bind:value={light}>
          {#each set.lights as one (one.light)}<option value={one.light}>{one.role}, {one.unit}</option
            >{/each}
        </select>
      {/if}
      <button
        type="button"
        class="btn btn-sm btn-primary"
        disabled={!target?.blank || found.level === null}
        onclick={keep}>Log this patch</button
      >
      {#if taken !== null && found.flash === false && found !== first}
        <select class="select select-sm w-auto" aria-label="Filter on the lens" bind:value={filter}>
          <option value="">which filter?</option>
          {#each kit.filters as one (one.id)}<option value={one.id}>{one.doc.name}</option>{/each}
        </select>
        <button type="button" class="btn btn-sm" disabled={!filter || !set} onclick={keepFilter}
          >It took {taken.toFixed(2)} stops</button
        >
      {/if}
      {#if found.lit > 0.02 && found.lit < 0.97}
        <button type="button" class="btn btn-sm" disabled={!set} onclick={curtain}
          >It is a wall past sync: {Math.round(found.lit * 100)} % lit</button
        >
      {/if}
    </div>
  {/if}
  <p class="text-quiet text-[0.82rem]">Read here and forgotten: no frame is kept.</p>
</div>
