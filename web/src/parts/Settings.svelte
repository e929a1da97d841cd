<!-- How this person wants figures said and the screen to look, in one place. -->
<script lang="ts">
  import type { Preferences } from '../lib/api/client'
  import { person } from '../lib/person.svelte'
  import Dialog from './Dialog.svelte'

  let { close, choose }: { close: () => void; choose: (change: Partial<Preferences>) => void } = $props()
  const chosen = $derived(person.preferences)
  type Row = { label: string; key: 'length' | 'step' | 'power' | 'theme'; options: [string, string][] }
  const rows: Row[] = [
    {
      label: 'Length in',
      key: 'length',
      options: [
        ['m', 'metres'],
        ['ft', 'feet'],
      ],
    },
    {
      label: 'Stop steps',
      key: 'step',
      options: [
        ['third', '⅓ stops'],
        ['half', '½ stops'],
        ['full', 'full stops'],
      ],
    },
    {
      label: 'Power as',
      key: 'power',
      options: [
        ['own', 'each unit’s own dial'],
        ['fraction', 'fractions'],
        ['number', 'stop numbers'],
        ['ws', 'Ws'],
      ],
    },
    {
      label: 'Theme',
      key: 'theme',
      options: [
        ['system', 'as the machine'],
        ['desk', 'desk'],
        ['dim', 'dim'],
        ['sun', 'sun'],
      ],
    },
  ]
</script>

<Dialog title="Settings" {close}>
  <div class="grid grid-cols-[max-content_minmax(0,1fr)] items-center gap-x-4 gap-y-3">
    {#each rows as row (row.key)}
      <span id={`set-${row.key}`} class="text-quiet">{row.label}</span>
      <select
        class="tool border-base-300 bg-base-100 h-10 rounded border px-2"
        aria-labelledby={`set-${row.key}`}
        value={chosen[row.key]}
        onchange={(event) => choose({ [row.key]: event.currentTarget.value } as Partial<Preferences>)}
      >
        {#each row.options as [key, words] (key)}<option value={key}>{words}</option>{/each}
      </select>
    {/each}
    <label for="set-currency" class="text-quiet">Currency</label>
    <input
      id="set-currency"
      class="tool border-base-300 bg-base-100 h-10 w-20 rounded border px-2"
      maxlength="4"
      value={chosen.currency}
      onchange={(event) => choose({ currency: event.currentTarget.value })}
    />
  </div>
  <button class="btn btn-primary mt-5" onclick={close}>Close</button>
</Dialog>
