<!-- One line that is added to a list: its text goes out trimmed, and never empty. -->
<script lang="ts">
  let {
    label,
    placeholder,
    maxlength,
    add,
    wide = false,
  }: {
    label: string
    placeholder: string
    maxlength: number
    /** What is done with it; false: it cannot be taken, and stays where it was typed. */
    add: (text: string) => boolean | void
    wide?: boolean
  } = $props()
  let text = $state('')

  function send(event: SubmitEvent) {
    event.preventDefault()
    const said = text.trim()
    if (said && add(said) !== false) text = ''
  }
</script>

<form class="no-print flex gap-2" onsubmit={send}>
  <input
    class={`input input-sm ${wide ? 'min-w-0 flex-1' : 'w-44'}`}
    aria-label={label}
    {placeholder}
    {maxlength}
    bind:value={text}
  />
  <button class="btn btn-sm">Add</button>
</form>
