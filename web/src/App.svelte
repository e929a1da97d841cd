<script lang="ts">
  import CircleQuestionMark from '@lucide/svelte/icons/circle-question-mark'
  import Redo2 from '@lucide/svelte/icons/redo-2'
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import { onMount } from 'svelte'
  import type { Preferences } from './lib/api/client'
  import { bench } from './lib/bench.svelte'
  import { history } from './lib/history.svelte'
  import { press } from './lib/hotkeys'
  import { job } from './lib/job.svelte'
  import { sessionOf } from './lib/documents'
  import { keep } from './lib/keep.svelte'
  import { log } from './lib/log.svelte'
  import { outbox } from './lib/outbox.svelte'
  import { person } from './lib/person.svelte'
  import { setups } from './lib/setups.svelte'
  import Conflict from './parts/Conflict.svelte'
  import Help from './parts/Help.svelte'
  import NotSaved from './parts/NotSaved.svelte'
  import Failed from './parts/Failed.svelte'
  import { waiting } from './lib/waiting.svelte'
  import SaveState from './parts/SaveState.svelte'
  import Settings from './parts/Settings.svelte'
  import { address } from './lib/addresses'
  import { ROUTES, routeOf, type Route, type View } from './routes'

  const OTHERS_MS = 1500
  let hash = $state(location.hash)
  let help = $state(false)
  let settings = $state(false)
  let ready = $state(false)
  /** The view that stands here: the one asked for, or until that is loaded the one before it. */
  let here = $state.raw<{ route: Route; view: View; props: object } | null>(null)
  let missing = $state('')

  const shown = $derived(routeOf(hash))
  /** What is not saved stays in sight, however far one scrolls. */
  const troubled = $derived(outbox.state === 'waiting' || outbox.state === 'aside')
  const inHand = $derived(bench.session?.id ?? setups.all[0]?.id)

  const views = $derived<[string, string][]>([
    ['Job', address.job(job.id)],
    ['Setup', inHand ? address.setup(inHand) : '#/'],
    ['Day', address.day(job.id)],
    ['Kit', address.kit(job.id)],
    ['Log', address.log(job.id)],
    ['Shelf', address.shelf()],
  ])

  onMount(async () => {
    log.start()
    void outbox.start(sessionOf)
    person.onchosen = async () => {
      history.turned += 1
      await bench.refresh()
    }
    bench.onsaved = () => history.later()
    bench.ontrouble = (sentence) => history.tell(sentence)
    const [known] = await Promise.all([person.load(), setups.load(), history.look()])
    ready = known
    if (!job.doc) void job.open()
  })

  /** Load the view that the address asks for; the others follow, so that they are there without a network too. */
  async function enter({ route, props }: typeof shown) {
    try {
      const { default: view } = await route.view()
      if (shown.route === route) [here, missing] = [{ route, view, props }, '']
    } catch {
      missing = `${route.name} cannot be loaded: the server does not answer.`
    }
  }
  $effect(() => void enter(shown))
  onMount(
    () => void setTimeout(() => ROUTES.forEach((route) => void route.view().catch(() => {})), OTHERS_MS),
  )

  const choose = (change: Partial<Preferences>) => person.choose(change)

  function keys(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    if (target.closest('input, textarea, dialog') || (target.matches('select') && event.key.length === 1))
      return
    const command = event.ctrlKey || event.metaKey
    if (command && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      void history.turn(event.shiftKey ? 'redo' : 'undo')
    } else if (command && event.key.toLowerCase() === 'y') {
      event.preventDefault()
      void history.turn('redo')
    } else if (!command && !event.altKey) {
      if (event.key === '?') help = true
      else if (press(event.key)) event.preventDefault()
    }
  }
</script>

<svelte:window
  onhashchange={() => (hash = location.hash)}
  onkeydown={keys}
  onbeforeunload={(event) => outbox.state !== 'saved' && event.preventDefault()}
/>

<header
  class={`no-print bg-flag flex flex-nowrap items-center gap-x-4 px-3 text-white max-sm:flex-wrap max-sm:gap-x-0 max-sm:px-1 lg:px-5 ${troubled ? 'sticky top-0 z-20' : ''}`}
>
  <a href="#/" class="flex items-center gap-2 py-2 text-lg font-bold whitespace-nowrap max-sm:hidden">
    <img src="/icon.svg" alt="" width="24" height="24" />Jump Stop
  </a>
  <nav aria-label="Views" class="flex gap-4 self-stretch text-[0.95rem] max-sm:gap-0 max-sm:text-[0.9rem]">
    {#each views as [name, href] (name)}
      <a {href} aria-current={shown.route.name === name ? 'page' : undefined} class="nav">{name}</a>
    {/each}
  </nav>
  {#if job.doc}
    <a class="job-name truncate" href={address.job(job.id)} title="The job in hand"
      ><bdi>{job.doc.name}</bdi></a
    >
  {/if}
  <SaveState />
  {#if ready}
    <div class="flex items-center max-sm:ml-auto">
      <button
        class="tool"
        aria-label="Undo"
        title={history.undo ? `Undo: ${history.undo}` : 'Nothing to undo'}
        aria-disabled={!history.undo}
        onclick={() => history.turn('undo')}><Undo2 size={18} /></button
      >
      <button
        class={`tool ${history.redo ? '' : 'desk-only'}`}
        aria-label="Redo"
        title={history.redo ? `Redo: ${history.redo}` : 'Nothing to redo'}
        aria-disabled={!history.redo}
        onclick={() => history.turn('redo')}><Redo2 size={18} /></button
      >
      <button
        class="tool"
        aria-label="Settings"
        title="Metres or feet, steps, dial, theme"
        onclick={() => (settings = true)}><SlidersHorizontal size={18} /></button
      >
      <button
        class="tool desk-only"
        aria-label="Keys and help"
        title="Keys and help"
        onclick={() => (help = true)}><CircleQuestionMark size={18} /></button
      >
    </div>
  {/if}
</header>

{#if waiting.long}<div class="working no-print" role="progressbar" aria-label="Working it out"></div>{/if}
<main class="p-2 lg:p-3" data-view={here?.route.name}>
  {#if !keep.works}
    <p role="alert" class="sheet text-short no-print mb-2 p-2 font-semibold">
      This browser has no room, or no leave, to keep what you do. Leave this page open until it says “Saved”.
    </p>
  {/if}
  {#if ready}
    {#if missing}<Failed sentence={missing} again={() => enter(shown)} />{/if}
    {#if here}
      {@const props = here.route === shown.route ? shown.props : here.props}
      <here.view {...props} />
    {/if}
  {:else if person.trouble}
    <p role="alert" class="text-short font-semibold">{person.trouble} Reload the page to try again.</p>
  {:else}
    <p class="text-quiet">Opening …</p>
  {/if}
</main>
<NotSaved />

<div
  role={history.refused ? 'alert' : 'status'}
  class="no-print pointer-events-none fixed bottom-[calc(1rem+var(--slips,0px))] left-1/2 z-30 w-max max-w-[92vw] -translate-x-1/2"
>
  {#if history.said}<p
      class={`rounded-lg px-4 py-2 text-sm shadow-lg ${history.refused ? 'bg-base-100 text-short border-short pointer-events-auto border-2 font-semibold' : 'bg-primary text-primary-content'}`}
    >
      <bdi>{history.said}</bdi>
      {#if history.refused}<button
          class="ml-3 cursor-pointer underline underline-offset-4"
          onclick={() => (history.said = '')}>Close</button
        >{/if}
    </p>{/if}
</div>

{#if settings}<Settings {choose} close={() => (settings = false)} />{/if}
{#if help}<Help close={() => (help = false)} />{/if}
<Conflict />

<style>
  .working {
    position: fixed;
    inset: 0 0 auto;
    z-index: 50;
    height: 4px;
    background: linear-gradient(90deg, transparent, var(--color-flag-line, #f2b24a), transparent) 0 0 / 40%
      100% no-repeat;
    animation: along 1.2s linear infinite;
  }
  @keyframes along {
    from {
      background-position: -60% 0;
    }
    to {
      background-position: 160% 0;
    }
  }
  @media (prefers-reduced-motion: reduce) {
    .working {
      background: #f2b24a;
    }
  }
  .nav {
    display: flex;
    align-items: center;
    padding: 0.2rem 0.1rem 0;
    border-bottom: 3px solid transparent;
  }
  .nav[aria-current='page'] {
    font-weight: 700;
    border-color: #f2b24a;
  }
  .job-name {
    max-width: 20rem;
    padding: 0.6rem 0 0.4rem 1rem;
    font-size: 0.86rem;
    border-left: 1px solid rgb(255 255 255 / 0.3);
  }
  .tool {
    display: grid;
    place-items: center;
    width: 2.4rem;
    height: 2.6rem;
    cursor: pointer;
    border-radius: 4px;
  }
  /* A phone has no keys, and little room. */
  @media (max-width: 639px) {
    .tool.desk-only,
    .job-name {
      display: none;
    }
  }
  .tool:hover {
    background: rgb(255 255 255 / 0.14);
  }
  .tool[aria-disabled='true'] {
    opacity: 0.55;
  }
  header :global(:focus-visible) {
    outline-color: #fff;
  }
</style>
