<!-- The person's own lines for the check before the first frame: they stand on every card of the job. -->
<script lang="ts">
  import { job } from '../lib/job.svelte'
  import AddLine from '../parts/AddLine.svelte'

  const add = (text: string) =>
    void job.edit('Own check', (doc) => (doc.preflight = [...doc.preflight, text]))
  const drop = (at: number) =>
    job.edit('Own check', (doc) => (doc.preflight = doc.preflight.filter((_, place) => place !== at)))
</script>

<ul>
  {#each job.doc?.preflight ?? [] as text, at (at)}
    <li class="flex items-center justify-between gap-2">
      <span class="min-w-0"><bdi>{text}</bdi></span><button
        type="button"
        class="link-button text-[0.82rem]"
        aria-label={`Remove check ${at + 1}`}
        onclick={() => drop(at)}>remove</button
      >
    </li>
  {/each}
</ul>
<AddLine
  label="Own check before the first frame"
  placeholder="lens cap, card in, clock set …"
  maxlength={80}
  wide
  {add}
/>
