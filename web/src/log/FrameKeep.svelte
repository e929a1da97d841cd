<!-- What a frame says, into the log: a light's patch, a filter by two frames, a wall past sync. -->
<script lang="ts">
  import { fixed } from '../lib/figures'
  import { person } from '../lib/person.svelte'
  import type { LogEntry, PatchText } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import { kit } from '../lib/kit.svelte'
  import { log } from '../lib/log.svelte'
  import { question } from '../lib/question.svelte'
  import { setups } from '../lib/setups.svelte'
  import { here } from '../lib/stamp'

  let { found, first }: { found: PatchText; first: PatchText | null } = $props()
  let filter = $state('')
  let setup = $state('')
  let light = $state(0)
  const asked = question(() =>
    setup && job.id
      ? { at: '/api/log/set/{job_id}/{setup_id}', params: { path: { job_id: job.id, setup_id: setup } } }
      : null,
  )
  const set = $derived(asked.found)
  const own = $derived(setups.all.filter((one) => one.job_id === job.id))
  const target = $derived(set?.lights.find((one) => one.light === light) ?? set?.lights[0])

  $effect(() => void kit.load())

  async function keep() {
    const blank = target?.blank
    if (!blank?.seen || found?.level == null) return
    const alone = found.flash_alone
    const seen = {
      ...blank.seen,
      kind: 'patch' as const,
      sd: person.scales.reading_sd.patch!,
      holds_ambient: alone === null,
      stops: Math.round(((alone ?? found.level) - blank.seen.wanted_stops) * 1000) / 1000,
      camera: {
        ...blank.seen.camera,
        f_number: found.f_number ?? blank.seen.camera.f_number,
        shutter_s: found.shutter_s ?? blank.seen.camera.shutter_s,
        iso: found.iso ?? blank.seen.camera.iso,
      },
    }
    const entry: LogEntry = { ...blank, at: found.taken || here(), seen }
    await log.write(entry)
  }

  /** Two frames of one patch without flash, the second through a filter: what the filter takes. */
  const taken = $derived(first?.level != null && found?.level != null ? first.level - found.level : null)
  const alike = $derived(
    first?.f_number === found?.f_number && first?.shutter_s === found?.shutter_s && first?.iso === found?.iso,
  )

  async function keepFilter() {
    const one = kit.filters.find((stored) => stored.id === filter)
    if (!one || taken === null || !first || !found || !set) return
    if (!alike) return history.tell('The two frames were taken at other settings: take both alike.')
    await log.write({
      ...set.ambient,
      at: found.taken || here(),
      name: one.doc.name,
      filter: {
        filter: { ...one.doc, id: one.id },
        marked_stops: one.doc.stops,
        stops: Math.max(0, Math.round(taken * 1000) / 1000),
        cast_red: Math.round((found.cast[0]! - first.cast[0]!) * 1000) / 1000,
        cast_blue: Math.round((found.cast[1]! - first.cast[1]!) * 1000) / 1000,
      },
    })
  }

  /** Curtains cut only a frame that is shorter than the body's sync time. */
  const body = $derived(set?.lights[0]?.blank?.was?.body)
  const pastSync = $derived(
    found.shutter_s !== null && body?.shutter === 'focal_plane' && found.shutter_s < body.sync_s,
  )

  async function curtain() {
    const was = set?.lights[0]?.blank?.was
    if (!was || !found?.shutter_s)
      return history.tell('Choose the setup whose body this is, and a frame that says its time.')
    await log.write({
      ...set!.ambient,
      at: found.taken || here(),
      name: `${was.body.name.slice(0, 60)}, curtain`,
      curtain: {
        body: was.body,
        shutter_s: found.shutter_s,
        lit: Math.min(0.99, Math.max(0.02, found.lit)),
        dark_edge: found.dark_edge,
      },
    })
  }
</script>

<div class="flex flex-wrap items-center gap-2">
  <select class="select select-sm w-auto" aria-label="Setup of the frame" bind:value={setup}>
    <option value="">of which setup?</option>
    {#each own as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
  </select>
  {#if set && set.lights.length > 1}
    <select class="select select-sm w-auto" aria-label="Light of the frame" bind:value={light}>
      {#each set.lights as one (one.light)}<option value={one.light}>{one.role}, {one.unit}</option>{/each}
    </select>
  {/if}
  <button
    type="button"
    class="btn btn-sm btn-primary"
    disabled={!target?.blank || found.level === null}
    onclick={keep}>Log this patch</button
  >
  {#if taken !== null && found.flash === false && found !== first}
    <select class="select select-sm w-auto" aria-label="Filter on the lens" bind:value={filter}>
      <option value="">which filter?</option>
      {#each kit.filters as one (one.id)}<option value={one.id}>{one.doc.name}</option>{/each}
    </select>
    <button type="button" class="btn btn-sm" disabled={!filter || !set} onclick={keepFilter}
      >It took {fixed(taken, 2)} stops</button
    >
  {/if}
  {#if found.lit > 0.02 && found.lit < 0.97 && pastSync}
    <button type="button" class="btn btn-sm" disabled={!set} onclick={curtain}
      >It is a wall past sync: {Math.round(found.lit * 100)} % lit</button
    >
  {/if}
</div>
