<!-- What the server refused, with the reason, wherever one is; and why it waits, where something is to be done. -->
<script lang="ts">
  import { AWAY } from '../lib/document.svelte'
  import { outbox } from '../lib/outbox.svelte'

  const refused = $derived(
    outbox.sessions
      .filter((one) => !one.inForm)
      .flatMap((session) =>
        session.changes.filter((one) => one.refused).map((change) => ({ session, change })),
      ),
  )
</script>

{#if outbox.why && outbox.why !== AWAY}
  <p role="alert" class="sheet border-short text-short no-print mb-2 border p-2 font-semibold">
    Waiting: <bdi>{outbox.why}</bdi> What you did is kept here.
  </p>
{/if}
{#each refused as { session, change }, at (at)}
  <p role="alert" class="sheet border-short text-short no-print mb-2 border p-2 font-semibold">
    Not saved: <bdi>{change.refused!.map((problem) => problem.sentence).join(' ')}</bdi>
    <span class="text-quiet font-normal"
      ><bdi>{session.doc?.name ?? 'Settings'}</bdi>, <bdi>{change.label}</bdi></span
    >
    <button class="link-button" onclick={() => session.forget(change)}>Put it back</button>
  </p>
{/each}
