<!-- The setups of the job: opened, added, put in or taken out. -->
<script lang="ts">
  import { api, sentenceOf } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { setups, type Known } from '../lib/setups.svelte'
  import Begin from '../parts/Begin.svelte'
  import { address } from '../lib/addresses'
  import Heading from '../parts/Heading.svelte'

  let { own }: { own: Known[] } = $props()
  let beginning = $state(false)
  const others = $derived(setups.all.filter((one) => one.job_id !== job.id))

  async function put(id: string, job_id: string | null) {
    if (!id) return
    const { data, error } = await api.PUT('/api/setups/{item_id}/job', {
      params: { path: { item_id: id } },
      body: { job_id },
    })
    if (!data) return history.tell(sentenceOf(error))
    history.say(job_id ? `${data.doc.name} belongs to this job` : `${data.doc.name} taken out of this job`)
    await history.look()
    job.stored += 1
  }
</script>

<section aria-labelledby="setups-title">
  <Heading id="setups-title" word="setup">Setups</Heading>
  <ul class="text-[0.86rem] leading-snug">
    {#each own as one (one.id)}
      <li class="flex items-center justify-between gap-2">
        <a class="link-button" href={address.setup(one.id)}><bdi>{one.name}</bdi></a>
        <button type="button" class="link-button text-quiet" onclick={() => put(one.id, null)}
          >take out<span class="sr-only"> {one.name}</span></button
        >
      </li>
    {/each}
  </ul>
  <div class="mt-1 flex flex-wrap gap-2">
    <button type="button" class="btn btn-sm" onclick={() => (beginning = true)}>New setup</button>
    {#if others.length}
      <select
        class="select select-sm w-auto flex-1"
        aria-label="Put a setup into this job"
        value=""
        onchange={(event) => {
          void put(event.currentTarget.value, job.id)
          event.currentTarget.value = ''
        }}
      >
        <option value="">put in …</option>
        {#each others as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
      </select>
    {/if}
  </div>
</section>
{#if beginning}<Begin like={own[0]?.id} job={job.id} close={() => (beginning = false)} />{/if}
