<!-- Shutter and flash in time: curtains, pulse, and what each row of the frame has got so far. Scrub or play. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  import Pause from '@lucide/svelte/icons/pause'
  import Play from '@lucide/svelte/icons/play'
  import { scaleLinear } from 'd3-scale'
  import { area } from 'd3-shape'
  import type { MethodKind } from '../lib/api/client'
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'

  let { session, kind }: { session: SetupSession; kind: MethodKind } = $props()
  let moment = $state(60)
  let playing = $state(false)
  let width = $state(300)

  const asked = ofSetup(
    () => session,
    '/api/setups/{item_id}/timing',
    (one) => ({ query: { light: one.light, method: kind } }),
  )
  const timing = $derived(asked.found)

  $effect(() => {
    if (!playing) return
    const timer = setInterval(() => {
      moment += 1
      if (moment >= last) playing = false
    }, 70)
    return () => clearInterval(timer)
  })

  const last = $derived((timing?.times_ms.length ?? 1) - 1)
  const now = $derived(Math.min(moment, last))
  const upright = $derived(timing?.upright ?? false)
  const frame = $derived(upright ? { w: 84, h: 126 } : { w: 150, h: 100 })
  const rows = $derived(timing?.got[now] ?? [])
  const first = $derived(timing?.first[now] ?? 0)
  const second = $derived(timing?.second[now] ?? 0)
  const x = $derived(scaleLinear([0, timing?.times_ms[last] ?? 1], [4, Math.max(60, width - 8)]))
  const pulse = $derived(
    area<number>(
      (_, i) => x(timing!.times_ms[i]!),
      86,
      (value) => 86 - 70 * value,
    )(timing?.light ?? []) ?? '',
  )

  /** A band of the frame between two shares of the curtains' way, counted from the edge where they start. */
  function band(from: number, to: number) {
    const flipped = timing?.starts === 'bottom' || timing?.starts === 'right'
    const [a, b] = flipped ? [1 - to, 1 - from] : [from, to]
    return upright
      ? { x: a * frame.w, y: 0, width: Math.max(0, (b - a) * frame.w), height: frame.h }
      : { x: 0, y: a * frame.h, width: frame.w, height: Math.max(0, (b - a) * frame.h) }
  }

  function play() {
    if (now >= last) moment = 0
    playing = !playing
  }
</script>

<div class="text-[0.88rem]">
  {#if timing}
    <p class="mb-2" data-testid="timing">
      {timing.words} <span class="text-quiet">(<bdi>{timing.unit}</bdi> at its dial.)</span>
    </p>
    <div class="flex flex-wrap items-end gap-4">
      <svg
        width={frame.w + 2}
        height={frame.h + 2}
        role="img"
        aria-label={`The frame at ${timing.times_ms[now]} milliseconds`}
      >
        <g transform="translate(1 1)" shape-rendering="crispEdges">
          <rect width={frame.w} height={frame.h} class="fill-frame" />
          {#each rows as got, i (i)}
            <rect
              {...band(i / rows.length, (i + 1.02) / rows.length)}
              class="fill-flash"
              fill-opacity={got}
            />
          {/each}
          <rect {...band(first, 1)} class="fill-curtain" fill-opacity="0.85" />
          <rect {...band(0, second)} class="fill-curtain" fill-opacity={now === last ? 0 : 0.55} />
          <rect width={frame.w} height={frame.h} fill="none" class="stroke-base-content" />
        </g>
      </svg>
      <div class="min-w-56 flex-1" bind:clientWidth={width}>
        <svg {width} height="104" class="block" aria-hidden="true">
          <path d={pulse} class="fill-flash" fill-opacity="0.55" />
          <line x1={x(0)} x2={x(timing.times_ms[last]!)} y1="86" y2="86" class="stroke-base-content" />
          {#each x.ticks(5) as tick (tick)}
            <text x={x(tick)} y="100" text-anchor="middle" font-size="10" class="fill-quiet">{tick}</text>
          {/each}
          <line
            x1={x(timing.times_ms[now]!)}
            x2={x(timing.times_ms[now]!)}
            y1="8"
            y2="90"
            class="stroke-base-content"
            stroke-width="2"
          />
        </svg>
        <div class="flex items-center gap-2">
          <button
            type="button"
            class="btn btn-xs btn-square"
            aria-label={playing ? 'Pause' : 'Play'}
            onclick={play}
            >{#if playing}<Pause size={13} />{:else}<Play size={13} />{/if}</button
          >
          <input
            type="range"
            class="range range-xs min-w-0 flex-1"
            min="0"
            max={last}
            aria-label="Moment of the exposure"
            aria-valuetext={`${timing.times_ms[now]} ms`}
            bind:value={moment}
          />
          <span class="text-quiet w-20 text-right text-xs">{fixed(timing.times_ms[now] ?? 0, 2)} ms</span>
        </div>
      </div>
    </div>
  {/if}
</div>
