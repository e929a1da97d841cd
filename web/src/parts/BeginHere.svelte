<!-- Where a new setup is, to be touched: it says what is likely; body and bag are those used last, else the first owned. -->
<script lang="ts">
  import { api } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../lib/addresses'

  let {
    like = null,
    job = null,
    begun = () => {},
  }: { like?: string | null; job?: string | null; begun?: () => void } = $props()
  const places = [
    ['sun', 'Outdoors, in the sun'],
    ['shade', 'Outdoors, in the shade'],
    ['indoors', 'Indoors, lamps and windows'],
    ['dark', 'In the dark'],
  ] as const

  async function begin(where: (typeof places)[number][0]) {
    const asked = api.POST('/api/setups/begin', { params: { query: { where, like } } })
    const made = await history.done(asked, (one) => `Added ${one.doc.name}`)
    if (!made) return
    if (job && made.job_id !== job)
      await api.PUT('/api/setups/{item_id}/job', {
        params: { path: { item_id: made.id } },
        body: { job_id: job },
      })
    begun()
    await setups.load()
    bench.missing = false
    location.hash = address.setup(made.id)
  }
</script>

<div class="grid max-w-md gap-2">
  {#each places as [where, words] (where)}
    <button type="button" class="btn justify-start" onclick={() => begin(where)}>{words}</button>
  {/each}
</div>
