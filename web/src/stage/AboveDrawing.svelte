<!-- What the set from above shows, to scale: rings of equal exposure, background, walls, panel, view, beams, shadows, sun,
     subject and camera. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'
  import { near, type Plan } from './above'

  type Props = { stage: StageText; plan: Plan; width: number; height: number; inHand: number }
  let { stage, plan, width, height, inHand }: Props = $props()
  const id = $props.id()

  const way = (bearing: number): [number, number] => [
    Math.sin((bearing * Math.PI) / 180),
    -Math.cos((bearing * Math.PI) / 180),
  ]
  /** Where an axis counted from away from the camera points. */
  const ahead = (deg: number): [number, number] => [
    Math.sin((deg * Math.PI) / 180),
    Math.cos((deg * Math.PI) / 180),
  ]

  /** Where a ring's level is written: on the ring, beside the light's own axis, on a side that is in the picture. */
  function labelled(light: StageText['lights'][number], radius: number): [number, number] {
    const spots = [75, -75, 130, -130, 180].map((turn): [number, number] => {
      const [dx, dy] = ahead(light.points_deg + turn)
      return [plan.x(light.x_m + dx * radius), plan.y(light.y_m + dy * radius) + 4]
    })
    return spots.find(([x, y]) => x > 10 && x < width - 10 && y > 12 && y < height - 4) ?? [-99, -99]
  }
</script>

<svg {width} {height} class="absolute inset-0 block" aria-hidden="true">
  <defs><clipPath id={`${id}-all`}><rect {width} {height} /></clipPath></defs>
  <g clip-path={`url(#${id}-all)`}>
    <rect {width} {height} class="fill-base-200" rx="4" />
    {#each stage.lights as light, i (i)}
      {#if light.on && i === inHand}
        {#each light.rings as ring (ring.level)}
          <circle
            cx={plan.x(light.x_m)}
            cy={plan.y(light.y_m)}
            r={Math.abs(plan.x(ring.radius_m) - plan.x(0))}
            fill="none"
            class="stroke-flash"
            stroke-width={ring.level === '0' ? 1.8 : 1}
            stroke-opacity={ring.level === '0' ? 0.9 : 0.45}
          />
        {/each}
      {/if}
    {/each}
    {#if near(stage)}
      <line
        x1="0"
        x2={width}
        y1={plan.y(stage.background_m!)}
        y2={plan.y(stage.background_m!)}
        class="stroke-ambient"
        stroke-width="4"
        stroke-opacity="0.55"
      />
      <text x="6" y={plan.y(stage.background_m!) - 5} font-size="10.5" class="fill-ambient">background</text>
    {/if}
    {#each [stage.left_wall_m && -stage.left_wall_m, stage.right_wall_m] as wall, i (i)}
      {#if wall}
        <line x1={plan.x(wall)} x2={plan.x(wall)} y1="0" y2={height} class="stroke-quiet" stroke-width="3" />
      {/if}
    {/each}
    {#if stage.panel_m}
      {@const half = stage.panel_m / 2}
      <rect
        x={plan.x(-half)}
        y={plan.y(half)}
        width={plan.x(half) - plan.x(-half)}
        height={plan.y(-half) - plan.y(half)}
        class="fill-ambient stroke-ambient"
        fill-opacity="0.15"
        stroke-dasharray="4 3"
      />
    {/if}
    {#if stage.view_deg !== null}
      {#each [-1, 1] as side (side)}
        {@const [dx, dy] = ahead(side * stage.view_deg)}
        <line
          x1={plan.x(0)}
          y1={plan.y(-stage.camera_m)}
          x2={plan.x(dx * 200)}
          y2={plan.y(dy * 200 - stage.camera_m)}
          class="stroke-base-content"
          stroke-opacity="0.35"
          stroke-dasharray="2 4"
        />
      {/each}
    {/if}
    {#each stage.lights as light, i (i)}
      {#if light.shadow && light.placed}
        <line
          x1={plan.x(light.shadow[0]!)}
          y1={plan.y(light.shadow[1]!)}
          x2={plan.x(light.shadow[2]!)}
          y2={plan.y(light.shadow[3]!)}
          class={light.shadow_in_frame ? 'stroke-short' : 'stroke-quiet'}
          stroke-width="3"
          stroke-opacity="0.6"
        />
      {/if}
      {#if light.on && light.beam_deg}
        {#each [-0.5, 0.5] as side (side)}
          {@const [dx, dy] = ahead(light.points_deg + side * light.beam_deg)}
          <line
            x1={plan.x(light.x_m)}
            y1={plan.y(light.y_m)}
            x2={plan.x(light.x_m + dx * 200)}
            y2={plan.y(light.y_m + dy * 200)}
            class="stroke-flash"
            stroke-opacity="0.4"
          />
        {/each}
      {/if}
    {/each}
    {#each stage.lights as light, i (i)}
      {#if i === inHand}
        {#each light.rings as ring (ring.level)}
          {@const [x, y] = labelled(light, ring.radius_m)}
          <text {x} {y} text-anchor="middle" font-size="10.5" class="fill-flash ring">{ring.level}</text>
        {/each}
      {/if}
    {/each}
    {#if stage.sun_bearing_deg !== null}
      {@const [sx, sy] = way(stage.sun_bearing_deg)}
      {@const far = Math.min(width, height) * 0.46}
      <line
        x1={width / 2 + sx * far}
        y1={height / 2 - sy * far}
        x2={width / 2 + sx * (far - 26)}
        y2={height / 2 - sy * (far - 26)}
        class="stroke-ambient"
        stroke-width="2.5"
      />
      <text
        x={width / 2 + sx * (far - 38)}
        y={height / 2 - sy * (far - 38) + 4}
        text-anchor="middle"
        font-size="10.5"
        class="fill-ambient">sun</text
      >
    {/if}
    {#if stage.frame.kind === 'group'}
      <rect
        x={plan.x(-stage.width_m / 2)}
        y={plan.y(stage.depth_m + 0.25)}
        width={plan.x(stage.width_m) - plan.x(0)}
        height={Math.max(8, plan.y(0) - plan.y(stage.depth_m + 0.5))}
        rx="6"
        class="fill-base-content"
        fill-opacity="0.75"
      />
    {:else}
      {@const [fx, fy] = way(stage.facing_deg)}
      {@const r = Math.max(5, (plan.x(stage.width_m) - plan.x(0)) / 2)}
      <circle cx={plan.x(0)} cy={plan.y(0)} {r} class="fill-base-content" fill-opacity="0.8" />
      <line
        x1={plan.x(0)}
        y1={plan.y(0)}
        x2={plan.x(0) + fx * (r + 7)}
        y2={plan.y(0) - fy * (r + 7)}
        class="stroke-base-content"
        stroke-width="3"
        stroke-linecap="round"
      />
    {/if}
    <rect
      x={plan.x(0) - 7}
      y={plan.y(-stage.camera_m) - 3}
      width="14"
      height="9"
      rx="1.5"
      class="fill-base-content"
    />
  </g>
</svg>

<style>
  .ring {
    paint-order: stroke;
    stroke: var(--color-base-200);
    stroke-width: 3px;
  }
</style>
