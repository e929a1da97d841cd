<!-- A figure in a sentence that can be nudged by keys, wheel or drag, or typed. -->
<script lang="ts">
  import Minus from '@lucide/svelte/icons/minus'
  import Pin from '@lucide/svelte/icons/pin'
  import Plus from '@lucide/svelte/icons/plus'
  import { onDestroy, onMount } from 'svelte'
  import { likely, unlikely } from '../lib/foresight'
  import { hotkey as register } from '../lib/hotkeys'
  import { Typed, type Meaning, type Reader } from '../lib/quantities.svelte'
  import Told from './Told.svelte'

  type Props = {
    label: string
    text: string
    value: number
    tone?: 'ambient' | 'flash' | 'plain'
    hint?: string
    hotkey?: string
    /** A figure that can be fixed: whether it is, and what turns that over (key x). */
    fixed?: boolean
    fix?: () => void
    step: (by: number) => void
    /** How what is typed here is read, and what is done with it. */
    reads: Reader
  }
  let {
    label,
    text,
    value,
    tone = 'plain',
    hint = '',
    hotkey,
    fixed = false,
    fix,
    step,
    reads,
  }: Props = $props()

  const id = $props.id()
  const typed = new Typed()
  let typing = $state(false)
  let figure = $state<HTMLElement>()
  let input = $state<HTMLInputElement>()
  let box = $state<HTMLElement>()
  let dragged = 0

  const colour = $derived(
    { ambient: 'text-ambient', flash: 'text-flash', plain: 'text-base-content' }[tone] as string,
  )

  const reader = $derived({ ...reads, now: reads.now ?? (Number.isFinite(value) ? value : null) })

  function start(first = '') {
    typed.clear()
    typed.text = first || (typed.waiting ? typed.text : text)
    typing = true
    queueMicrotask(() => {
      input?.focus()
      if (!first) input?.select()
    })
  }

  async function finish() {
    if (!typing || typed.asks) return
    if (typed.text.trim() === text) return leave()
    await take(document.activeElement === input)
  }

  /** Have it read. own: whether the person is in this field, and stays here. */
  async function take(own = false) {
    if (await typed.take(reader, label)) leave(own && typing)
    else if (typed.wrong || typed.asks) {
      typing = true
      if (own || typed.wrong) queueMicrotask(() => input?.focus())
    }
  }

  $effect(() => {
    if (typed.waiting) typing = false // the text stands in the figure's place until the server is back
  })

  function nudge(by: number) {
    if (typed.waiting) typed.forget(label)
    step(by)
    likely(nudges)
  }

  /** What a key would do next. */
  const nudges = [() => step(1), () => step(-1)]
  onDestroy(() => unlikely(nudges))

  /** What was typed before a reload, or while the server was away. */
  onMount(() => {
    typed.text = Typed.kept(label)
    if (!typed.text) return
    typed.waiting = true
    void take()
  })

  function choose(meaning: Meaning) {
    typed.choose(reader, meaning)
    leave()
  }

  function leave(back = true) {
    typing = false
    typed.clear()
    if (back) queueMicrotask(() => figure?.focus())
  }

  /** Leaving the field has it read; not where one of its own buttons is touched. */
  function blur(event: FocusEvent) {
    if (!(event.relatedTarget instanceof Node && box?.contains(event.relatedTarget))) void finish()
  }

  function press(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const by = { ArrowUp: 1, ArrowRight: 1, '+': 1, ArrowDown: -1, ArrowLeft: -1, '-': -1 }[event.key]
    if (by) nudge(by * (event.shiftKey && event.key !== '+' ? 3 : 1))
    else if (event.key === 'Enter' || event.key === ' ') start()
    else if (/^\d$/.test(event.key)) start(event.key)
    else if (event.key === 'x' && fix) fix()
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  function wheel(event: WheelEvent) {
    if (document.activeElement !== figure) return
    event.preventDefault()
    nudge(event.deltaY < 0 ? 1 : -1)
  }

  function drag(event: PointerEvent) {
    if (event.type === 'pointerdown') {
      figure?.setPointerCapture(event.pointerId)
      dragged = 0
    } else if (event.type === 'pointermove' && figure?.hasPointerCapture(event.pointerId)) {
      dragged += event.movementX
      const by = Math.trunc(dragged / 12)
      if (by) nudge(by)
      dragged -= by * 12
    }
  }

  $effect(() => (hotkey ? register(hotkey, label, () => figure?.focus()) : undefined))

  $effect(() => {
    figure?.addEventListener('wheel', wheel, { passive: false })
  })
</script>

{#if typing}
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <span
    bind:this={box}
    class="relative inline-block"
    onkeydown={(event) => {
      if (event.key === 'Escape') leave()
    }}
  >
    <input
      bind:this={input}
      bind:value={typed.text}
      class="border-base-content bg-base-100 w-28 rounded border px-1 text-[0.92em] font-semibold"
      aria-label={label}
      aria-invalid={typed.wrong !== ''}
      aria-describedby={typed.wrong || typed.asks ? id : undefined}
      maxlength="120"
      autocomplete="off"
      onblur={blur}
      oninput={() => typed.clear()}
      onkeydown={(event) => {
        event.stopPropagation()
        if (event.key === 'Enter') void finish()
        if (event.key === 'Escape') leave()
      }}
    />
    <Told {id} {typed} {choose} />
  </span>
{:else}
  <span class="figure">
    <span
      bind:this={figure}
      role="spinbutton"
      tabindex="0"
      aria-label={label}
      aria-valuenow={value}
      aria-valuetext={typed.waiting ? `${typed.text}, not read yet` : fixed ? `${text}, fixed` : text}
      title={`${label}${hint ? ` · ${hint}` : ''} · arrows: a third, with Shift a full stop; Enter to type${fix ? '; x to fix or free' : ''}${hotkey ? ` · key ${hotkey}` : ''}`}
      class={`live ${colour}`}
      class:pinned={fixed}
      data-kind={reads.kind}
      onfocus={() => likely(nudges)}
      onblur={() => unlikely(nudges)}
      onkeydown={press}
      onpointerdown={drag}
      onpointermove={drag}
      ondblclick={() => start()}
      >{#if typed.waiting}<bdi>{typed.text}</bdi>
        <small class="font-normal">not read yet</small>{:else}{text}{/if}</span
    >{#if fix}<button
        type="button"
        class="pin no-print"
        aria-pressed={fixed}
        aria-label={`${label} fixed`}
        title={fixed ? 'Fixed: touch to let it be worked out' : 'Fix it: what is free is worked out'}
        onclick={fix}><Pin size={13} fill={fixed ? 'currentColor' : 'none'} aria-hidden="true" /></button
      >{/if}
    <span class="steps no-print">
      <button
        type="button"
        tabindex="-1"
        aria-label={`less: ${label}`}
        onpointerdown={(event) => event.preventDefault()}
        onclick={() => nudge(-1)}><Minus size={16} /></button
      >
      <button
        type="button"
        tabindex="-1"
        aria-label={`more: ${label}`}
        onpointerdown={(event) => event.preventDefault()}
        onclick={() => nudge(1)}><Plus size={16} /></button
      >
      <button
        type="button"
        tabindex="-1"
        aria-label={`type: ${label}`}
        onpointerdown={(event) => event.preventDefault()}
        onclick={() => start()}>…</button
      >
    </span>
  </span>
{/if}

<style>
  .figure {
    position: relative;
    display: inline-flex;
    align-items: center;
    white-space: nowrap;
  }
  .live {
    font-weight: 700;
    cursor: ew-resize;
    touch-action: pan-y;
    user-select: none;
    white-space: nowrap;
    background: var(--color-base-200);
    border: 1px solid var(--color-base-300);
    padding: 0 0.3em;
    border-radius: 4px;
    line-height: 1.45;
  }
  .live:hover,
  .live:focus-visible {
    background: color-mix(in oklab, currentColor 14%, var(--color-base-100));
  }
  .live.pinned {
    border-color: currentColor;
    box-shadow: inset 0 -2px 0 currentColor;
  }
  .pin {
    display: inline-grid;
    place-items: center;
    width: 1.5rem;
    height: 1.5rem;
    color: var(--color-quiet);
    cursor: pointer;
  }
  .pin[aria-pressed='true'] {
    color: var(--color-base-content);
  }
  .steps {
    position: absolute;
    top: calc(100% + 3px);
    left: 0;
    z-index: 20;
    display: none;
    background: var(--color-base-100);
    border: 1px solid var(--color-base-content);
    border-radius: 6px;
    overflow: hidden;
  }
  .live:focus ~ .steps {
    display: flex;
  }
  .steps button {
    display: grid;
    place-items: center;
    width: 44px;
    height: 44px;
    cursor: pointer;
    font-weight: 700;
  }
  .steps button:hover {
    background: var(--color-base-200);
  }
  @media (pointer: fine) and (min-width: 640px) {
    .steps button {
      width: 30px;
      height: 26px;
    }
  }
  @media (pointer: coarse), (max-width: 639px) {
    .live {
      display: inline-flex;
      align-items: center;
      min-height: var(--touch);
    }
    .pin {
      width: var(--touch);
      height: var(--touch);
    }
  }
  :global(html[data-theme='sun']) .live,
  :global(html[data-theme='sun']) .steps button {
    min-height: 48px;
  }
  :global(html[data-theme='sun']) .live {
    display: inline-flex;
    align-items: center;
  }
  :global(html[data-theme='sun']) .pin {
    width: 48px;
    height: 48px;
  }
</style>
