<!-- The camera: body, trigger, silent shutter, and the filters in the bag. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { sayTime } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import Chip from './Chip.svelte'
  import Heading from '../parts/Heading.svelte'

  let { session }: { session: SetupSession } = $props()
  const doc = $derived(session.doc)
  const onShelf = $derived(kit.bodies.some((one) => one.id === doc.body.id))
  const bodies = $derived<[string, string][]>([
    ...(onShelf ? [] : ([[doc.body.id ?? '', doc.body.name]] as [string, string][])),
    ...kit.bodies.map((one): [string, string] => [one.id, one.doc.name]),
  ])
  /** The lenses of the shelf, and the one that is on where the shelf no longer has it; none: what lenses usually have. */
  const lenses = $derived<[string, string][]>([
    ['', 'any lens'],
    ...(doc.lens && !kit.lenses.some((one) => one.id === doc.lens?.id)
      ? ([[doc.lens.id ?? 'gone', doc.lens.name]] as [string, string][])
      : []),
    ...kit.lenses.map((one): [string, string] => [one.id, one.doc.name]),
  ])

  function mount(id: string) {
    const found = kit.lenses.find((one) => one.id === id)
    if (!found && id) return
    session.edit('Lens', (s) => {
      s.lens = found ? { ...found.doc, id } : null
      if (!found || !s.aim.lens) return
      const [low, high] = [found.doc.focal_mm, found.doc.focal_most_mm ?? found.doc.focal_mm]
      s.aim.lens.focal_mm = Math.min(high, Math.max(low, s.aim.lens.focal_mm))
    })
  }

  /** The filters of the shelf, and those in the bag that the shelf no longer has. */
  const filters = $derived([
    ...kit.filters.map((one) => ({ ...one.doc, id: one.id })),
    ...doc.filters.filter((own) => !kit.filters.some((one) => one.id === own.id)),
  ])

  const links = $derived([
    ...kit.triggers.map((one) => ({ ...one.doc, id: one.id })),
    ...doc.triggers.filter((own) => !kit.triggers.some((one) => one.id === own.id)),
  ])

  function link(one: Setup['triggers'][number]) {
    session.edit('Triggers packed', (s) => {
      const packed = s.triggers.some((own) => own.id === one.id)
      s.triggers = packed ? s.triggers.filter((own) => own.id !== one.id) : [...s.triggers, one]
    })
  }

  function take(id: string) {
    const found = kit.bodies.find((one) => one.id === id)
    if (found) session.edit('Camera body', (s) => (s.body = { ...found.doc, id }))
  }

  function pack(filter: Setup['filters'][number]) {
    const same = (own: Setup['filters'][number]) =>
      filter.id === null ? own.id === null && own.name === filter.name : own.id === filter.id
    session.edit('Filters in the bag', (s) => {
      s.filters = s.filters.some(same) ? s.filters.filter((own) => !same(own)) : [...s.filters, filter]
    })
  }
</script>

<section aria-labelledby="ask-camera">
  <Heading id="ask-camera" word="camera">Camera</Heading>
  <p>
    On the
    <LiveChoice label="Camera body" hotkey="c" value={doc.body.id ?? ''} options={bodies} choose={take} />,
    which syncs at {sayTime(doc.body.sync_s)}{#if doc.body.radio_sync_s && doc.trigger === 'radio'}, by radio
      at {sayTime(doc.body.radio_sync_s)}{/if}, with
    <LiveChoice
      label="Lens"
      value={doc.lens ? (doc.lens.id ?? 'gone') : ''}
      options={lenses}
      choose={mount}
    />, fired by
    <LiveChoice
      label="Trigger"
      value={doc.trigger}
      options={[
        ['radio', 'radio'],
        ['optical', 'an optical trigger'],
        ['shoe', 'the shoe or a cord'],
      ]}
      choose={(trigger) => session.edit('Trigger', (s) => (s.trigger = trigger))}
    />.
    <Chip on={doc.silent} onclick={() => session.edit('Silent shutter', (s) => (s.silent = !s.silent))}
      >silent shutter</Chip
    >
  </p>
  {#if filters.length}
    <p>
      In the bag:
      {#each filters as filter, i (filter.id ?? i)}
        <Chip on={doc.filters.some((own) => own.id === filter.id)} onclick={() => pack(filter)}
          ><bdi>{filter.name}</bdi></Chip
        >{' '}
      {/each}
    </p>
  {/if}
  {#if links.length}
    <p>
      To the flash:
      {#each links as one, i (one.id ?? i)}
        <Chip on={doc.triggers.some((own) => own.id === one.id)} onclick={() => link(one)}
          ><bdi>{one.name}</bdi></Chip
        >{' '}
      {/each}
    </p>
  {/if}
</section>
