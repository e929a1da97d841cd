<!-- A unit that nobody knows the guide number of, from one reading of a flash meter. -->
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
  const input = 'border-base-300 bg-base-100 h-9 w-full rounded-lg border px-2'
  let problems = $state<Problem[]>([])
  onMount(() => void kit.load())

  async function add(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
    event.preventDefault()
    if (!(await Typed.ready(event.currentTarget))) return
    const on = kit.modifiers.find((one) => one.id === modifier)
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

<Dialog title="A unit by one reading" {close}>
  <p class="text-quiet mb-3 text-sm">
    Fire it alone, with the flash meter where the subject stands; tell what it read.
  </p>
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
    {@render field(
      'Power',
      shown(power, 'power'),
      quantity('power', 'Power', null, (value) => (power = value)),
    )}
    {@render field(
      'Distance',
      sayDistance(distance, person.preferences.length, person.scales.feet_per_metre),
      quantity('distance', 'Distance', null, (value) => (distance = value)),
    )}
    <label class="col-span-full block text-sm">
      <span class="text-quiet block">Through</span>
      <select class="border-base-300 bg-base-100 h-9 w-full rounded border px-2" bind:value={modifier}>
        <option value="">nothing: bare</option>
        {#each kit.modifiers as one (one.id)}<option value={one.id} dir="auto">{one.doc.name}</option>{/each}
      </select>
    </label>
    {@render field(
      'Meter read',
      sayAperture(aperture),
      quantity('meter', 'What the meter read', null, (value) => (aperture = value)),
    )}
    {@render field(
      'At ISO',
      String(iso),
      quantity('iso', 'ISO', null, (value) => (iso = value)),
    )}
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
