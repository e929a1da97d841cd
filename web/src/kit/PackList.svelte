<!-- The pack list: bag by bag, ticked off and kept; what is missing, what is hired, own things. -->
<script lang="ts">
  import type { PackText } from '../lib/api/client'
  import { grams } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import AddLine from '../parts/AddLine.svelte'

  let { pack }: { pack: PackText } = $props()
  let sorting = $state(false)
  const ticked = $derived(new Set(job.doc?.ticked ?? []))

  function tick(key: string, on: boolean) {
    void job.edit(
      'Packed',
      (doc) => (doc.ticked = on ? [...doc.ticked, key] : doc.ticked.filter((one) => one !== key)),
    )
  }

  function bag(key: string, to: string) {
    void job.edit(
      'Bag',
      (doc) => (doc.bags = [...doc.bags.filter((one) => one.key !== key), { key, bag: to }]),
    )
  }

  function add(name: string): boolean {
    if (job.doc?.own_items.some((one) => one.name === name)) return false
    void job.edit(
      'Own thing to pack',
      (doc) => (doc.own_items = [...doc.own_items, { name, count: 1, weight_g: null }]),
    )
    return true
  }

  const drop = (name: string) =>
    job.edit('Own thing to pack', (doc) => (doc.own_items = doc.own_items.filter((one) => one.name !== name)))
</script>

<p class="text-[1.15rem] font-bold" data-testid="packed">{pack.says}</p>
{#if pack.missing.length}<p class="text-short font-semibold" data-testid="missing">
    Not owned: <bdi>{pack.missing.join(', ')}</bdi>.
  </p>{/if}
{#if pack.hire.length}<p>To hire: <bdi>{pack.hire.join('; ')}</bdi>.</p>{/if}
{#each pack.cautions as line, at (at)}<p class="text-[0.88rem]">{line}</p>{/each}
<div class="mt-2 gap-x-6 xl:columns-2 print:columns-2">
  {#each pack.bags as one (one.name)}
    <section aria-label={one.name} class="mb-3 min-w-0">
      <h3 class="border-base-content flex justify-between border-b-2 font-bold">
        <span><bdi>{one.name}</bdi></span><span>{one.weighs}</span>
      </h3>
      <ul class="divide-base-300 divide-y">
        {#each one.items as item (item.key)}
          <li class="flex break-inside-avoid items-start gap-2 py-1" data-testid="pack-line">
            <label class="flex min-w-0 flex-1 items-start gap-2 py-1">
              <input
                type="checkbox"
                class="checkbox checkbox-sm mt-0.5 shrink-0"
                checked={ticked.has(item.key)}
                onchange={(event) => tick(item.key, event.currentTarget.checked)}
              />
              <span class={`min-w-0 ${ticked.has(item.key) ? 'text-quiet line-through' : ''}`}>
                <strong>{item.count} × <bdi>{item.name}</bdi></strong><span class="text-quiet"
                  >{item.spare ? `, ${item.spare} of them spare` : ''}</span
                ><strong class="text-short">{item.missing ? `, ${item.missing}` : ''}</strong>
                <span class="text-quiet block text-[0.82rem]"
                  ><bdi
                    >{[
                      item.detail,
                      item.travel,
                      item.setups.slice(0, 4).join(', ') +
                        (item.setups.length > 4 ? ` and ${item.setups.length - 4} more` : ''),
                    ]
                      .filter(Boolean)
                      .join(' · ')}</bdi
                  ></span
                >
              </span>
            </label>
            {#if item.weight_g !== null}<span class="text-quiet shrink-0 py-1 text-[0.86rem]"
                >{grams(item.weight_g)}</span
              >{/if}
            {#if item.key.startsWith('own:')}<button
                type="button"
                class="link-button no-print text-[0.82rem]"
                onclick={() => drop(item.name)}>remove</button
              >{/if}
            {#if sorting}
              <select
                class="select select-xs no-print w-auto max-w-24 shrink-0"
                aria-label={`Bag of ${item.name}`}
                value={one.name}
                onchange={(event) => bag(item.key, event.currentTarget.value)}
              >
                {#each [...new Set([...pack.all_bags, 'Hand luggage'])] as name (name)}<option>{name}</option
                  >{/each}
              </select>
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/each}
</div>
<div class="mt-2">
  <AddLine label="Own thing to pack" placeholder="grey card, tape, flags …" maxlength={70} {add} />
</div>
<button
  type="button"
  class="link-button no-print mt-1 text-[0.84rem]"
  aria-pressed={sorting}
  onclick={() => (sorting = !sorting)}>{sorting ? 'bags are sorted' : 'sort into other bags'}</button
>
<p class="text-quiet mt-2 text-[0.82rem]">{pack.rule}</p>
