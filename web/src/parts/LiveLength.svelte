<!-- A live figure that is a length: nudged in thirds of a stop, typed in metres or feet. -->
<script lang="ts">
  import { clamp, round, sayDistance, stepDistance } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import LiveFigure from './LiveFigure.svelte'

  type Props = {
    label: string
    value: number
    bounds: readonly [number, number]
    tone?: 'ambient' | 'flash' | 'plain'
    hotkey?: string
    set: (metres: number) => void
  }
  let { label, value, bounds, tone, hotkey, set }: Props = $props()

  const unit = $derived(person.preferences.length)
  const feet = $derived(person.scales.feet_per_metre)
</script>

<LiveFigure
  {label}
  {tone}
  {hotkey}
  {value}
  text={sayDistance(value, unit, feet)}
  step={(by) => set(clamp(stepDistance(value, by * person.thirds), ...bounds))}
  reads={quantity('distance', label, bounds, (metres) => set(round(metres, 3)))}
/>
