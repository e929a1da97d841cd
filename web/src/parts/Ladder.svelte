<!-- The distance ladder: what to dial at each marked distance; on the screen, on paper as a table and a strip, as a file. -->
<script lang="ts">
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'

  let { session }: { session: SetupSession } = $props()

  const asked = ofSetup(
    () => session,
    '/api/setups/{item_id}/ladder',
    (one) => ({ query: { light: one.light } }),
  )
  const ladder = $derived(asked.found)

  /** On paper only the ladder: the rest of the page is put aside while it is printed. */
  function print() {
    document.documentElement.dataset.print = 'ladder'
    window.print()
    delete document.documentElement.dataset.print
  }
</script>

{#if asked.wrong}<p class="text-short">{asked.wrong}</p>{/if}
{#if ladder}
  <div class="ladder" data-testid="ladder">
    <p class="mb-1 text-[0.9rem]">
      <bdi class="font-bold">{ladder.unit}</bdi>, {ladder.settings}
      <span class="no-print ml-3 space-x-3">
        <button type="button" class="link-button" onclick={print}>Print</button>
        <a class="link-button" download href={`/api/setups/${session.id}/ladder.csv?light=${session.light}`}
          >CSV</a
        >
      </span>
    </p>
    {#if ladder.span}<p class="mb-1 text-[0.9rem]" data-testid="span">{ladder.span}</p>{/if}
    <div class="overflow-x-auto">
      <table class="text-[0.9rem]">
        <caption class="sr-only">What to dial by distance</caption>
        <thead class="text-quiet text-left">
          <tr>
            <th class="pr-6 font-normal">distance</th>
            {#each ladder.columns as column, at (at)}<th class="pr-6 font-normal"><bdi>{column}</bdi></th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each ladder.rungs as rung, at (at)}
            <tr class="border-base-300 border-t">
              <th scope="row" class="py-0.5 pr-6 text-left font-bold">{rung.distance}</th>
              {#each rung.dials as dial, i (i)}
                <td class={`pr-6 ${rung.holds[i] ? 'text-flash font-bold' : 'text-quiet'}`}>{dial}</td>
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="strip" aria-hidden="true">
      {#each ladder.rungs.filter((rung) => rung.holds[0]) as rung, at (at)}
        <span><b>{rung.distance}</b>{rung.dials[0]}</span>
      {/each}
    </div>
  </div>
{/if}

<style>
  .strip {
    display: none;
  }
  @media print {
    .strip {
      display: flex;
      width: 9cm;
      margin-top: 8mm;
      border: 1px dashed #000;
      font-size: 7pt;
    }
    .strip span {
      display: grid;
      flex: 1;
      text-align: center;
      border-right: 1px solid #999;
      padding: 1mm 0;
    }
  }
</style>
