<!-- Paste what the maker prints: each field beside its line, to accept or leave; nothing is kept before that. -->
<script lang="ts">
  import { api, sentenceOf, type SpecChoice, type SpecUnit } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { newest } from '../lib/question.svelte'
  import Dialog from '../parts/Dialog.svelte'

  let {
    close,
    done,
    begin = '',
  }: { close: () => void; done: (words: string) => void; begin?: string } = $props()
  const PAUSE_MS = 250
  const LONGEST = 60000
  // svelte-ignore state_referenced_locally
  let text = $state(begin)
  let found = $state.raw<SpecUnit[]>([])
  let wrong = $state('')
  let busy = $state(false)
  /** What was decided of each field, by unit and row. */
  let decided = $state<Record<string, SpecChoice>>({})
  let names = $state<string[]>([])
  let soon: ReturnType<typeof setTimeout> | undefined
  const good = $derived(found.filter((one) => one.doc))

  $effect(() => {
    void text
    void JSON.stringify(decided)
    void names.join('\n')
    clearTimeout(soon)
    soon = setTimeout(() => void read(), PAUSE_MS)
    return () => clearTimeout(soon)
  })

  async function read(): Promise<void> {
    if (!text.trim()) {
      found = []
      return
    }
    const body = { text, choices: Object.values(decided), names: names.map((one) => one ?? '') }
    const answer = await newest('spec', () => api.POST('/api/shelf/spec', { body }))
    if (!answer) return
    found = answer.data ?? []
    wrong = answer.data ? '' : sentenceOf(answer.error)
  }

  function decide(unit: number, row: number, change: Partial<SpecChoice>): void {
    const at = `${unit}/${row}`
    decided[at] = { unit, row, choice: null, left: false, ...decided[at], ...change }
  }

  function pasted(): void {
    decided = {}
    names = []
  }

  async function add(): Promise<void> {
    busy = true
    for (const one of good) {
      const made = await history.done(
        api.POST('/api/units', { body: one.doc as never }),
        (unit) => `Added ${unit.doc.name}`,
      )
      if (!made) {
        busy = false
        return
      }
    }
    busy = false
    close()
    done(good.length === 1 ? `Added ${String(good[0]!.doc!.name)}` : `${good.length} units added`)
  }
</script>

<Dialog title="Paste a specification" {close} broad>
  <div class="grid gap-4 md:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
    <label class="block text-[0.9rem]"
      >What the maker prints: lines, two columns, or a table of several units
      <textarea
        class="input mt-1 h-72 w-full py-2 leading-snug whitespace-pre-wrap"
        maxlength={LONGEST}
        spellcheck="false"
        bind:value={text}
        oninput={pasted}
        placeholder={'Guide number: 58 m (ISO 100, 105 mm)\nRecycle time: 0.1 - 2.6 s'}></textarea>
    </label>
    <div class="min-w-0" aria-live="polite">
      {#if wrong}<p role="alert" class="text-short font-semibold">{wrong}</p>{/if}
      {#if !text.trim()}<p class="text-quiet text-[0.9rem]">
          In English, German, French, Spanish or Italian. What is understood stands here, each beside its
          line.
        </p>{:else if !found.some((one) => one.rows.length)}<p class="text-[0.9rem]">
          Nothing in it is understood yet.
        </p>{/if}
      {#each found as one, unit (unit)}
        <section class="border-base-300 mb-3 border-b pb-3">
          <label class="mb-2 flex items-center gap-2 font-semibold"
            >Name
            <input
              class="input input-sm min-w-0 flex-1"
              maxlength="80"
              value={names[unit] ?? (one.doc ? String(one.doc.name) : '')}
              oninput={(event) => (names[unit] = event.currentTarget.value)}
            /></label
          >
          {#if one.comes_to}<p class="mb-1 text-[0.9rem]" data-testid="spec-comes-to">
              Comes to <bdi class="text-flash font-semibold">{one.comes_to}</bdi>
            </p>{/if}
          {#each one.judged as line, at (at)}<p
              class="bg-base-200 mb-1 rounded px-2 py-1 text-[0.88rem]"
              data-testid="judged"
            >
              <bdi>{line}</bdi>
            </p>{/each}
          {#each one.wants as line, at (at)}<p class="text-short mb-1 text-[0.88rem] font-semibold">
              <bdi>{line}</bdi>
            </p>{/each}
          <ul class="text-[0.86rem]">
            {#each one.rows as row, at (at)}
              <li class="border-base-300 border-t py-1">
                <label class="flex min-h-8 items-start gap-2">
                  <input
                    type="checkbox"
                    class="checkbox checkbox-sm mt-0.5"
                    aria-label={`Take ${row.name}`}
                    checked={!row.left}
                    onchange={(event) => decide(unit, at, { left: !event.currentTarget.checked })}
                  />
                  <span class="min-w-0 flex-1"
                    ><span class="font-semibold">{row.name}:</span>
                    <bdi>{row.says}</bdi>
                    <span class="text-quiet block leading-snug">line {row.line}: <bdi>{row.text}</bdi></span
                    ></span
                  >
                </label>
                {#if row.choices.length && !row.left}
                  <p class="flex flex-wrap gap-2 py-1 pl-7">
                    {#each row.choices as choice, which (which)}<button
                        type="button"
                        class={`btn btn-sm ${row.chosen === which ? 'btn-primary' : ''}`}
                        aria-pressed={row.chosen === which}
                        onclick={() => decide(unit, at, { choice: which })}><bdi>{choice}</bdi></button
                      >{/each}
                  </p>
                {/if}
              </li>
            {/each}
          </ul>
          {#if one.unread.length}
            <details class="mt-1 text-[0.84rem]">
              <summary class="cursor-pointer"
                >{one.unread.length === 1
                  ? '1 line not understood'
                  : `${one.unread.length} lines not understood`}</summary
              >
              <ul class="text-quiet">
                {#each one.unread as line, at (at)}<li><bdi>{line}</bdi></li>{/each}
              </ul>
            </details>
          {/if}
        </section>
      {/each}
    </div>
  </div>
  <div class="mt-3 flex gap-2">
    <button type="button" class="btn btn-primary" disabled={!good.length || busy} onclick={add}
      >{good.length > 1 ? `Add ${good.length} units` : 'Add this unit'}</button
    >
    <button type="button" class="btn" onclick={close}>Cancel</button>
  </div>
</Dialog>
