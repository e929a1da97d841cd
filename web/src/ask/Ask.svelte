<!-- The ask: the setup as sentences with live figures, in the order of work. -->
<script lang="ts">
  import { onMount } from 'svelte'
  import { kit } from '../lib/kit.svelte'
  import CameraKit from './CameraKit.svelte'
  import LightAdded from './LightAdded.svelte'
  import Look from './Look.svelte'
  import Motion from './Motion.svelte'
  import There from './There.svelte'

  onMount(() => void kit.load())
</script>

<div class="font-prose space-y-4 text-[1.05rem] leading-[1.85]">
  <There />
  <Look />
  <Motion />
  <CameraKit />
  <LightAdded />
</div>
