<!-- The day's course of light at the place: EV through the hours, golden hours, now. Press on it to move the time. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale'
  import { area, line } from 'd3-shape'
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'

  let { session, choose }: { session: SetupSession; choose: (clock: string) => void } = $props()
  let width = $state(320)
  const HEIGHT = 118
  const FLOOR = 4

  const asked = ofSetup(() => session, '/api/setups/{item_id}/day')
  const day = $derived(asked.found)

  const x = $derived(scaleLinear([0, 1], [22, width - 4]))
  const y = $derived(scaleLinear([FLOOR, 16.5], [HEIGHT - 18, 14]))
  const at = (index: number, of: number[]) => x(index / (of.length - 1))
  const draw = (values: number[]) =>
    line<number>(
      (_, i) => at(i, values),
      (value) => y(Math.max(FLOOR, value)),
    )(values) ?? ''
  const fill = (values: number[]) =>
    area<number>(
      (_, i) => at(i, values),
      y(FLOOR),
      (value) => y(Math.max(FLOOR, value)),
    )(values) ?? ''

  function press(event: MouseEvent) {
    if (!day) return
    const box = (event.currentTarget as Element).getBoundingClientRect()
    const share = x.invert(event.clientX - box.left)
    const index = Math.round(Math.min(1, Math.max(0, share)) * (day.clocks.length - 1))
    choose(day.clocks[Math.min(day.clocks.length - 2, index)]!)
  }
</script>

<div bind:clientWidth={width} class="font-sans">
  {#if day}
    <!-- The time is a live figure above, with keys; pressing here is a shortcut for the pointer. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      {width}
      height={HEIGHT}
      class="block cursor-pointer"
      role="img"
      aria-label={`The day's light: ${day.words}`}
      onclick={press}
    >
      {#each day.golden as span (span.start)}
        <rect
          x={x(span.start)}
          y="12"
          width={x(span.end) - x(span.start)}
          height={HEIGHT - 30}
          class="fill-ambient"
          fill-opacity="0.13"
        />
      {/each}
      {#each [5, 10, 15] as ev (ev)}
        <line x1={x(0)} x2={x(1)} y1={y(ev)} y2={y(ev)} class="stroke-base-300" />
        <text x="18" y={y(ev) + 3.5} text-anchor="end" font-size="10" class="fill-quiet">{ev}</text>
      {/each}
      <path d={fill(day.ground_ev)} class="fill-ambient" fill-opacity="0.12" />
      <path d={draw(day.ground_ev)} class="stroke-ambient" fill="none" stroke-width="1.2" />
      <path
        d={draw(day.shade_ev)}
        class="stroke-ambient"
        fill="none"
        stroke-width="1.2"
        stroke-dasharray="2 3"
      />
      <path d={draw(day.subject_ev)} class="stroke-ambient" fill="none" stroke-width="2.6" />
      {#each day.hours as hour, i (i)}
        {#if i % 2 === 0}
          <text
            x={x(hour.at)}
            y={HEIGHT - 4}
            text-anchor={i === day.hours.length - 1 ? 'end' : 'middle'}
            font-size="10"
            class="fill-quiet">{hour.clock.slice(0, 2)}</text
          >
        {/if}
      {/each}
      {#each day.marks.filter((mark) => mark.words === 'open shade lost') as mark (mark.at)}
        <line
          x1={x(mark.at)}
          x2={x(mark.at)}
          y1="14"
          y2={HEIGHT - 18}
          class="stroke-short"
          stroke-width="1.5"
          stroke-dasharray="4 2"
        />
        <text
          x={x(mark.at) + (x(mark.at) + 90 < width ? 4 : -4)}
          y="22"
          text-anchor={x(mark.at) + 90 < width ? 'start' : 'end'}
          font-size="10"
          class="fill-short">shade lost {mark.clock}</text
        >
      {/each}
      <line
        x1={x(day.now.at)}
        x2={x(day.now.at)}
        y1="12"
        y2={HEIGHT - 18}
        class="stroke-base-content"
        stroke-width="1.6"
      />
      <text
        x={Math.min(width - 16, Math.max(34, x(day.now.at)))}
        y="9"
        text-anchor="middle"
        font-size="10.5"
        font-weight="700"
        class="fill-base-content">{day.now.clock}</text
      >
    </svg>
    <p class="text-quiet text-[0.76rem] leading-snug">
      {day.words} EV of the ground (thin), the subject (thick), open shade (dotted); golden hours tinted.
    </p>
  {/if}
</div>
