<!-- The jump chart: every unit of the shelf on one ruler of stops. -->
<script lang="ts">
  import { flushSync } from 'svelte'
  import { SvelteSet } from 'svelte/reactivity'
  import type { Answer, Lanes } from '../lib/api/client'
  import { count, grams, signed } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { history } from '../lib/history.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import LaneDetail from './LaneDetail.svelte'
  import LaneTrack from './LaneTrack.svelte'
  import { laneAt, rulerOf, sorted, type Lane, type Sort } from './ruler'

  type Props = { session: SetupSession; answer: Answer; lanes: Lanes }
  let { session, answer, lanes }: Props = $props()

  const PAGE = 40
  const ON_PAPER = 340 // what an upright A4 sheet leaves the ruler beside its columns
  let measured = $state(460)
  let most = $state(PAGE)
  let paper = $state(false)
  const open = new SvelteSet<string>()
  const seen = new SvelteSet<string>()

  const sort = $derived<Sort>(person.preferences.sort)
  const order = $derived(sorted(lanes, sort))
  const width = $derived(paper ? ON_PAPER : Math.max(220, measured))
  const ruler = $derived(rulerOf(answer.arcs, lanes, width))
  const ticks = $derived(ruler.ticks(Math.min(24, Math.round(width / 26))).filter(Number.isInteger))
  const sorts: [Sort, string][] = [
    ['spare', 'Stops in hand'],
    ['ready', 'Recycle time'],
    ['flashes', 'Flashes a charge'],
    ['packs', 'Charges needed'],
    ['weight', 'Weight'],
    ['price', 'Price'],
  ]

  /** What lanes out of sight show: it follows once the person pauses, so that a nudge redraws only what is seen. */
  // svelte-ignore state_referenced_locally
  let late = $state.raw(lanes)
  $effect(() => {
    const now = lanes
    const timer = setTimeout(() => (late = now), 160)
    return () => clearTimeout(timer)
  })

  function laneOf(index: number): Lane {
    const id = lanes.id[index]!
    const current = paper || seen.has(id) || late.id[index] !== id
    return laneAt(current ? lanes : late, index)
  }

  let watcher: IntersectionObserver | undefined

  /** Tell when a lane comes near the window: only then are its hops drawn. */
  function watch(node: HTMLElement, id: string) {
    watcher ??= new IntersectionObserver(
      (entries) => {
        for (const entry of entries) {
          const key = (entry.target as HTMLElement).dataset.lane!
          if (entry.isIntersecting) seen.add(key)
          else seen.delete(key)
        }
      },
      { rootMargin: '150px' },
    )
    node.dataset.lane = id
    watcher.observe(node)
    return { destroy: () => watcher?.unobserve(node) }
  }

  /** More lanes come by themselves once the end of the list is scrolled near. */
  function near(node: HTMLElement) {
    const end = new IntersectionObserver(([entry]) => entry!.isIntersecting && (most += PAGE), {
      rootMargin: '600px',
    })
    end.observe(node)
    return { destroy: () => end.disconnect() }
  }

  /** On paper there is no scrolling: every lane is drawn. */
  function unroll() {
    paper = true
    flushSync()
  }

  async function choose(wanted: Sort) {
    const wrong = await person.choose({ sort: wanted })
    if (wrong) history.tell(wrong)
  }

  function toggle(id: string) {
    if (!open.delete(id)) open.add(id)
  }

  function stamina(lane: Lane): string {
    if (lane.mains) return 'mains'
    if (lane.flashes === null) return 'charge not stated'
    return `${count(lane.flashes)} a charge${(lane.charges ?? 1) > 1 ? ` · needs ${lane.charges}` : ''}`
  }
</script>

<svelte:window onbeforeprint={unroll} onafterprint={() => (paper = false)} />

<section aria-labelledby="chart-title">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
    <h2 id="chart-title" class="font-prose text-[1.35rem] leading-tight font-semibold" data-testid="headline">
      <bdi>{answer.headline}</bdi>
    </h2>
    <label class="no-print ml-auto flex items-center gap-1.5 text-sm">
      <span class="text-quiet">Sort by</span>
      <select
        class="border-base-300 bg-base-100 h-8 cursor-pointer rounded-lg border px-2 font-medium"
        value={sort}
        onchange={(event) => choose(event.currentTarget.value as Sort)}
      >
        {#each sorts as [key, words] (key)}<option value={key}>{words}</option>{/each}
      </select>
    </label>
  </div>

  <div class="bg-base-100 sticky top-0 z-10 pt-2">
    <div class="lane items-end">
      <span class="text-quiet hidden text-xs sm:block">unit, on one basis</span>
      <div class="ruler h-7" bind:clientWidth={measured}>
        <svg {width} height="28" class="block overflow-visible" aria-hidden="true">
          {#each ticks as tick (tick)}
            {#if tick !== 0 && Math.abs(ruler(tick) - ruler(0)) > 38}
              <text x={ruler(tick)} y="20" text-anchor="middle" font-size="11" class="fill-quiet"
                >{signed(tick, 0)}</text
              >
            {/if}
          {/each}
          <text
            x={ruler(0)}
            y="20"
            text-anchor="middle"
            font-size="12"
            font-weight="700"
            class="fill-base-content">needed</text
          >
        </svg>
      </div>
      <span class="text-quiet hidden text-xs sm:block">verdict, dial</span>
      <span class="text-quiet hidden text-xs lg:block">recycle, charge</span>
    </div>
  </div>

  <div class="relative">
    <div class="lane pointer-events-none absolute inset-0" aria-hidden="true">
      <span class="hidden sm:block"></span>
      <svg {width} height="100%" class="block">
        <rect
          x="0"
          y="0"
          width={Math.max(0, ruler(0))}
          height="100%"
          class="fill-short"
          fill-opacity="0.07"
        />
        {#each ticks as tick (tick)}
          <line
            x1={ruler(tick)}
            x2={ruler(tick)}
            y1="0"
            y2="100%"
            class="stroke-base-300"
            stroke-opacity="0.7"
          />
        {/each}
        <line x1={ruler(0)} x2={ruler(0)} y1="0" y2="100%" class="stroke-base-content" stroke-width="2" />
      </svg>
    </div>
    <ol class="relative" aria-label="Flash units">
      {#each order.slice(0, paper ? order.length : most) as index (lanes.id[index])}
        {@const lane = laneOf(index)}
        <li use:watch={lane.id} class="[content-visibility:auto] [contain-intrinsic-size:auto_56px]">
          <button
            type="button"
            class="lane hover:bg-base-content/5 w-full cursor-pointer items-center rounded-lg text-left"
            aria-expanded={open.has(lane.id)}
            onclick={() => toggle(lane.id)}
          >
            <span class="name min-w-0 leading-tight">
              <bdi class="block truncate font-semibold">{lane.name}</bdi>
              <span class="text-quiet block truncate text-xs">{lane.basis}</span>
            </span>
            <span class="ruler h-[56px] pt-1">
              {#if lane.word === 'blocked'}
                <span class="bg-base-100 text-quiet ml-2 inline-block px-1 pt-3.5 text-sm"
                  >cannot be used: {lane.verdict}</span
                >
              {:else if paper || seen.has(lane.id)}
                <LaneTrack arcs={answer.arcs} {lane} {index} {ruler} {width} />
              {/if}
            </span>
            <span class="verdict leading-tight">
              {#if lane.word !== 'blocked'}
                <span
                  class={`block text-[0.95rem] font-bold ${lane.word === 'short' || lane.word === 'too_bright' ? 'text-short' : 'text-flash'}`}
                  >{lane.verdict}</span
                >
                <span class="block text-xs">
                  dial <span class="font-semibold">{lane.dial}</span>{#if lane.dial_note}<span
                      class="text-quiet">, {lane.dial_note}</span
                    >{/if}
                </span>
              {/if}
            </span>
            <span class="stamina text-quiet text-xs leading-[1.3]">
              {#if lane.word !== 'blocked'}
                <span class="block"
                  >recycles {lane.recycle === 'at once' ? lane.recycle : `in ${lane.recycle}`}</span
                >
                <span class="block">{stamina(lane)}</span>
              {/if}
              <span class="block">
                {grams(lane.weight_g)} · {lane.price === null
                  ? 'no price'
                  : `${person.preferences.currency}${count(lane.price)}`}
              </span>
            </span>
          </button>
          {#if open.has(lane.id)}<LaneDetail {session} unit={lane.id} />{/if}
        </li>
      {/each}
    </ol>
    {#if order.length > most}
      <button type="button" class="btn btn-sm relative mt-2" use:near onclick={() => (most += PAGE)}>
        Show {Math.min(PAGE, order.length - most)} more of {count(order.length)}
      </button>
    {/if}
  </div>
  <p class="text-quiet mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-xs">
    <span>○ bare at one metre, full power</span>
    <span>⌒ to the left: a loss</span>
    <span class="text-flash">⌣ to the right: a gain</span>
    <span class="text-ambient">⌣ what the ambient adds</span>
    <span class="text-flash">● reaches</span>
    <span class="text-flash">◐ on the line</span>
    <span class="text-short">◇ short</span>
    <span>bar: ± one standard deviation</span>
  </p>
</section>

<style>
  .lane {
    display: grid;
    grid-template-columns: 8.4rem minmax(0, 1fr) 9rem 8.9rem;
    column-gap: 0.75rem;
  }
  .ruler {
    display: block;
    min-width: 0;
  }
  @media (max-width: 1023px) {
    .lane {
      grid-template-columns: 8rem minmax(0, 1fr) 8.6rem;
    }
    .stamina {
      display: none;
    }
  }
  @media (max-width: 639px) {
    .lane {
      grid-template-columns: minmax(0, 1fr) auto;
      row-gap: 0.1rem;
      padding-block: 0.35rem;
    }
    .lane .ruler,
    .lane > svg {
      grid-column: 1 / -1;
      order: 3;
    }
    .lane > svg {
      grid-row: 1;
    }
    .name,
    .verdict {
      justify-self: start;
      max-width: 100%;
      padding-inline: 0.2rem;
      background: var(--color-base-100);
    }
    .verdict {
      justify-self: end;
      text-align: right;
    }
  }
</style>
