<!-- Help: how to read the chart, the words of the trade, where figures come from, and the keys. -->
<script lang="ts">
  import LaneTrack from '../chart/LaneTrack.svelte'
  import { rulerOf, trackOf, type Lane } from '../chart/ruler'
  import type { Arc, Lanes } from '../lib/api/client'
  import { hotkeys } from '../lib/hotkeys'
  import { WORDS } from '../lib/words'

  /** The part that is asked for: read, words, from or keys. */
  let { id = '' }: { id?: string } = $props()
  $effect(() => document.getElementById(`${id}-title`)?.scrollIntoView())
  const WIDTH = 460
  const arc = (effect: string, cause: string, stops: number): Arc => ({ effect, cause, stops: [stops] })
  const start = (stops: number) => arc('rated_output', 'at 1 m', stops)
  /** Five pictures of the chart, drawn by what draws the chart. */
  const pictures = [
    {
      says: 'The ring on the right is what the unit gives bare, at one metre and full power. Each hop to the left is a loss: the way to the subject, and here a softbox. It lands right of the line: so much is in hand.',
      arcs: [start(6), arc('distance', '2 m', -2), arc('modifier', 'softbox', -1.3)],
      sd: 0.4,
      word: 'reaches',
    },
    {
      says: 'A hop under the line, to the right, is a gain: a higher ISO, a second head; in blue, what the ambient adds.',
      arcs: [
        start(4),
        arc('distance', '2.8 m', -3),
        arc('iso', 'ISO 400', 2),
        arc('ambient', 'ambient', 0.4),
      ],
      sd: 0.3,
      word: 'reaches',
    },
    {
      says: 'High-speed sync is one large hop. The diamond left of the line is short: by how much, is its distance from the line.',
      arcs: [start(5), arc('distance', '2 m', -2), arc('hss', 'HSS 1/2000 s', -3.7)],
      sd: 0.4,
      word: 'short',
    },
    {
      says: 'The bar is the doubt, one standard deviation either way. Where it lies over the line, the unit is on the line: try it before you rely on it.',
      arcs: [start(4.2), arc('distance', '2.8 m', -3), arc('layer', 'diffuser', -1)],
      sd: 0.7,
      word: 'on_the_line',
    },
    {
      says: 'Too bright even at its lowest power: go farther away, take an ND filter, or put something in front.',
      arcs: [start(9), arc('distance', '1 m', -0.1)],
      sd: 0.3,
      word: 'too_bright',
    },
  ].map(({ says, arcs, sd, word }) => {
    const spare = arcs.reduce((sum, one) => sum + one.stops[0]!, 0)
    const lanes = { id: ['a'], word: [word], spare: [spare], sd: [sd] } as Partial<Lanes> as Lanes
    const lane = { word, spare, sd } as Partial<Lane> as Lane
    const ruler = rulerOf(arcs, lanes, WIDTH)
    return { says, arcs, lane, ruler, height: trackOf(arcs, lane, 0, ruler, true).height }
  })
  const keys = hotkeys()
</script>

<div class="sheet mx-auto max-w-5xl space-y-6 p-5">
  <h1 class="text-[1.7rem] font-semibold">Help</h1>
  <section aria-labelledby="read-title">
    <h2 id="read-title" class="mb-2 text-xl font-semibold">How to read the chart</h2>
    <ol class="grid gap-4 md:grid-cols-2">
      {#each pictures as one, i (i)}
        <li class="border-base-300 min-w-0 border-t pt-2">
          <p class="mb-1 text-[0.92rem] leading-snug">{one.says}</p>
          <div class="max-w-full overflow-x-auto" style={`height: ${one.height}px`}>
            <LaneTrack
              arcs={one.arcs}
              lane={one.lane}
              index={0}
              ruler={one.ruler}
              width={WIDTH}
              tall={true}
            />
          </div>
        </li>
      {/each}
    </ol>
  </section>
  <section aria-labelledby="words-title">
    <h2 id="words-title" class="mb-2 text-xl font-semibold">Words</h2>
    <dl class="grid gap-x-6 gap-y-2 md:grid-cols-2">
      {#each Object.values(WORDS) as [name, says] (name)}
        <div class="text-[0.92rem] leading-snug">
          <dt class="font-semibold">{name}</dt>
          <dd>{says}</dd>
        </div>
      {/each}
    </dl>
  </section>
  <section aria-labelledby="from-title">
    <h2 id="from-title" class="mb-2 text-xl font-semibold">Where the figures come from</h2>
    <p class="text-[0.92rem] leading-snug">
      Open “Why: every gain and loss” under a unit: each line says its size, its doubt, and its source:
      published, by definition, common practice, from memory, or measured by you. What you log on set takes
      the place of what was assumed. Where two things are possible the page asks; it does not guess.
    </p>
  </section>
  <section aria-labelledby="keys-title">
    <h2 id="keys-title" class="mb-2 text-xl font-semibold">Keys</h2>
    <p class="mb-2 text-[0.92rem]">
      In a setup a letter takes a figure in hand; arrows then nudge it by a third of a stop, with Shift by a
      full stop; Enter lets you type, x fixes a setting or frees it. Ctrl Z undoes, Ctrl Y does again.
    </p>
    {#if keys.length}<dl
        class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[0.92rem] sm:grid-cols-[auto_1fr_auto_1fr]"
      >
        {#each keys as [key, words] (key)}<dt><kbd class="kbd kbd-sm">{key}</kbd></dt>
          <dd>{words}</dd>{/each}
      </dl>{:else}<p class="text-quiet text-[0.88rem]">
        Press ? in a setup to see the letters that stand for its figures.
      </p>{/if}
  </section>
  <p class="text-quiet text-sm">
    Jump Stop plans; the maker’s manual, local codes, the venue and licensed people decide. Never open a flash
    unit: its capacitor holds a lethal charge.
  </p>
</div>
