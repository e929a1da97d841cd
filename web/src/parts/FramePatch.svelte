<!-- The frame with the patch on it: dragged over, or moved by keys. -->
<script lang="ts">
  interface Box {
    x: number
    y: number
    w: number
    h: number
  }
  type Props = { shown: string; box: Box; pick: (box: Box) => void; size?: string }
  let { shown, box, pick, size = 'max-h-72' }: Props = $props()
  let drag = $state.raw<{ x: number; y: number } | null>(null)

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
      pick(
        w < 0.01 || h < 0.01
          ? { x: Math.max(0, to.x - 0.04), y: Math.max(0, to.y - 0.04), w: 0.08, h: 0.08 }
          : { x: Math.min(drag.x, to.x), y: Math.min(drag.y, to.y), w, h },
      )
    }
    drag = null
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
    pick({
      ...box,
      x: Math.min(1 - box.w, Math.max(0, box.x + move[0])),
      y: Math.min(1 - box.h, Math.max(0, box.y + move[1])),
    })
  }
</script>

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
  <img src={shown} alt="The test frame" class={`block max-w-full ${size}`} draggable="false" />
  <svg
    class="pointer-events-none absolute inset-0 h-full w-full"
    viewBox="0 0 100 100"
    preserveAspectRatio="none"
    aria-hidden="true"
  >
    {#each [['#fff', 'none'], ['#000', '3']] as [ink, dashes] (ink)}
      <rect
        x={box.x * 100}
        y={box.y * 100}
        width={box.w * 100}
        height={box.h * 100}
        fill="none"
        stroke={ink}
        stroke-dasharray={dashes}
        stroke-width="1.4"
        vector-effect="non-scaling-stroke"
      />
    {/each}
  </svg>
</div>
