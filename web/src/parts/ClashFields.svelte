<!-- The fields that two changed: what is on this screen, beside what the server has. -->
<script lang="ts">
  import type { Change, DocumentSession } from '../lib/document.svelte'
  import type { Step } from '../lib/difference'

  let { session, change }: { session: DocumentSession<{ name?: string }>; change: Change } = $props()

  const said = (step: Step) => (typeof step === 'string' ? step.replaceAll('_', ' ') : '')
  function value(one: unknown): string {
    if (one === undefined) return 'taken away'
    if (one === null) return 'none'
    if (typeof one === 'boolean') return one ? 'yes' : 'no'
    if (typeof one !== 'object') return String(one)
    return (one as { name?: string }).name ?? 'as it stands there'
  }
</script>

<dl class="mt-2 grid grid-cols-[max-content_minmax(0,1fr)] gap-x-3 text-[0.9rem]">
  <dt class="text-quiet">Change</dt>
  <dd><bdi>{change.label}</bdi></dd>
  {#each change.ops.filter((op) => !op.order) as op, at (at)}
    <dt class="text-quiet">{op.path.map(said).filter(Boolean).join(', ')}</dt>
    <dd><bdi>{value(op.now)}</bdi> here, <bdi>{value(session.theirs(op))}</bdi> there</dd>
  {/each}
</dl>
