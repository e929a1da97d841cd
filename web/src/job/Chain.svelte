<!-- The chain behind one cell of the coverage. -->
<script lang="ts">
  import { fixed, signed } from '../lib/figures'
  import Dialog from '../parts/Dialog.svelte'
  import { question } from '../lib/question.svelte'
  import { address } from '../lib/addresses'

  let {
    setup,
    light,
    unit,
    name,
    warning,
    close,
  }: { setup: string; light: number; unit: string; name: string; warning: string; close: () => void } =
    $props()
  const asked = question(() => ({
    at: '/api/setups/{item_id}/lanes/{unit_id}',
    params: { path: { item_id: setup, unit_id: unit }, query: { light } },
  }))
  const detail = $derived(asked.found)
</script>

<Dialog title={detail ? `${detail.name}: ${name}` : name} {close} wide>
  {#if warning}<p class="mb-1 font-semibold">⚠ {warning}</p>{/if}
  {#if detail}
    <p class="mb-2">
      {detail.method}: <strong>{detail.verdict}</strong>, ± {fixed(detail.sd, 1)} stop; the chance that it reaches
      is
      {Math.round(detail.p_reach * 100)} %.
    </p>
    <table class="w-full text-sm">
      <caption class="sr-only">The chain of {detail.name}</caption>
      <tbody>
        {#each detail.steps as step, i (i)}
          <tr class="border-base-300 border-t align-top">
            <th scope="row" class="w-40 py-1 text-left font-semibold"><bdi>{step.cause}</bdi></th>
            <td class="w-16 py-1 pr-3 text-right font-semibold">{signed(step.stops, 2)}</td>
            <td class="py-1 leading-snug"><bdi>{step.why}</bdi></td>
          </tr>
        {/each}
        <tr class="border-base-content border-t-2">
          <th scope="row" class="py-1 text-left font-bold">in hand</th>
          <td class="py-1 pr-3 text-right font-bold">{signed(detail.spare, 2)}</td>
          <td></td>
        </tr>
      </tbody>
    </table>
  {:else}<p>{asked.wrong || 'Reading the chain …'}</p>{/if}
  <div class="mt-4 flex gap-2">
    <a class="btn btn-sm" href={address.setup(setup)} onclick={close}>Open the setup</a>
    <button type="button" class="btn btn-sm btn-primary" onclick={close}>Close</button>
  </div>
</Dialog>
