<!-- The phone: a code to scan where the server is open to the network; who was let in, to be taken back. -->
<script lang="ts">
  import { api, type PhoneOut } from '../lib/api/client'
  import { history } from '../lib/history.svelte'
  import { job } from '../lib/job.svelte'

  let phone = $state.raw<PhoneOut | null>(null)
  let name = $state('')
  let code = $state.raw<{ url: string; code: string } | null>(null)
  let script = $state('')
  let token = $state('')

  async function look() {
    const { data } = await api.GET('/api/phone')
    phone = data ?? null
    if (data && !data.names.includes(name)) name = data.names[0] ?? ''
  }
  $effect(() => void look())

  async function show() {
    const query = { name, to: `log/${job.id}` }
    code = await history.done(
      api.POST('/api/phone/link', { params: { query } }),
      () => 'A fresh link: it works once',
    )
  }

  async function add() {
    const asked = api.POST('/api/phone/devices', { body: { name: script.trim() } })
    const made = await history.done(asked, () => 'A token for a script: it is shown this once')
    if (made) token = made.token
    script = ''
    await look()
  }

  async function drop(id: string) {
    const { response } = await api.DELETE('/api/phone/devices/{device_id}', {
      params: { path: { device_id: id } },
    })
    history.say(response.ok ? 'Taken back: it is out at once' : 'It was not taken back')
    await look()
  }
</script>

{#if phone}
  {#if phone.open}
    <div class="flex flex-wrap items-center gap-2">
      <select
        class="select select-sm w-auto"
        aria-label="Name of this machine on the network"
        bind:value={name}
      >
        {#each phone.names as one (one)}<option>{one}</option>{/each}
      </select>
      <button type="button" class="btn btn-sm btn-primary" onclick={show}>Show a code to scan</button>
    </div>
    {#if code}
      <img src={code.code} alt="Code to scan with the phone" class="max-w-56 rounded bg-white p-1" />
      <p class="text-[0.82rem] break-all"><bdi>{code.url}</bdi></p>
      <p class="text-quiet text-[0.82rem]">
        It opens this job's log on the phone, once. What passes is not encrypted: use it on a network you
        trust.
      </p>
    {/if}
  {:else}
    <p class="text-quiet text-[0.86rem]">
      This server is open to this machine only. Started with <kbd>--host 0.0.0.0</kbd> it shows a code here that
      opens the log on a phone in the same network.
    </p>
  {/if}
  {#if phone.open || phone.devices.length}
    <form
      class="flex gap-2"
      onsubmit={(event) => {
        event.preventDefault()
        void add()
      }}
    >
      <input
        class="input input-sm min-w-0 flex-1"
        aria-label="Name of a script"
        placeholder="a script's name"
        maxlength="80"
        bind:value={script}
      />
      <button class="btn btn-sm" disabled={!script.trim()}>Token</button>
    </form>
    {#if token}<p class="text-[0.82rem] break-all">Authorization: Bearer <strong>{token}</strong></p>{/if}
    <ul class="text-[0.86rem]">
      {#each phone.devices as one (one.id)}
        <li class="flex justify-between gap-2">
          <span class="min-w-0"><bdi>{one.name}</bdi>, {one.at}</span><button
            type="button"
            class="link-button"
            onclick={() => drop(one.id)}>take back</button
          >
        </li>
      {/each}
    </ul>
  {/if}
{/if}
