<!-- What the job asks for, without a name: to hire or to buy by. -->
<script lang="ts">
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'
  import Heading from '../parts/Heading.svelte'

  const asked = ofJob('/api/jobs/{item_id}/request')
  const found = $derived(asked.found)

  async function copy() {
    try {
      await navigator.clipboard.writeText(found!.text)
      history.say('Copied.')
    } catch {
      history.tell('It could not be copied here: save it as text.')
    }
  }
</script>

{#if found}
  <section class="sheet p-3" aria-labelledby="request-title">
    <Heading id="request-title" word="request">To hire or to buy by</Heading>
    <p class="mb-2 text-[0.92rem]" data-testid="request">{found.says}</p>
    <ul class="grid gap-3 xl:grid-cols-2 print:grid-cols-2">
      {#each found.units as one, at (at)}
        <li class="border-base-300 border-t pt-1 text-[0.88rem]">
          <p class="font-semibold">
            {one.count} ×{one.typical ? ` such as a ${one.typical}` : ' as follows'}
          </p>
          <dl class="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-3">
            {#each one.figures as [name, figure], which (which)}
              <dt class="text-quiet">{name}</dt>
              <dd><bdi>{figure}</bdi></dd>
            {/each}
          </dl>
          <p class="text-quiet text-[0.82rem]">for <bdi>{one.lights.join('; ')}</bdi></p>
        </li>
      {/each}
    </ul>
    {#each found.notes as note, at (at)}<p class="text-quiet mt-2 text-[0.8rem] leading-snug">
        {note}
      </p>{/each}
    <p class="no-print mt-2 flex flex-wrap gap-x-4 text-[0.84rem]">
      <button type="button" class="link-button" onclick={copy}>Copy as text</button>
      <a class="link-button" href={`/api/jobs/${job.id}/request.txt`} download>Save as text</a>
      <a class="link-button" href={`/api/jobs/${job.id}/request.csv`} download>as CSV</a>
    </p>
  </section>
{/if}
