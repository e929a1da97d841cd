<!-- How long the flash lasts by power, with the time that is wanted on it. -->
<script lang="ts">
  import { scaleLinear, scaleLog } from 'd3-scale'
  import { line } from 'd3-shape'
  import type { DurationPoint, InHand } from '../lib/api/client'
  import { sayTime } from '../lib/figures'
  import type { SetupSession } from '../lib/session.svelte'

  let { session, found }: { session: SetupSession; found: InHand } = $props()
  let width = $state(420)
  const HEIGHT = 150
  const points = $derived(found.durations)
  const wanted = $derived(found.wanted_t01_s)
  const times = $derived([...points.map((one) => one.t01_s), ...(wanted ? [wanted] : [])])
  const x = $derived(scaleLinear([points.at(-1)?.below_full ?? 1, 0], [54, width - 40]))
  const y = $derived(scaleLog([Math.min(...times) / 1.3, Math.max(...times) * 1.3], [HEIGHT - 24, 10]))
  const draw = $derived(
    line<DurationPoint>(
      (one) => x(one.below_full),
      (one) => y(one.t01_s),
    )(points) ?? '',
  )
  const now = $derived(session.answer?.settings.dial_stops ?? null)
</script>

{#if !points.length}
  <p>The flash durations of <bdi>{found.name}</bdi> are not known: add its t.1 table on the shelf.</p>
{:else}
  <figure bind:clientWidth={width} class="max-w-2xl">
    <figcaption class="text-[0.9rem]">
      How long <bdi>{found.name}</bdi> flashes (t.1){wanted ? `; wanted: ${sayTime(wanted)} or shorter` : ''}
    </figcaption>
    <svg
      {width}
      height={HEIGHT}
      role="img"
      aria-label={`t.1 by power: ${points.map((one) => `${one.dial} ${sayTime(one.t01_s)}`).join(', ')}`}
    >
      {#if wanted}
        <rect
          x="54"
          y={y(wanted)}
          width={Math.max(0, width - 94)}
          height={Math.max(0, HEIGHT - 24 - y(wanted))}
          class="fill-flash"
          fill-opacity="0.12"
        />
        <line
          x1="54"
          x2={width - 40}
          y1={y(wanted)}
          y2={y(wanted)}
          class="stroke-flash"
          stroke-dasharray="4 3"
        />
        <text x="50" y={y(wanted) + 4} text-anchor="end" font-size="11" class="fill-flash"
          >{sayTime(wanted)}</text
        >
      {/if}
      <path d={draw} fill="none" class="stroke-base-content" stroke-width="1.8" />
      {#each points as one, i (one.below_full)}
        <circle cx={x(one.below_full)} cy={y(one.t01_s)} r="3.2" class="fill-base-100 stroke-base-content" />
        {#if i % 2 === 0}
          <text x={x(one.below_full)} y={HEIGHT - 8} text-anchor="middle" font-size="11" class="fill-quiet"
            >{one.dial}</text
          >
          <text
            x={x(one.below_full)}
            y={y(one.t01_s) - 7}
            text-anchor="middle"
            font-size="10.5"
            class="fill-quiet">{sayTime(one.t01_s)}</text
          >
        {/if}
      {/each}
      {#if now !== null}<line
          x1={x(now)}
          x2={x(now)}
          y1="8"
          y2={HEIGHT - 22}
          class="stroke-flash"
          stroke-width="2"
        />{/if}
    </svg>
  </figure>
{/if}
