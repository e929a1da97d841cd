<!-- The roster: who comes when, for which variant; done or not. CSV in and out. -->
<script lang="ts">
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { sayClock } from '../lib/figures'
  import { job } from '../lib/job.svelte'
  import { freshId } from '../lib/stamp'
  import AddLine from '../parts/AddLine.svelte'

  const doc = $derived(job.doc!)
  /** A job of several days asks for the day of each. */
  const dated = $derived(doc.sessions.some((one) => one.day) || doc.roster.some((one) => one.day))
  const lateDay = $derived(doc.late_day ?? doc.day)
  /** When somebody who is still to come will be taken, where the day runs late. */
  function late(one: (typeof doc.roster)[number]): string {
    if (!one.slot || one.done || !doc.late_min || (one.day && one.day !== lateDay)) return ''
    const [hours, minutes] = one.slot.split(':').map(Number) as [number, number]
    return sayClock(hours * 60 + minutes + doc.late_min)
  }
  const done = $derived(doc.roster.filter((one) => one.done).length)

  const add = (name: string) =>
    void job.edit('Added to the roster', (one) =>
      one.roster.push({
        id: freshId(),
        name,
        day: null,
        slot: null,
        variant: '',
        done: false,
        files: '',
        picks: '',
      }),
    )
  const drop = (at: number) => job.edit('Taken off the roster', (one) => one.roster.splice(at, 1))

  function file(event: Event & { currentTarget: HTMLInputElement }) {
    const [one] = event.currentTarget.files ?? []
    if (one) void job.rosterFrom(one)
    event.currentTarget.value = ''
  }

  const set = (at: number, key: 'variant' | 'files' | 'picks', text: string) =>
    job.edit('Roster', (one) => (one.roster[at]![key] = text.trim()))
</script>

<div class="flex flex-wrap items-center gap-2">
  <AddLine label="Name of a person" placeholder="Name" maxlength={80} {add} />
  <label class="btn btn-sm"
    >Import CSV<input
      type="file"
      class="sr-only"
      accept=".csv,text/csv"
      aria-label="Roster from a CSV file"
      onchange={file}
    /></label
  >
  <a class="btn btn-sm" href={`/api/jobs/${job.id}/roster.csv`} download>Export CSV</a>
  <span class="text-quiet text-[0.84rem]">{done} of {doc.roster.length} done</span>
</div>
{#if doc.roster.length}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="relative overflow-x-auto" role="region" aria-label="Roster" tabindex="0">
    <table class="mt-2 w-full text-[0.84rem]">
      <thead class="text-quiet text-left">
        <tr
          ><th class="pr-2 font-medium">Done</th><th class="pr-2 font-medium">Slot</th><th
            class="pr-2 font-medium">Name</th
          ><th class="pr-2 font-medium">Variant</th><th class="pr-2 font-medium">Files</th><th
            class="font-medium">Picks</th
          ><th><span class="sr-only">Remove</span></th></tr
        >
      </thead>
      <tbody>
        {#each doc.roster as one, at (one.id)}
          <tr class="border-base-300 border-t">
            <td class="py-1 pr-2"
              ><input
                type="checkbox"
                class="checkbox checkbox-sm"
                aria-label={`${one.name} is done`}
                checked={one.done}
                onchange={(event) =>
                  job.edit('Done', (job) => (job.roster[at]!.done = event.currentTarget.checked))}
              /></td
            >
            <td class="pr-2 whitespace-nowrap"
              >{#if dated}<input
                  type="date"
                  class="input input-xs w-[7.6rem]"
                  aria-label={`date of ${one.name}`}
                  value={one.day ?? ''}
                  onchange={(event) =>
                    job.edit('Roster', (job) => (job.roster[at]!.day = event.currentTarget.value || null))}
                />
              {/if}{one.slot ?? ''}{#if late(one)}<strong class="text-short"> → {late(one)}</strong>{/if}</td
            >
            <td class="pr-2"><bdi class={one.done ? 'text-quiet line-through' : ''}>{one.name}</bdi></td>
            {#each ['variant', 'files', 'picks'] as const as key (key)}
              <td class="pr-1"
                ><input
                  class="input input-xs w-full min-w-16"
                  aria-label={`${key} of ${one.name}`}
                  maxlength="80"
                  value={one[key]}
                  onchange={(event) => set(at, key, event.currentTarget.value)}
                /></td
              >
            {/each}
            <td class="text-right"
              ><button
                type="button"
                class="btn btn-xs btn-ghost btn-square"
                aria-label={`Remove ${one.name}`}
                onclick={() => drop(at)}><Trash2 size={14} /></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{:else}
  <p class="text-quiet mt-1 text-[0.84rem]">
    Nobody yet. A CSV wants a column “name”; slot, variant, done, files and picks are taken where they are
    there.
  </p>
{/if}
