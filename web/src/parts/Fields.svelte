<!-- The fields of a form, from a list; rows and parts hold fields of their own. -->
<script lang="ts">
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { FieldText, Problem } from '../lib/api/client'
  import { bareLabel, shown, type Doc } from '../lib/fields'
  import { person } from '../lib/person.svelte'
  import { quantity } from '../lib/quantities.svelte'
  import Quantity from './Quantity.svelte'
  import Self from './Fields.svelte'

  type Props = {
    fields: FieldText[]
    draft: Doc
    problems: Problem[]
    id: string
    where?: string
    /** Whether hints are told: of several rows the first tells them. */
    hints?: boolean
  }
  let { fields, draft = $bindable(), problems, id, where = '', hints = true }: Props = $props()

  const path = (key: string) => (where ? `${where}.${key}` : key)
  const wrong = (key: string) => problems.find((problem) => problem.where === path(key))?.sentence ?? ''
  /** A row or part to begin with, as the server has it. */
  const blank = (name: string): Doc => structuredClone($state.snapshot(person.scales.blank.forms[name] ?? {}))
  const members = (key: string) => (draft[key] as string[] | undefined) ?? []
  /** Not what only other kinds of thing have. */
  const asked = $derived(
    fields.filter(
      (one) =>
        !one.only.length || one.only.includes(String(draft.kind ?? draft.shutter)) || stands(draft[one.key]),
    ),
  )
  /** Whether a field holds anything. */
  function stands(value: unknown): boolean {
    return value != null && value !== 'unknown' && !(Array.isArray(value) && !value.length)
  }
  /** Whether something in a fold is wrong, so that it must be seen. */
  function holds(inside: FieldText[]): boolean {
    return inside.some((one) => problems.some((problem) => problem.where.startsWith(path(one.key))))
  }
  /** What an option stands for: nothing, yes or no, or a word. */
  const chosen = (options: FieldText['options'], said: string) =>
    options.find((one) => String(one.value ?? '') === said)?.value ?? null
  const listed = (text: string) =>
    text
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean)
  const rows = (key: string) => (draft[key] as Doc[] | undefined) ?? []
</script>

{#each asked as field (field.key)}
  {#if field.asks === 'fold'}
    <details class="border-base-300 col-span-full border-t" open={holds(field.fields)}>
      <summary class="flex min-h-11 cursor-pointer items-center text-sm font-semibold">{field.label}</summary>
      <div class="grid gap-3 pb-3 sm:grid-cols-2">
        <Self fields={field.fields} bind:draft {problems} {id} {where} />
      </div>
    </details>
  {:else if field.asks === 'rows'}
    <fieldset class="border-base-300 col-span-full rounded-xl border p-3">
      <legend class="px-1 text-sm font-semibold">{field.label}</legend>
      {#each rows(field.key) as row, i (i)}
        <div class="mb-2 flex flex-wrap items-end gap-2">
          <div class="grid min-w-0 flex-1 grid-cols-[repeat(auto-fill,minmax(6.5rem,1fr))] gap-2">
            <Self
              fields={field.fields}
              draft={row}
              {problems}
              {id}
              where={`${path(field.key)}.${i}`}
              hints={i === 0}
            />
          </div>
          <button
            type="button"
            class="btn btn-sm btn-ghost btn-square"
            aria-label={`Take away: ${field.label}, ${i + 1}`}
            onclick={() => (draft[field.key] = rows(field.key).filter((_, j) => j !== i))}
            ><Trash2 size={15} /></button
          >
        </div>
      {/each}
      <button
        type="button"
        class="btn btn-sm"
        onclick={() => (draft[field.key] = [...rows(field.key), blank(field.blank)])}>{field.add}</button
      >
    </fieldset>
  {:else if field.asks === 'part'}
    <fieldset class="border-base-300 col-span-full rounded-xl border p-3">
      <legend class="px-1 text-sm font-semibold">
        {#if field.always}{field.label}{:else}
          <label class="flex items-center gap-2">
            <input
              type="checkbox"
              class="checkbox checkbox-sm"
              checked={!!draft[field.key]}
              onchange={(event) =>
                (draft[field.key] = event.currentTarget.checked ? blank(field.blank) : null)}
            />{field.label}</label
          >
        {/if}
      </legend>
      {#if draft[field.key]}
        <div class="grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-2">
          <Self
            fields={field.fields}
            draft={draft[field.key] as Doc}
            {problems}
            {id}
            where={path(field.key)}
          />
        </div>
      {/if}
    </fieldset>
  {:else if field.asks === 'set'}
    <fieldset class="border-base-300 col-span-full flex flex-wrap gap-x-5 gap-y-1 rounded border p-3">
      <legend class="px-1 text-sm font-semibold">{field.label}</legend>
      {#each field.options as { value, says } (value)}
        {@const key = String(value)}
        <label class="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            class="checkbox checkbox-sm"
            checked={members(field.key).includes(key)}
            onchange={(event) =>
              (draft[field.key] = event.currentTarget.checked
                ? [...members(field.key), key]
                : members(field.key).filter((one) => one !== key))}
          />{says}</label
        >
      {/each}
    </fieldset>
  {:else if field.asks === 'check'}
    <label class="flex items-end gap-2 pb-1.5 text-sm">
      <input
        type="checkbox"
        class="checkbox checkbox-sm"
        checked={!!draft[field.key]}
        onchange={(event) => (draft[field.key] = event.currentTarget.checked)}
      />{field.label}</label
    >
  {:else}
    {@const said = wrong(field.key)}
    <label class={`block text-sm ${field.wide ? 'col-span-full' : ''}`}>
      {field.label}
      {#if field.asks === 'choice'}
        <select
          class="select select-sm w-full"
          value={String(draft[field.key] ?? '')}
          onchange={(event) => (draft[field.key] = chosen(field.options, event.currentTarget.value))}
        >
          {#each field.options as { value, says } (value)}<option value={String(value ?? '')}>{says}</option
            >{/each}
        </select>
      {:else if field.asks === 'quantity'}
        {@const now = draft[field.key]}
        <Quantity
          label={field.label}
          key={`${id}/${path(field.key)}`}
          class="input input-sm w-full"
          value={shown(now, field.reads)}
          invalid={said !== ''}
          reads={quantity(field.reads, bareLabel(field), null, (value) => (draft[field.key] = value), {
            now: typeof now === 'number' ? now : null,
          })}
          empty={() => (draft[field.key] = null)}
        />
      {:else if field.asks === 'names'}
        <input
          class="input input-sm w-full"
          value={members(field.key).join(', ')}
          aria-invalid={said !== ''}
          onchange={(event) => (draft[field.key] = listed(event.currentTarget.value))}
        />
      {:else}
        <input
          class="input input-sm w-full"
          value={draft[field.key] ?? ''}
          aria-invalid={said !== ''}
          oninput={(event) => (draft[field.key] = event.currentTarget.value)}
        />
      {/if}
      {#if said}<span class="text-short block text-xs">{said}</span>
      {:else if field.hint && hints}<span class="text-quiet block text-xs">{field.hint}</span>{/if}
    </label>
  {/if}
{/each}
