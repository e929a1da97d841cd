<!-- The brief: the questions a client should answer, answered in place; what is open, and what the answers come to. -->
<script lang="ts">
  import type { Brief } from '../lib/api/client'
  import { rangeOf } from '../lib/figures'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'
  import { quantity, type Kind } from '../lib/quantities.svelte'
  import Fold from '../parts/Fold.svelte'
  import Quantity from '../parts/Quantity.svelte'
  import Heading from '../parts/Heading.svelte'

  const brief = $derived(job.doc!.brief)

  type Key = keyof Brief
  type Question = {
    key: Key
    label: string
    choices?: [string, string][]
    unit?: string
    kind?: Kind
    per?: Key
    usual?: string
  }
  const CROPS = [
    ['tight', 'head and shoulders'],
    ['waist', 'to the waist'],
    ['full', 'full length'],
  ] as const
  const crop = (key: (typeof CROPS)[number][0], on: boolean) =>
    job.edit('Crops', (doc) => {
      const before = doc.brief.crops ?? []
      const now = CROPS.map(([one]) => one).filter((one) => (one === key ? on : before.includes(one)))
      doc.brief.crops = now.length ? now : null
    })
  const QUESTIONS: Question[] = [
    { key: 'people', label: 'People', kind: 'count' },
    { key: 'frames_each', label: 'Frames each', kind: 'range' },
    { key: 'frame_mb', label: 'MB a frame', kind: 'number', usual: '30' },
    { key: 'delivered', label: 'Delivered', kind: 'count', per: 'delivered_per' },
    { key: 'picks_each', label: 'Picks each', kind: 'count' },
    { key: 'retouched', label: 'Retouched', kind: 'count', per: 'retouched_per' },
    { key: 'retouch_min', label: 'Minutes each', kind: 'minutes', usual: '15' },
    { key: 'hours', label: 'Hours', kind: 'hours' },
    { key: 'crops', label: 'Crops' },
    {
      key: 'orientation',
      label: 'Frame',
      choices: [
        ['landscape', 'landscape'],
        ['upright', 'upright'],
        ['both', 'both'],
      ],
    },
    {
      key: 'context',
      label: 'The place shows',
      choices: [
        ['none', 'not at all'],
        ['some', 'a little'],
        ['much', 'much'],
      ],
    },
    {
      key: 'posture',
      label: 'They are',
      choices: [
        ['standing', 'standing'],
        ['sitting', 'sitting'],
        ['both', 'both'],
      ],
    },
    { key: 'place', label: 'Place' },
    {
      key: 'power_on_site',
      label: 'Mains on site',
      choices: [
        ['true', 'yes'],
        ['false', 'no'],
      ],
    },
    {
      key: 'carriage',
      label: 'Kit travels',
      choices: [
        ['hand', 'by hand'],
        ['car', 'by car'],
        ['air', 'by air'],
      ],
    },
    { key: 'wind_m_s', label: 'Wind', unit: 'm/s', kind: 'speed' },
    {
      key: 'quiet',
      label: 'Quiet',
      choices: [
        ['true', 'must be'],
        ['false', 'need not be'],
      ],
    },
    {
      key: 'children',
      label: 'Children, animals',
      choices: [
        ['true', 'yes'],
        ['false', 'no'],
      ],
    },
  ]
  const FLAGS: Key[] = ['power_on_site', 'quiet', 'children']

  function answer(question: Question, text: string) {
    const { key } = question
    let value: unknown = text.trim() === '' ? null : text
    if (value !== null && FLAGS.includes(key)) value = text === 'true'
    set(question, value)
  }

  const set = ({ key, label, kind }: Question, value: unknown, most: number | null = null) =>
    void job.edit(label, (doc) => {
      ;(doc.brief as Record<string, unknown>)[key] = value
      if (kind === 'range') doc.brief.frames_each_most = most
    })

  async function copy() {
    if (!said) return
    try {
      await navigator.clipboard.writeText(said.letter)
      history.say('Copied: the open questions')
    } catch {
      history.tell('The browser does not let it be copied: mark the questions and copy them.')
    }
  }

  const asked = ofJob('/api/jobs/{item_id}/brief')
  const said = $derived(asked.found)
</script>

<section aria-labelledby="brief-title">
  <Heading id="brief-title" word="brief">Brief</Heading>
  <div class="grid grid-cols-[7.2rem_1fr] items-center gap-x-2 gap-y-1 text-[0.86rem]">
    {#each QUESTIONS as question (question.key)}
      {@const value = brief[question.key]}
      <label class={value === null ? 'text-quiet' : 'font-semibold'} for={`brief-${question.key}`}
        >{question.label}{#if value === null && !question.usual}<span class="sr-only">, open</span
          >{/if}</label
      >
      {#if question.key === 'crops'}
        <span class="flex flex-col" role="group" aria-label="Crops">
          {#each CROPS as [key, words], at (key)}<label class="flex min-h-7 items-center gap-1.5"
              ><input
                type="checkbox"
                class="checkbox checkbox-sm"
                id={at === 0 ? 'brief-crops' : undefined}
                checked={brief.crops?.includes(key) ?? false}
                onchange={(event) => crop(key, event.currentTarget.checked)}
              />{words}</label
            >{/each}
        </span>
      {:else if question.choices}
        <select
          id={`brief-${question.key}`}
          class="select select-xs w-full"
          value={value === null ? '' : String(value)}
          onchange={(event) => answer(question, event.currentTarget.value)}
        >
          <option value="">to ask</option>
          {#each question.choices as [key, words] (key)}<option value={key}>{words}</option>{/each}
        </select>
      {:else}
        <span class="flex items-center gap-1">
          {#if question.kind}
            <Quantity
              id={`brief-${question.key}`}
              label={question.label}
              class="input input-xs w-full"
              placeholder={question.usual ?? 'to ask'}
              value={question.kind === 'range'
                ? rangeOf(value as number | null, brief.frames_each_most)
                : String(value ?? '')}
              reads={quantity(
                question.kind,
                question.label,
                person.bounds('Brief', question.key),
                (figure, most) => set(question, figure, most),
              )}
              empty={() => set(question, null)}
            />
          {:else}
            <input
              id={`brief-${question.key}`}
              class="input input-xs w-full"
              placeholder="to ask"
              dir="auto"
              maxlength="80"
              value={value ?? ''}
              onchange={(event) => answer(question, event.currentTarget.value)}
            />
          {/if}{#if question.unit}<span class="text-quiet">{question.unit}</span
            >{/if}{#if question.per}{@const per = question.per}<select
              class="select select-xs w-20"
              aria-label={`${question.label}: in all or each`}
              value={brief[per]}
              onchange={(event) => set({ ...question, key: per }, event.currentTarget.value)}
              ><option value="all">in all</option><option value="person">each</option></select
            >{/if}
        </span>
      {/if}
    {/each}
  </div>
  {#if said?.comes_to.length}
    <ul class="mt-2 text-[0.84rem] leading-snug" data-testid="brief-sums">
      {#each said.comes_to as line, at (at)}<li>{line}</li>{/each}
    </ul>
  {/if}
  {#if said?.open.length}
    <Fold print words={`${said.open.length} to ask`}>
      <ol class="list-decimal pl-5 text-[0.84rem] leading-snug">
        {#each said.open as question, at (at)}<li>{question}</li>{/each}
      </ol>
      <button type="button" class="btn btn-sm mt-1" onclick={copy}>Copy the questions</button>
    </Fold>
  {/if}
</section>
