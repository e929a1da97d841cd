<!-- Who or what is in the frame, of our own drawing: a person, a group, an animal, an object; a light and a shadow side. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'
  import OUTLINES from '../../../src/jumpstop/paper/outlines.json'

  type Props = {
    frame: StageText['frame']
    width: number
    height: number
    /** What the tones are kept under; and what is told of them to who reads the page. */
    id: string
    left: string
    right: string
    /** Tones of the ends of a group; empty where there is none. */
    ends: [string, string]
    edge: string
    names: [string, string] | null
    hatch: string
  }
  let { frame, width, height, id, left, right, ends, edge, names, hatch }: Props = $props()

  const top = $derived(frame.head * height)
  const tall = $derived((frame.feet - frame.head) * height)
  const middle = $derived(width / 2)
  const MOST = 9
  const shown = $derived(Math.min(MOST, Math.max(2, frame.people)))
  const span = $derived(frame.width * width * 0.86)

  /** One side of an outline: to the side and down from its top, as shares of the figure's height. */
  const curve = $derived(OUTLINES[frame.kind])

  /** One side of the outline as a path, from the top down. */
  function side(x: number, sign: 1 | -1): string {
    const points = curve.map((one) => `${x + sign * one[0]! * tall} ${top + one[1]! * tall}`)
    const bends = []
    for (let i = 0; i < points.length; i += 3) bends.push(`C${points.slice(i, i + 3).join(' ')}`)
    return `M${x} ${top + (frame.kind === 'animal' ? 0.3 * tall : 0)}${bends.join('')}`
  }

  const people = $derived.by(() => {
    if (frame.kind !== 'group') return [{ x: middle, left, right }]
    return Array.from({ length: shown }, (_, i) => {
      const at = i / (shown - 1)
      const tone = at < 0.3 && ends[0] ? ends[0] : at > 0.7 && ends[1] ? ends[1] : null
      const lit = tone ?? (frame.lit_right ? right : left)
      const x = middle + (at - 0.5) * span
      return frame.lit_right ? { x, left, right: lit } : { x, left: lit, right }
    })
  })
</script>

{#each people as one, i (i)}
  {@const half = 0.3 * tall}
  <linearGradient
    id={`${id}-${i}`}
    gradientUnits="userSpaceOnUse"
    x1={one.x - half}
    x2={one.x + half}
    y1="0"
    y2="0"
  >
    <stop offset="0.46" stop-color={one.left} data-tone={names && i === 0 ? names[0] : undefined} />
    <stop offset="0.54" stop-color={one.right} data-tone={names && i === 0 ? names[1] : undefined} />
  </linearGradient>
  {#each [1, -1] as const as sign (sign)}
    <path
      d={`${side(one.x, sign)}H${one.x}z`}
      fill={`url(#${id}-${i})`}
      stroke={`url(#${id}-${i})`}
      stroke-width="0.6"
    />
  {/each}
  {#if hatch}<path d={`${side(one.x, frame.lit_right ? 1 : -1)}H${one.x}z`} fill={hatch} />{/if}
  <path
    d={side(one.x, frame.lit_right ? -1 : 1)}
    fill="none"
    stroke={edge}
    stroke-width={Math.max(1.5, tall * 0.01)}
    stroke-linecap="round"
    data-tone={names && i === 0 ? 'edge' : undefined}
  />
{/each}
