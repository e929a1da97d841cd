<!-- The workbench: the ask on the left, ways and jump chart beside it. -->
<script lang="ts">
  import JumpChart from '../chart/JumpChart.svelte'
  import { bench } from '../lib/workbench.svelte'
  import Ask from '../ask/Ask.svelte'
  import SetupPick from '../parts/SetupPick.svelte'
  import Ways from '../parts/Ways.svelte'
</script>

<h1 class="sr-only">{bench.doc?.name}</h1>
<div class="workbench grid gap-x-7 gap-y-6 lg:grid-cols-[20rem_minmax(0,1fr)]">
  <div>
    <SetupPick />
    <input
      class="font-prose mb-2 w-full rounded text-[1.7rem] leading-tight font-semibold"
      aria-label="Name of the setup"
      maxlength="80"
      value={bench.doc?.name}
      onchange={(event) => {
        const name = event.currentTarget.value.trim()
        if (name) bench.edit(`Rename to ${name}`, (s) => (s.name = name))
        else event.currentTarget.value = bench.doc?.name ?? ''
      }}
    />
    <Ask />
  </div>
  <div class="min-w-0 space-y-6">
    {#if bench.problems.length && bench.saving === 'refused'}
      <div role="alert" class="border-short text-short rounded-xl border p-3">
        Not saved: {bench.problems.map((problem) => problem.sentence).join(' ')}
      </div>
    {/if}
    {#if bench.trouble}
      <div role="alert" class="border-short rounded-xl border p-4">
        <p class="text-short font-semibold">{bench.trouble}</p>
        <a href="#/shelf" class="mt-2 inline-block underline underline-offset-4">Go to the shelf</a>
      </div>
    {:else if bench.answer}
      <Ways />
      <JumpChart />
    {/if}
  </div>
</div>
