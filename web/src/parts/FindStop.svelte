<!-- Find a stop: every change for the unit in hand, what it brings and what it costs; one touch or key does it. -->
<script lang="ts">
  import type { LeverText } from '../lib/api/client'
  import { signed } from '../lib/figures'
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'
  import LiveChoice from './LiveChoice.svelte'

  let { session }: { session: SetupSession } = $props()
  type Keep = 'look' | 'light' | 'quick'
  let keep = $state<Keep>('look')
  let extent = $state<'light' | 'set'>('light')
  const several = $derived(session.doc.lights.length > 1)

  const asked = ofSetup(
    () => session,
    '/api/setups/{item_id}/levers',
    (one) => ({
      query: { light: one.light, keep, whole: several && extent === 'set' },
      quiet: 120,
    }),
  )
  const found = $derived(asked.found)

  const apply = (one: LeverText) =>
    session.edit(one.says, (s) => Object.assign(s, structuredClone(one.setup)))

  /** Keys 1 to 9 do the first nine of the list in hand. */
  function key(event: KeyboardEvent, list: LeverText[]) {
    const one = list[Number(event.key) - 1]
    if (!one || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    apply(one)
  }
</script>

{#snippet list(title: string, levers: LeverText[], numbered: boolean)}
  <div role="group" aria-label={title}>
    <h3 class="text-quiet mt-1 text-[0.85rem]">{title}</h3>
    <ul class="text-[0.86rem]">
      {#each levers as one, i (i)}
        <li class="border-base-300 border-b last:border-0">
          <button
            type="button"
            class="lever hover:bg-base-content/5 w-full cursor-pointer items-baseline py-1 text-left"
            onkeydown={(event) => numbered && key(event, levers)}
            onclick={() => apply(one)}
          >
            <span class="text-quiet text-[0.78rem]" aria-hidden="true">{numbered && i < 9 ? i + 1 : ''}</span>
            <bdi class="font-semibold">{one.says}</bdi>
            <span class={`text-right font-bold ${one.gain < 0 ? 'text-quiet' : 'text-flash'}`}
              >{signed(one.gain)}</span
            >
            <span class={one.enough ? '' : 'text-short'}>{one.then}</span>
            <span class="text-quiet costs">{one.costs.join(', ')}</span>
          </button>
        </li>
      {/each}
    </ul>
  </div>
{/snippet}

{#if asked.wrong}<p class="text-quiet">{asked.wrong}</p>{/if}
{#if found}
  <p class="text-[0.9rem]">
    <bdi class="font-bold">{found.name}</bdi>: {found.now}. Keep
    <LiveChoice
      label="What to keep"
      value={keep}
      options={[
        ['look', 'the look'],
        ['light', 'it light'],
        ['quick', 'it quick'],
      ]}
      choose={(value) => (keep = value)}
    />{#if several}, for
      <LiveChoice
        label="Of what"
        value={extent}
        options={[
          ['light', 'this light'],
          ['set', 'the whole set'],
        ]}
        choose={(value) => (extent = value)}
      />{/if}.
    <span class="text-quiet text-[0.82rem]"
      >{found.tried} changes and pairs tried. {found.rule} Keys 1 to 9 do the first; undo takes back.</span
    >
  </p>
  {#if found.gains.length}{@render list(found.brings, found.gains, true)}{/if}
  {#if found.pairs.length && !found.alone}
    {@render list('No single change is enough: two together', found.pairs, false)}
  {:else if found.pairs.length}
    <details>
      <summary class="link-button mt-1 cursor-pointer text-[0.85rem]">Two changes together</summary>
      {@render list('Two together', found.pairs, false)}
    </details>
  {/if}
  {#if found.better.length}{@render list('What the stops in hand could buy', found.better, false)}{/if}
  {#if found.unfixing.length}{@render list('If what is fixed may move', found.unfixing, false)}{/if}
  {#if found.losing.length}{@render list(
      'Loses something that the picture asks for',
      found.losing,
      false,
    )}{/if}
  {#if found.none}<p class="text-quiet">{found.none}</p>{/if}
{/if}

<style>
  .lever {
    display: grid;
    grid-template-columns: 1rem minmax(9rem, 1.2fr) 2.8rem 8.6rem minmax(0, 1.5fr);
    column-gap: 0.6rem;
  }
  @media (max-width: 639px) {
    .lever {
      grid-template-columns: 1rem minmax(0, 1fr) 3rem;
    }
    .lever > :nth-child(4),
    .costs {
      grid-column: 2 / -1;
    }
  }
</style>
