<!-- The workbench: the ask on the left, methods and jump chart beside it. -->
<script lang="ts">
  import Ask from '../ask/Ask.svelte'
  import JumpChart from '../chart/JumpChart.svelte'
  import { api } from '../lib/api/client'
  import { bench } from '../lib/bench.svelte'
  import { history } from '../lib/history.svelte'
  import { person } from '../lib/person.svelte'
  import { setups } from '../lib/setups.svelte'
  import Methods from '../parts/Methods.svelte'
  import SetupPick from '../parts/SetupPick.svelte'
  import { address } from '../routes'

  let { setup }: { setup?: string } = $props()
  const wanted = $derived(setup ?? setups.all[0]?.id)
  const session = $derived(bench.session)

  $effect(() => {
    void setups.all
    if (wanted && wanted !== bench.wanted) void bench.open(wanted)
  })

  async function begin() {
    const name = 'First setup'
    const made = await history.done(
      api.POST('/api/setups', { body: { ...person.scales.blank.setup, name } }),
      () => `Added ${name}`,
    )
    if (!made) return
    await setups.load()
    bench.missing = false
    location.hash = address.setup(made.id)
  }
</script>

{#if bench.missing || !wanted}
  <h1 class="font-prose text-2xl">There is no setup here yet.</h1>
  <button class="btn mt-4" onclick={begin}>Begin one</button>
{:else if session}
  <h1 class="sr-only"><bdi>{session.doc.name}</bdi></h1>
  <div class="workbench grid gap-x-7 gap-y-6 lg:grid-cols-[20rem_minmax(0,1fr)]">
    <div>
      <SetupPick {session} />
      <input
        class="font-prose mb-2 w-full rounded text-[1.7rem] leading-tight font-semibold"
        aria-label="Name of the setup"
        dir="auto"
        maxlength="80"
        value={session.doc.name}
        onchange={(event) => {
          const name = event.currentTarget.value.trim()
          if (name) session.edit('Rename', (s) => (s.name = name))
          else event.currentTarget.value = session.doc.name
        }}
      />
      {#key session}<Ask {session} />{/key}
    </div>
    <div class="min-w-0 space-y-6">
      {#if session.problems.length && session.saving === 'refused'}
        <div role="alert" class="border-short text-short rounded-xl border p-3">
          Not saved: <bdi>{session.problems.map((problem) => problem.sentence).join(' ')}</bdi>
        </div>
      {/if}
      {#if session.trouble}
        <div role="alert" class="border-short rounded-xl border p-4">
          <p class="text-short font-semibold"><bdi>{session.trouble}</bdi></p>
          <a href={address.shelf()} class="mt-2 inline-block underline underline-offset-4">Go to the shelf</a>
        </div>
      {:else if session.answer}
        {#key session}
          <Methods {session} answer={session.answer} />
          {#if session.answer.lanes}
            <JumpChart {session} answer={session.answer} lanes={session.answer.lanes} />
          {:else}
            <h2 class="font-prose text-[1.35rem] font-semibold" data-testid="headline">
              {session.answer.headline}
            </h2>
          {/if}
        {/key}
      {/if}
    </div>
  </div>
{/if}
