<!--
  What the server refused, with the reason, wherever one is; and why it waits, where something is to be done. It lies over
  the foot of the page: nothing moves under a finger when it comes.
-->
<script lang="ts">
  import X from '@lucide/svelte/icons/x'
  import { sentences } from '../lib/api/client'
  import { outbox } from '../lib/outbox.svelte'
  import { AWAY } from '../lib/reply'

  /** The reason that was read and put away; the bar still tells that something waits. */
  let read = $state('')
  const why = $derived(outbox.why === AWAY || outbox.why === read ? '' : outbox.why)
  const refused = $derived(
    outbox.sessions
      .filter((one) => !one.inForm)
      .flatMap((session) =>
        session.changes.filter((one) => one.refused).map((change) => ({ session, change })),
      ),
  )
  /** How high the slips stand, in px: the page ends that much lower, so that its last line can be read above them. */
  let height = $state(0)
  const room = $derived(why || refused.length ? height : 0)

  $effect(() => {
    document.documentElement.style.setProperty('--slips', `${room}px`)
  })
</script>

<div class="room no-print"></div>
{#if why || refused.length}
  <div
    bind:offsetHeight={height}
    class="no-print pointer-events-none fixed inset-x-0 bottom-0 z-20 flex flex-col items-center gap-2 p-2"
  >
    {#if why}
      <p role="alert" class="slip">
        <span>Waiting: <bdi>{why}</bdi> What you did is kept here.</span>
        <button class="btn btn-sm btn-square" aria-label="Put this away" onclick={() => (read = why)}
          ><X size={16} /></button
        >
      </p>
    {/if}
    {#each refused as { session, change }, at (at)}
      <p role="alert" class="slip">
        <span
          >Not saved: <bdi>{sentences(change.refused)}</bdi>
          <span class="text-quiet font-normal"><bdi>{session.title}</bdi>, <bdi>{change.label}</bdi></span
          ></span
        >
        <button class="btn btn-sm" onclick={() => session.forget(change)}>Put it back</button>
      </p>
    {/each}
  </div>
{/if}

<style>
  .room {
    height: var(--slips);
  }
  .slip {
    display: flex;
    gap: 0.75rem;
    align-items: center;
    max-width: 100%;
    padding: 0.5rem 0.75rem;
    font-weight: 600;
    color: var(--color-short);
    pointer-events: auto;
    background: var(--color-base-100);
    border: 2px solid var(--color-short);
    border-radius: 8px;
    box-shadow: 0 4px 16px rgb(0 0 0 / 0.25);
  }
</style>
