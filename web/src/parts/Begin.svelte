<!-- A new setup: where it is says what is likely; body and bag are those used last. -->
<script lang="ts">
  import { api } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import { setups } from '../lib/setups.svelte'
  import { address } from '../lib/addresses'
  import Dialog from './Dialog.svelte'

  let {
    like = null,
    job = null,
    close,
  }: { like?: string | null; job?: string | null; close: () => void } = $props()
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
    close()
    await setups.load()
    bench.missing = false
    location.hash = address.setup(made.id)
  }
</script>

<Dialog title="Where is it?" {close}>
  <div class="grid gap-2">
    {#each places as [where, words] (where)}
      <button class="btn justify-start" onclick={() => begin(where)}>{words}</button>
    {/each}
  </div>
  <p class="text-quiet mt-3 text-sm">A likely picture to start from; every figure of it can be changed.</p>
</Dialog>
