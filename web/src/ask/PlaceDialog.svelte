<!-- Where the picture is taken, and by which clock. -->
<script lang="ts">
  import type { Setup } from '../lib/api/client'
  import { bench } from '../lib/workbench.svelte'
  import Dialog from '../parts/Dialog.svelte'
  import Field from '../parts/Field.svelte'

  let { close }: { close: () => void } = $props()
  const place = (bench.doc as Setup).there!.place
  let name = $state(place?.name ?? '')
  let latitude = $state(String(place?.latitude ?? ''))
  let longitude = $state(String(place?.longitude ?? ''))
  let zone = $state<string>(place?.zone ?? '')
  const zones = Intl.supportedValuesOf('timeZone')

  function keep(event: Event) {
    event.preventDefault()
    bench.edit(`Place ${name}`, (s) => {
      s.there!.place = {
        name,
        latitude: latitude.trim() === '' ? (null as never) : Number(latitude),
        longitude: longitude.trim() === '' ? (null as never) : Number(longitude),
        zone: zone.trim(),
      }
    })
    close()
  }
</script>

<Dialog title="The place" {close}>
  <form class="grid grid-cols-2 gap-3" onsubmit={keep}>
    <Field label="Name" bind:value={name} wide />
    <Field label="Latitude, degrees north" bind:value={latitude} hint="south is negative" />
    <Field label="Longitude, degrees east" bind:value={longitude} hint="west is negative" />
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
