<!-- The jump chart: every unit of the shelf on one ruler of stops. -->
<script lang="ts">
  import { flushSync } from 'svelte'
  import { SvelteSet } from 'svelte/reactivity'
  import type { Lane } from '../lib/api/client'
  import { count, grams, signed } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import { bench } from '../lib/workbench.svelte'
  import LaneDetail from './LaneDetail.svelte'
  import LaneTrack from './LaneTrack.svelte'
  import { rulerOf, sorted, type Sort } from './ruler'

  const PAGE = 40
  let measured = $state(460)
  let most = $state(PAGE)
  let paper = $state(false)
  const open = new SvelteSet<string>()
  const seen = new SvelteSet<string>()

  const answer = $derived(bench.answer!)
  const sort = $derived(person.preferences.sort as Sort)
  const order = $derived(sorted(answer.lanes, sort))
  const width = $derived(Math.max(220, measured))
  const ruler = $derived(rulerOf(answer.arcs, answer.lanes, width))
  const ticks = $derived(ruler.ticks(Math.min(24, Math.round(width / 26))).filter(Number.isInteger))
  const usable = $derived(answer.ways.find((way) => way.kind === answer.chosen)?.possible ?? false)
  const sorts: [Sort, string][] = [
    ['spare', 'Spare'],
    ['ready', 'Ready again'],
    ['flashes', 'Flashes a charge'],
    ['packs', 'Packs'],
    ['weight', 'Weight'],
    ['price', 'Price'],
  ]

  /** What lanes out of sight show: it follows once the person pauses, so that a nudge redraws only what is seen. */
  let late = $state.raw(bench.answer!)
  $effect(() => {
    const now = answer
    const timer = setTimeout(() => (late = now), 160)
    return () => clearTimeout(timer)
  })

  function laneOf(index: number): Lane {
    const now = answer.lanes[index]!
    if (paper || seen.has(now.id) || late.lanes[index]?.id !== now.id) return now
    return late.lanes[index]!
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

  function toggle(id: string) {
    if (!open.delete(id)) open.add(id)
  }

  function stamina(lane: Lane): string {
    if (lane.mains) return 'mains'
    if (lane.flashes === null || lane.flashes === undefined) return 'charge not stated'
    return `${count(lane.flashes)} a charge${(lane.packs ?? 1) > 1 ? ` · needs ${lane.packs}` : ''}`
  }
</script>

<svelte:window onbeforeprint={unroll} onafterprint={() => (paper = false)} />

<section aria-labelledby="chart-title">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
    <h2 id="chart-title" class="font-prose text-[1.35rem] leading-tight font-semibold" data-testid="headline">
      {answer.headline}
    </h2>
    <label class="ml-auto flex items-center gap-1.5 text-sm">
      <span class="text-quiet">Sort by</span>
      <select
        class="border-base-300 bg-base-100 h-8 cursor-pointer rounded-lg border px-2 font-medium"
        value={sort}
        onchange={(event) => person.choose({ sort: event.currentTarget.value as Sort })}
      >
        {#each sorts as [key, words] (key)}<option value={key}>{words}</option>{/each}
      </select>
    </label>
  </div>

  {#if usable}
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
        <span class="text-quiet hidden text-xs lg:block">ready, lasting</span>
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
        {#each order.slice(0, paper ? order.length : most) as index (answer.lanes[index]!.id)}
          {@const lane = laneOf(index)}
          <li use:watch={lane.id} class="[content-visibility:auto] [contain-intrinsic-size:auto_56px]">
            <button
              type="button"
              class="lane hover:bg-base-content/5 w-full cursor-pointer items-center rounded-lg text-left"
              aria-expanded={open.has(lane.id)}
              onclick={() => toggle(lane.id)}
            >
              <span class="name min-w-0 leading-tight">
                <span class="block truncate font-semibold">{lane.name}</span>
                <span class="text-quiet block truncate text-xs">{lane.basis}</span>
              </span>
              <span class="ruler h-[56px] pt-1">
                {#if lane.word === 'cannot'}
                  <span class="bg-base-100 text-quiet ml-2 inline-block px-1 pt-3.5 text-sm"
                    >cannot: {lane.verdict}</span
                  >
                {:else if paper || seen.has(lane.id)}
                  <LaneTrack arcs={answer.arcs} {lane} {index} {ruler} {width} />
                {/if}
              </span>
              <span class="verdict leading-tight">
                {#if lane.word !== 'cannot'}
                  <span
                    class={`block text-[0.95rem] font-bold ${lane.word === 'short' ? 'text-short' : 'text-flash'}`}
                    >{lane.verdict}</span
                  >
                  <span class="block text-xs">
                    dial <span class="font-semibold">{lane.dial}</span>{#if lane.dial_note}<span
                        class="text-quiet">, {lane.dial_note}</span
                      >{/if}
                  </span>
                {:else}<span class="text-quiet text-sm">cannot</span>{/if}
              </span>
              <span class="stamina text-quiet text-xs leading-[1.3]">
                {#if lane.word !== 'cannot'}
                  <span class="block">ready {lane.ready === 'at once' ? lane.ready : `in ${lane.ready}`}</span
                  >
                  <span class="block">{stamina(lane)}</span>
                {/if}
                <span class="block">
                  {grams(lane.weight_g)} · {lane.price === null || lane.price === undefined
                    ? 'no price'
                    : `${person.preferences.currency}${count(lane.price)}`}
                </span>
              </span>
            </button>
            {#if open.has(lane.id)}<LaneDetail unit={lane.id} />{/if}
          </li>
        {/each}
      </ol>
      {#if answer.lanes.length > most}
        <button type="button" class="btn btn-sm relative mt-2" use:near onclick={() => (most += PAGE)}>
          Show {Math.min(PAGE, answer.lanes.length - most)} more of {count(answer.lanes.length)}
        </button>
      {/if}
    </div>
    <p class="text-quiet mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-xs">
      <span>○ bare at one metre, full power</span>
      <span>⌒ leaps left: a loss</span>
      <span class="text-flash">⌣ swings right: a gain</span>
      <span class="text-ambient">⌣ what the ambient adds</span>
      <span class="text-flash">● reaches</span>
      <span class="text-flash">◐ on the line</span>
      <span class="text-short">◇ short</span>
      <span>bar: ± one standard deviation</span>
    </p>
  {/if}
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
