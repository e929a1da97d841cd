<!-- One unit's hops on the ruler; labelled where it is the unit in hand. -->
<script lang="ts">
  import type { Arc } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { trackOf, type Lane, type Ruler } from './ruler'

  type Props = { arcs: Arc[]; lane: Lane; index: number; ruler: Ruler; width: number; tall: boolean }
  let { arcs, lane, index, ruler, width, tall }: Props = $props()

  const track = $derived(trackOf(arcs, lane, index, ruler, tall))
  const bad = $derived(lane.word === 'short' || lane.word === 'too_bright')
</script>

<svg {width} height={track.height} class="block overflow-visible" aria-hidden="true">
  <rect x="0" y="0" width={Math.max(0, ruler(0))} height="100%" class="fill-short" fill-opacity="0.06" />
  <line x1={ruler(0)} x2={ruler(0)} y1="0" y2="100%" class="stroke-base-content" stroke-width="2" />
  <line
    x1={track.low}
    x2={track.high}
    y1={track.base}
    y2={track.base}
    stroke-width="6"
    stroke-linecap="round"
    stroke-opacity="0.32"
    class={bad ? 'stroke-short' : 'stroke-flash'}
  />
  {#each track.hops as hop, i (i)}
    <path
      d={hop.path}
      fill="none"
      stroke-width={tall ? 1.8 : 1.2}
      class={hop.ambient ? 'stroke-ambient' : hop.gain ? 'stroke-flash' : 'stroke-base-content'}
      stroke-opacity={tall ? 0.9 : 0.4}><title>{hop.title}</title></path
    >
    {#if hop.label}
      <text
        x={hop.labelX}
        y={hop.labelY}
        text-anchor="middle"
        font-size="11"
        class={hop.ambient ? 'fill-ambient' : hop.gain ? 'fill-flash' : 'fill-base-content'}>{hop.label}</text
      >
    {/if}
  {/each}
  {#if tall}
    <text
      x={Math.min(track.takeOff, width - 14)}
      y={track.base + 17}
      text-anchor="middle"
      font-size="11"
      class="fill-flash">{signed(track.start)}</text
    >
  {/if}
  <circle cx={track.takeOff} cy={track.base} r="3.4" stroke-width="1.6" class="fill-base-100 stroke-flash" />
  {#if lane.word === 'short'}
    <path
      d={`M${track.landing} ${track.base - 6}l6 6l-6 6l-6 -6z`}
      stroke-width="2.2"
      class="fill-base-100 stroke-short"
      data-mark="short"
    />
  {:else if lane.word === 'on_the_line'}
    <circle
      cx={track.landing}
      cy={track.base}
      r="5.5"
      stroke-width="2.2"
      class="fill-base-100 stroke-flash"
    />
    <path d={`M${track.landing} ${track.base - 5.5}a5.5 5.5 0 0 1 0 11z`} class="fill-flash" />
  {:else if lane.word === 'too_bright'}
    <path d={`M${track.landing - 5} ${track.base - 6}v12l10 -6z`} class="fill-short" data-mark="too bright" />
  {:else}
    <circle cx={track.landing} cy={track.base} r="5.5" class="glow" />
  {/if}
</svg>
