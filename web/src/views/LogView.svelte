<!-- The log: what was read on location, planned against found, what it taught, and what to measure next. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { api, asItIs } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { log } from '../lib/log.svelte'
  import { setups } from '../lib/setups.svelte'
  import JobPage from '../job/JobPage.svelte'
  import JobPick from '../job/JobPick.svelte'
  import Entries from '../log/Entries.svelte'
  import Learned from '../log/Learned.svelte'
  import Mend from '../log/Mend.svelte'
  import OnSet from '../log/OnSet.svelte'
  import Failed from '../parts/Failed.svelte'
  import TestFrame from '../log/TestFrame.svelte'
  import { address } from '../lib/addresses'
  import Heading from '../parts/Heading.svelte'

  let { id = '', setup = '' }: { id?: string; setup?: string } = $props()
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))

  $effect(() => {
    void history.turned
    void setups.load()
  })
  $effect(() => {
    void log.arrived
    void job.stored
    if (!setup) look()
  })

  function look() {
    if (!job.id) return
    void log.load(job.id)
    void log.propose(job.id)
  }

  /** What a device or another tab writes comes into sight by itself, while this page is looked at. */
  const LOOK_MS = 2000
  onMount(() => {
    let known: number | null = null
    const timer = setInterval(async () => {
      if (document.hidden || setup) return
      const { data } = await api.GET('/api/log/turn')
      if (typeof data !== 'number') return
      if (known !== null && data !== known) look()
      known = data
    }, LOOK_MS)
    return () => clearInterval(timer)
  })

  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    const [one] = event.currentTarget.files ?? []
    event.currentTarget.value = ''
    if (!one) return
    const asked = api.POST('/api/log/import', {
      ...asItIs(one),
      headers: { 'content-type': 'text/csv' },
    })
    await history.done(asked, (done) => `${done.added} taken in, ${done.known} known already`)
    look()
  }
</script>

{#if log.waiting.length}
  <p class="sheet mb-2 p-2 font-semibold" role="status" data-testid="waiting">
    {log.waiting.length}
    {log.waiting.length === 1 ? 'entry waits' : 'entries wait'} for the server; kept here until it answers. {log.waits}
  </p>
{/if}
{#each log.refusals.filter((one) => !setup || !one.form?.startsWith(`${setup}/`)) as one (one.id)}
  <Mend waiting={one} />
{/each}
<JobPage title="Log" {id} ready={setup !== ''}>
  {#snippet none()}
    <p>No job yet: <a class="link-button" href={address.job()}>begin one</a>, and its log stands here.</p>
  {/snippet}
  {#if setup}
    <!-- A setup of its own: what was set for one is not what is set for the next. -->
    {#key setup}<OnSet {setup} />{/key}
  {:else}
    <div class="grid items-start gap-2 lg:grid-cols-[19rem_minmax(0,1fr)]">
      <div class="space-y-2">
        <section class="sheet space-y-2 p-3" aria-labelledby="set-list">
          <JobPick view="log" />
          <Heading id="set-list" word="on_set">On the set</Heading>
          <ul>
            {#each own as one (one.id)}
              <li><a class="link-button" href={address.onSet(job.id, one.id)}><bdi>{one.name}</bdi></a></li>
            {:else}<li class="text-quiet">No setup in this job yet.</li>{/each}
          </ul>
        </section>
        <section class="sheet space-y-2 p-3" aria-labelledby="frame-title">
          <Heading id="frame-title" word="test_frame">Test frame</Heading>
          <TestFrame />
        </section>
      </div>
      <div class="min-w-0 space-y-2">
        {#if log.text}
          {#if log.text.setups.some((one) => one.lights.length)}
            <section class="sheet p-3" aria-labelledby="found-title">
              <Heading id="found-title" word="planned_found">Planned against found</Heading>
              <div class="overflow-x-auto">
                <table class="w-full text-[0.88rem]">
                  <thead class="text-quiet text-left"
                    ><tr
                      ><th class="font-medium">Setup</th><th class="font-medium">Light</th><th
                        class="font-medium">Set</th
                      ><th class="font-medium">Came out</th><th class="font-medium">Wants</th></tr
                    ></thead
                  >
                  <tbody>
                    {#each log.text.setups as one, at (at)}
                      {#each one.lights as light, at (at)}
                        <tr class="border-base-300 border-t align-top" data-testid="found">
                          <th scope="row" class="py-1 pr-3 text-left"><bdi>{one.name}</bdi></th>
                          <td class="py-1 pr-3">{light.role}, <bdi>{light.unit}</bdi></td>
                          <td class="py-1 pr-3 whitespace-nowrap">{light.planned}</td>
                          <td class="py-1 pr-3">{light.off}</td>
                          <td class="text-flash py-1 font-semibold whitespace-nowrap">{light.found}</td>
                        </tr>
                      {/each}
                    {/each}
                  </tbody>
                </table>
              </div>
            </section>
          {/if}
          <section class="sheet p-3" aria-labelledby="learned-title">
            <Heading id="learned-title" word="learned">What readings have taught</Heading>
            <Learned text={log.text} />
          </section>
          {#if log.next.length}
            <section class="sheet p-3" aria-labelledby="next-title">
              <Heading id="next-title" word="measure_next">What to measure next, before leaving home</Heading>
              <ol class="list-inside list-decimal">
                {#each log.next as one, at (at)}<li data-testid="proposal">
                    <strong><bdi>{one.says}</bdi></strong>
                    <span class="text-quiet text-[0.86rem]"><bdi>{one.why}</bdi></span>
                  </li>{/each}
              </ol>
            </section>
          {/if}
          <section class="sheet p-3" aria-labelledby="entries-title">
            <div class="flex flex-wrap items-center gap-3">
              <Heading id="entries-title" word="entry">Entries</Heading>
              <a class="link-button text-[0.84rem]" href="/api/log/export.json" download>all as JSON</a>
              <a class="link-button text-[0.84rem]" href="/api/log/export.csv" download>as CSV</a>
              <label class="btn btn-xs"
                >Take in<input
                  type="file"
                  class="sr-only"
                  aria-label="Log from a file"
                  accept=".json,.csv"
                  onchange={take}
                /></label
              >
            </div>
            <Entries text={log.text} changed={look} more={() => void log.further(job.id)} />
          </section>
        {:else if log.trouble}<Failed sentence={`The entries cannot be shown. ${log.trouble}`} again={look} />
        {:else}<p class="text-quiet">Opening …</p>{/if}
      </div>
    </div>
  {/if}
</JobPage>
