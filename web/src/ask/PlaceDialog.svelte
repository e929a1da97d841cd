<!-- Where the picture is taken, and by which clock. -->
<script lang="ts">
  import type { SetupSession } from '../lib/session.svelte'
  import Dialog from '../parts/Dialog.svelte'
  import Field from '../parts/Field.svelte'

  let { session, close }: { session: SetupSession; close: () => void } = $props()
  // svelte-ignore state_referenced_locally
  const place = session.doc.ambient.place
  let name = $state(place?.name ?? '')
  let latitude = $state(String(place?.latitude ?? ''))
  let longitude = $state(String(place?.longitude ?? ''))
  let zone = $state(place?.zone ?? '')
  const zones = Intl.supportedValuesOf('timeZone')

  function keep(event: Event) {
    event.preventDefault()
    session.edit('Place', (s) => {
      s.ambient.place = {
        name,
        latitude: degrees(latitude),
        longitude: degrees(longitude),
        zone: zone.trim(),
      }
    })
    close()
  }

  /** What was typed, as degrees; what is no number goes to the server as none, which says so with the field's name. */
  function degrees(text: string): number {
    return text.trim() === '' ? NaN : Number(text)
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
