/**
 * Whether somebody is typing into a field just now. What arrives meanwhile from elsewhere waits until that is done, so
 * that no text is taken from under the fingers.
 */
const NOT_TYPED = ['checkbox', 'radio', 'range', 'file', 'button', 'submit', 'color']
const LOOK_MS = 500

let field: Element | null = null
let look: ReturnType<typeof setInterval> | undefined
const waiting = new Set<() => void>()

const typed = (one: EventTarget | null): one is HTMLInputElement | HTMLTextAreaElement =>
  one instanceof HTMLTextAreaElement || (one instanceof HTMLInputElement && !NOT_TYPED.includes(one.type))

function done() {
  field = null
  clearInterval(look)
  look = undefined
  const all = [...waiting]
  waiting.clear()
  for (const run of all) run()
}

if (typeof document !== 'undefined') {
  document.addEventListener('input', (event) => typed(event.target) && (field = event.target), true)
  for (const end of ['change', 'blur'])
    document.addEventListener(end, (event) => event.target === field && setTimeout(done), true) // once it is taken
}

/** Whether a field holds text that has been typed and not taken yet. */
export const typing = (): boolean => field !== null && field.isConnected && document.activeElement === field

/** Do something once nobody types; each thing once, however often it is asked for. */
export function afterTyping(run: () => void): void {
  waiting.add(run)
  look ??= setInterval(() => typing() || done(), LOOK_MS) // a field that is taken away says nothing
}
