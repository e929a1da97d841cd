<!-- The order of work: lights switched on one by one, as on the set; what the meter reads and the frame shows at each. -->
<script lang="ts">
  import type { StepText } from '../lib/api/client'
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from './LiveChoice.svelte'

  let { session }: { session: SetupSession } = $props()
  let first = $state<'back' | 'key'>('back')
  const asked = ofSetup(
    () => session,
    '/api/setups/{item_id}/steps',
    () => ({ query: { first } }),
  )
  const steps = $derived<StepText[]>(asked.found ?? [])
  const on = $derived(session.doc.lights.map((light) => light.on))
  const now = $derived(steps.findIndex((step) => step.on.every((lit, i) => lit === on[i])))

  function go(step: StepText) {
    session.edit('Lights switched', (s) => s.lights.forEach((light, i) => (light.on = step.on[i] ?? true)))
  }
</script>

<p class="text-[0.9rem]">
  Begin with
  <LiveChoice
    label="Order of work"
    value={first}
    options={[
      ['back', 'the background, then edge, then key'],
      ['key', 'the key, then the kicker'],
    ]}
    choose={(value) => (first = value)}
  />. <span class="text-quiet text-[0.82rem]">Each step switches the lights here as you do on the set.</span>
</p>
<ol class="mt-1 text-[0.9rem]" aria-label="Steps">
  {#each steps as step, i (i)}
    <li class="border-base-300 border-b last:border-0">
      <button
        type="button"
        class={`step hover:bg-base-content/5 w-full cursor-pointer rounded py-1 text-left ${i === now ? 'bg-base-200' : ''}`}
        aria-current={i === now ? 'step' : undefined}
        onclick={() => go(step)}
      >
        <span class="font-bold">{i + 1}</span>
        <span
          ><bdi class={i === now ? 'font-bold' : 'font-semibold'}>{step.does}</bdi>
          {#if step.meter}<span class="text-flash block">{step.meter}</span>{/if}
          <span class="text-quiet block">frame: {step.frame}</span></span
        >
      </button>
    </li>
  {/each}
</ol>

<style>
  .step {
    display: grid;
    grid-template-columns: 1.4rem minmax(0, 1fr);
    padding-inline: 0.3rem;
  }
</style>
