<!-- The day: will it last? The time line, what gives out and what to do, settings hour by hour, bursts. -->
<script lang="ts">
  import { sayClock } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'
  import { setups } from '../lib/setups.svelte'
  import Burst from '../day/Burst.svelte'
  import DayAsk from '../day/DayAsk.svelte'
  import Hours from '../day/Hours.svelte'
  import { onDate } from '../day/dates'
  import TimeLine from '../day/TimeLine.svelte'
  import JobPage from '../job/JobPage.svelte'
  import JobPick from '../job/JobPick.svelte'
  import Sessions from '../job/Sessions.svelte'
  import { address } from '../lib/addresses'
  import Heading from '../parts/Heading.svelte'

  let { id = '' }: { id?: string } = $props()
  const asked = ofJob('/api/jobs/{item_id}/day')
  const day = $derived(asked.found)
  let session = $state(0)
  /** The day that is looked at, by its place among the job's. */
  let page = $state(0)
  const date = $derived(day && day.dates.length > 1 ? day.dates[Math.min(page, day.dates.length - 1)] : null)
  const shown = $derived(day && date ? onDate(day, date) : day)
  const turn = $derived(shown?.turns.find((one) => one.session === session) ?? shown?.turns[0])
  /** A whole hour around a time, within the day. */
  const clock = (minutes: number) => {
    const midnight = date ? Math.floor(date.begins / 1440) * 1440 : 0
    return sayClock(Math.min(1439, Math.max(0, Math.floor((minutes - midnight) / 60) * 60)))
  }
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))

  $effect(() => {
    if (job.id && job.stored) void setups.load()
  })
</script>

<JobPage title="Day" {id}>
  {#snippet none()}
    <p>No job yet: <a class="link-button" href={address.job()}>begin one</a>, and its day stands here.</p>
  {/snippet}
  <div class="grid items-start gap-2 lg:grid-cols-[19rem_minmax(0,1fr)]">
    <div class="sheet space-y-3 p-3 max-lg:order-2">
      <JobPick view="day" />
      {#if day}<DayAsk {day} />{/if}
      <Sessions setups={own} />
      {#if day?.dates.length}
        <a class="btn btn-sm" href={`/api/jobs/${job.id}/day.ics`} download>Schedule as calendar file</a>
      {/if}
    </div>
    <div class="min-w-0 space-y-2">
      {#if asked.wrong}<p class="sheet p-3">{asked.wrong}</p>{/if}
      {#if day}
        <section class="sheet p-3" aria-labelledby="day-title">
          <h2
            id="day-title"
            class={`text-[1.3rem] font-bold ${day.lasts ? '' : 'text-short'}`}
            data-testid="day-says"
          >
            {day.says}
          </h2>
          {#if day.sure}<p class="text-[0.92rem]">{day.sure}</p>{/if}
          {#each day.wrong as line, at (at)}<p role="alert" class="text-short font-semibold">{line}</p>{/each}
          {#if day.dates.length > 1}
            <div class="my-2 flex flex-wrap gap-1.5" role="group" aria-label="Days of the job">
              {#each day.dates as one, at (one.date)}
                <button
                  type="button"
                  class={`btn btn-sm ${date === one ? 'btn-primary' : ''}`}
                  aria-pressed={date === one}
                  onclick={() => (page = at)}>{one.says}</button
                >
              {/each}
            </div>
          {/if}
          <TimeLine day={shown!} choose={(at) => (session = at)} />
          {#if day.ways.length}
            <h3 class="ask">What would help</h3>
            <ul class="space-y-1 text-[0.9rem]" data-testid="ways">
              {#each day.ways as way, at (at)}<li>
                  <button
                    type="button"
                    class="btn btn-sm said h-auto min-h-8 justify-start py-1 text-left font-normal"
                    onclick={() => job.help(way)}>{way.says}</button
                  >
                </li>{/each}
            </ul>
          {/if}
          <ul class="mt-1 text-[0.88rem]" data-testid="lasting">
            {#each day.units as unit (`${unit.unit} ${unit.supply}`)}<li>
                <bdi class="font-semibold">{unit.name}</bdi>{unit.supply && `, ${unit.supply}`}: {unit.says}
              </li>{/each}
          </ul>
        </section>
        {#if turn}
          <section class="sheet space-y-2 p-3" aria-labelledby="session-title">
            <div class="flex flex-wrap items-center gap-2">
              <Heading id="session-title" word="session">Session</Heading>
              <select
                class="select select-sm w-auto"
                aria-label="Session to look at"
                value={turn.session}
                onchange={(event) => (session = Number(event.currentTarget.value))}
              >
                {#each shown!.turns as one (one.session)}<option value={one.session}
                    >{one.session + 1}. {one.name}, {one.clocks}</option
                  >{/each}
              </select>
              <span class="text-quiet text-[0.86rem]">{turn.flashes}</span>
            </div>
            {#each turn.wrong as line, at (at)}<p class="text-short font-semibold">{line}</p>{/each}
            {#if turn.hands.length}
              <p class="text-[0.88rem]" data-testid="hands">
                <strong>Change by hand:</strong>
                {turn.hands.join('; ')}.
              </p>
            {/if}
            {#if turn.stretches.some((one) => one.hands.length)}
              <p class="text-[0.88rem]" data-testid="hourly">
                <strong>As the light changes:</strong>
                {turn.stretches
                  .filter((one) => one.hands.length)
                  .map((one) => `${one.clock} ${one.hands.join(', ')}`)
                  .join('; ')}.
              </p>
            {/if}
            {#key turn.setup}
              <Hours
                setup={turn.setup}
                day={date?.date}
                begins={clock(turn.ready - 30)}
                ends={clock(turn.end + 60)}
              />
              <details class="more">
                <summary>Bursts: which frames get flash</summary>
                <Burst
                  setup={turn.setup}
                  perS={setups.all.find((one) => one.id === turn.setup)?.perS ?? null}
                />
              </details>
            {/key}
          </section>
        {/if}
      {/if}
    </div>
  </div>
</JobPage>
