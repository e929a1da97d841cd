<!-- The sessions: which setup when, for how many people; ordered, added, copied, taken away. -->
<script lang="ts">
  import { person } from '../lib/person.svelte'
  import ArrowDown from '@lucide/svelte/icons/arrow-down'
  import ArrowUp from '@lucide/svelte/icons/arrow-up'
  import Copy from '@lucide/svelte/icons/copy'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { rangeOf, sayClock } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { quantity, type Kind } from '../lib/quantities.svelte'
  import type { Known } from '../lib/setups.svelte'
  import { freshId } from '../lib/stamp'
  import { address } from '../lib/addresses'
  import Quantity from '../parts/Quantity.svelte'
  import Heading from '../parts/Heading.svelte'

  let { setups }: { setups: Known[] } = $props()
  const doc = $derived(job.doc!)
  const name = (id: string) => setups.find((one) => one.id === id)?.name ?? 'a setup that is gone'
  const variants = (id: string) => setups.find((one) => one.id === id)?.variants ?? []
  type Session = (typeof doc.sessions)[number]
  /** A job of several days asks each session for its own. */
  let dating = $state(false)
  const dated = $derived(doc.sessions.some((one) => one.day))

  const change = (at: number, label: string, edit: (session: Session) => void) =>
    job.edit(label, (one) => edit(one.sessions[at]!))

  type Figure = 'people' | 'change_min' | 'minutes_each'
  const set = (at: number, key: Figure, value: number | null) =>
    void change(at, 'Session', (one) => ((one as Record<string, unknown>)[key] = value))
  const number = (at: number, key: Figure, kind: Kind, label: string) =>
    quantity(kind, label, person.bounds('Session', key), (value) => set(at, key, value))
  const frames = (at: number) =>
    quantity('range', 'Frames each', person.bounds('Session', 'frames_each'), (value, most) =>
      change(at, 'Session', (one) => {
        one.frames_each = value
        one.frames_each_most = most
      }),
    )
  const start = (at: number) =>
    quantity('clock', 'Begins', [0, 1439], (minutes) =>
      change(at, 'Begins', (one) => (one.start = sayClock(minutes))),
    )

  const move = (at: number, by: number) =>
    job.edit('Order of the sessions', (one) => {
      const [session] = one.sessions.splice(at, 1)
      one.sessions.splice(at + by, 0, session!)
    })
  const add = (setup: string) =>
    setup &&
    job.edit('Session added', (one) =>
      one.sessions.push({
        ...person.scales.blank.session,
        id: freshId(),
        setup,
        people: one.brief.people ?? person.scales.blank.session.people,
        frames_each: one.brief.frames_each ?? person.scales.blank.session.frames_each,
      }),
    )
</script>

<section aria-labelledby="sessions-title">
  <Heading id="sessions-title" word="session">Sessions</Heading>
  <ol class="space-y-2">
    {#each doc.sessions as session, at (session.id)}
      <li class="border-base-300 border-t pt-1 text-[0.84rem]">
        <div class="flex items-center gap-1">
          <a class="link-button min-w-0 flex-1 font-semibold" href={address.setup(session.setup)}
            ><bdi>{name(session.setup)}</bdi></a
          >
          <button
            type="button"
            class="btn btn-xs btn-ghost btn-square"
            aria-label={`Session ${at + 1} earlier`}
            disabled={at === 0}
            onclick={() => move(at, -1)}><ArrowUp size={14} /></button
          >
          <button
            type="button"
            class="btn btn-xs btn-ghost btn-square"
            aria-label={`Session ${at + 1} later`}
            disabled={at === doc.sessions.length - 1}
            onclick={() => move(at, 1)}><ArrowDown size={14} /></button
          >
          <button
            type="button"
            class="btn btn-xs btn-ghost btn-square"
            aria-label={`Copy session ${at + 1}`}
            onclick={() =>
              job.edit('Session copied', (one) =>
                one.sessions.splice(at, 0, { ...structuredClone(session), id: freshId() }),
              )}><Copy size={14} /></button
          >
          <button
            type="button"
            class="btn btn-xs btn-ghost btn-square"
            aria-label={`Take session ${at + 1} away`}
            onclick={() => job.edit('Session taken away', (one) => one.sessions.splice(at, 1))}
            ><Trash2 size={14} /></button
          >
        </div>
        <div class="text-quiet flex flex-wrap items-center gap-x-1 gap-y-1">
          {#if variants(session.setup).length}
            <select
              class="select select-xs w-auto"
              aria-label={`Variant, session ${at + 1}`}
              value={session.variant}
              onchange={(event) => change(at, 'Variant', (one) => (one.variant = event.currentTarget.value))}
            >
              <option value="">as it stands</option>
              {#each variants(session.setup) as one (one)}<option value={one}>{one}</option>{/each}
            </select>
          {/if}
          {#if dated || dating}
            <input
              type="date"
              class={`input input-xs w-[7.6rem] ${session.day ? '' : 'no-print'}`}
              aria-label={`Date, session ${at + 1}`}
              title="Its date; empty: the same day as the one before"
              value={session.day ?? ''}
              onchange={(event) => change(at, 'Date', (one) => (one.day = event.currentTarget.value || null))}
            />
          {/if}
          <span class="w-14"
            ><Quantity
              named
              label={`Begins, session ${at + 1}`}
              class="input input-xs w-14"
              placeholder="next"
              value={session.start ?? ''}
              reads={start(at)}
              empty={() => change(at, 'Begins', (one) => (one.start = null))}
            /></span
          >
          <span>·</span>
          <span class="w-12"
            ><Quantity
              named
              label={`People, session ${at + 1}`}
              class="input input-xs w-12"
              value={String(session.people)}
              reads={number(at, 'people', 'count', 'People')}
            /></span
          >
          people ×
          <span class={session.frames_each_most ? 'w-20' : 'w-12'}
            ><Quantity
              named
              label={`Frames each, session ${at + 1}`}
              class="input input-xs w-full"
              value={rangeOf(session.frames_each, session.frames_each_most)}
              reads={frames(at)}
            /></span
          >
          frames,
          <span class="w-12"
            ><Quantity
              named
              label={`Minutes each, session ${at + 1}`}
              class="input input-xs w-12"
              placeholder="auto"
              value={String(session.minutes_each ?? '')}
              reads={number(at, 'minutes_each', 'minutes', 'Minutes each')}
              empty={() => set(at, 'minutes_each', null)}
            /></span
          >
          min each; set up in
          <span class="w-12"
            ><Quantity
              named
              label={`Minutes to set up, session ${at + 1}`}
              class="input input-xs w-12"
              value={String(session.change_min)}
              reads={number(at, 'change_min', 'minutes', 'Minutes to set up')}
            /></span
          >
          min;
          <span class="flex items-center gap-1 whitespace-nowrap"
            >plus <span class="w-12"
              ><Quantity
                named
                label={`Test frames in a hundred, session ${at + 1}`}
                class="input input-xs w-12"
                value={String(Math.round(session.tests * 100))}
                reads={quantity('count', 'Test frames in a hundred', [0, 500], (value) =>
                  change(at, 'Test frames', (one) => (one.tests = value / 100)),
                )}
              /></span
            > % for tests and blinks</span
          >
        </div>
      </li>
    {/each}
  </ol>
  {#if doc.sessions.length && !dated && !dating}
    <button type="button" class="link-button no-print mt-1 text-[0.84rem]" onclick={() => (dating = true)}
      >On several days</button
    >
  {/if}
  {#if !doc.sessions.length}
    <p class="text-quiet text-[0.84rem]">None yet: each setup counts once, one after the other.</p>
  {/if}
  {#if setups.length}
    <select
      class="select select-sm mt-2 w-full"
      aria-label="Add a session of"
      value=""
      onchange={(event) => {
        add(event.currentTarget.value)
        event.currentTarget.value = ''
      }}
    >
      <option value="">+ a session of …</option>
      {#each setups as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select>
  {/if}
</section>
