<script lang="ts">
  import { CircleQuestionMark, Moon, Redo2, Sun, Undo2 } from '@lucide/svelte'
  import { onMount } from 'svelte'
  import { api } from './lib/api/client'
  import { history } from './lib/history.svelte'
  import type { KitKind } from './lib/kitfields'
  import { person } from './lib/person.svelte'
  import { setups } from './lib/setups.svelte'
  import { bench } from './lib/workbench.svelte'
  import Help from './parts/Help.svelte'
  import Conflict from './parts/Conflict.svelte'
  import SetupView from './views/SetupView.svelte'
  import ShelfView from './views/ShelfView.svelte'

  let route = $state(location.hash)
  let help = $state(false)
  let ready = $state(false)

  const shelf = $derived<KitKind | null>(
    route.startsWith('#/shelf')
      ? ((/^#\/shelf\/(modifiers|bodies|filters)/.exec(route)?.[1] as KitKind) ?? 'units')
      : null,
  )
  const wanted = $derived(/^#\/setup\/(\w+)/.exec(route)?.[1] ?? setups.all[0]?.id)

  onMount(async () => {
    bench.onsaved = () => history.later()
    await Promise.all([person.load(), setups.load(), history.look()])
    ready = true
  })

  $effect(() => {
    if (ready && !shelf && wanted && wanted !== bench.id) void bench.open(wanted)
  })

  async function speak(change: Parameters<typeof person.choose>[0]) {
    await bench.settle()
    await person.choose(change)
    history.turned += 1
    await bench.again()
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
      const figure =
        /^[a-z]$/.test(event.key) && document.querySelector<HTMLElement>(`[data-hotkey="${event.key}"]`)
      if (figure) {
        figure.focus()
        event.preventDefault()
      }
    }
  }

  const dark = $derived(
    person.preferences.theme === 'dusk' ||
      (person.preferences.theme === 'system' && matchMedia('(prefers-color-scheme: dark)').matches),
  )
  const states = {
    saved: 'Saved',
    saving: 'Saving …',
    refused: 'Not saved',
    unreachable: 'Not saved: no server',
  }
</script>

<svelte:window
  onhashchange={() => (route = location.hash)}
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
    <a href="#/" aria-current={shelf ? undefined : 'page'} class="nav">Setup</a>
    <a href="#/shelf" aria-current={shelf ? 'page' : undefined} class="nav">Shelf</a>
  </nav>
  <span class="text-quiet text-sm" role="status" data-testid="saving">{states[bench.saving]}</span>
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
      onchange={(e) => speak({ length: e.currentTarget.value as 'm' | 'ft' })}
    >
      <option value="m">metres</option><option value="ft">feet</option>
    </select>
    <select
      class="pick"
      aria-label="Stop steps"
      value={person.preferences.step}
      onchange={(e) => speak({ step: e.currentTarget.value as 'full' | 'half' | 'third' })}
    >
      <option value="third">⅓ stops</option><option value="half">½ stops</option><option value="full"
        >full stops</option
      >
    </select>
    <select
      class="pick"
      aria-label="Power as"
      value={person.preferences.power}
      onchange={(e) => speak({ power: e.currentTarget.value as 'own' | 'fraction' | 'number' | 'ws' })}
    >
      <option value="own">own dial</option><option value="fraction">fractions</option><option value="number"
        >stop numbers</option
      ><option value="ws">Ws</option>
    </select>
    <button
      class="btn btn-sm btn-ghost btn-square"
      aria-label={dark ? 'Light theme' : 'Dim theme'}
      onclick={() => person.choose({ theme: dark ? 'chalk' : 'dusk' })}
      >{#if dark}<Sun size={18} />{:else}<Moon size={18} />{/if}</button
    >
    <button class="btn btn-sm btn-ghost btn-square" aria-label="Keys and help" onclick={() => (help = true)}
      ><CircleQuestionMark size={18} /></button
    >
  </div>
</header>

<main class="px-4 py-4 lg:px-6">
  {#if !ready}
    <p class="text-quiet">Opening …</p>
  {:else if shelf}
    <ShelfView {shelf} />
  {:else if bench.missing || !wanted}
    <h1 class="font-prose text-2xl">There is no setup here yet.</h1>
    <button
      class="btn mt-4"
      onclick={async () => {
        const { data } = await api.POST('/api/setups', { body: { name: 'First setup' } as never })
        if (data) {
          await setups.load()
          bench.missing = false
          location.hash = `#/setup/${data.id}`
        }
      }}>Begin one</button
    >
  {:else if bench.doc}
    <SetupView />
  {/if}
</main>

<div role="status" class="pointer-events-none fixed bottom-4 left-1/2 z-30 -translate-x-1/2">
  {#if history.said}<p class="bg-primary text-primary-content rounded-lg px-4 py-2 text-sm shadow-lg">
      {history.said}
    </p>{/if}
</div>

{#if help}<Help close={() => (help = false)} />{/if}
{#if bench.conflict}<Conflict />{/if}

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
