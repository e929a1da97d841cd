<!-- The set from the side, to scale: the camera at the left, heights where they matter: light, boom, ceiling, panel. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale'
  import type { StageText } from '../lib/api/client'

  type Props = { stage: StageText; light: number; height?: number }
  let { stage, light, height = 236 }: Props = $props()
  let width = $state(240)
  const EDGE = 22
  const shown = $derived(stage.lights.filter((one) => one.role !== 'background light'))
  const low = $derived(Math.min(-stage.camera_m, ...shown.map((one) => one.y_m)))
  const high = $derived(Math.max(stage.depth_m + 0.6, ...shown.map((one) => one.y_m)))
  const top = $derived(
    Math.max(stage.height_m, stage.ceiling_m ?? 0, ...shown.map((one) => one.height_m)) + 0.3,
  )
  const scale = $derived(Math.min((width - 2 * EDGE) / (high - low), (height - 2 * EDGE) / top))
  const x = $derived(
    scaleLinear()
      .domain([low, high])
      .range([(width - (high - low) * scale) / 2, (width + (high - low) * scale) / 2]),
  )
  const y = $derived((metres: number) => height - EDGE - metres * scale)
</script>

<div class="relative" bind:clientWidth={width} style={`height:${height}px`}>
  <svg {width} {height} class="block" role="img" aria-label="The set from the side, camera at the left">
    <rect {width} {height} class="fill-base-200" rx="4" />
    <line x1="0" x2={width} y1={y(0)} y2={y(0)} class="stroke-quiet" />
    {#if stage.ceiling_m !== null}
      <line
        x1="0"
        x2={width}
        y1={y(stage.ceiling_m)}
        y2={y(stage.ceiling_m)}
        class="stroke-quiet"
        stroke-width="2"
      />
      <text x="6" y={y(stage.ceiling_m) - 5} font-size="10.5" class="fill-quiet">ceiling</text>
    {/if}
    <line
      x1={x(0)}
      x2={x(0)}
      y1={y(0)}
      y2={y(stage.height_m)}
      class="stroke-base-content"
      stroke-width="5"
      stroke-linecap="round"
    />
    <circle cx={x(0)} cy={y(stage.face_m)} r="5" class="fill-base-content" />
    <rect
      x={x(-stage.camera_m) - 6}
      y={y(stage.camera_height_m) - 5}
      width="12"
      height="9"
      rx="1.5"
      class="fill-base-content"
    />
    <line
      x1={x(-stage.camera_m)}
      y1={y(stage.camera_height_m)}
      x2={x(0)}
      y2={y(stage.face_m)}
      class="stroke-base-content"
      stroke-opacity="0.35"
      stroke-dasharray="2 4"
    />
    {#each stage.lights as one, i (i)}
      {#if one.role !== 'background light'}
        <line
          x1={x(one.y_m)}
          x2={x(one.y_m)}
          y1={y(0)}
          y2={y(one.height_m)}
          class="stroke-quiet"
          stroke-opacity="0.6"
        />
        <line
          x1={x(one.y_m)}
          y1={y(one.height_m)}
          x2={x(0)}
          y2={y(stage.face_m)}
          class="stroke-flash"
          stroke-opacity="0.5"
        />
        <circle
          cx={x(one.y_m)}
          cy={y(one.height_m)}
          r="9"
          stroke-width="2"
          class={i === light ? 'fill-flash stroke-flash' : 'fill-base-100 stroke-flash'}
        />
        <text
          x={x(one.y_m)}
          y={y(one.height_m) + 4}
          text-anchor="middle"
          font-size="11"
          font-weight="700"
          class={i === light ? 'fill-base-100' : 'fill-flash'}>{i + 1}</text
        >
      {/if}
    {/each}
  </svg>
</div>
