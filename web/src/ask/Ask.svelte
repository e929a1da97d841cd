<!-- The ask: the setup as sentences with live figures, in the order of work. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { kit } from '../lib/kit.svelte'
  import type { SetupSession } from '../lib/session.svelte'
  import Aim from './Aim.svelte'
  import Ambient from './Ambient.svelte'
  import CameraKit from './CameraKit.svelte'
  import LightAdded from './LightAdded.svelte'
  import Motion from './Motion.svelte'
  import StageAsk from './StageAsk.svelte'

  let { session }: { session: SetupSession } = $props()
  onMount(() => void kit.load())
</script>

<div class="space-y-2.5 text-[0.93rem] leading-[1.75]">
  <Ambient {session} />
  <Aim {session} />
  <Motion {session} />
  <CameraKit {session} />
  <StageAsk {session} />
  <LightAdded {session} />
</div>
