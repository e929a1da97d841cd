<!-- What helps with the unit in hand: what would change it, what was seen, the ladder, flash durations, colour, timing. -->
<script module lang="ts">
  import { SvelteMap } from 'svelte/reactivity'

  type Tool = 'seen' | 'find' | 'order' | 'variants' | 'ladder' | 'colour' | 'durations' | 'timing'
  /** What is open in each setup: it stays so while an answer is on its way and nothing is drawn. */
  const opened = new SvelteMap<string, Tool | null>()
</script>

<script lang="ts">
  import type { Answer } from '../lib/api/client'
  import { inHand } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'
  import FindStop from './FindStop.svelte'
  import Durations from './Durations.svelte'
  import Ladder from './Ladder.svelte'
  import OrderOfWork from './OrderOfWork.svelte'
  import SeenPart from './SeenPart.svelte'
  import Timing from './Timing.svelte'
  import Variants from './Variants.svelte'

  let { session, answer }: { session: SetupSession; answer: Answer } = $props()
  /** What each is, and the word of it that stands in the row. */
  const tools: [Tool, string, string?][] = [
    ['seen', 'What did you see?'],
    ['find', 'Find a stop'],
    ['order', 'Order of work', 'Order'],
    ['variants', 'Variants'],
    ['ladder', 'Distance ladder', 'Ladder'],
    ['colour', 'Meter, colour, automatics', 'Colour'],
    ['durations', 'Flash duration', 'Duration'],
    ['timing', 'Shutter and flash in time', 'In time'],
  ]
  const usual = matchMedia('(max-width: 639px)').matches ? 'seen' : null
  const open = $derived(opened.has(session.id) ? opened.get(session.id) : usual)
  const wants = $derived(open === 'seen' || open === 'durations' || open === 'colour')
  const hand = inHand(() => (wants ? session : null))
  const found = $derived(hand.found)
</script>

<section aria-label="With the unit in hand">
  <div class="no-print border-base-300 flex gap-1.5 border-t pt-2 max-sm:flex-wrap">
    {#each tools as [key, words, short] (key)}
      <button
        type="button"
        class={`btn btn-sm min-w-0 flex-auto px-2 whitespace-nowrap ${open === key ? 'btn-primary' : ''}`}
        aria-label={words}
        title={words}
        aria-expanded={open === key}
        onclick={() => opened.set(session.id, open === key ? null : key)}>{short ?? words}</button
      >
    {/each}
  </div>
  {#if open}
    <div class="pt-2.5" data-testid="tool">
      {#if open === 'timing'}
        <Timing {session} kind={answer.chosen} />
      {:else if open === 'ladder'}
        <Ladder {session} />
      {:else if open === 'find'}
        <FindStop {session} />
      {:else if open === 'order'}
        <OrderOfWork {session} />
      {:else if open === 'variants'}
        <Variants {session} />
      {:else if found}
        {#if open === 'seen'}<SeenPart {session} {found} />{/if}
        {#if open === 'durations'}<Durations {session} {found} />{/if}
        {#if open === 'colour'}
          <dl class="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1.5 text-[0.9rem]">
            <dt class="text-quiet">Hand meter</dt>
            <dd>
              {#each found.meter as line, at (at)}<span class="block">{line}</span>{/each}
            </dd>
            <dt class="text-quiet">Colour</dt>
            <dd>{found.balance}</dd>
            <dt class="text-quiet">Automatic flash</dt>
            <dd>{found.compensation}</dd>
            <dt class="text-quiet">The camera’s own</dt>
            <dd>
              {#each found.automatics as line, at (at)}<span class="block">{line}</span>{/each}
            </dd>
          </dl>
        {/if}
      {/if}
    </div>
  {/if}
</section>
