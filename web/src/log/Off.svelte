<!-- How far it came out: a row of steps from too dark to too bright, for a thumb. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  let {
    label,
    dark = 'too dark',
    bright = 'too bright',
    middle = 'right',
    value,
    pick,
  }: {
    label: string
    dark?: string
    bright?: string
    middle?: string
    value: number | null
    pick: (stops: number) => void
  } = $props()
  const STEPS: [string, number][] = [
    ['−1', -1],
    ['−⅔', -2 / 3],
    ['−⅓', -1 / 3],
    ['0', 0],
    ['+⅓', 1 / 3],
    ['+⅔', 2 / 3],
    ['+1', 1],
    ['−2', -2],
    ['+2', 2],
  ]
  const spoken = (stops: number) =>
    stops === 0 ? middle : `${fixed(Math.abs(stops), 1)} ${stops < 0 ? dark : bright}`
</script>

<fieldset class="min-w-0">
  <legend class="text-quiet flex w-full justify-between text-[0.82rem]"
    ><span>{dark}</span><span class="font-semibold">{label}</span><span>{bright}</span></legend
  >
  <div class="steps grid gap-px">
    {#each STEPS as [text, stops] (text)}
      <button
        type="button"
        class={`btn btn-sm off px-0 ${value !== null && Math.abs(value - stops) < 0.01 ? 'btn-primary' : ''}`}
        aria-pressed={value !== null && Math.abs(value - stops) < 0.01}
        aria-label={`${label}: ${spoken(stops)}`}
        onclick={() => pick(stops)}>{text}</button
      >
    {/each}
  </div>
</fieldset>

<style>
  /* Seven in a row on a phone, each as wide as a thumb; two stops off are rare, and stand below. */
  .steps {
    grid-template-columns: repeat(14, minmax(0, 1fr));
  }
  .steps > :global(*) {
    grid-column: span 2;
  }
  .steps > :global(:nth-child(n + 8)) {
    grid-column: span 7;
  }
  .off.off {
    min-width: 0 !important;
  }
</style>
