<script lang="ts">
  import { CircleQuestionMark, Moon, Redo2, Sun, Undo2 } from '@lucide/svelte'
  import { onMount } from 'svelte'
  import type { Preferences } from './lib/api/client'
  import { bench } from './lib/bench.svelte'
  import { history } from './lib/history.svelte'
  import { press } from './lib/hotkeys'
  import { person } from './lib/person.svelte'
  import { setups } from './lib/setups.svelte'
  import Conflict from './parts/Conflict.svelte'
  import Help from './parts/Help.svelte'
  import { address, routeOf } from './routes'

  let hash = $state(location.hash)
  let help = $state(false)
  let ready = $state(false)

  const shown = $derived(routeOf(hash))
  const View = $derived(shown.route.view)
  const inHand = $derived(bench.session?.id ?? setups.all[0]?.id)

  onMount(async () => {
    bench.onsaved = () => history.later()
    bench.ontrouble = (sentence) => history.tell(sentence)
    const [here] = await Promise.all([person.load(), setups.load(), history.look()])
    ready = here
  })

  async function choose(change: Partial<Preferences>) {
    await bench.settle()
    const wrong = await person.choose(change)
    if (wrong) return history.tell(wrong)
    history.turned += 1
    await bench.refresh()
  }

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

  const dark = $derived(
    person.preferences?.theme === 'dusk' ||
      (person.preferences?.theme === 'system' && matchMedia('(prefers-color-scheme: dark)').matches),
  )
  const states = {
    saved: 'Saved',
    saving: 'Saving …',
    refused: 'Not saved',
    unreachable: 'Not saved: no server',
  }
</script>

<svelte:window
  onhashchange={() => (hash = location.hash)}
  onkeydown={keys}
  onbeforeunload={(event) => bench.unsaved && event.preventDefault()}
/>

<header
  class="no-print border-base-300 flex flex-wrap items-center gap-x-5 gap-y-1 border-b px-4 py-2 lg:px-6"
>
  <a href="#/" class="font-prose flex items-center gap-2 text-xl font-semibold">
    <img src="/icon.svg" alt="" width="28" height="28" />Jump Stop
  </a>
  <nav aria-label="Views" class="flex gap-4 text-[0.95rem]">
    <a
      href={inHand ? address.setup(inHand) : '#/'}
      aria-current={shown.route.name === 'Setup' ? 'page' : undefined}
      class="nav">Setup</a
    >
    <a href={address.shelf()} aria-current={shown.route.name === 'Shelf' ? 'page' : undefined} class="nav"
      >Shelf</a
    >
  </nav>
  <span class="text-quiet text-sm" role="status" data-testid="saving"
    >{states[bench.session?.saving ?? 'saved']}</span
  >
  {#if ready}
    <div class="ml-auto flex flex-wrap items-center gap-1.5">
      <button
        class="btn btn-sm btn-ghost btn-square"
        aria-label="Undo"
        title={history.undo ? `Undo: ${history.undo}` : 'Nothing to undo'}
        aria-disabled={!history.undo}
        onclick={() => history.turn('undo')}><Undo2 size={18} /></button
      >
      <button
        class="btn btn-sm btn-ghost btn-square"
        aria-label="Redo"
        title={history.redo ? `Redo: ${history.redo}` : 'Nothing to redo'}
        aria-disabled={!history.redo}
        onclick={() => history.turn('redo')}><Redo2 size={18} /></button
      >
      <select
        class="pick"
        aria-label="Length in"
        value={person.preferences.length}
        onchange={(e) => choose({ length: e.currentTarget.value as Preferences['length'] })}
      >
        <option value="m">metres</option><option value="ft">feet</option>
      </select>
      <select
        class="pick"
        aria-label="Stop steps"
        value={person.preferences.step}
        onchange={(e) => choose({ step: e.currentTarget.value as Preferences['step'] })}
      >
        <option value="third">⅓ stops</option><option value="half">½ stops</option><option value="full"
          >full stops</option
        >
      </select>
      <select
        class="pick"
        aria-label="Power as"
        value={person.preferences.power}
        onchange={(e) => choose({ power: e.currentTarget.value as Preferences['power'] })}
      >
        <option value="own">own dial</option><option value="fraction">fractions</option><option value="number"
          >stop numbers</option
        ><option value="ws">Ws</option>
      </select>
      <button
        class="btn btn-sm btn-ghost btn-square"
        aria-label={dark ? 'Light theme' : 'Dim theme'}
        onclick={() => choose({ theme: dark ? 'chalk' : 'dusk' })}
        >{#if dark}<Sun size={18} />{:else}<Moon size={18} />{/if}</button
      >
      <button class="btn btn-sm btn-ghost btn-square" aria-label="Keys and help" onclick={() => (help = true)}
        ><CircleQuestionMark size={18} /></button
      >
    </div>
  {/if}
</header>

<main class="px-4 py-4 lg:px-6">
  {#if ready}
    <View {...shown.props} />
  {:else if person.trouble}
    <p role="alert" class="text-short font-semibold">{person.trouble} Reload the page to try again.</p>
  {:else}
    <p class="text-quiet">Opening …</p>
  {/if}
</main>

<div
  role={history.refused ? 'alert' : 'status'}
  class="no-print pointer-events-none fixed bottom-4 left-1/2 z-30 w-max max-w-[92vw] -translate-x-1/2"
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

{#if help}<Help close={() => (help = false)} />{/if}
{#if bench.session?.conflict}<Conflict session={bench.session} />{/if}

<style>
  .nav {
    padding: 0.15rem 0;
    border-bottom: 3px solid transparent;
  }
  .nav[aria-current='page'] {
    font-weight: 700;
    border-color: currentColor;
  }
  .pick {
    height: 2rem;
    padding: 0 0.4rem;
    font-size: 0.85rem;
    border: 1px solid var(--color-base-300);
    border-radius: 0.5rem;
    background: var(--color-base-100);
    cursor: pointer;
  }
  @media (max-width: 639px) {
    .pick {
      max-width: 5.1rem;
      padding: 0;
      font-size: 0.78rem;
    }
  }
</style>
