<!-- A figure in a sentence that can be nudged by keys, wheel or drag, or typed. -->
<script lang="ts">
  import { hotkey as register } from '../lib/hotkeys'

  type Props = {
    label: string
    text: string
    value: number
    tone?: 'ambient' | 'flash' | 'plain'
    hint?: string
    hotkey?: string
    step: (by: number) => void
    type: (text: string) => string | null
  }
  let { label, text, value, tone = 'plain', hint = '', hotkey, step, type }: Props = $props()

  const id = $props.id()
  let typing = $state(false)
  let typed = $state('')
  let wrong = $state('')
  let figure = $state<HTMLElement>()
  let input = $state<HTMLInputElement>()
  let dragged = 0

  const colour = $derived(
    { ambient: 'text-ambient', flash: 'text-flash', plain: 'text-base-content' }[tone] as string,
  )

  function start(first = '') {
    typed = first || text
    wrong = ''
    typing = true
    queueMicrotask(() => {
      input?.focus()
      if (!first) input?.select()
    })
  }

  function finish() {
    if (!typing) return
    wrong = typed.trim() === text ? '' : (type(typed) ?? '')
    if (wrong) return void input?.focus()
    leave()
  }

  function leave() {
    typing = false
    wrong = ''
    queueMicrotask(() => figure?.focus())
  }

  function press(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    const by = { ArrowUp: 1, ArrowRight: 1, '+': 1, ArrowDown: -1, ArrowLeft: -1, '-': -1 }[event.key]
    if (by) step(by * (event.shiftKey && event.key !== '+' ? 3 : 1))
    else if (event.key === 'Enter' || event.key === ' ') start()
    else if (/^\d$/.test(event.key)) start(event.key)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  function wheel(event: WheelEvent) {
    if (document.activeElement !== figure) return
    event.preventDefault()
    step(event.deltaY < 0 ? 1 : -1)
  }

  function drag(event: PointerEvent) {
    if (event.type === 'pointerdown') {
      figure?.setPointerCapture(event.pointerId)
      dragged = 0
    } else if (event.type === 'pointermove' && figure?.hasPointerCapture(event.pointerId)) {
      dragged += event.movementX
      const by = Math.trunc(dragged / 12)
      if (by) step(by)
      dragged -= by * 12
    }
  }

  $effect(() => (hotkey ? register(hotkey, label, () => figure?.focus()) : undefined))

  $effect(() => {
    figure?.addEventListener('wheel', wheel, { passive: false })
  })
</script>

{#if typing}
  <span class="relative inline-block font-sans">
    <input
      bind:this={input}
      bind:value={typed}
      class="border-base-content bg-base-100 w-24 rounded border px-1 text-[0.92em] font-semibold"
      aria-label={label}
      aria-invalid={wrong !== ''}
      aria-describedby={wrong ? id : undefined}
      onblur={finish}
      onkeydown={(event) => {
        event.stopPropagation()
        if (event.key === 'Enter') finish()
        if (event.key === 'Escape') leave()
      }}
    />
    {#if wrong}
      <span
        {id}
        role="alert"
        class="border-short bg-base-100 text-short absolute top-full left-0 z-20 mt-1 w-64 rounded-lg border p-2 text-sm leading-snug shadow-lg"
      >
        {wrong}
      </span>
    {/if}
  </span>
{:else}
  <span
    bind:this={figure}
    role="spinbutton"
    tabindex="0"
    aria-label={label}
    aria-valuenow={value}
    aria-valuetext={text}
    title={`${label}${hint ? ` · ${hint}` : ''} · arrows nudge a third, with Shift a full stop; Enter to type${hotkey ? ` · key ${hotkey}` : ''}`}
    class={`live ${colour}`}
    onkeydown={press}
    onpointerdown={drag}
    onpointermove={drag}
    ondblclick={() => start()}>{text}</span
  >
{/if}

<style>
  .live {
    font-family: var(--font-sans);
    font-size: 0.92em;
    font-weight: 650;
    cursor: ew-resize;
    touch-action: pan-y;
    user-select: none;
    white-space: nowrap;
    border-bottom: 2px dotted currentColor;
    padding: 0.1em 0.12em;
    border-radius: 4px 4px 0 0;
  }
  .live:hover,
  .live:focus-visible {
    background: color-mix(in oklab, currentColor 12%, transparent);
  }
</style>
