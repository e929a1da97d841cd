<!-- One unit's hops on the ruler. -->
<script lang="ts">
  import type { Arc } from '../lib/api/client'
  import { trackOf, type Lane, type Ruler } from './ruler'

  let {
    arcs,
    lane,
    index,
    ruler,
    width,
  }: { arcs: Arc[]; lane: Lane; index: number; ruler: Ruler; width: number } = $props()

  const track = $derived(trackOf(arcs, lane, index, ruler))
  const bad = $derived(lane.word === 'short' || lane.word === 'too_bright')
</script>

<svg {width} height="52" class="block overflow-visible" aria-hidden="true">
  <line x1="0" x2={width} y1="31" y2="31" class="stroke-base-300" stroke-dasharray="1 4" />
  <line
    x1={track.low}
    x2={track.high}
    y1="31"
    y2="31"
    stroke-width="6"
    stroke-linecap="round"
    stroke-opacity="0.32"
    class={bad ? 'stroke-short' : 'stroke-flash'}
  />
  {#each track.hops as hop, i (i)}
    <path
      d={hop.path}
      fill="none"
      stroke-width={hop.gain ? 2 : 1.6}
      class={hop.ambient ? 'stroke-ambient' : hop.gain ? 'stroke-flash' : 'stroke-base-content'}
      stroke-opacity={hop.gain ? 1 : 0.62}><title>{hop.title}</title></path
    >
    {#if hop.label}
      <text
        x={hop.labelX}
        y={hop.labelY}
        text-anchor="middle"
        font-size="10.5"
        class={hop.ambient ? 'fill-ambient' : hop.gain ? 'fill-flash' : 'fill-quiet'}>{hop.label}</text
      >
    {/if}
  {/each}
  <circle cx={track.takeOff} cy="31" r="3.6" stroke-width="1.8" class="fill-base-100 stroke-flash" />
  {#if lane.word === 'short'}
    <path
      d={`M${track.landing} 24l7 7l-7 7l-7 -7z`}
      stroke-width="2.2"
      class="fill-base-100 stroke-short"
      data-mark="short"
    />
  {:else if lane.word === 'on_the_line'}
    <circle cx={track.landing} cy="31" r="6" stroke-width="2.2" class="fill-base-100 stroke-flash" />
    <path d={`M${track.landing} 25a6 6 0 0 1 0 12z`} class="fill-flash" />
  {:else}
    <circle cx={track.landing} cy="31" r="6.5" class="glow" />
  {/if}
</svg>
