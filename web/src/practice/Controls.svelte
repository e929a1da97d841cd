<!-- What can be set in a drill: a step down, the value, a step up; of each light its own. -->
<script lang="ts">
  import Minus from '@lucide/svelte/icons/minus'
  import Plus from '@lucide/svelte/icons/plus'
  import type { PracticeControl } from '../lib/api/client'
  import type { DrillSession } from './drill.svelte'

  let { session, controls, off }: { session: DrillSession; controls: PracticeControl[]; off: boolean } =
    $props()
  const groups = $derived([...new Set(controls.map((one) => one.of))])
</script>

{#each groups as group (group)}
  <fieldset class="border-base-300 border-t pt-1.5" disabled={off}>
    <legend class="text-quiet pr-2 text-[0.82rem]">{group || 'Camera and place'}</legend>
    {#each controls.filter((one) => one.of === group) as one (`${one.what} ${one.light}`)}
      {@const label = group ? `${one.name}, ${group}` : one.name}
      {#if one.hidden}
        {#if one.what === 'channel'}
          <button
            type="button"
            class="btn btn-sm my-1"
            onclick={() => session.move('look', null, 0, one.light)}
            >Look at its switches<span class="sr-only">: {group}</span></button
          >
        {/if}
      {:else}
        <div class="flex items-center gap-2 py-0.5">
          <span class="min-w-0 flex-1 text-[0.95rem]" aria-hidden="true">{one.name}</span>
          <button
            type="button"
            class="btn btn-sm btn-square"
            aria-label={`${label}: a step down`}
            aria-disabled={one.at === 0}
            onclick={() => session.set(one, one.at - 1)}><Minus size={14} /></button
          >
          <select
            class="border-base-300 bg-base-100 h-9 w-36 rounded border px-2 tabular-nums"
            aria-label={label}
            value={String(one.at)}
            onchange={(event) => session.set(one, Number(event.currentTarget.value))}
          >
            {#each one.choices as choice, at (at)}<option value={String(at)}>{choice.says}</option>{/each}
          </select>
          <button
            type="button"
            class="btn btn-sm btn-square"
            aria-label={`${label}: a step up`}
            aria-disabled={one.at === one.choices.length - 1}
            onclick={() => session.set(one, one.at + 1)}><Plus size={14} /></button
          >
        </div>
      {/if}
    {/each}
  </fieldset>
{/each}
