<!-- The kit: what goes into the bags, who listens to whom, and a card for each setup. -->
<script lang="ts">
  import type { SheetText } from '../lib/api/client'
  import { job } from '../lib/job.svelte'
  import { ofJob } from '../lib/asked'
  import JobPage from '../job/JobPage.svelte'
  import JobPick from '../job/JobPick.svelte'
  import Channels from '../kit/Channels.svelte'
  import PackList from '../kit/PackList.svelte'
  import Phone from '../kit/Phone.svelte'
  import Preflight from '../kit/Preflight.svelte'
  import Request from '../kit/Request.svelte'
  import { address } from '../lib/addresses'
  import Heading from '../parts/Heading.svelte'

  let { id = '' }: { id?: string } = $props()

  const packed = ofJob('/api/jobs/{item_id}/pack')
  const sheet = ofJob('/api/jobs/{item_id}/channels')
  const pack = $derived(packed.found)
  const sheets = $derived<SheetText[]>(sheet.found ?? [])
</script>

<JobPage title="Kit" {id}>
  {#snippet none()}
    <p>
      No job yet: <a class="link-button" href={address.job()}>begin one</a>, and its kit list stands here.
    </p>
  {/snippet}
  <div class="grid items-start gap-2 lg:grid-cols-[19rem_minmax(0,1fr)] print:block">
    <div class="no-print space-y-2">
      <section class="sheet space-y-2 p-3" aria-labelledby="cards-title">
        <JobPick view="kit" />
        <Heading id="cards-title" word="card">Cards</Heading>
        <p class="text-[0.9rem]">
          One card a setup, to print from A6 to A4 or to keep on the phone. The file opens without a network,
          and answers when the light changes.
        </p>
        <p class="flex flex-wrap gap-2">
          <a
            class="btn btn-sm btn-primary"
            href={`/api/jobs/${job.id}/cards.html`}
            target="_blank"
            rel="noopener">Open the cards</a
          >
          <a class="btn btn-sm" href={`/api/jobs/${job.id}/cards.html?save=true`} download>Save as one file</a
          >
        </p>
        <h3 class="text-[0.88rem] font-semibold">Own checks before the first frame</h3>
        <Preflight />
      </section>
      <section class="sheet space-y-2 p-3" aria-labelledby="phone-title">
        <Heading id="phone-title" word="phone">On the phone</Heading>
        <Phone />
      </section>
    </div>
    <div class="min-w-0 space-y-2">
      {#if packed.wrong}<p class="sheet p-3">{packed.wrong}</p>{/if}
      {#if pack}<section class="sheet p-3" aria-label="Pack list"><PackList {pack} /></section>{/if}
      {#if sheets.length}
        <section class="sheet p-3" aria-labelledby="channels-title">
          <Heading id="channels-title" word="channel">Channel sheet</Heading>
          <Channels {sheets} />
        </section>
      {/if}
      <Request />
    </div>
  </div>
</JobPage>
