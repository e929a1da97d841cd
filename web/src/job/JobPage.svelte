<!-- A view of a job: opens the one asked for; says so while it opens, where it cannot be, and where there is none. -->
<script lang="ts">
  import type { Snippet } from 'svelte'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'
  import Failed from '../parts/Failed.svelte'

  let {
    title,
    id,
    none,
    children,
    ready = false,
  }: {
    title: string
    /** The job that the address asks for; '' for the one in hand. */
    id: string
    /** What stands here while there is no job. */
    none: Snippet
    children: Snippet
    /** Whether the view stands without a job, once that is known. */
    ready?: boolean
  } = $props()
  let failed = $state<string | null>(null)

  async function open(wanted: string, changed = false) {
    failed = await job.open(wanted, changed)
  }

  let turned = history.turned
  $effect(() => {
    const changed = turned !== history.turned
    turned = history.turned
    void open(id, changed)
  })
</script>

<h1 class="sr-only">{title}</h1>
{#if job.doc || (ready && failed === '')}
  {@render children()}
{:else if failed}
  <Failed sentence={`${title} cannot be shown. ${failed}`} again={() => open(id)} />
{:else if failed === ''}
  {@render none()}
{:else}
  <p class="text-quiet">Opening …</p>
{/if}
