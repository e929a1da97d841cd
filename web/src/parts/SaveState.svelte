<!-- Whether the server has all that was done here, in one word; and, where it has not, what waits and what to do. -->
<script lang="ts">
  import { sentences } from '../lib/api/client'
  import { AWAY } from '../lib/reply'
  import { log } from '../lib/log.svelte'
  import { outbox } from '../lib/outbox.svelte'
  import { address } from '../lib/addresses'
  import Dialog from './Dialog.svelte'

  let open = $state(false)
  const clock = (at: number) =>
    new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  const words = $derived(
    {
      saved: 'Saved',
      saving: 'Saving …',
      waiting: `Waiting: ${outbox.waiting} since ${clock(outbox.since)}`,
      aside: `Cannot be saved: ${outbox.aside}`,
    }[outbox.state],
  )
  const troubled = $derived(outbox.state === 'waiting' || outbox.state === 'aside')
  $effect(() => {
    if (!troubled) open = false
  })
</script>

<!-- On a phone only what is in trouble takes room: a word that comes and goes would move the page under a finger. -->
<span
  class={`ml-auto truncate text-sm ${troubled ? '' : 'max-sm:sr-only'}`}
  role="status"
  data-testid="saving"
  >{#if troubled}<button class="state" onclick={() => (open = true)}>{words}</button>{:else}{words}{/if}</span
>

{#if open}
  <Dialog title="Not saved yet" close={() => (open = false)}>
    {#if outbox.why}
      <p>{outbox.why}</p>
      <button class="btn btn-sm mt-2" onclick={outbox.hurry}>Try now</button>
    {/if}
    <ul class="divide-base-300 mt-3 divide-y">
      {#each outbox.sessions as session (`${session.kind}/${session.id}`)}
        {#each session.changes as change, at (at)}
          <li class="py-2" data-testid="unsaved">
            <p>
              <strong><bdi>{session.title}</bdi></strong>: <bdi>{change.label}</bdi>
              <span class="text-quiet text-[0.84rem]">since {clock(change.since)}</span>
            </p>
            {#if change.refused}
              <p class="text-short font-semibold"><bdi>{sentences(change.refused)}</bdi></p>
              <p class="flex flex-wrap gap-2">
                <button class="btn btn-sm" onclick={() => session.again(change)}>Send again</button>
                <button class="btn btn-sm" onclick={() => session.forget(change)}>Let it go</button>
              </p>
            {:else if change.clash}
              <p class="text-short font-semibold">Somebody else changed the same.</p>
              <p class="flex flex-wrap gap-2">
                <button class="btn btn-sm" onclick={() => session.choose(change, 'mine')}>Keep mine</button>
                <button class="btn btn-sm" onclick={() => session.choose(change, 'theirs')}
                  >Take theirs</button
                >
              </p>
            {/if}
          </li>
        {/each}
      {/each}
      {#each log.kept as one (one.id)}
        <li class="py-2" data-testid="unsaved">
          <p>
            <strong>Log</strong>: <bdi>{one.entry.name}</bdi>
            <span class="text-quiet text-[0.84rem]">since {clock(one.since)}</span>
          </p>
          {#if one.problems}
            <p class="text-short font-semibold"><bdi>{sentences(one.problems)}</bdi></p>
            <a class="link-button" href={address.log(one.entry.job ?? '')} onclick={() => (open = false)}
              >Mend it in the log</a
            >
          {:else if log.waits && log.waits !== AWAY}
            <button class="btn btn-sm" onclick={() => log.forget(one.id)}>Let it go</button>
          {/if}
        </li>
      {/each}
    </ul>
    <button class="btn btn-primary mt-4" onclick={() => (open = false)}>Close</button>
  </Dialog>
{/if}

<style>
  .state {
    min-height: 1.75rem;
    padding: 0 0.6rem;
    font-weight: 700;
    color: #16181a;
    cursor: pointer;
    background: #f2b24a;
    border-radius: 4px;
  }
  @media (max-width: 639px) {
    .state {
      min-height: 44px;
    }
  }
</style>
