<!-- A unit that nobody knows the guide number of: by a meter, a test frame, its range table, or beside another unit. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { api, problemsOf, sentences, type Problem } from '../lib/api/client'
  import { shown } from '../lib/fields'
  import { sayAperture, sayDistance } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity, Typed, type Reader } from '../lib/quantities.svelte'
  import Dialog from './Dialog.svelte'
  import Field from './Field.svelte'
  import Quantity from './Quantity.svelte'

  let { close, done }: { close: () => void; done: (words: string) => void } = $props()
  let name = $state('')
  let kind = $state<'shoe' | 'pocket' | 'monobloc' | 'pack' | 'built_in' | 'ring'>('shoe')
  let power = $state(1)
  let distance = $state(2)
  let modifier = $state('')
  let aperture = $state(8)
  let iso = $state(100)
  const WAYS = [
    [
      'meter',
      'a flash meter',
      'Fire it alone, with the flash meter where the subject stands; tell what it read.',
    ],
    [
      'frame',
      'a test frame',
      'Photograph a grey card in the dark with it alone; tell how far the card came out.',
    ],
    [
      'range',
      'its range table',
      'What its back or manual says: the farthest distance at an aperture and ISO, bare.',
    ],
    ['unit', 'another unit', 'Both at the same place, one after the other: how much more does it give?'],
  ] as const
  let by = $state<(typeof WAYS)[number][0]>('meter')
  let stops = $state(0)
  let like = $state('')
  let units = $state.raw<{ id: string; name: string }[]>([])
  const input = 'border-base-300 bg-base-100 h-9 w-full rounded-lg border px-2'
  let problems = $state<Problem[]>([])
  onMount(async () => {
    void kit.load()
    const { data } = await api.GET('/api/shelf')
    units = data ?? []
    like = units[0]?.id ?? ''
  })

  async function add(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
    event.preventDefault()
    if (!(await Typed.ready(event.currentTarget))) return
    const on = by === 'meter' || by === 'frame' ? kit.modifiers.find((one) => one.id === modifier) : undefined
    const beside =
      by === 'unit' && like
        ? (await api.GET('/api/units/{item_id}', { params: { path: { item_id: like } } })).data
        : undefined
    const { data, error } = await api.POST('/api/units/from-reading', {
      body: {
        name,
        kind,
        power,
        light: {
          distance_m: distance,
          modifier: on ? { ...on.doc, id: on.id } : null,
        },
        f_number: aperture,
        iso,
        by,
        stops,
        like: beside ? { ...beside.doc, id: beside.id } : null,
      },
    })
    if (data) {
      done(`Added ${data.doc.name}: ${data.line}`)
      close()
    } else problems = problemsOf(error)
  }
</script>

{#snippet field(label: string, value: string, reads: Reader)}
  <label class="block text-sm">
    <span class="text-quiet block">{label}</span>
    <Quantity {label} key={`first/${label}`} class={input} {value} {reads} />
  </label>
{/snippet}

<Dialog title="A unit by one test" {close}>
  <div class="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="By">
    {#each WAYS as [key, words] (key)}
      <button
        type="button"
        class={`btn btn-sm ${by === key ? 'btn-primary' : ''}`}
        aria-pressed={by === key}
        onclick={() => (by = key)}>{words}</button
      >
    {/each}
  </div>
  <p class="text-quiet mb-3 text-sm">{WAYS.find(([key]) => key === by)![2]}</p>
  <form class="grid grid-cols-2 gap-3" onsubmit={add}>
    <Field label="Name" bind:value={name} />
    <label class="block text-sm">
      <span class="text-quiet block">Kind</span>
      <select class="border-base-300 bg-base-100 h-9 w-full rounded border px-2" bind:value={kind}>
        {#each ['shoe', 'pocket', 'monobloc', 'pack', 'built_in', 'ring'] as one (one)}<option value={one}
            >{one.replace('_', ' ')}</option
          >{/each}
      </select>
    </label>
    {#if by !== 'range'}{@render field(
        by === 'unit' ? 'Its power' : 'Power',
        shown(power, 'power'),
        quantity('power', 'Power', person.bounds('FirstReading', 'power'), (value) => (power = value)),
      )}{/if}
    {#if by !== 'unit'}{@render field(
        by === 'range' ? 'Farthest distance' : 'Distance',
        sayDistance(distance, person.preferences.length, person.scales.feet_per_metre),
        quantity('distance', 'Distance', person.bounds('Light', 'distance_m'), (value) => (distance = value)),
      )}{/if}
    {#if by === 'unit'}
      <label class="col-span-full block text-sm">
        <span class="text-quiet block">Against, at full power</span>
        <select class="border-base-300 bg-base-100 h-9 w-full rounded border px-2" bind:value={like}>
          {#each units as one (one.id)}<option value={one.id} dir="auto">{one.name}</option>{/each}
        </select>
      </label>
    {/if}
    {#if by === 'unit' || by === 'frame'}{@render field(
        by === 'unit' ? 'It gives, stops more' : 'It came out, stops',
        shown(stops, 'level'),
        quantity('level', 'Stops', person.bounds('FirstReading', 'stops'), (value) => (stops = value)),
      )}{/if}
    {#if by === 'meter' || by === 'frame'}
      <label class="col-span-full block text-sm">
        <span class="text-quiet block">Through</span>
        <select class="border-base-300 bg-base-100 h-9 w-full rounded border px-2" bind:value={modifier}>
          <option value="">nothing: bare</option>
          {#each kit.modifiers as one (one.id)}<option value={one.id} dir="auto">{one.doc.name}</option
            >{/each}
        </select>
      </label>
    {/if}
    {#if by !== 'unit'}
      {@render field(
        by === 'meter' ? 'Meter read' : 'Aperture',
        sayAperture(aperture),
        by === 'meter'
          ? quantity(
              'meter',
              'What the meter read',
              person.bounds('FirstReading', 'f_number'),
              (value) => (aperture = value),
            )
          : quantity(
              'aperture',
              'Aperture',
              person.bounds('FirstReading', 'f_number'),
              (value) => (aperture = value),
            ),
      )}
      {@render field(
        'At ISO',
        String(iso),
        quantity('iso', 'ISO', person.bounds('FirstReading', 'iso'), (value) => (iso = value)),
      )}
    {/if}
    {#if problems.length}
      <p role="alert" class="text-short col-span-2 font-semibold">
        {sentences(problems)}
      </p>
    {/if}
    <div class="col-span-2 flex justify-end gap-2">
      <button type="button" class="btn btn-sm" onclick={close}>Cancel</button>
      <button type="submit" class="btn btn-sm btn-primary">Add it</button>
    </div>
  </form>
</Dialog>
