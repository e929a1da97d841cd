<!-- A drill looked back at: what came out, what was done, what would have been shorter. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check'
  import X from '@lucide/svelte/icons/x'
  import type { ReviewText } from '../lib/api/client'

  let { review }: { review: ReviewText } = $props()
  const lists = $derived([
    ['What came out', review.goals],
    [`By the makers’ claims alone: ${review.claims_set}`, review.claims],
  ] as const)
</script>

<section aria-labelledby="review-title" class="border-base-content border-t-2 pt-2" data-testid="review">
  <h2 id="review-title" class="text-xl leading-snug font-semibold">{review.says}</h2>
  <div class="mt-2 grid gap-4 sm:grid-cols-2">
    {#each lists as [title, goals] (title)}
      <div>
        <h3 class="text-quiet text-[0.85rem]">{title}</h3>
        <ul>
          {#each goals as goal (goal.name)}
            <li class="flex items-baseline gap-2">
              {#if goal.met}<Check size={15} class="shrink-0 self-center" aria-label="met" />{:else}<X
                  size={15}
                  class="text-short shrink-0 self-center"
                  aria-label="not met"
                />{/if}
              <span
                >{goal.name}:
                <span class={goal.met ? '' : 'text-short font-semibold'}>{goal.says}</span></span
              >
            </li>
          {/each}
        </ul>
      </div>
    {/each}
  </div>
  {#if review.did.length}
    <h3 class="text-quiet mt-2 text-[0.85rem]">What was done</h3>
    <ul class="list-disc pl-5">
      {#each review.did as one (one)}<li>{one}</li>{/each}
    </ul>
  {/if}
  <p class="mt-2 font-semibold">{review.shorter}</p>
  <p class="text-quiet text-[0.92rem]">{review.right}</p>
</section>
