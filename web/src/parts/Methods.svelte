<!-- The methods in rows that line up, compared for one and the same unit; the chosen one unfolds; the others in a line. -->
<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import type { Answer, MethodCard } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { keep } from '../lib/keep.svelte'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Word from './Word.svelte'

  let { session, answer }: { session: SetupSession; answer: Answer } = $props()
  let costs = $state(false) // on a phone they unfold
  const FOLDED = 'reminders folded'
  let folded = $state(keep.read(FOLDED) !== null)
  function fold() {
    folded = !folded
    if (folded) keep.write(FOLDED, 'yes')
    else keep.drop(FOLDED)
  }
  const warnings = $derived(answer.warnings.filter((one) => !one.reminder))
  const reminders = $derived(answer.warnings.filter((one) => one.reminder))
  const possible = $derived(answer.methods.filter((method) => method.possible))
  /** What keeps the others, each reason once with the methods it keeps. */
  const others = $derived(answer.methods.filter((method) => !method.possible))
  const reasons = $derived.by(() => {
    const names: Record<string, string[]> = {}
    for (const one of others) (names[one.reason] ??= []).push(one.title)
    return Object.entries(names).map(([reason, kept]) => [reason, kept.join(', ')] as const)
  })

  /** The method touched is fixed; touched again, the advised one is taken. */
  function choose(method: MethodCard) {
    const again = session.doc.method === method.kind
    session.edit(again ? 'Method free' : 'Method', (s) => (s.method = again ? null : method.kind))
  }

  async function avoid(method: MethodCard) {
    const rest = person.preferences.avoid.filter((kind) => kind !== method.kind)
    await session.settle()
    const wrong = await person.choose({ avoid: method.avoided ? rest : [...rest, method.kind] })
    if (wrong) history.tell(wrong)
    await session.refresh()
  }

  function settings(method: MethodCard): string {
    const { aperture, shutter, iso, nd } = method.camera
    return [aperture, shutter, iso, nd].filter(Boolean).join(' · ')
  }

  function hand(method: MethodCard): string {
    if (method.spare === null) return 'cannot be used'
    return method.spare < 0 ? `${signed(method.spare)} short` : signed(method.spare)
  }

  function against(method: MethodCard): string {
    if (method.difference === null) return method.background || ''
    return method.difference > -0.05 ? 'best' : signed(method.difference)
  }
  /** What follows a full stop. */
  const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
</script>

<section aria-labelledby="methods-title">
  <div class={`rowgrid text-quiet text-[0.78rem] ${possible.length ? '' : 'sr-only'}`}>
    <div class="relative w-max max-w-full">
      <h2 id="methods-title" class="font-normal">
        Methods{#if answer.compared}, for <bdi>{answer.compared}</bdi>{/if}
      </h2>
      <span class="absolute -top-1.5 left-full"><Word word="method" /></span>
    </div>
    <span class="settings" aria-hidden="true">settings</span>
    <span class="text-right" aria-hidden="true">in hand</span>
    <span aria-hidden="true" class="last">against the best</span>
  </div>
  <div role="group" aria-label="Methods" class={possible.length ? 'border-base-300 border-b' : ''}>
    {#each possible as method (method.kind)}
      {@const taken = method.kind === answer.chosen}
      <button
        type="button"
        aria-pressed={taken}
        class={`rowgrid border-base-300 w-full cursor-pointer items-baseline border-t text-left text-[0.93rem] ${taken ? 'bg-base-200 font-bold' : 'hover:bg-base-200'}`}
        onclick={() => choose(method)}
      >
        <span
          >{method.title}{#if session.doc.method === method.kind}<span class="text-quiet font-normal"
              >, fixed</span
            >{:else if method.kind === answer.advised}<span class="text-quiet font-normal">, advised</span
            >{:else if method.avoided}<span class="text-quiet font-normal">, not advised</span>{/if}</span
        >
        <span class="settings">{settings(method)}</span>
        <span class={`text-right ${(method.spare ?? -1) < 0 ? 'text-short' : 'text-flash'}`}
          >{hand(method)}</span
        >
        <span class="last">{against(method)}</span>
      </button>
      {#if taken}
        <p class="bg-base-200 px-2 pb-1.5 text-[0.82rem] leading-snug" data-testid="costs">
          <bdi>{method.judgement}</bdi>
          <button type="button" class="link-button no-print more-costs" onclick={() => (costs = !costs)}
            >{costs ? 'hide the costs' : 'what it costs'}</button
          >
          <span class={`text-quiet ${costs ? '' : 'costs'}`}
            >Costs: <bdi>{method.costs}</bdi>
            {sentence(
              [
                method.background,
                method.evenness,
                method.charge,
                method.over_ambient && `the flash can lie ${method.over_ambient}`,
              ]
                .filter(Boolean)
                .join('; '),
            )}. {method.reach_count} of {answer.units} units reach.</span
          >
          <button type="button" class="no-print link-button" onclick={() => avoid(method)}
            >{method.avoided ? `advise ${method.title} again` : `do not advise ${method.title}`}</button
          >
        </p>
      {/if}
    {/each}
  </div>
  {#if others.length && possible.length}
    <details class="text-[0.82rem]">
      <summary class="text-quiet cursor-pointer truncate px-2 py-1"
        >{others.length} others: {reasons.map(([reason, names]) => `${names}: ${reason}`).join(' ')}</summary
      >
      {@render kept()}
    </details>
  {:else if reasons.length > 1}
    {@render kept()}
  {/if}
  {#if reminders.length}
    <p class="text-quiet px-2 text-[0.82rem] leading-snug" data-testid="reminders">
      <button type="button" class="reminder" aria-expanded={!folded} onclick={fold}
        >Before the first frame</button
      >{#if !folded}: {reminders.map((one) => one.says).join(' · ')}{/if}
    </p>
  {/if}
  {#if warnings.length}
    <ul class="mt-1 px-2 text-[0.82rem] leading-snug" aria-label="Warnings">
      {#each warnings as warning, i (i)}
        <li class="mr-3 max-sm:mt-1 sm:inline">
          <TriangleAlert size={14} class="inline align-[-2px]" aria-hidden="true" />
          <span
            ><span class="font-semibold">{warning.title}:</span>
            <span class="text-quiet">{warning.says}</span></span
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>

{#snippet kept()}
  <ul class="text-quiet grid gap-x-6 gap-y-0.5 px-2 pb-1 text-[0.82rem] leading-snug sm:grid-cols-2">
    {#each reasons as [reason, names] (reason)}
      <li>
        <span class="text-base-content font-semibold">{names}:</span>
        <bdi>{reason}</bdi>
      </li>
    {/each}
  </ul>
{/snippet}

<style>
  .reminder {
    cursor: pointer;
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  @media (max-width: 639px) {
    .reminder {
      min-height: 44px;
    }
  }
  .more-costs {
    display: none;
  }
  .rowgrid {
    display: grid;
    grid-template-columns: minmax(11rem, 1fr) minmax(0, 2fr) 5.5rem 10rem;
    column-gap: 0.9rem;
    padding: 0.16rem 0.5rem;
  }
  @media (max-width: 639px) {
    .rowgrid {
      grid-template-columns: minmax(0, 1fr) auto;
      padding-block: 0.35rem;
    }
    .rowgrid .settings {
      grid-column: 1 / -1;
      order: 3;
      font-size: 0.85rem;
    }
    .rowgrid .last,
    .costs {
      display: none;
    }
    .more-costs {
      display: inline-flex;
    }
    div.rowgrid .settings {
      display: none;
    }
  }
</style>
