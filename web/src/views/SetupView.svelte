<!-- The workbench: the ask on the left; verdict, settings, methods and jump chart beside it; what was seen under them. -->
<script lang="ts">
  import Ask from '../ask/Ask.svelte'
  import JumpChart from '../chart/JumpChart.svelte'
  import { bench } from '../lib/bench.svelte'
  import { untrack } from 'svelte'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { kit } from '../lib/kit.svelte'
  import { setups } from '../lib/setups.svelte'
  import BeginHere from '../parts/BeginHere.svelte'
  import Cures from '../parts/Cures.svelte'
  import Methods from '../parts/Methods.svelte'
  import Need from '../parts/Need.svelte'
  import Say from '../parts/Say.svelte'
  import SettingsLine from '../parts/SettingsLine.svelte'
  import SetupPick from '../parts/SetupPick.svelte'
  import StagePanel from '../stage/StagePanel.svelte'
  import Tools from '../parts/Tools.svelte'
  import Paste from '../shelf/Paste.svelte'
  import TypicalKit from '../shelf/TypicalKit.svelte'
  import { take } from '../lib/takes'
  import { address } from '../lib/addresses'

  let { setup }: { setup?: string } = $props()
  const wanted = $derived(setup ?? setups.all[0]?.id)
  const session = $derived(bench.session)
  let ticking = $state(false)
  let pasting = $state(false)
  /** On a phone one part at a time is on the screen; on a desk all are. */
  type Part = 'answer' | 'ask' | 'units' | 'stage' | 'seen'
  let part = $state<Part>('answer')
  const parts: [Part, string][] = [
    ['answer', 'Answer'],
    ['ask', 'Ask'],
    ['units', 'Units'],
    ['stage', 'Stage'],
    ['seen', 'On set'],
  ]

  $effect(() => {
    void setups.all
    if (wanted && wanted !== bench.wanted) void bench.open(wanted)
  })

  /** What the job says (its day, its wind) counts in the setup's answer. */
  $effect(() => {
    if (job.changed + history.turned) untrack(() => void session?.refresh())
  })

  /** Whether anything is owned yet is asked where there is no setup; one that is open loads the kit itself. */
  $effect(() => {
    if (bench.missing || !wanted) untrack(() => void kit.load())
  })

  function taken(words: string) {
    history.say(words)
    void Promise.all([kit.load(), history.look(), session?.refresh()])
  }

  function show(one: Part) {
    part = one
    scrollTo({ top: 0 })
  }
</script>

{#if bench.missing || !wanted}
  <div class="sheet p-6">
    <h1 class="mb-1 text-2xl font-bold">Where is your picture?</h1>
    <p class="text-quiet mb-4">
      One touch begins a setup, and says what it needs; every figure can be changed.
    </p>
    <BeginHere />
    {#if !kit.units.length}<p class="mt-5 text-[0.95rem]">
        Or first <button type="button" class="link-button" onclick={() => (ticking = true)}
          >tick what you own</button
        > from a list of usual kit.
      </p>{/if}
  </div>
{:else if session}
  <h1 class="sr-only"><bdi>{session.doc.name}</bdi></h1>
  <div class="workbench" data-part={part}>
    <div class="sheet ask-column p-3">
      <SetupPick {session} />
      <div data-of="ask">
        {#key session}<Say {session} /><Ask {session} />{/key}
      </div>
    </div>
    <div class="sheet main-column min-w-0 space-y-2 p-3">
      {#if session.trouble}
        <div role="alert" class="border-short rounded border p-4">
          <p class="text-short font-semibold"><bdi>{session.trouble}</bdi></p>
          <a href={address.shelf()} class="mt-2 inline-block underline underline-offset-4">Go to the shelf</a>
        </div>
      {:else if session.answer}
        {@const answer = session.answer}
        {#key session}
          <div data-of="answer" class="space-y-1.5">
            <p class="text-[1.22rem] leading-tight font-bold" data-testid="headline" role="status">
              <bdi>{answer.verdict}</bdi>
            </p>
            {#if answer.also.length}
              <p class="text-short text-[0.9rem] leading-snug font-semibold" data-testid="also">
                Also: {answer.also.join(' ')}
              </p>
            {/if}
            <SettingsLine {session} {answer} />
            {#if answer.picture}<p class="text-[0.93rem] leading-snug" data-testid="picture">
                {answer.picture}, {answer.balance}
              </p>{/if}
            {#if answer.from_kit}
              <p class="text-[0.9rem] leading-snug" data-testid="from-kit">
                <bdi>{answer.from_kit.says}</bdi>
                {#if answer.from_kit.unit}<button
                    type="button"
                    class="link-button no-print"
                    onclick={() => void take(session!, answer.from_kit!.unit)}>take it here</button
                  >{/if}
              </p>
            {/if}
            {#if answer.cures}<Cures {session} />{/if}
            <Need {session} typical={answer.typical} />
            {#if answer.typical}
              <p class="bg-base-200 flex flex-wrap items-center gap-x-3 gap-y-1 rounded p-2 text-[0.9rem]">
                <span class="min-w-0 flex-1 basis-72"
                  >There is no unit on your shelf yet. Below are typical classes, pale: see which of them
                  would do.</span
                >
                <button type="button" class="btn btn-sm btn-primary" onclick={() => (ticking = true)}
                  >Tick what you own</button
                >
                <button type="button" class="btn btn-sm" onclick={() => (pasting = true)}
                  >Paste a specification</button
                >
              </p>
            {/if}
            {#if answer.note}<p class="text-short text-[0.9rem] leading-snug font-semibold">
                {answer.note}
              </p>{/if}
          </div>
          <div data-of="answer"><Methods {session} {answer} /></div>
          {#if answer.lanes}
            <div data-of="units"><JumpChart {session} {answer} lanes={answer.lanes} /></div>
          {/if}
          {#if answer.lanes}<div data-of="seen"><Tools {session} {answer} /></div>{/if}
        {/key}
      {/if}
    </div>
    {#if session.answer?.stage && !session.trouble}
      <div class="sheet stage-column min-w-0 space-y-2.5 p-3" data-of="stage">
        {#key session}<StagePanel {session} stage={session.answer.stage} />{/key}
      </div>
    {/if}
  </div>
  {#if pasting}<Paste close={() => (pasting = false)} done={taken} />{/if}
  <nav class="parts no-print" aria-label="Parts of the setup">
    {#each parts as [key, words] (key)}
      <button type="button" aria-current={part === key ? 'true' : undefined} onclick={() => show(key)}
        >{words}</button
      >
    {/each}
  </nav>
{/if}

{#if ticking}<TypicalKit close={() => (ticking = false)} done={() => void session?.refresh()} />{/if}

<style>
  .workbench {
    display: grid;
    gap: 0.75rem;
    grid-template-columns: minmax(0, 1fr);
  }
  /* Layers of their own: what changes in one is not painted with the others. */
  .ask-column,
  .stage-column {
    will-change: transform;
  }
  .parts {
    display: none;
  }
  @media (min-width: 900px) {
    .workbench {
      grid-template-columns: 18.5rem minmax(0, 1fr);
      align-items: start;
    }
    .stage-column {
      grid-column: 1 / -1;
      display: grid;
      gap: 1rem;
      grid-template-columns: repeat(3, minmax(0, 1fr));
    }
  }
  @media (min-width: 1180px) {
    .workbench {
      gap: 0.5rem;
      grid-template-columns: 16.2rem minmax(0, 1fr) 15.8rem;
    }
    .stage-column {
      grid-column: auto;
      display: block;
    }
  }
  @media (max-width: 899px) {
    .main-column {
      order: -1;
    }
  }
  @media (max-width: 639px) {
    .workbench {
      gap: 0.4rem;
      padding-bottom: 4.2rem;
    }
    .ask-column {
      order: -2;
    }
    .workbench[data-part='answer'] [data-of]:not([data-of='answer']),
    .workbench[data-part='ask'] [data-of]:not([data-of='ask']),
    .workbench[data-part='units'] [data-of]:not([data-of='units']),
    .workbench[data-part='stage'] [data-of]:not([data-of='stage']),
    .workbench[data-part='seen'] [data-of]:not([data-of='seen']) {
      display: none;
    }
    .workbench[data-part='ask'] .main-column,
    .workbench[data-part='stage'] .main-column {
      display: none;
    }
    .parts {
      position: fixed;
      inset: auto 0 0;
      z-index: 25;
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      background: var(--color-flag);
      color: #fff;
    }
    .parts button {
      min-height: 3.5rem;
      border-top: 3px solid transparent;
      cursor: pointer;
    }
    .parts button[aria-current='true'] {
      border-color: #f2b24a;
      font-weight: 700;
    }
  }
</style>
