<!-- The methods to get the camera there, compared for one and the same unit; what the chosen one costs; the others. -->
<script lang="ts">
  import { CircleSlash, Compass, TriangleAlert } from '@lucide/svelte'
  import type { Answer, MethodCard } from '../lib/api/client'
  import Chip from '../ask/Chip.svelte'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Timing from './Timing.svelte'

  let { session, answer }: { session: SetupSession; answer: Answer } = $props()
  const possible = $derived(answer.methods.filter((method) => method.possible))
  const others = $derived(answer.methods.filter((method) => !method.possible))
  const chosen = $derived(possible.find((method) => method.kind === answer.chosen))

  function choose(method: MethodCard) {
    session.edit('Method', (s) => (s.method = method.kind))
  }

  async function avoid(method: MethodCard) {
    const rest = person.preferences.avoid.filter((kind) => kind !== method.kind)
    await session.settle()
    const wrong = await person.choose({ avoid: method.avoided ? rest : [...rest, method.kind] })
    if (wrong) history.tell(wrong)
    await session.refresh()
  }
</script>

<section aria-labelledby="methods-title">
  <div class="mb-2 flex items-baseline gap-3">
    <h2 id="methods-title" class="ask">Methods</h2>
    {#if session.doc.method}
      <button
        type="button"
        class="text-quiet cursor-pointer text-sm underline underline-offset-4"
        onclick={() => session.edit('Method', (s) => (s.method = null))}>take the advised method</button
      >
    {/if}
  </div>
  <div
    class="grid grid-cols-[repeat(auto-fit,minmax(11.5rem,1fr))] gap-2.5"
    role="group"
    style:max-width={`${possible.length * 19}rem`}
    aria-label="Methods"
  >
    {#each possible as method (method.kind)}
      {@const taken = method.kind === answer.chosen}
      <button
        type="button"
        aria-pressed={taken}
        class={`border-base-300 flex cursor-pointer flex-col rounded-xl border p-3 text-left transition-shadow ${taken ? 'bg-base-200 ring-base-content ring-2' : 'hover:bg-base-200'}`}
        onclick={() => choose(method)}
      >
        <span class="flex w-full items-center gap-1.5">
          <span class="font-bold">{method.title}</span>
          {#if method.kind === answer.advised}
            <span class="text-quiet ml-auto flex items-center gap-1 text-xs"
              ><Compass size={13} /> advised</span
            >
          {:else if method.avoided}
            <span class="text-quiet ml-auto text-xs">rather not</span>
          {/if}
        </span>
        <span class="mt-1 text-[0.95rem] font-medium">
          {method.camera.aperture} · {method.camera.shutter} · {method.camera.iso}
          {#if method.camera.nd}<span class="whitespace-nowrap">· {method.camera.nd}</span>{/if}
        </span>
        <span class={`mt-1 text-sm font-semibold ${(method.spare ?? -1) < 0 ? 'text-short' : 'text-flash'}`}>
          {#if method.verdict}<bdi>{answer.compared}</bdi>: {method.verdict}{:else}no unit can be used{/if}
        </span>
        <span class="mt-1 text-[0.82rem] leading-snug"><bdi>{method.judgement}</bdi></span>
        {#if method.background}
          <span class="text-ambient mt-1 text-[0.8rem]">{method.background}</span>
        {/if}
      </button>
    {/each}
  </div>
  {#if chosen}
    <div
      class="mt-2.5 flex flex-wrap items-start gap-x-6 gap-y-2 text-[0.84rem] leading-snug"
      data-testid="costs"
    >
      <dl class="costs min-w-0 flex-1 basis-80">
        <dt>Costs</dt>
        <dd><bdi>{chosen.costs}</bdi></dd>
        {#if chosen.verdict}
          <dt>For one unit</dt>
          <dd>
            <bdi>{answer.compared}</bdi>: {chosen.verdict}{chosen.against ? `, ${chosen.against}` : ''}; its
            flash can lie <span class="text-flash font-semibold">{chosen.over_ambient}</span>{chosen.charge
              ? `; ${chosen.charge}`
              : ''}
          </dd>
        {/if}
        <dt>Shelf</dt>
        <dd>{chosen.reach_count} of {answer.units} reach</dd>
        <dt>Frame, meter</dt>
        <dd>{chosen.evenness}; {chosen.metered}</dd>
      </dl>
      <Chip on={chosen.avoided ?? false} onclick={() => avoid(chosen)}>rather not: {chosen.title}</Chip>
    </div>
    <Timing {session} kind={chosen.kind} />
  {/if}
  {#if answer.warnings.length}
    <ul class="mt-2.5 flex flex-wrap gap-x-5 gap-y-1 text-[0.82rem] leading-snug" aria-label="Warnings">
      {#each answer.warnings as warning (warning.code)}
        <li class="flex gap-1.5">
          <TriangleAlert size={14} class="mt-0.5 shrink-0" aria-hidden="true" />
          <span
            ><span class="font-semibold">{warning.title}:</span>
            <span class="text-quiet">{warning.says}</span></span
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if others.length}
    <details class="mt-2 text-[0.82rem]" open={!possible.length}>
      <summary class="text-quiet cursor-pointer py-1"
        >{others.length} methods not to be had here, and why</summary
      >
      <ul class="text-quiet grid gap-x-6 gap-y-1 leading-snug sm:grid-cols-2">
        {#each others as method (method.kind)}
          <li class="flex gap-1.5">
            <CircleSlash size={14} class="mt-0.5 shrink-0" aria-hidden="true" />
            <span
              ><span class="text-base-content font-semibold">{method.title}:</span>
              <bdi>{method.reason}</bdi></span
            >
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</section>

<style>
  .costs {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    gap: 0.15rem 0.75rem;
  }
  .costs dt {
    color: var(--color-quiet);
  }
</style>
