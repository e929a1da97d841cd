<!-- Where the picture is taken, and by which clock. -->
<script lang="ts">
  import type { SetupSession } from '../lib/session.svelte'
  import Dialog from '../parts/Dialog.svelte'
  import { person } from '../lib/person.svelte'
  import { quantity, Typed, type Reader } from '../lib/quantities.svelte'
  import Field from '../parts/Field.svelte'
  import Quantity from '../parts/Quantity.svelte'

  let { session, close }: { session: SetupSession; close: () => void } = $props()
  // svelte-ignore state_referenced_locally
  const place = session.doc.ambient.place
  let name = $state(place?.name ?? '')
  let latitude = $state(place?.latitude ?? NaN)
  let longitude = $state(place?.longitude ?? NaN)
  let zone = $state(place?.zone ?? '')
  const zones = Intl.supportedValuesOf('timeZone')

  async function keep(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
    event.preventDefault()
    if (!(await Typed.ready(event.currentTarget))) return
    session.edit('Place', (s) => {
      s.ambient.place = {
        name,
        latitude,
        longitude,
        zone: zone.trim(),
      }
    })
    close()
  }
</script>

{#snippet degrees(label: string, value: number, hint: string, reads: Reader)}
  <label class="block text-sm">
    <span class="text-quiet block">{label}</span>
    <Quantity
      {label}
      class="border-base-300 bg-base-100 h-9 w-full rounded-lg border px-2"
      value={Number.isNaN(value) ? '' : String(value)}
      {reads}
    />
    <span class="text-quiet block text-xs">{hint}</span>
  </label>
{/snippet}

<Dialog title="The place" {close}>
  <form class="grid grid-cols-2 gap-3" onsubmit={keep}>
    <Field label="Name" bind:value={name} wide />
    {@render degrees(
      'Latitude, degrees north',
      latitude,
      'south is negative',
      quantity('degrees', 'Latitude', person.bounds('Place', 'latitude'), (value) => (latitude = value)),
    )}
    {@render degrees(
      'Longitude, degrees east',
      longitude,
      'west is negative',
      quantity('degrees', 'Longitude', person.bounds('Place', 'longitude'), (value) => (longitude = value)),
    )}
    <Field label="Time zone" bind:value={zone} wide list="zones" hint="as in Europe/London" />
    <datalist id="zones"
      >{#each zones as one (one)}<option value={one}></option>{/each}</datalist
    >
    <div class="col-span-2 flex justify-end gap-2">
      <button type="button" class="btn btn-sm" onclick={close}>Cancel</button>
      <button type="submit" class="btn btn-sm btn-primary">Take it</button>
    </div>
  </form>
</Dialog>
