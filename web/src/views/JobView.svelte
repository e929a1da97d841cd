<!-- The job: brief and sessions beside the coverage, and which kit to take. -->
<script lang="ts">
  import { grams, money } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'
  import { setups } from '../lib/setups.svelte'
  import { person } from '../lib/person.svelte'
  import Brief from '../job/Brief.svelte'
  import Coverage from '../job/Coverage.svelte'
  import JobPage from '../job/JobPage.svelte'
  import JobPick from '../job/JobPick.svelte'
  import KitChoice from '../job/KitChoice.svelte'
  import Roster from '../job/Roster.svelte'
  import Sessions from '../job/Sessions.svelte'
  import SetupsOf from '../job/SetupsOf.svelte'

  import { address } from '../lib/addresses'
  import Word from '../parts/Word.svelte'
  import Heading from '../parts/Heading.svelte'

  let { id = '' }: { id?: string } = $props()
  const PAUSE_MS = 400
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))

  const asked = ofJob('/api/jobs/{item_id}/board')
  const board = $derived(asked.found)
  /** What goes along in all comes after the coverage: it takes the whole day to be worked out. */
  const along = ofJob('/api/jobs/{item_id}/pack', () => (board ? { quiet: PAUSE_MS } : null))
  const sums = $derived(along.found?.sums ?? '')
  $effect(() => {
    if (job.id && job.stored) void setups.load()
  })
</script>

<JobPage title="Job" {id}>
  {#snippet none()}
    <div class="sheet max-w-xl p-4">
      <p class="mb-3 text-lg">
        No job yet. A job holds the brief, its setups and the kit, and says whether the kit lasts the day.
      </p>
      <button type="button" class="btn btn-primary" onclick={() => job.begin('New job')}>Begin a job</button>
      <JobPick view="job" />
    </div>
  {/snippet}
  <div class="grid items-start gap-2 lg:grid-cols-[19rem_minmax(0,1fr)]">
    <div class="sheet space-y-3 p-3 max-lg:order-2">
      <JobPick view="job" />
      <Brief />
      <Sessions setups={own} />
      <SetupsOf {own} />
    </div>
    <div class="min-w-0 space-y-2">
      <section class="sheet p-3" aria-labelledby="coverage-title">
        <div class="flex items-baseline gap-1">
          <h2 id="coverage-title" class="text-[1.2rem] font-bold" data-testid="picked">
            {board ? board.picked.says : 'Coverage'}
          </h2>
          <Word word="coverage" />
        </div>
        {#if board && board.picked.grams > 0}
          <p class="text-quiet mb-1 text-[0.86rem]">
            The units: {grams(board.picked.grams)}, {money(board.picked.price, person.preferences.currency)} in
            all, {money(board.picked.outlay, person.preferences.currency)} of it to buy or hire.
          </p>
        {/if}
        {#if board && sums}
          <p class="text-quiet mb-1 text-[0.86rem]" data-testid="sums">
            {sums} <a class="link-button" href={address.kit(job.id)}>Pack list</a>
          </p>
        {/if}
        {#if asked.wrong}<p>{asked.wrong}</p>{/if}
        {#if board}<Coverage {board} />
          <p class="mt-1">
            <a class="link-button text-[0.84rem]" href={`/api/jobs/${job.id}/board.csv`} download
              >coverage as CSV</a
            >
          </p>{/if}
      </section>
      {#if board}
        <div class="sheet p-3"><KitChoice {board} /></div>
      {/if}
      <section class="sheet p-3" aria-labelledby="roster-title">
        <Heading id="roster-title" word="roster">Roster</Heading>
        <Roster />
      </section>
    </div>
  </div>
</JobPage>
