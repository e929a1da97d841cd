<!-- The set from above, to scale: lights with rings of equal exposure, camera and its view, sun, shadows. Lights are
     dragged, or moved by keys: it is nudging their distance and bearing. -->
<script lang="ts">
  import type { Light, StageText } from '../lib/api/client'
  import { clamp, stepDistance } from '../lib/figures'
  import type { SetupSession } from '../lib/session.svelte'
  import AboveDrawing from './AboveDrawing.svelte'
  import { placeAt, planOf, standing, wrapped, type Plan } from './above'

  type Props = { session: SetupSession; stage: StageText; height?: number }
  let { session, stage, height = 236 }: Props = $props()
  let width = $state(240)
  /** The scale while a light is dragged: what is under the finger stays there. */
  let held = $state.raw<Plan | null>(null)
  let dragged = $state<number | null>(null)
  /** Where the pointer holds it: the mark goes with it at once, the light when the server has answered. */
  let pointer = $state.raw<[number, number] | null>(null)
  const plan = $derived(held ?? planOf(stage, width, height))

  const at = (index: number): [number, number] =>
    index === dragged && pointer
      ? pointer
      : [plan.x(stage.lights[index]!.x_m), plan.y(stage.lights[index]!.y_m)]

  function move(index: number, change: (light: Light) => void) {
    session.edit('Place', (s) => change(s.lights[index]!))
  }

  function down(event: PointerEvent, index: number) {
    if (event.button) return
    if (index !== session.light) session.look(index)
    held = plan
    dragged = index
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  }

  function drag(event: PointerEvent, index: number) {
    if (dragged !== index) return
    const box = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect()
    pointer = [event.clientX - box.left, event.clientY - box.top]
    const [x, y] = plan.at(...pointer)
    move(index, (light) => Object.assign(light, placeAt(light, stage, x, y)))
  }

  function drop() {
    held = null
    dragged = null
    pointer = null
  }

  function key(event: KeyboardEvent, index: number) {
    const large = event.shiftKey ? 3 : event.altKey ? 0.2 : 1
    const nudges: Record<string, (light: Light, position: NonNullable<Light['position']>) => void> = {
      ArrowLeft: (_, at) => (at.bearing_deg = wrapped(at.bearing_deg - 5 * large)),
      ArrowRight: (_, at) => (at.bearing_deg = wrapped(at.bearing_deg + 5 * large)),
      ArrowUp: (light) => (light.distance_m = stepDistance(light.distance_m, -large)),
      ArrowDown: (light) => (light.distance_m = stepDistance(light.distance_m, large)),
      PageUp: (_, at) => (at.height_m = clamp(Math.round((at.height_m + 0.1 * large) * 100) / 100, 0, 20)),
      PageDown: (_, at) => (at.height_m = clamp(Math.round((at.height_m - 0.1 * large) * 100) / 100, 0, 20)),
    }
    const nudge = nudges[event.key]
    if (!nudge) return
    event.preventDefault()
    move(index, (light) => {
      light.position = standing(light, stage)
      nudge(light, light.position)
    })
  }
</script>

<div class="plan relative" bind:clientWidth={width} style={`height:${height}px`}>
  <AboveDrawing {stage} {plan} {width} {height} inHand={session.light} />
  {#each stage.lights as light, i (i)}
    {#if plan.y(light.y_m) > -20 && plan.y(light.y_m) < height + 20}
      <button
        type="button"
        class="spot"
        class:mine={i === session.light}
        class:off={!light.on}
        style={`left:${at(i)[0]}px;top:${at(i)[1]}px`}
        aria-label={`Light ${i + 1}, ${light.role}: ${light.where}. Arrow keys move it.`}
        onpointerdown={(event) => down(event, i)}
        onpointermove={(event) => drag(event, i)}
        onpointerup={drop}
        onpointercancel={drop}
        onkeydown={(event) => key(event, i)}
        onclick={() => i !== session.light && session.look(i)}><span>{i + 1}</span></button
      >
    {/if}
  {/each}
</div>

<style>
  .spot {
    position: absolute;
    width: 30px;
    height: 30px;
    transform: translate(-50%, -50%);
    display: grid;
    place-items: center;
    cursor: grab;
    touch-action: none;
    border-radius: 50%;
  }
  .spot span {
    width: 20px;
    height: 20px;
    border-radius: 50%;
    border: 2px solid var(--color-flash);
    background: var(--color-base-100);
    color: var(--color-flash);
    font-size: 0.75rem;
    font-weight: 700;
    line-height: 16px;
    text-align: center;
  }
  .spot.mine span {
    background: var(--color-flash);
    color: var(--color-base-100);
  }
  .spot.off span {
    border-style: dashed;
    opacity: 0.75;
  }
  .spot:active {
    cursor: grabbing;
  }
</style>
