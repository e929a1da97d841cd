<!-- The timing drill: leaps one after the other; a press, and the picture a lag later. Still where motion is not wanted. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale'
  import { api, sentenceOf, type CaughtText } from '../lib/api/client'
  import { address } from '../lib/addresses'
  import { question } from '../lib/question.svelte'
  import { MediaQuery } from 'svelte/reactivity'

  let { seed }: { seed: number } = $props()
  const still = new MediaQuery('prefers-reduced-motion: reduce')
  const asked = question(() => ({ at: '/api/practice/leap', params: { query: { seed } } }))
  const leap = $derived(asked.found)
  let found = $state.raw<CaughtText | null>(null)
  let trouble = $state('')
  let started = $state<number | null>(null)
  let now = $state(0)
  let pressed = $state.raw<number[]>([])

  $effect(() => stop)

  const length = $derived(leap ? (leap.course.length - 1) * leap.every_s : 0)
  const running = $derived(started !== null)
  /** Height of the ground and of the highest leap in the picture. */
  const y = $derived(scaleLinear([0, leap?.highest_m ?? 1], [150, 60]))
  const heightAt = (seconds: number) => {
    if (!leap) return 0
    const place = Math.min(Math.max(seconds / leap.every_s, 0), leap.course.length - 1)
    const low = Math.floor(place)
    const [a = 0, b = a] = [leap.course[low], leap.course[low + 1]]
    return a + (b - a) * (place - low)
  }
  const shown = $derived(found?.tries.at(-1))
  /** Without motion: what they do just now, in a word. */
  const word = $derived.by(() => {
    if (!leap || !running) return ''
    const next = leap.peak_s.findIndex((peak) => now < peak + 0.25)
    if (next < 0) return 'Done'
    const left = leap.peak_s[next]! - now
    if (left < 0) return `Leap ${next + 1}: down`
    if (now >= leap.takes_off_s[next]!) return `Leap ${next + 1}: up`
    return `Leap ${next + 1}: peak in ${(Math.ceil(left * 2) / 2).toFixed(1)} s`
  })

  let frame = 0
  function stop() {
    cancelAnimationFrame(frame)
    started = null
  }

  function start() {
    found = null
    pressed = []
    now = 0
    started = performance.now()
    frame = requestAnimationFrame(turn)
  }

  /** Drawn as it is now, not as it was when the browser began with this frame: it may be late with it. */
  function turn() {
    if (started === null) return
    now = (performance.now() - started) / 1000
    if (now > length) return void finish()
    frame = requestAnimationFrame(turn)
  }

  async function finish() {
    stop()
    if (pressed.length) await judge()
  }

  /** The moment of a press is the one that the browser took it at, however late the page hears of it. */
  function take(event: Event) {
    if (started === null || !leap) return
    pressed = [...pressed, (event.timeStamp - started) / 1000].slice(0, 60)
    void judge()
  }

  async function judge() {
    const asked = [...pressed]
    const { data, error } = await api.POST('/api/practice/leap', { body: { seed, pressed_s: asked } })
    if (asked.length !== pressed.length) return
    found = data ?? null
    trouble = data ? '' : sentenceOf(error)
  }

  function keys(event: KeyboardEvent) {
    if (event.repeat || (event.key !== ' ' && event.key !== 'Enter')) return
    event.preventDefault()
    if (running) take(event)
    else start()
  }
</script>

{#snippet figure(at: number)}
  {@const top = y(at)}
  <g class="fill-base-content stroke-base-content" stroke-linecap="round">
    <circle cx="150" cy={top - 44} r="8" stroke="none" />
    <line x1="150" x2="150" y1={top - 36} y2={top - 16} stroke-width="6" />
    <line x1="150" x2="136" y1={top - 32} y2={top - (at > 0.05 ? 46 : 20)} stroke-width="4" />
    <line x1="150" x2="164" y1={top - 32} y2={top - (at > 0.05 ? 46 : 20)} stroke-width="4" />
    <line x1="150" x2={at > 0.05 ? 138 : 145} y1={top - 16} y2={top} stroke-width="5" />
    <line x1="150" x2={at > 0.05 ? 162 : 155} y1={top - 16} y2={top} stroke-width="5" />
  </g>
{/snippet}

<div class="sheet mx-auto max-w-3xl space-y-3 p-4">
  <div>
    <p class="text-quiet text-[0.85rem]">
      <a class="link-button" href={address.practice()}>Practice</a> · scene {seed}
    </p>
    <h1 class="text-[1.5rem] leading-tight font-semibold">The peak of a leap</h1>
    <p class="mt-1 max-w-2xl text-[0.95rem]">{leap?.says ?? ''}</p>
  </div>
  {#if asked.wrong || trouble}<p role="alert" class="text-short font-semibold">
      {asked.wrong || trouble}
    </p>{/if}
  {#if leap}
    {#if still.current}
      <p
        class="border-base-300 grid h-40 place-items-center border text-3xl font-semibold"
        data-testid="still"
      >
        {word || (shown ? shown.says : 'Ready')}
      </p>
    {:else}
      <svg
        viewBox="0 0 300 170"
        class="bg-base-200 mx-auto block h-64 max-w-full"
        role="img"
        aria-label="The leap"
      >
        <line x1="20" x2="280" y1="152" y2="152" class="stroke-base-content" stroke-width="2" />
        {@render figure(heightAt(now))}
      </svg>
    {/if}
    {#if shown}
      <figure class="flex items-center gap-3">
        <svg
          viewBox="90 10 120 152"
          class="border-base-300 h-28 border"
          role="img"
          aria-label="The frame that was caught"
        >
          <rect
            x="90"
            y="10"
            width="120"
            height="152"
            class={shown.flash ? 'fill-base-100' : 'fill-curtain'}
          />
          <line x1="90" x2="210" y1="152" y2="152" class="stroke-base-content" stroke-width="2" />
          {@render figure(shown.height_m)}
        </svg>
        <figcaption class="font-semibold" role="status" data-testid="newest">{shown.says}</figcaption>
      </figure>
    {/if}
    <div class="flex flex-wrap gap-2">
      <button
        type="button"
        class="btn btn-primary h-16 min-w-44 text-lg"
        onpointerdown={(event) => (running ? take(event) : start())}
        onkeydown={keys}>{running ? 'Take it' : found ? 'Again' : 'Begin'}</button
      >
      <a class="btn h-16" href={address.practice('leap', seed + 1)}>Another camera</a>
    </div>
    <p class="text-quiet text-[0.88rem]">
      Press the button, the space bar or Enter{still.current
        ? '. The leap is told in words, as this machine asks for less motion'
        : ''}.
    </p>
    {#if found}
      <div role="status" data-testid="caught">
        {#each found.says as one (one)}<p class="font-semibold">{one}</p>{/each}
      </div>
      <ol class="grid gap-x-6 sm:grid-cols-2" data-testid="tries">
        {#each found.tries as one, at (at)}
          <li class="flex items-center gap-2 text-[0.95rem]">
            <svg viewBox="-60 0 120 12" class="h-3 w-28 shrink-0" aria-hidden="true">
              <line x1="-60" x2="60" y1="6" y2="6" class="stroke-base-300" stroke-width="2" />
              <line x1="0" x2="0" y1="0" y2="12" class="stroke-base-content" stroke-width="2" />
              <circle
                cx={Math.max(-56, Math.min(56, one.off_ms / 4))}
                cy="6"
                r="4"
                class="fill-base-content"
              />
            </svg>
            {one.says}
          </li>
        {/each}
      </ol>
    {/if}
  {/if}
</div>
