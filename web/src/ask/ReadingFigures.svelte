<!-- What the meter read, as live figures. -->
<script lang="ts">
  import type { Reading } from '../lib/api/client'
  import { between, readSeconds, saySeconds, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'

  let { session }: { session: SetupSession } = $props()
  const reading = $derived(session.doc.ambient.readings[0] ?? person.scales.blank.reading)
  const bounds = (field: string) => person.bounds('Reading', field)

  function read(label: string, edit: (reading: Reading) => void) {
    session.edit(label, (s) => s.ambient.readings[0] && edit(s.ambient.readings[0]))
  }
</script>

<LiveFigure
  label="Metered aperture"
  tone="ambient"
  value={reading.f_number}
  text={`f/${reading.f_number}`}
  step={(by) =>
    read('Metered aperture', (r) => (r.f_number = stepOn(person.scales.apertures, r.f_number, by)))}
  type={between('Aperture', bounds('f_number'), (value) =>
    read('Metered aperture', (r) => (r.f_number = value)),
  )}
/>
<LiveFigure
  label="Metered time"
  tone="ambient"
  value={reading.shutter_s}
  text={saySeconds(reading.shutter_s)}
  step={(by) => read('Metered time', (r) => (r.shutter_s = stepOn(person.scales.shutters, r.shutter_s, by)))}
  type={between(
    'Time',
    bounds('shutter_s'),
    (value) => read('Metered time', (r) => (r.shutter_s = value)),
    readSeconds,
  )}
/>
at
<LiveFigure
  label="Metered ISO"
  tone="ambient"
  value={reading.iso}
  text={`ISO ${reading.iso}`}
  step={(by) => read('Metered ISO', (r) => (r.iso = stepOn(person.scales.isos, r.iso, by)))}
  type={between('ISO', bounds('iso'), (value) => read('Metered ISO', (r) => (r.iso = value)))}
/>
off the
<LiveChoice
  label="Pointed at"
  tone="ambient"
  value={reading.of}
  options={[
    ['background', 'background'],
    ['subject', 'subject'],
    ['shade', 'shade'],
  ]}
  choose={(of) => read('Pointed at', (r) => (r.of = of))}
/>
