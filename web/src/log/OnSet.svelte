<!-- A setup on the set, for one hand: each light's dial, how it came out, the next dial; the background; the next setup. -->
<script lang="ts">
  import { person } from '../lib/person.svelte'
  import { api, sentenceOf, type LogEntry, type SetLightText } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { log } from '../lib/log.svelte'
  import { question } from '../lib/question.svelte'
  import { freshId, here } from '../lib/stamp'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../lib/addresses'
  import SetLight from './SetLight.svelte'
  import Off from './Off.svelte'

  let { setup }: { setup: string } = $props()
  let variant = $state('')
  let changed = $state<number | null>(null)
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))
  const at = $derived(own.findIndex((one) => one.id === setup))
  const variants = $derived(own[at]?.variants ?? [])

  const asked = question(() =>
    job.id
      ? {
          at: '/api/log/set/{job_id}/{setup_id}',
          params: { path: { job_id: job.id, setup_id: setup }, query: { variant } },
          since: [log.arrived, history.turned],
          hold: true,
        }
      : null,
  )
  const found = $derived(asked.found)

  const formOf = (light: SetLightText) => `${setup}/${light.light}`

  function write(light: SetLightText, id: string, more: Partial<LogEntry>) {
    if (light.blank) void log.write({ ...light.blank, at: here(), ...more }, id, formOf(light))
  }

  /** The entry of a change of the background: written once, however often the setup is asked to follow. */
  let noted = $state.raw<{ stops: number; id: string } | null>(null)

  async function background() {
    if (changed === null || !found) return
    if (noted?.stops !== changed) noted = { stops: changed, id: freshId() }
    void log.write(
      { ...found.ambient, at: here(), ambient: { stops: changed, sd: person.scales.reading_sd.ambient! } },
      noted.id,
    )
    const { error } = await api.POST('/api/log/set/{setup_id}/background', {
      params: { path: { setup_id: setup }, query: { stops: changed } },
    })
    if (error) history.tell(sentenceOf(error))
    else {
      history.say('The background is metered anew: the settings follow.')
      changed = null
      noted = null
      asked.again()
    }
  }

  async function asFound() {
    const asked = api.POST('/api/log/set/{setup_id}/as-found', { params: { path: { setup_id: setup } } })
    await history.done(asked, (made) => `Saved ${made.doc.name}`)
    await setups.load()
  }
</script>

<div class="mx-auto max-w-xl space-y-2">
  <nav class="flex items-center gap-2" aria-label="Setups of the job">
    <a class="btn" href={address.log(job.id)}>Log</a>
    <select
      class="select min-w-0 flex-1"
      aria-label="Setup on the set"
      value={setup}
      onchange={(event) => (location.hash = address.onSet(job.id, event.currentTarget.value))}
    >
      {#each own as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select>
    {#if at >= 0 && at + 1 < own.length}
      <a class="btn btn-primary" href={address.onSet(job.id, own[at + 1]!.id)}>Next</a>
    {/if}
  </nav>
  {#if asked.wrong}<p class="sheet text-short p-3 font-semibold" role="alert">{asked.wrong}</p>{/if}
  {#if found}
    <section class="sheet space-y-1 p-3" aria-labelledby="set-title">
      <h2 id="set-title" class="text-[1.25rem] font-bold"><bdi>{found.name}</bdi></h2>
      <p class="text-[1.35rem] leading-tight font-bold" data-testid="set-settings">{found.settings}</p>
      <p class="text-quiet">{found.method}</p>
      {#if variants.length}
        <select class="select" aria-label="Variant" bind:value={variant}>
          <option value="">as it stands</option>
          {#each variants as one (one)}<option>{one}</option>{/each}
        </select>
      {/if}
    </section>
    {#each found.lights as light (`${variant}/${light.light}`)}
      <SetLight {light} form={formOf(light)} write={(id, more) => write(light, id, more)} />
    {/each}
    <section class="sheet space-y-2 p-3" aria-label="Background">
      <Off
        label="Background now"
        dark="darker"
        bright="brighter"
        middle="as planned"
        value={changed}
        pick={(stops) => (changed = stops)}
      />
      <button type="button" class="btn w-full" disabled={changed === null} onclick={background}
        >The background has changed</button
      >
    </section>
    <p class="flex flex-wrap gap-2">
      <button type="button" class="btn" onclick={asFound}>Save as found</button>
      <a class="btn" href={address.setup(setup)}>Open the setup</a>
    </p>
  {:else if !asked.wrong}<p class="text-quiet">Opening …</p>{/if}
</div>
