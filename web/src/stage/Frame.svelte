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
  /** What has to be cut away for the strip that the flash leaves dark, in the picture as it is held: see `inset`. */
  const strip = $derived.by(() => {
    const rest = `${100 * (1 - frame.dark)}%`
    if (frame.dark_edge.includes('left')) return `0 ${rest} 0 0`
    if (frame.dark_edge.includes('right')) return `0 0 0 ${rest}`
    if (frame.dark_edge.includes('top')) return `0 0 ${rest} 0`
    return `${rest} 0 0 0`
  })
  const spread = $derived(Math.round(frame.blur * width * 5) / 10)
  const box = $derived(`0 0 ${width} ${height}`)
</script>

{#snippet picture(lit: boolean)}
  {@const tone = (name: string) => (lit ? tones[name]?.total : tones[name]?.ambient) ?? '#000'}
  <svg viewBox={box} class="layer" aria-hidden="true">
    <rect {width} {height} fill={tone('background')} data-tone={lit ? 'background' : undefined} />
  </svg>
  <svg viewBox={box} class="layer still" aria-hidden="true">
    {#if spread > 0.3}
      <filter id={`${id}-blur-${lit}`} x="-20%" y="-20%" width="140%" height="140%"
        ><feGaussianBlur stdDeviation={spread} /></filter
      >
    {/if}
    <g
      filter={spread > 0.3 ? `url(#${id}-blur-${lit})` : undefined}
      stroke="#000"
      stroke-opacity="0.28"
      fill="none"
    >
      <path
        d={`M0 ${horizon}Q${width * 0.3} ${horizon - 9} ${width * 0.55} ${horizon}T${width} ${horizon - 4}`}
        stroke-width="2.5"
      />
      <path d={`M${width * 0.16} ${horizon - height * 0.2}l9 -13l9 13l-9 20z`} stroke-width="2" />
      <path d={`M${width * 0.8} ${horizon - height * 0.3}l6 -9l6 9l-6 14z`} stroke-width="2" />
    </g>
  </svg>
  <svg viewBox={box} class="layer" aria-hidden="true">
    {#if lit && (tones.background?.clipped || tones.lit?.clipped || tones.shadow?.clipped)}
      <pattern
        id={`${id}-clip`}
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" x2="0" y1="0" y2="6" stroke="#b3123b" stroke-width="2" stroke-opacity="0.75" />
      </pattern>
    {/if}
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
  </svg>
{/snippet}

<div
  class={`relative overflow-hidden rounded ${frame.upright ? 'mx-auto w-[9rem]' : 'w-full'}`}
  style={`aspect-ratio:${width}/${height}`}
  role="img"
  aria-label={`The picture: ${frame.says}`}
  data-testid="frame"
>
  {@render picture(flash)}
  {#if flash && frame.dark > 0}
    <div class="absolute inset-0" style={`clip-path:inset(${strip})`}>{@render picture(false)}</div>
  {/if}
</div>

<style>
  .layer {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  /* Drawn once: a blur is dear, and stays as it is while tones change. */
  .still {
    will-change: transform;
  }
</style>
