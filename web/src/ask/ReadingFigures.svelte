<!-- What the meter read, as live figures. -->
<script lang="ts">
  import type { Reading } from '../lib/api/client'
  import { clamp, round, sayAperture, sayStops, sayTime, stepOn } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import LiveFigure from '../parts/LiveFigure.svelte'

  let { session, index }: { session: SetupSession; index: number } = $props()
  const reading = $derived(session.doc.ambient.readings[index] ?? person.scales.blank.reading)
  const nth = $derived(index ? ` ${index + 1}` : '')
  const needle = (value: number) => read('Needle', (r) => (r.needle_stops = value))
  const bounds = (field: string) => person.bounds('Reading', field)

  function read(label: string, edit: (reading: Reading) => void) {
    session.edit(label, (s) => s.ambient.readings[index] && edit(s.ambient.readings[index]))
  }
</script>

<LiveFigure
  label={`Metered aperture${nth}`}
  tone="ambient"
  value={reading.f_number}
  text={sayAperture(reading.f_number)}
  step={(by) =>
    read('Metered aperture', (r) => (r.f_number = stepOn(person.scales.apertures, r.f_number, by)))}
  reads={quantity('meter', 'Metered aperture', bounds('f_number'), (value) =>
    read('Metered aperture', (r) => (r.f_number = value)),
  )}
/>
<LiveFigure
  label={`Metered time${nth}`}
  tone="ambient"
  value={reading.shutter_s}
  text={sayTime(reading.shutter_s)}
  step={(by) => read('Metered time', (r) => (r.shutter_s = stepOn(person.scales.shutters, r.shutter_s, by)))}
  reads={quantity('shutter', 'Metered time', bounds('shutter_s'), (value) =>
    read('Metered time', (r) => (r.shutter_s = value)),
  )}
/>
at
<LiveFigure
  label={`Metered ISO${nth}`}
  tone="ambient"
  value={reading.iso}
  text={`ISO ${reading.iso}`}
  step={(by) => read('Metered ISO', (r) => (r.iso = stepOn(person.scales.isos, r.iso, by)))}
  reads={quantity('iso', 'Metered ISO', bounds('iso'), (value) =>
    read('Metered ISO', (r) => (r.iso = value)),
  )}
/>
, the needle
<LiveFigure
  label={`Needle${nth}`}
  tone="ambient"
  value={reading.needle_stops}
  text={reading.needle_stops
    ? `${sayStops(Math.abs(reading.needle_stops))} ${reading.needle_stops < 0 ? 'under' : 'over'}`
    : 'at 0'}
  hint="what the camera’s meter shows at these settings"
  step={(by) =>
    needle(round(clamp(reading.needle_stops + (by * person.thirds) / 3, ...bounds('needle_stops')), 2))}
  reads={quantity('level', 'Needle', bounds('needle_stops'), (value) => needle(round(value, 2)))}
/>, off the
<LiveChoice
  label={`Pointed at${nth}`}
  tone="ambient"
  value={reading.of}
  options={[
    ['background', 'background'],
    ['subject', 'subject'],
    ['shade', 'shade'],
  ]}
  choose={(of) => read('Pointed at', (r) => (r.of = of))}
/>
