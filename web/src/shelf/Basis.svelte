<!-- What units are compared on: bare, through a modifier at a distance, at a light of a setup, or the worst of a job. -->
<script lang="ts">
  import { job } from '../lib/job.svelte'
  import { digits, fixed } from '../lib/figures'
  import { kit } from '../lib/kit.svelte'
  import { person } from '../lib/person.svelte'
  import { setups } from '../lib/setups.svelte'
  import type { Basis } from './basis'

  let { basis = $bindable() }: { basis: Basis } = $props()
  const TIMES = [1 / 500, 1 / 1000, 1 / 2000, 1 / 4000, 1 / 8000]
  const feet = $derived(person.preferences.length === 'ft')
  const DISTANCES = [1, 1.4, 2, 2.8, 4, 5.6]

  function choose(value: string) {
    const [on, of] = value.split(' ') as [Basis['on'], string?]
    basis = { ...basis, on, of: of ?? '' }
  }
</script>

<div class="flex flex-wrap items-center gap-2 text-[0.88rem]">
  <label class="flex items-center gap-2"
    >Compared
    <select
      class="select select-sm w-auto max-w-72"
      aria-label="Compared on"
      value={`${basis.on} ${basis.of}`.trim()}
      onchange={(event) => choose(event.currentTarget.value)}
    >
      <option value="bare">bare, at one metre</option>
      {#if setups.all.length}<optgroup label="For a setup">
          {#each setups.all as one (one.id)}<option value={`setup ${one.id}`}>{one.name}</option>{/each}
        </optgroup>{/if}
      {#if job.id}<option value={`job ${job.id}`}>the worst of {job.doc?.name ?? 'the job'}</option>{/if}
      {#if kit.modifiers.length}<optgroup label="Through a modifier">
          {#each kit.modifiers as one (one.id)}<option value={`modifier ${one.id}`}>{one.doc.name}</option
            >{/each}
        </optgroup>{/if}
    </select></label
  >
  {#if basis.on === 'modifier'}
    <label class="flex items-center gap-2"
      >at
      <select class="select select-sm w-auto" aria-label="Distance" bind:value={basis.distance}>
        {#each DISTANCES as one (one)}<option value={one}
            >{feet ? `${fixed(one / 0.3048, 1)} ft` : `${digits(one, 2)} m`}</option
          >{/each}
      </select></label
    >
  {/if}
  {#if basis.on === 'bare' || basis.on === 'modifier'}
    <label class="flex items-center gap-2"
      >HSS at
      <select
        class="select select-sm w-auto"
        aria-label="Time at which HSS is compared"
        bind:value={basis.hss}
      >
        {#each TIMES as one (one)}<option value={one}>1/{Math.round(1 / one)}</option>{/each}
      </select></label
    >
  {/if}
</div>
