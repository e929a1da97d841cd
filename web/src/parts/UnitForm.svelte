<!-- A unit to be added or changed; what the form does not show is kept as it is. -->
<script lang="ts">
  import { api, problemsOf, type Problem, type Unit } from '../lib/api/client'
  import Dialog from './Dialog.svelte'

  type Props = {
    unit: { id: string; revision: number; doc: Unit }
    close: () => void
    done: (words: string) => void
  }
  let { unit, close, done }: Props = $props()
  // svelte-ignore state_referenced_locally
  let draft = $state(structuredClone($state.snapshot(unit.doc)) as Unit)
  let problems = $state<Problem[]>([])
  const claims = $derived(draft.claims ?? [])
  const source = $derived(draft.sources?.[0])

  function addClaim() {
    draft.claims = [
      ...claims,
      {
        guide_number: 36,
        unit: 'm',
        iso: 100,
        zoom_mm: null,
        coverage_deg: null,
        reflector: '',
        measured: false,
        sd: null,
      },
    ] as Unit['claims']
  }

  function feed(change: Record<string, unknown>) {
    const base = source ?? { kind: 'aa', name: '', recycle_full_s: 3, recycle_least_s: 0.1 }
    draft.sources = [{ ...base, ...change }, ...(draft.sources ?? []).slice(1)] as Unit['sources']
  }

  const near = (list: number[], value: number | undefined) =>
    value === undefined || list.some((one) => Math.abs(one - value) < 1e-6) ? list : [value, ...list]
  const lowest = near([1 / 16, 1 / 32, 1 / 64, 1 / 128, 1 / 256, 1 / 512], draft.scale?.lowest)
  const steps = near([1, 0.5, 1 / 3, 0.1], draft.scale?.step_stops)
  const sayStep = (step: number) => (Math.abs(step - 1 / 3) < 0.005 ? 'thirds' : `${step} stop`)

  const figure = (text: string) => (text.trim() === '' ? null : Number(text))

  async function save() {
    const body = $state.snapshot(draft) as Unit
    const { data, error } = unit.id
      ? await api.PUT('/api/units/{item_id}', {
          params: { path: { item_id: unit.id }, header: { 'if-match': `"${unit.revision}"` } },
          body,
        })
      : await api.POST('/api/units', { body })
    if (!data) return void (problems = problemsOf(error))
    done(`${unit.id ? 'Changed' : 'Added'} ${data.doc.name}`)
    close()
  }
</script>

<Dialog title={unit.id ? `Edit ${unit.doc.name}` : 'Add a unit'} {close} wide>
  <form
    class="grid gap-3 sm:grid-cols-2"
    novalidate
    onsubmit={(event) => {
      event.preventDefault()
      void save()
    }}
  >
    <label class="field">Name <input class="input input-sm w-full" bind:value={draft.name} /></label>
    <label class="field"
      >Kind
      <select class="select select-sm w-full" bind:value={draft.kind}>
        {#each ['shoe', 'pocket', 'monobloc', 'pack', 'built_in', 'ring'] as kind (kind)}<option value={kind}
            >{kind.replace('_', ' ')}</option
          >{/each}
      </select>
    </label>
    <fieldset class="border-base-300 rounded-xl border p-3 sm:col-span-2">
      <legend class="px-1 text-sm font-semibold">Guide numbers, with their whole basis</legend>
      {#each claims as claim, i (i)}
        <div class="mb-2 flex flex-wrap items-end gap-2">
          <label class="field w-20"
            >GN <input
              class="input input-sm w-full"
              type="number"
              step="any"
              bind:value={claim.guide_number}
            /></label
          >
          <label class="field w-20"
            >in <select class="select select-sm w-full" bind:value={claim.unit}
              ><option value="m">m</option><option value="ft">ft</option></select
            ></label
          >
          <label class="field w-20"
            >ISO <input class="input input-sm w-full" type="number" bind:value={claim.iso} /></label
          >
          <label class="field w-24"
            >Zoom, mm <input class="input input-sm w-full" type="number" bind:value={claim.zoom_mm} /></label
          >
          <label class="flex items-center gap-1 pb-1.5 text-sm"
            ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={claim.measured} /> measured by me</label
          >
          <button
            type="button"
            class="btn btn-sm btn-ghost"
            onclick={() => (draft.claims = claims.filter((_, j) => j !== i) as Unit['claims'])}>Remove</button
          >
        </div>
      {/each}
      <button type="button" class="btn btn-sm" onclick={addClaim}>Add a guide number</button>
    </fieldset>
    <label class="field"
      >Widest zoom, mm <input
        class="input input-sm w-full"
        type="number"
        step="any"
        bind:value={draft.zoom_min_mm}
      /></label
    >
    <label class="field"
      >Longest zoom, mm <input
        class="input input-sm w-full"
        type="number"
        step="any"
        bind:value={draft.zoom_max_mm}
      /></label
    >
    {#if draft.scale}
      <label class="field"
        >Power is dialled as
        <select class="select select-sm w-full" bind:value={draft.scale.kind}>
          <option value="fraction">fractions</option>
          <option value="number">stop numbers</option>
          <option value="ws">watt-seconds</option>
        </select></label
      >
      <label class="field"
        >Down to
        <select class="select select-sm w-full" bind:value={draft.scale.lowest}>
          {#each lowest as share (share)}<option value={share}>1/{Math.round(1 / share)}</option>{/each}
        </select></label
      >
      <label class="field"
        >In steps of
        <select class="select select-sm w-full" bind:value={draft.scale.step_stops}>
          {#each steps as step (step)}<option value={step}>{sayStep(step)}</option>{/each}
        </select></label
      >
    {/if}
    <label class="field"
      >Fed by
      <select
        class="select select-sm w-full"
        value={source?.kind ?? ''}
        onchange={(event) => feed({ kind: event.currentTarget.value })}
      >
        <option value="" disabled>not stated</option>
        <option value="aa">AA cells</option>
        <option value="lithium">lithium pack</option>
        <option value="external">external pack</option>
        <option value="mains">mains</option>
      </select></label
    >
    <label class="field"
      >Energy, Ws <input
        class="input input-sm w-full"
        type="number"
        step="any"
        bind:value={draft.watt_seconds}
      /></label
    >
    <label class="flex items-end gap-2 pb-1.5 text-sm"
      ><input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={!!draft.hss}
        onchange={(event) =>
          (draft.hss = event.currentTarget.checked
            ? ({ extra_stops: 0.5, measured: false, table: [] } as unknown as Unit['hss'])
            : null)}
      /> High-speed sync</label
    >
    <label class="field"
      >Ready again after full power, s <input
        class="input input-sm w-full"
        type="number"
        step="any"
        value={source?.recycle_full_s ?? ''}
        onchange={(event) => feed({ recycle_full_s: figure(event.currentTarget.value) })}
      /></label
    >
    <label class="field"
      >Full flashes a charge <input
        class="input input-sm w-full"
        type="number"
        step="any"
        value={source?.full_flashes ?? ''}
        onchange={(event) => feed({ full_flashes: figure(event.currentTarget.value) })}
      /></label
    >
    <label class="field"
      >Weight, g <input class="input input-sm w-full" type="number" bind:value={draft.weight_g} /></label
    >
    <label class="field"
      >Price <input class="input input-sm w-full" type="number" step="any" bind:value={draft.price} /></label
    >
    {#if problems.length}
      <ul role="alert" class="text-short text-sm font-semibold sm:col-span-2">
        {#each problems as problem, i (i)}<li>{problem.sentence}</li>{/each}
      </ul>
    {/if}
    <div class="flex gap-2 sm:col-span-2">
      <button class="btn btn-primary" type="submit">{unit.id ? 'Save' : 'Add'}</button>
      <button class="btn" type="button" onclick={close}>Cancel</button>
    </div>
  </form>
</Dialog>

<style>
  .field {
    display: block;
    font-size: 0.85rem;
  }
</style>
