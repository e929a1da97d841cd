<!-- A field for a quantity: what is typed is read by the one grammar; what is asked or refused stands below it. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { Typed, type Meaning, type Reader } from '../lib/quantities.svelte'
  import Told from './Told.svelte'

  type Props = {
    /** How the field is known, for what was typed and not read yet; and how it is named where nothing else does. */
    label: string
    key?: string
    named?: boolean
    id?: string
    value: string
    reads: Reader
    /** What an emptied field means; without it, a field must hold something. */
    empty?: () => void
    placeholder?: string
    class?: string
    invalid?: boolean
  }
  let {
    label,
    key = label,
    named = false,
    id,
    value,
    reads,
    empty,
    placeholder,
    class: look = '',
    invalid = false,
  }: Props = $props()

  const told = $props.id()
  const typed = new Typed()
  let input = $state<HTMLInputElement>()
  /** Whether the field holds what was typed rather than the value. */
  let dirty = $state(false)
  const text = $derived(dirty ? typed.text : value)

  onMount(() => {
    typed.text = Typed.kept(key)
    dirty = typed.text !== ''
    if (dirty) void take()
  })

  async function change() {
    if (typed.text.trim() === '' && empty) {
      clean()
      return empty()
    }
    if (typed.text.trim() === value) return clean()
    await take()
  }

  async function take() {
    if (await typed.take(reads, label, key)) clean()
  }

  function clean() {
    dirty = false
    typed.clear()
    if (input) input.value = value
  }

  function choose(meaning: Meaning) {
    typed.choose(reads, meaning)
    clean()
  }
</script>

<span class="relative block min-w-0 flex-1">
  <input
    bind:this={input}
    {id}
    {placeholder}
    class={look}
    value={text}
    maxlength="120"
    autocomplete="off"
    aria-label={named ? label : undefined}
    aria-invalid={invalid || typed.wrong !== '' || typed.asks !== ''}
    data-unread={typed.wrong || typed.asks || typed.waiting ? true : undefined}
    aria-describedby={typed.wrong || typed.asks ? told : undefined}
    oninput={(event) => {
      typed.clear()
      dirty = true
      typed.text = event.currentTarget.value
    }}
    onchange={change}
    onkeydown={(event) => {
      if (event.key !== 'Escape' || !dirty) return
      event.stopPropagation()
      typed.forget(key)
      clean()
    }}
  />{#if typed.waiting}<small class="text-quiet absolute top-1 right-1">not read yet</small>{/if}
  <Told id={told} {typed} {choose} />
</span>
