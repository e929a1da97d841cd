<!-- Which kit: what is picked comes to, the best kit by what counts, and the front of weight against money. -->
<script lang="ts">
  import { api, sentenceOf, type BoardText, type KitText } from '../lib/api/client'
  import { grams, money } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { person } from '../lib/person.svelte'
  import LiveChoice from '../parts/LiveChoice.svelte'
  import Heading from '../parts/Heading.svelte'

  let { board }: { board: BoardText } = $props()
  let found = $state.raw<KitText | null>(null)
  let front = $state.raw<KitText[]>([])
  let asking = $state(false)
  let wrong = $state('')
  let stop = $state.raw<AbortController | null>(null)
  const doc = $derived(job.doc!)
  const pounds = (figure: number) => money(figure, person.preferences.currency)

  $effect(() => {
    void job.stored
    found = null
    front = []
    wrong = ''
  })

  async function choose() {
    asking = true
    wrong = ''
    const { data, error } = await api.GET('/api/jobs/{item_id}/kit', {
      params: { path: { item_id: job.id } },
    })
    asking = false
    found = data ?? null
    wrong = data ? '' : sentenceOf(error)
  }

  /** The front comes line by line, and can be stopped. */
  async function weigh() {
    stop = new AbortController()
    asking = true
    front = []
    wrong = ''
    try {
      const answer = await fetch(`/api/jobs/${job.id}/front`, { signal: stop.signal })
      if (!answer.ok || !answer.body) throw new Error()
      const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
      let rest = ''
      for (;;) {
        const { value, done } = await reader.read()
        if (done) break
        const lines = (rest + value).split('\n')
        rest = lines.pop() ?? ''
        front = [...front, ...lines.filter(Boolean).map((line) => JSON.parse(line) as KitText)]
      }
      if (!front.length) wrong = 'Nothing covers all of it: choose the kit to see what must be given up.'
    } catch {
      if (!stop?.signal.aborted) wrong = 'The server could not answer.'
    } finally {
      asking = false
      stop = null
    }
  }

  const take = (kit: KitText) =>
    job.edit('Kit chosen', (doc) => {
      doc.picked = kit.taken.map(({ unit, name, count }) => ({ unit, name, count }))
      doc.posts = kit.stands
    })
</script>

<section aria-labelledby="kit-title" class="space-y-1">
  <Heading id="kit-title" word="kit_choice">Which kit?</Heading>
  {#each board.picked.cautions as caution, at (at)}<p class="text-[0.86rem]">⚠ {caution}</p>{/each}
  <p class="text-[0.92rem]">
    Find the
    <LiveChoice
      label="Kit with the least"
      value={doc.least}
      options={[
        ['weight', 'lightest'],
        ['price', 'cheapest'],
        ['buy', 'least to buy or hire'],
      ]}
      choose={(value) => job.edit('Kit with the least', (one) => (one.least = value))}
    />
    kit, with
    <LiveChoice
      label="Chance for every light"
      value={String(doc.chance)}
      options={[...new Set(['0.7', '0.8', '0.9', '0.95', '0.99', String(doc.chance)])].map(
        (one): [string, string] => [one, `${Math.round(Number(one) * 100)} %`],
      )}
      choose={(value) => job.edit('Chance for every light', (one) => (one.chance = Number(value)))}
    />
    for every light,
    <LiveChoice
      label="Units that may fail"
      value={String(doc.spares)}
      options={[
        ['0', 'no spare'],
        ['1', 'any one may fail'],
      ]}
      choose={(value) => job.edit('Units that may fail', (one) => (one.spares = Number(value)))}
    />,
    <LiveChoice
      label="Units that are not known"
      value={String(doc.known_only)}
      options={[
        ['false', 'of all units'],
        ['true', 'of those weighed and priced'],
      ]}
      choose={(value) => job.edit('Units not known', (one) => (one.known_only = value === 'true'))}
    />.
  </p>
  <div class="flex flex-wrap gap-2">
    <button type="button" class="btn btn-sm btn-primary" disabled={asking} onclick={choose}
      >Choose the kit</button
    >
    <button type="button" class="btn btn-sm" disabled={asking} onclick={weigh}>Weight against money</button>
    {#if asking}<span role="status" class="self-center text-[0.86rem]"
        >Working it out …{front.length ? ` ${front.length} found` : ''}</span
      >{/if}
    {#if stop}<button type="button" class="btn btn-sm" onclick={() => stop?.abort()}>Stop</button>{/if}
  </div>
  {#if wrong}<p role="alert" class="text-short font-semibold">{wrong}</p>{/if}
  {#if found}
    <div class="bg-base-200 rounded p-2 text-[0.88rem]" data-testid="kit">
      <p class="font-semibold">{found.says}</p>
      {#if found.given_up.length}
        <p class="mt-1">What stands in the way:</p>
        <ul class="list-disc pl-5">
          {#each found.given_up as line, at (at)}<li><bdi>{line}</bdi></li>{/each}
        </ul>
      {:else if found.taken.length}
        <p>
          {#each found.taken as one, i (one.unit)}{i ? ', ' : ''}{one.count > 1 ? `${one.count} × ` : ''}<bdi
              >{one.name}</bdi
            >{one.holding === 'owned' ? '' : one.holding === 'hire' ? ' (hired)' : ' (to buy)'}{/each}.
          {found.batteries}
          {#if found.sure}That all of it holds: {found.sure}.{/if}
        </p>
        {#if found.unknown}<p class="text-quiet"><bdi>{found.unknown}</bdi></p>{/if}
        <button type="button" class="btn btn-sm mt-1" onclick={() => take(found!)}>Take these along</button>
        <details class="more">
          <summary>who stands where</summary>
          <ul class="leading-snug">
            {#each found.posts as post, at (at)}<li><bdi>{post}</bdi></li>{/each}
          </ul>
        </details>
      {/if}
    </div>
  {/if}
  {#if front.length}
    <table class="w-full text-[0.84rem]" data-testid="front">
      <caption class="sr-only">Kits of which none is both lighter and cheaper to get</caption>
      <thead class="text-quiet text-left">
        <tr
          ><th class="font-medium">Kit</th><th class="text-right font-medium">weighs</th><th
            class="text-right font-medium">to buy or hire</th
          ><th class="text-right font-medium">all holds</th><th><span class="sr-only">Take</span></th></tr
        >
      </thead>
      <tbody>
        {#each front as kit, i (i)}
          <tr class="border-base-300 border-t align-top">
            <td class="py-1"
              >{#each kit.taken as one, k (one.unit)}{k ? ', ' : ''}{one.count > 1
                  ? `${one.count} × `
                  : ''}<bdi>{one.name}</bdi>{/each}{kit.proven ? '' : ' (not proven)'}</td
            >
            <td class="py-1 text-right whitespace-nowrap">{grams(kit.grams)}</td>
            <td class="py-1 text-right whitespace-nowrap">{pounds(kit.outlay)}</td>
            <td class="py-1 text-right">{kit.sure}</td>
            <td class="py-1 text-right"
              ><button type="button" class="link-button" onclick={() => take(kit)}>take</button></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>
