<!-- A live figure that is a length: nudged in thirds of a stop, typed in metres or feet. -->
<script lang="ts">
  import { between, readDistance, sayDistance, stepDistance } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import LiveFigure from './LiveFigure.svelte'

  type Props = {
    label: string
    value: number
    low: number
    high: number
    tone?: 'ambient' | 'flash' | 'plain'
    hotkey?: string
    set: (metres: number) => void
  }
  let { label, value, low, high, tone, hotkey, set }: Props = $props()

  const unit = $derived(person.preferences.length)
  const thirds = $derived({ full: 3, half: 1.5, third: 1 }[person.preferences.step] ?? 1)
  const read = (text: string) => readDistance(text, unit)

  function type(text: string): string | null {
    if (read(text) === null) return 'Type a length such as 2.4 m or 8 ft.'
    return between(label, low, high, set, read, ' m')(text)
  }
</script>

<LiveFigure
  {label}
  {tone}
  {hotkey}
  {value}
  text={sayDistance(value, unit)}
  step={(by) => set(Math.min(high, Math.max(low, stepDistance(value, by * thirds))))}
  {type}
/>
