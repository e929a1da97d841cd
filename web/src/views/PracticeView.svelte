<!-- Practice: made-up kit, hidden truth; the list of drills, or the one in hand. -->
<script lang="ts">
  import { address } from '../lib/addresses'
  import { question } from '../lib/question.svelte'
  import Drill from '../practice/Drill.svelte'
  import Leap from '../practice/Leap.svelte'

  let { id, seed = 1, hard = false }: { id?: string; seed?: number; hard?: boolean } = $props()
  const asked = question(() => (id ? null : { at: '/api/practice/drills', params: {} }))
  const drills = $derived(asked.found ?? [])
</script>

{#if id === 'leap'}
  {#key seed}<Leap {seed} />{/key}
{:else if id}
  <Drill code={id} {seed} {hard} />
{:else}
  <div class="sheet mx-auto max-w-5xl space-y-3 p-5">
    <h1 class="text-[1.7rem] font-semibold">Practice</h1>
    <p class="max-w-3xl">
      A made-up camera, meter and flash, each a little off from what its maker says, as yours are. Set them,
      look at the frame, and get there in few frames. Nothing here touches your jobs, your shelf or your log.
    </p>
    {#if asked.wrong}<p role="alert" class="text-short font-semibold">{asked.wrong}</p>{/if}
    <ul class="divide-base-300 divide-y">
      {#each drills as drill (drill.code)}
        <li class="grid gap-x-4 gap-y-1 py-2.5 sm:grid-cols-[minmax(0,1fr)_auto] sm:items-center">
          <div>
            <h2 class="font-semibold">{drill.name}</h2>
            <p class="text-quiet text-[0.92rem]">{drill.why}</p>
          </div>
          <p class="flex gap-2">
            <a class="btn btn-sm" href={address.practice(drill.code)} aria-label={`${drill.name}: begin`}
              >Begin</a
            >
            <a
              class="btn btn-sm"
              href={address.practice(drill.code, 1, true)}
              title={drill.harder}
              aria-label={`${drill.name}: begin, harder: ${drill.harder}`}>Harder</a
            >
          </p>
        </li>
      {/each}
      {#if drills.length}
        <li class="grid gap-x-4 gap-y-1 py-2.5 sm:grid-cols-[minmax(0,1fr)_auto] sm:items-center">
          <div>
            <h2 class="font-semibold">The peak of a leap</h2>
            <p class="text-quiet text-[0.92rem]">
              One flash a recharge, and a camera that takes a moment: press so that the picture is the peak.
            </p>
          </div>
          <a
            class="btn btn-sm justify-self-start"
            href={address.practice('leap')}
            aria-label="The peak of a leap: begin">Begin</a
          >
        </li>
      {/if}
    </ul>
  </div>
{/if}
