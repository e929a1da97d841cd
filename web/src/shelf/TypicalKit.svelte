<!-- Typical kit, to tick: what people commonly own, by class; what is ticked comes onto the shelf as one edit. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { api, sentenceOf, type Tick, type TypicalSection } from '../lib/api/client'
  import { address } from '../lib/addresses'
  import { bench } from '../lib/bench.svelte'
  import { count } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { kit } from '../lib/kit.svelte'
  import { setups } from '../lib/setups.svelte'
  import Dialog from '../parts/Dialog.svelte'

  let { close, done }: { close: () => void; done?: () => void } = $props()
  type Cells = NonNullable<Tick['cells']>
  let sections = $state.raw<TypicalSection[]>([])
  let find = $state('')
  let wrong = $state('')
  let busy = $state(false)
  let where = $state<'sun' | 'shade' | 'indoors' | 'dark'>('sun')
  let ticks = $state<Record<string, { count: number; cells: Cells; firing: string }>>({})
  const first = $derived(!setups.all.length)
  const WHERE = [
    ['sun', 'outdoors, in the sun'],
    ['shade', 'outdoors, in the shade'],
    ['indoors', 'indoors, lamps and windows'],
    ['dark', 'in the dark'],
  ] as const
  const CELLS = [
    ['nimh', 'NiMH cells'],
    ['alkaline', 'alkaline cells'],
  ] as const

  onMount(async () => {
    const { data, error } = await api.GET('/api/typical')
    if (data) sections = data
    else wrong = sentenceOf(error)
  })

  const key = (kind: string, entry: { key: string }) => `${kind}/${entry.key}`
  const shown = (section: TypicalSection) =>
    section.entries.filter((one) => one.name.toLowerCase().includes(find.trim().toLowerCase()))
  const pieces = $derived(Object.values(ticks).reduce((sum, one) => sum + one.count, 0))
  const ticked = (section: TypicalSection) =>
    section.entries.filter((one) => ticks[key(section.kind, one)]).length

  function toggle(at: string, on: boolean) {
    if (on) ticks[at] = { count: 1, cells: 'nimh', firing: '' }
    else delete ticks[at]
  }

  async function take() {
    busy = true
    const body = {
      ticks: Object.entries(ticks).map(([at, one]) => {
        const [kind, name] = at.split('/') as [string, string]
        return {
          kind,
          key: name,
          count: one.count,
          cells: kind === 'units' ? one.cells : null,
          firing: one.firing,
        }
      }),
      where: first ? where : null,
    }
    const made = await history.done(
      api.POST('/api/typical/take', { body }),
      (one) =>
        `${count(one.added)} ${one.added === 1 ? 'piece' : 'pieces'} of kit added. Undo takes them back.`,
    )
    busy = false
    if (!made) return
    close()
    history.turned += 1
    await Promise.all([kit.load(), setups.load(), bench.refresh()])
    done?.()
    if (made.setup) {
      bench.missing = false
      location.hash = address.setup(made.setup)
    }
  }
</script>

<Dialog title="Tick what you own" {close} wide>
  <p class="mb-3 text-[0.92rem]">
    Typical figures of each class, with what they may be off by; they are marked typical until you put better
    ones in their place.
  </p>
  {#if wrong}<p role="alert" class="text-short font-semibold">{wrong}</p>{/if}
  <input
    class="input mb-3 w-full"
    type="search"
    placeholder="Find a class of kit"
    aria-label="Find a class of kit"
    bind:value={find}
  />
  {#each sections as section, at (section.kind)}
    {@const entries = shown(section)}
    {#if entries.length}
      <details class="border-base-300 border-t" open={at === 0 || find.trim() !== ''}>
        <summary class="flex min-h-11 cursor-pointer items-center gap-2 font-semibold"
          >{section.title}<span class="text-quiet text-sm font-normal"
            >{ticked(section) ? `${ticked(section)} ticked` : ''}</span
          ></summary
        >
        <ul class="pb-2">
          {#each entries as entry (entry.key)}
            {@const place = key(section.kind, entry)}
            {@const tick = ticks[place]}
            <li class="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
              <label class="flex min-h-11 min-w-0 flex-1 basis-72 items-center gap-3">
                <input
                  type="checkbox"
                  class="checkbox"
                  checked={Boolean(tick)}
                  onchange={(event) => toggle(place, event.currentTarget.checked)}
                />
                <span class="min-w-0"
                  ><span class="block font-medium">{entry.name}</span><span
                    class="text-quiet block text-[0.8rem] leading-snug"
                    >{[entry.line, entry.spread].filter(Boolean).join(', ')}</span
                  ></span
                >
              </label>
              {#if tick}
                <label class="flex items-center gap-2 text-[0.86rem]"
                  >how many
                  <input
                    class="input input-sm w-16"
                    type="number"
                    min="1"
                    max="20"
                    aria-label={`How many: ${entry.name}`}
                    bind:value={tick.count}
                  /></label
                >
                {#if entry.cells}
                  <select
                    class="select select-sm w-auto"
                    aria-label={`Cells: ${entry.name}`}
                    bind:value={tick.cells}
                  >
                    {#each CELLS as [value, words] (value)}<option {value}>{words}</option>{/each}
                  </select>
                {/if}
                {#if entry.firing.length}
                  <select
                    class="select select-sm w-auto max-w-full"
                    aria-label={`Fired by: ${entry.name}`}
                    bind:value={tick.firing}
                  >
                    <option value="">fired by the shoe, or by what I own</option>
                    {#each entry.firing as one (one.key)}<option value={one.key}>fired by {one.title}</option
                      >{/each}
                  </select>
                {/if}
              {/if}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
  {/each}
  <div class="bg-base-100 border-base-300 sticky -bottom-6 flex flex-wrap items-center gap-3 border-t py-3">
    <button type="button" class="btn btn-primary" disabled={!pieces || busy} onclick={take}
      >{pieces ? `Put ${count(pieces)} on my shelf` : 'Put on my shelf'}</button
    >
    <button type="button" class="btn" onclick={close}>Cancel</button>
    {#if first}
      <label class="ml-auto flex items-center gap-2 text-[0.88rem]"
        >First picture
        <select class="select select-sm w-auto" bind:value={where}>
          {#each WHERE as [value, words] (value)}<option {value}>{words}</option>{/each}
        </select></label
      >
    {/if}
  </div>
</Dialog>
