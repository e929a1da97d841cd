<!-- How this person wants figures said and the screen to look, in one place. -->
<script lang="ts">
  import type { Preferences } from '../lib/api/client'
  import { person } from '../lib/person.svelte'
  import Dialog from './Dialog.svelte'

  let { close, choose }: { close: () => void; choose: (change: Partial<Preferences>) => Promise<string> } =
    $props()
  let refused = $state('')

  /** A choice that was refused is said here, and the field goes back to what is kept. */
  async function take(field: HTMLInputElement | HTMLSelectElement, key: keyof Preferences) {
    refused = await choose({ [key]: field.value } as Partial<Preferences>)
    if (refused) field.value = String(chosen[key])
  }
  const chosen = $derived(person.preferences)
  type Row = {
    label: string
    key: 'length' | 'step' | 'power' | 'decimal' | 'theme'
    options: [string, string][]
  }
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
      label: 'Decimal sign',
      key: 'decimal',
      options: [
        ['either', 'point; read either'],
        ['point', 'point'],
        ['comma', 'comma'],
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
        onchange={(event) => take(event.currentTarget, row.key)}
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
      onchange={(event) => take(event.currentTarget, 'currency')}
    />
  </div>
  {#if refused}<p role="alert" class="text-short mt-4 font-semibold">{refused}</p>{/if}
  <p class="mt-5 flex flex-wrap gap-2">
    <button class="btn btn-primary" onclick={close}>Close</button>
    <a class="btn" href="#/practice" onclick={close}>Practice with made-up kit</a>
    <a class="btn" href="#/help" onclick={close}>Help</a>
  </p>
</Dialog>
