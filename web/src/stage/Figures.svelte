<!-- Who or what is in the frame, of our own drawing: a person, a group, an animal, an object; a light and a shadow side. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'

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

  /** One side of an outline, as shares of the figure's height: to the side, and down from its top. */
  type Curve = [number, number][]
  const PERSON: Curve = [
    [0.022, 0],
    [0.046, 0.012],
    [0.047, 0.06],
    [0.048, 0.098],
    [0.03, 0.126],
    [0.026, 0.13],
    [0.026, 0.145],
    [0.026, 0.155],
    [0.032, 0.163],
    [0.06, 0.178],
    [0.115, 0.176],
    [0.13, 0.215],
    [0.14, 0.28],
    [0.142, 0.36],
    [0.146, 0.47],
    [0.12, 0.49],
    [0.112, 0.36],
    [0.1, 0.3],
    [0.09, 0.38],
    [0.092, 0.45],
    [0.1, 0.52],
    [0.1, 0.7],
    [0.08, 0.85],
    [0.075, 1],
  ]
  const HARE: Curve = [
    [0.02, 0.3],
    [0.02, 0.2],
    [0.05, 0.05],
    [0.1, 0],
    [0.16, 0],
    [0.17, 0.12],
    [0.15, 0.24],
    [0.13, 0.28],
    [0.16, 0.36],
    [0.2, 0.45],
    [0.17, 0.5],
    [0.2, 0.54],
    [0.38, 0.62],
    [0.42, 0.85],
    [0.36, 1],
  ]
  const BOTTLE: Curve = [
    [0.05, 0],
    [0.07, 0],
    [0.07, 0.02],
    [0.07, 0.12],
    [0.07, 0.2],
    [0.08, 0.26],
    [0.1, 0.34],
    [0.18, 0.36],
    [0.18, 0.48],
    [0.18, 0.7],
    [0.18, 0.9],
    [0.18, 1],
  ]
  const curve = $derived({ person: PERSON, group: PERSON, animal: HARE, object: BOTTLE }[frame.kind])

  /** One side of the outline as a path, from the top down. */
  function side(x: number, sign: 1 | -1): string {
    const points = curve.map(([dx, dy]) => `${x + sign * dx * tall} ${top + dy * tall}`)
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
