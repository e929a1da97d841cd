<!-- The frame as it would come out: tones from the computed levels; what clips is hatched, what flash does not reach is
     as the ambient leaves it. -->
<script lang="ts">
  import type { StageText } from '../lib/api/client'
  import Figures from './Figures.svelte'

  let { frame, flash }: { frame: StageText['frame']; flash: boolean } = $props()
  const id = $props.id()
  const width = $derived(frame.upright ? 200 : 300)
  const height = $derived(frame.upright ? 300 : 200)
  const tones = $derived(Object.fromEntries(frame.tones.map((one) => [one.receiver, one])))
  const horizon = $derived(Math.min(1.2, Math.max(-0.2, frame.horizon)) * height)
  /** The strip that the flash leaves dark, in the picture as it is held. */
  const dark = $derived.by(() => {
    const part = flash ? frame.dark : 0
    if (frame.dark_edge.includes('left')) return [0, 0, part * width, height]
    if (frame.dark_edge.includes('right')) return [(1 - part) * width, 0, part * width, height]
    if (frame.dark_edge.includes('top')) return [0, 0, width, part * height]
    return [0, (1 - part) * height, width, part * height]
  })
  const spread = $derived(frame.blur * width * 0.5)
</script>

<svg
  viewBox={`0 0 ${width} ${height}`}
  class={frame.upright ? 'mx-auto block h-[13rem]' : 'block w-full'}
  role="img"
  aria-label={`The picture: ${frame.says}`}
  data-testid="frame"
>
  <defs>
    <pattern
      id={`${id}-clip`}
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <line x1="0" x2="0" y1="0" y2="6" stroke="#b3123b" stroke-width="2" stroke-opacity="0.75" />
    </pattern>
    <clipPath id={`${id}-edge`}><rect {width} {height} rx="3" /></clipPath>
    <clipPath id={`${id}-dark`}><rect x={dark[0]} y={dark[1]} width={dark[2]} height={dark[3]} /></clipPath>
    <filter id={`${id}-blur`} x="-20%" y="-20%" width="140%" height="140%"
      ><feGaussianBlur stdDeviation={spread} /></filter
    >
  </defs>
  {#snippet picture(lit: boolean)}
    {@const tone = (name: string) => (lit ? tones[name]?.total : tones[name]?.ambient) ?? '#000'}
    <rect {width} {height} fill={tone('background')} data-tone={lit ? 'background' : undefined} />
    <g filter={spread > 0.3 ? `url(#${id}-blur)` : undefined} stroke="#000" stroke-opacity="0.28" fill="none">
      <path
        d={`M0 ${horizon}Q${width * 0.3} ${horizon - 9} ${width * 0.55} ${horizon}T${width} ${horizon - 4}`}
        stroke-width="2.5"
      />
      <path d={`M${width * 0.16} ${horizon - height * 0.2}l9 -13l9 13l-9 20z`} stroke-width="2" />
      <path d={`M${width * 0.8} ${horizon - height * 0.3}l6 -9l6 9l-6 14z`} stroke-width="2" />
    </g>
    {#if tones.background?.clipped && lit}<rect {width} {height} fill={`url(#${id}-clip)`} />{/if}
    <Figures
      {frame}
      id={`${id}-${lit ? 'lit' : 'dark'}`}
      {width}
      {height}
      left={tone(frame.lit_right ? 'shadow' : 'lit')}
      right={tone(frame.lit_right ? 'lit' : 'shadow')}
      ends={[tones.left ? tone('left') : '', tones.right ? tone('right') : '']}
      edge={tone('edge')}
      names={lit ? (frame.lit_right ? ['shadow', 'lit'] : ['lit', 'shadow']) : null}
      hatch={lit && (tones.lit?.clipped || tones.shadow?.clipped) ? `url(#${id}-clip)` : ''}
    />
  {/snippet}
  <g clip-path={`url(#${id}-edge)`}>
    {@render picture(flash)}
    {#if flash && frame.dark > 0}<g clip-path={`url(#${id}-dark)`}>{@render picture(false)}</g>{/if}
  </g>
</svg>
