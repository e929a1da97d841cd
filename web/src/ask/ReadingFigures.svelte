<!-- What the meter read, as live figures. -->
<script lang="ts">
  import type { Reading, Setup } from '../lib/api/client'
  import { between, readSeconds, saySeconds, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'

  const reading = $derived((bench.doc as Setup).there!.readings![0]!)

  function read(label: string, edit: (reading: Reading) => void) {
    bench.edit(label, (s) => edit(s.there!.readings![0]!))
  }
</script>

<LiveFigure
  label="Metered aperture"
  tone="ambient"
  value={reading.f_number}
  text={`f/${reading.f_number}`}
  step={(by) =>
    read('Metered aperture', (r) => (r.f_number = stepOn(person.scales.apertures, r.f_number, by)))}
  type={between('Aperture', 0.5, 128, (value) => read('Metered aperture', (r) => (r.f_number = value)))}
/>
<LiveFigure
  label="Metered time"
  tone="ambient"
  value={reading.shutter_s}
  text={saySeconds(reading.shutter_s)}
  step={(by) => read('Metered time', (r) => (r.shutter_s = stepOn(person.scales.shutters, r.shutter_s, by)))}
  type={between(
    'Time',
    1 / 64000,
    3600,
    (value) => read('Metered time', (r) => (r.shutter_s = value)),
    readSeconds,
  )}
/>
at
<LiveFigure
  label="Metered ISO"
  tone="ambient"
  value={reading.iso ?? 100}
  text={`ISO ${reading.iso}`}
  step={(by) => read('Metered ISO', (r) => (r.iso = stepOn(person.scales.isos, r.iso ?? 100, by)))}
  type={between('ISO', 3, 4000000, (value) => read('Metered ISO', (r) => (r.iso = value)))}
/>
off the
<LiveChoice
  label="Pointed at"
  tone="ambient"
  value={reading.of ?? 'background'}
  options={[
    ['background', 'background'],
    ['subject', 'subject'],
    ['shade', 'shade'],
  ]}
  choose={(of) => read(`Pointed at ${of}`, (r) => (r.of = of as Reading['of']))}
/>
