<!-- The day on a time line: the light outside, the sessions, each unit's charge, swaps, and what gives out. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale'
  import { area, line } from 'd3-shape'
  import type { DayPlanText } from '../lib/api/client'
  import { sayClock } from '../lib/figures'

  let { day, choose }: { day: DayPlanText; choose: (session: number) => void } = $props()
  let width = $state(800)
  const LIGHT = 74
  const TURN = 46
  const ROW = 46
  const LEFT = 118

  const first = $derived(Math.min(day.begins, ...day.turns.map((turn) => turn.start)))
  const last = $derived(Math.max(day.ends, day.over, first + 60))
  const x = $derived(scaleLinear([first, last], [LEFT, width - 12]))
  const hours = $derived.by(() => {
    const every = [60, 120, 180, 360].find((step) => ((last - first) / step) * 42 < width - LEFT) ?? 720
    const out = []
    for (let at = Math.ceil(first / every) * every; at <= last; at += every) out.push(at)
    return out
  })
  const midnights = $derived([1440, 2880, 4320].filter((at) => at > first && at < last))
  const light = $derived(day.light.filter(([minute]) => minute! >= first && minute! <= last))
  const y = scaleLinear([2, 16.5], [LIGHT - 6, 10])
  const floor = (ev: number) => y(Math.max(2, ev))
  const sun = $derived(
    area<number[]>(
      (one) => x(one[0]!),
      y(2),
      (one) => floor(one[1]!),
    )(light) ?? '',
  )
  const cloud = $derived(
    line<number[]>(
      (one) => x(one[0]!),
      (one) => floor(one[2]!),
    )(light) ?? '',
  )
  const top = $derived(light.length ? LIGHT : 12)
  const rows = $derived(day.units.filter((unit) => unit.course.length))
  const height = $derived(top + TURN + rows.length * ROW + 22)
  const charge = (at: number, share: number) => top + TURN + at * ROW + 34 - share * 26
  const course = (at: number, points: number[][]) =>
    line<number[]>(
      (one) => x(one[0]!),
      (one) => charge(at, one[1]!),
    )(points) ?? ''
  const fits = (turn: DayPlanText['turns'][number]) => Math.floor((x(turn.end) - x(turn.ready) - 8) / 6.6)
</script>

<div bind:clientWidth={width} data-testid="timeline">
  <svg
    {width}
    {height}
    viewBox={`0 0 ${width} ${height}`}
    data-print="wide"
    role="img"
    aria-label={`The day: ${day.says}`}
    class="block font-sans"
  >
    {#each hours as at (at)}
      <line x1={x(at)} x2={x(at)} y1="4" y2={height - 18} class="stroke-base-300" />
      <text x={x(at)} y={height - 5} text-anchor="middle" class="fill-quiet text-[11px]">{sayClock(at)}</text>
    {/each}
    {#each midnights as at (at)}
      <line x1={x(at)} x2={x(at)} y1="4" y2={height - 18} class="stroke-quiet" stroke-width="2" />
      <text x={x(at) + 4} y="12" class="fill-quiet text-[11px]"
        >{at === 1440 ? 'next day' : `day ${at / 1440 + 1}`}</text
      >
    {/each}
    {#if light.length}
      <path d={sun} class="fill-ambient" opacity="0.22" />
      <path d={cloud} fill="none" class="stroke-ambient" stroke-dasharray="4 3" />
      <text x="4" y="22" class="fill-ambient text-[12px] font-semibold">light outside</text>
      <text x="4" y="38" class="fill-quiet text-[11px]">area: sun</text>
      <text x="4" y="52" class="fill-quiet text-[11px]">dashes: cloud</text>
      {#each [8, 12, 15] as ev (ev)}
        <text x={LEFT - 4} y={y(ev) + 3} text-anchor="end" class="fill-quiet text-[10px]">EV {ev}</text>
      {/each}
    {/if}
    <text x="4" y={top + 25} class="text-[12px] font-semibold" fill="currentColor">sessions</text>
    {#each day.turns as turn (turn.session)}
      <rect
        x={x(turn.start)}
        y={top + 10}
        width={Math.max(1, x(turn.ready) - x(turn.start))}
        height="24"
        class="fill-base-300"
      />
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <rect
        x={x(turn.ready)}
        y={top + 10}
        width={Math.max(2, x(turn.end) - x(turn.ready))}
        height="24"
        class={turn.wrong.length
          ? 'fill-base-content stroke-short cursor-pointer'
          : 'fill-base-content cursor-pointer'}
        stroke-width="3"
        onclick={() => choose(turn.session)}
      />
      {#if fits(turn) >= Math.min(8, turn.name.length)}
        <text
          x={x(turn.ready) + 5}
          y={top + 26}
          class="fill-base-100 pointer-events-none text-[11px] font-semibold"
          >{turn.name.length > fits(turn) ? `${turn.name.slice(0, fits(turn) - 1)}…` : turn.name}</text
        >
      {:else}
        <text x={x(turn.ready)} y={top + 45} class="text-[10px]" fill="currentColor">{turn.session + 1}</text>
      {/if}
    {/each}
    {#each rows as unit, at (`${unit.unit} ${unit.supply}`)}
      <text x="4" y={charge(at, 0.55)} class="text-[12px] font-semibold" fill="currentColor"
        >{unit.name.length > 16 ? `${unit.name.slice(0, 15)}…` : unit.name}</text
      >
      <text x="4" y={charge(at, 0)} class="fill-quiet text-[11px]"
        >{unit.supply
          ? `${unit.supply}: ${unit.charges}`
          : unit.charges === 1
            ? '1 battery'
            : `${unit.charges} batteries`}</text
      >
      <line x1={LEFT} x2={width - 12} y1={charge(at, 0)} y2={charge(at, 0)} class="stroke-base-300" />
      <path d={course(at, unit.course)} fill="none" class="stroke-flash" stroke-width="2" />
      {#each unit.swaps as swap, i (i)}
        {#if swap !== unit.gives_out}
          <circle cx={x(swap)} cy={charge(at, 0)} r="4" class="fill-flash" />
          {#if width > 560}
            <text x={x(swap)} y={charge(at, -0.38)} text-anchor="middle" class="fill-flash text-[10px]"
              >{unit.swapped[i]}</text
            >
          {/if}
        {/if}
      {/each}
      {#if unit.gives_out !== null}
        <line
          x1={x(unit.gives_out)}
          x2={x(unit.gives_out)}
          y1={charge(at, 1)}
          y2={charge(at, 0)}
          class="stroke-short"
          stroke-width="3"
        />
        <text x={x(unit.gives_out) + 6} y={charge(at, 0.3)} class="fill-short text-[12px] font-bold"
          >gives out {sayClock(Math.floor(unit.gives_out))}</text
        >
      {/if}
    {/each}
  </svg>
</div>
