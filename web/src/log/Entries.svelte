<!-- What was logged, the newest first; odd readings pointed out, each to be set aside or taken in again. -->
<script lang="ts">
  import { api, type LogText } from '../lib/api/client'
  import { count } from '../lib/figures'
  import { history } from '../lib/history.svelte'

  let { text, changed, more }: { text: LogText; changed: () => void; more: () => void } = $props()

  async function aside(id: string, name: string, to: boolean) {
    const asked = api.PUT('/api/log/{item_id}/aside', {
      params: { path: { item_id: id }, query: { aside: to } },
    })
    await history.done(asked, () => `${to ? 'Set aside' : 'Taken in'}: ${name}`)
    changed()
  }

  async function remove(id: string, name: string) {
    if (await history.remove('log', id, name)) changed()
  }

  async function adopt(id: string) {
    const asked = api.PUT('/api/log/{item_id}/adopt', { params: { path: { item_id: id } } })
    await history.done(asked, (body) => `${body.doc.name} now has this curtain`)
    changed()
  }
</script>

{#if text.empty}<p class="text-quiet">{text.empty}</p>{/if}
<ul class="divide-base-300 divide-y">
  {#each text.entries as one (one.id)}
    <li class="py-2" data-testid="entry">
      <p class={one.aside ? 'text-quiet line-through' : ''}>
        <span class="text-quiet text-[0.84rem]">{one.at}</span>
        <strong><bdi>{one.name}</bdi></strong>{#if one.what !== one.name}: <bdi>{one.what}</bdi
          >{/if}{#if one.found}, <strong>{one.found}</strong>{/if}
      </p>
      {#if one.facts.length || one.note}<p class="text-quiet text-[0.84rem]">
          <bdi>{[...one.facts, one.note].filter(Boolean).join(' · ')}</bdi>
        </p>{/if}
      {#if one.odd}<p class="text-short font-semibold">{one.odd}</p>{/if}
      <p class="flex gap-3 text-[0.84rem]">
        <button type="button" class="link-button" onclick={() => aside(one.id, one.name, !one.aside)}
          >{one.aside ? 'take in again' : 'set aside'}</button
        >
        {#if one.what.includes('wall at')}<button
            type="button"
            class="link-button"
            onclick={() => adopt(one.id)}>use for the body</button
          >{/if}
        <button type="button" class="link-button" onclick={() => remove(one.id, one.name)}>delete</button>
      </p>
    </li>
  {/each}
</ul>
{#if text.more}
  <button type="button" class="btn btn-sm mt-2" onclick={more}>Older entries ({count(text.more)} more)</button
  >
{/if}
