<!-- What the light needs of whatever unit stands there; each method's need, and the classes that give it, one touch away. -->
<script lang="ts">
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'

  let { session, typical }: { session: SetupSession; typical: boolean } = $props()
  const QUIET_MS = 120
  let open = $state(false)

  const asked = ofSetup(
    () => session,
    '/api/setups/{item_id}/need',
    (one) => ({ query: { light: one.light }, quiet: QUIET_MS }),
  )
  const found = $derived(asked.found)
</script>

{#if found?.methods.length}
  <div class="text-[0.88rem] leading-snug" data-testid="need">
    {#if !typical}<span class="text-quiet"><bdi>{found.short}</bdi></span>{/if}
    <button type="button" class="link-button no-print" aria-expanded={open} onclick={() => (open = !open)}
      >{open ? 'Hide what each method needs' : 'What each method needs'}</button
    >
    {#if open}
      <table class="mt-1 w-full">
        <thead class="text-quiet text-left"
          ><tr
            ><th class="pr-3 font-medium">Method</th><th class="pr-3 font-medium">Needs</th><th
              class="font-medium max-sm:hidden">Given by, for example</th
            ></tr
          ></thead
        >
        <tbody>
          {#each found.methods as one (one.method)}
            <tr class="border-base-300 border-t align-top">
              <th scope="row" class="py-1 pr-3 text-left font-semibold"
                >{one.title}<span class="text-quiet block text-[0.8rem] font-normal">{one.settings}</span></th
              >
              <td class="py-1 pr-3"
                ><bdi>{one.says}</bdi>
                {#if one.more.length}<span class="text-quiet block text-[0.8rem]"
                    ><bdi>{one.more.join(', ')}</bdi></span
                  >{/if}</td
              >
              <td class="py-1 max-sm:hidden">{one.classes.join(', ') || 'none of the usual classes'}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </div>
{/if}
