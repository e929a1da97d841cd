<!-- The channel sheet: setup by setup, who listens to whom, and what is wrong with it. -->
<script lang="ts">
  import type { SheetText } from '../lib/api/client'
  import { address } from '../lib/addresses'

  let { sheets }: { sheets: SheetText[] } = $props()
  const told = $derived(sheets.some((one) => one.wires.some((wire) => wire.channel || wire.group)))
  const wrong = $derived(sheets.filter((one) => one.wrong.length).length)
</script>

<p class={wrong ? 'text-short font-semibold' : 'font-semibold'}>
  {wrong
    ? `${wrong} of ${sheets.length} ${sheets.length === 1 ? 'setup wants' : 'setups want'} a look.`
    : told
      ? 'No channel or group clashes.'
      : 'No channels are set yet.'}
</p>
<div class="overflow-x-auto">
  <table class="w-full text-[0.86rem]">
    <thead class="text-quiet text-left"
      ><tr
        ><th class="font-medium">Setup</th><th class="font-medium">Channel</th><th class="font-medium"
          >Group</th
        ><th class="font-medium">Role</th><th class="font-medium">Unit</th><th class="font-medium">Power</th
        ><th class="font-medium">Fired by</th></tr
      ></thead
    >
    {#each sheets as sheet (sheet.setup)}
      <tbody class="border-base-300 border-t">
        {#each sheet.wires as wire, i (i)}
          <tr class="align-top">
            <th scope="row" class="pr-3 text-left"
              >{#if i === 0}<a class="link-button" href={address.setup(sheet.setup)}
                  ><bdi>{sheet.name}</bdi></a
                >{/if}</th
            >
            <td class="pr-3">{wire.channel || '–'}</td><td class="pr-3"><bdi>{wire.group || '–'}</bdi></td><td
              class="pr-3">{wire.role}</td
            ><td class="pr-3"
              ><bdi>{wire.unit}</bdi>{#if wire.how}<span class="text-quiet block"><bdi>{wire.how}</bdi></span
                >{/if}</td
            ><td class="text-flash pr-3 font-semibold whitespace-nowrap">{wire.power}</td><td>{wire.fired}</td
            >
          </tr>
        {/each}
        {#each sheet.wrong as line, at (at)}<tr
            ><td></td><td colspan="6" class="text-short font-semibold"><bdi>{line}</bdi></td></tr
          >{/each}
      </tbody>
    {/each}
  </table>
</div>
