<!-- Say the picture in a line: what was understood beside the words that it came from; what can be two things asks. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { api, sentenceOf, type SayOut, type Setup } from '../lib/api/client'
  import { address } from '../lib/addresses'
  import { history } from '../lib/history.svelte'
  import { hotkey } from '../lib/hotkeys'
  import { job } from '../lib/job.svelte'
  import { newest } from '../lib/question.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import { setups } from '../lib/setups.svelte'
  import LiveChoice from './LiveChoice.svelte'

  let { session }: { session: SetupSession } = $props()
  const PAUSE_MS = 250
  const LONGEST = 1200
  let text = $state('')
  let into = $state<'this' | 'new'>('this')
  let found = $state.raw<SayOut | null>(null)
  let wrong = $state('')
  /** Answers that were given, by where in the text their questions begin. */
  let answers = $state<Record<number, number>>({})
  let field = $state<HTMLInputElement>()
  let soon: ReturnType<typeof setTimeout> | undefined

  onMount(() => hotkey('.', 'Say the picture', () => field?.focus()))

  async function read(): Promise<void> {
    clearTimeout(soon)
    if (!text.trim()) {
      found = null
      wrong = ''
      return
    }
    const body = {
      text,
      setup: into === 'this' ? (session.doc as Setup) : null,
      like: session.id,
      light: session.light,
      answers,
    }
    const answer = await newest('say', () => api.POST('/api/say', { body }))
    if (!answer) return
    found = answer.data ?? null
    wrong = answer.data ? '' : sentenceOf(answer.error)
  }

  function typed(): void {
    answers = {}
    clearTimeout(soon)
    soon = setTimeout(() => void read(), PAUSE_MS)
  }

  function answer(start: number, which: number): void {
    answers = { ...answers, [start]: which }
    void read()
    field?.focus()
  }

  async function take(event: SubmitEvent): Promise<void> {
    event.preventDefault()
    await read()
    if (found?.outcome !== 'said' || !found.setup || !found.pieces.length) return
    const made = found.setup as Setup
    if (into === 'this') session.edit('Say the picture', (s) => Object.assign(s, structuredClone(made)))
    else {
      const asked = api.POST('/api/setups', { params: { query: { job_id: job.id || null } }, body: made })
      const stored = await history.done(asked, () => `Added ${made.name}`)
      if (!stored) return
      await setups.load()
      location.hash = address.setup(stored.id)
    }
    text = ''
    found = null
  }

  /** The text in runs, each with whether it was understood, is asked about, or was not read. */
  const runs = $derived.by(() => {
    if (!found) return []
    const spans = [
      ...found.pieces.map((one) => ({ start: one.start, end: one.end, kind: 'said' as const })),
      ...found.questions.map((one) => ({ start: one.start, end: one.end, kind: 'asked' as const })),
      ...found.unread.map((one) => ({ ...one, kind: 'unread' as const })),
    ].sort((a, b) => a.start - b.start)
    return spans.map((one) => ({ ...one, text: [...text].slice(one.start, one.end).join('') }))
  })
  const saysOf = (start: number) => found?.pieces.find((one) => one.start === start)?.says.join(', ') ?? ''
</script>

<form class="no-print mb-2" onsubmit={take} aria-label="Say the picture">
  <input
    bind:this={field}
    bind:value={text}
    class="input input-sm w-full"
    aria-label="Say the picture in a line"
    aria-describedby={found || wrong ? 'say-found' : undefined}
    placeholder="Say the picture in a line"
    maxlength={LONGEST}
    autocomplete="off"
    spellcheck="false"
    oninput={typed}
    onkeydown={(event) => {
      if (event.key !== 'Escape') return
      text = ''
      found = null
    }}
  />
  {#if found || wrong}
    <div id="say-found" class="mt-1 space-y-1 text-[0.85rem] leading-snug" role="status" data-testid="say">
      {#if wrong}<p class="text-short">{wrong}</p>{/if}
      {#each found?.problems ?? [] as problem, at (at)}<p class="text-short"><bdi>{problem}</bdi></p>{/each}
      <dl class="said">
        {#each runs as run (run.start)}
          {#if run.kind === 'said'}
            <dt class="text-quiet"><bdi>{run.text}</bdi></dt>
            <dd><bdi>{saysOf(run.start)}</bdi></dd>
          {:else if run.kind === 'unread'}
            <dt class="text-short font-semibold"><bdi>{run.text}</bdi></dt>
            <dd class="text-short">not understood</dd>
          {/if}
        {/each}
      </dl>
      {#each found?.questions ?? [] as question (question.start)}
        <p><bdi>{question.sentence}</bdi></p>
        <p class="flex flex-wrap gap-1.5">
          {#each question.options as option, at (at)}
            <button
              type="button"
              class="btn btn-sm h-auto min-h-8 max-w-full py-1 text-left whitespace-normal"
              onclick={() => answer(question.start, at)}><bdi>{option}</bdi></button
            >
          {/each}
        </p>
      {/each}
      <p>
        For <LiveChoice
          label="Where it goes"
          value={into}
          options={[
            ['this', 'this setup'],
            ['new', 'a new setup'],
          ]}
          choose={(value) => {
            into = value
            void read()
          }}
        />
        {#if found?.outcome === 'said' && found.pieces.length}<button class="btn btn-primary btn-sm"
            >Take it</button
          >{/if}
      </p>
    </div>
  {/if}
</form>

<style>
  .said {
    display: grid;
    grid-template-columns: minmax(3.5rem, auto) minmax(0, 1fr);
    column-gap: 0.6rem;
    row-gap: 0.1rem;
  }
  .said dt {
    max-width: 8rem;
    overflow-wrap: anywhere;
  }
</style>
