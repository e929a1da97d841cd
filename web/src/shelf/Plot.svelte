<!-- A small plot of several units' curves: each its own dash and mark, told below. -->
<script lang="ts">
  import { digits } from '../lib/figures'
  import { scaleLinear, scaleLog } from 'd3-scale'
  import {
    line,
    symbol,
    symbolCircle,
    symbolDiamond,
    symbolSquare,
    symbolTriangle,
    symbolWye,
  } from 'd3-shape'
  import type { CompareText } from '../lib/api/client'

  let { plot, names }: { plot: CompareText['plots'][number]; names: string[] } = $props()
  const MARKS = [symbolCircle, symbolSquare, symbolTriangle, symbolDiamond, symbolWye]
  const DASHES = ['', '6 3', '2 3', '8 3 2 3', '1 4']
  const HEIGHT = 190
  let width = $state(260)

  const all = $derived(plot.curves.flatMap((curve) => curve.points))
  const most = $derived(Math.max(...all.map(([x]) => x!), 1))
  const values = $derived(all.map(([, y]) => y!))
  const x = $derived(scaleLinear([0, most], [44, width - 10]))
  const log = $derived(plot.y !== 'stops' && Math.min(...values) > 0)
  const span = $derived([Math.min(...values), Math.max(...values)] as [number, number])
  const y = $derived(
    log
      ? scaleLog<number, number, number>(span, [HEIGHT - 22, 10])
      : scaleLinear<number, number, number>(span, [HEIGHT - 22, 10]).nice(),
  )
  const ticks = $derived.by(() => {
    const every = y.ticks(log ? 4 : 5)
    return every.filter((_, i) => i % Math.ceil(every.length / 6) === 0)
  })
  const said = (value: number) => (plot.y === 't.1, s' ? `1/${Math.round(1 / value)}` : digits(value, 2))
  const path = (points: number[][]) =>
    line<number[]>(
      (one) => x(one[0]!),
      (one) => y(one[1]!),
    )(points) ?? ''
  const place = (name: string) => Math.max(0, names.indexOf(name)) % MARKS.length
</script>

<figure bind:clientWidth={width} class="min-w-0">
  <figcaption class="text-[0.86rem] font-semibold">{plot.title}, {plot.y}</figcaption>
  <svg
    {width}
    height={HEIGHT}
    role="img"
    aria-label={`${plot.title}: ${plot.curves
      .map((one) => `${one.name} from ${said(one.points[0]![1]!)} to ${said(one.points.at(-1)![1]!)}`)
      .join('; ')}`}
  >
    {#each ticks as tick (tick)}
      <line x1="44" x2={width - 10} y1={y(tick)} y2={y(tick)} class="stroke-base-300" />
      <text x="40" y={y(tick) + 4} text-anchor="end" class="fill-quiet text-[10px]">{said(tick)}</text>
    {/each}
    {#each plot.marks as mark, at (mark)}
      {#if at <= most && (at % 2 === 0 || most < 6)}<text
          x={x(at)}
          y={HEIGHT - 6}
          text-anchor="middle"
          class="fill-quiet text-[10px]">{mark}</text
        >{/if}
    {/each}
    {#each plot.curves as curve (curve.name)}
      {@const at = place(curve.name)}
      <path
        d={path(curve.points)}
        fill="none"
        class="stroke-flash"
        stroke-width="1.6"
        stroke-dasharray={DASHES[at]}
      />
      {#if curve.at}
        <line
          x1={x(curve.at[0]!)}
          x2={x(curve.at[0]!)}
          y1={y(curve.at[1]!)}
          y2={HEIGHT - 20}
          class="stroke-quiet"
          stroke-dasharray="2 2"
        />
        <circle
          cx={x(curve.at[0]!)}
          cy={y(curve.at[1]!)}
          r="5"
          class="fill-base-100 stroke-flash"
          stroke-width="2"><title>{curve.name}: where the picture stands, {said(curve.at[1]!)}</title></circle
        >
      {/if}
      {#each [curve.points[0]!, curve.points.at(-1)!] as point, i (i)}
        <path
          d={symbol(MARKS[at], 42)()}
          transform={`translate(${x(point[0]!)},${y(point[1]!)})`}
          class="fill-flash"
        />
      {/each}
    {/each}
  </svg>
  <ul class="text-quiet flex flex-wrap gap-x-3 text-[0.76rem]">
    {#each plot.curves as curve (curve.name)}
      {@const at = place(curve.name)}
      <li class="flex items-center gap-1">
        <svg width="26" height="10" aria-hidden="true"
          ><line x1="0" x2="26" y1="5" y2="5" class="stroke-flash" stroke-dasharray={DASHES[at]} /><path
            d={symbol(MARKS[at], 34)()}
            transform="translate(13,5)"
            class="fill-flash"
          /></svg
        ><bdi>{curve.name}</bdi>
      </li>
    {/each}
  </ul>
</figure>
