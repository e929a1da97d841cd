<!-- The camera: body, trigger, silent shutter, and the filters in the bag. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { kit } from '../lib/kit.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import Chip from './Chip.svelte'

  const doc = $derived(bench.doc as Setup)
  const bodies = $derived(kit.bodies.map((stored) => stored.doc))
  const filters = $derived(kit.filters.map((stored) => stored.doc))
  const others = $derived(
    bodies.some((body) => body.name === doc.body!.name) ? bodies : [doc.body!, ...bodies],
  )

  function pack(name: string) {
    const has = doc.filters?.some((one) => one.name === name)
    bench.edit(`${name} ${has ? 'left at home' : 'packed'}`, (s) => {
      s.filters = filters.filter((one) =>
        one.name === name ? !has : s.filters?.some((own) => own.name === one.name),
      )
    })
  }
</script>

<section aria-labelledby="ask-camera">
  <h2 id="ask-camera" class="ask">The camera</h2>
  <p>
    On the
    <LiveChoice
      label="Camera body"
      hotkey="c"
      value={doc.body!.name}
      options={others.map((body) => [body.name, body.name])}
      choose={(name) =>
        bench.edit(name, (s) => (s.body = bodies.find((body) => body.name === name) ?? s.body))}
    />, which syncs at 1/{Math.round(
      1 / (doc.body!.sync_s ?? 1),
    )}{#if doc.body!.radio_sync_s && doc.trigger === 'radio'}, by radio at 1/{Math.round(
        1 / doc.body!.radio_sync_s,
      )}{/if}, fired by
    <LiveChoice
      label="Trigger"
      value={doc.trigger ?? 'radio'}
      options={[
        ['radio', 'radio'],
        ['shoe', 'the shoe or a cord'],
      ]}
      choose={(trigger) => bench.edit('Trigger', (s) => (s.trigger = trigger as Setup['trigger']))}
    />.
    <Chip on={doc.silent ?? false} onclick={() => bench.edit('Silent shutter', (s) => (s.silent = !s.silent))}
      >silent shutter</Chip
    >
  </p>
  {#if filters.length}
    <p>
      In the bag:
      {#each filters as filter (filter.name)}
        <Chip
          on={doc.filters?.some((own) => own.name === filter.name) ?? false}
          onclick={() => pack(filter.name)}>{filter.name}</Chip
        >{' '}
      {/each}
    </p>
  {/if}
</section>
