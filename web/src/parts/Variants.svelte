<!-- Variants of the setup: kept by name, taken by one touch, each with only what hands must change. -->
<script lang="ts">
  import { history } from '../lib/history.svelte'
  import { ofSetup } from '../lib/asked'
  import type { SetupSession } from '../lib/session.svelte'

  let { session }: { session: SetupSession } = $props()
  let name = $state('')

  const asked = ofSetup(() => session, '/api/setups/{item_id}/variants')
  const found = $derived(asked.found)

  function keep(event: SubmitEvent) {
    event.preventDefault()
    const said = name.trim()
    if (!said) return
    if (session.doc.variants.some((one) => one.name === said))
      return history.tell(`There is a variant called ${said}: give it another name.`)
    session.edit('Keep a variant', (s) =>
      s.variants.push(
        structuredClone({
          name: said,
          orientation: s.aim.orientation,
          lens: s.aim.lens,
          stage: s.stage,
          lights: s.lights,
        }),
      ),
    )
    name = ''
  }

  const take = (at: number) => {
    const setup = found!.variants[at]!.setup
    session.edit(`Variant ${found!.variants[at]!.name}`, (s) => {
      s.aim.orientation = setup.aim.orientation
      s.aim.lens = structuredClone(setup.aim.lens)
      s.stage = structuredClone(setup.stage)
      s.lights = structuredClone(setup.lights)
    })
  }
  const forget = (at: number) => session.edit('Forget a variant', (s) => s.variants.splice(at, 1))
</script>

{#if asked.wrong}<p class="text-short">{asked.wrong}</p>{/if}
{#if found}
  <ul class="text-[0.9rem]">
    {#each found.variants as one, at (one.name)}
      <li class="border-base-300 flex flex-wrap items-baseline gap-x-3 border-b py-1">
        <bdi class="font-semibold">{one.name}</bdi>
        <span class="min-w-0 flex-1"
          >{one.here
            ? 'stands so'
            : one.hands.length
              ? one.hands.join('; ')
              : 'nothing to change by hand'}</span
        >
        {#if !one.here}<button type="button" class="link-button" onclick={() => take(at)}
            >take<span class="sr-only"> {one.name}</span></button
          >{/if}
        <button type="button" class="link-button text-quiet" onclick={() => forget(at)}
          >forget<span class="sr-only"> {one.name}</span></button
        >
      </li>
    {/each}
  </ul>
  {#if !found.variants.length}
    <p class="text-quiet text-[0.86rem]">
      Tight, to the waist, full length, seated, a pair: keep how the setup stands under a name, change it,
      keep that too. Going from one to the other then lists only what hands must change.
    </p>
  {/if}
  {#if found.free}
    <form onsubmit={keep} class="mt-2 flex gap-2">
      <input
        class="input input-sm w-48"
        aria-label="Name of the variant"
        placeholder="tight, full length …"
        maxlength="80"
        bind:value={name}
      />
      <button class="btn btn-sm">Keep as it stands</button>
    </form>
  {/if}
{/if}
