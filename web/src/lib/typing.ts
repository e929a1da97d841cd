/**
 * Whether somebody is typing into a field just now. What arrives meanwhile from elsewhere waits until that is done, so
 * that no text is taken from under the fingers.
 */
const NOT_TYPED = ['checkbox', 'radio', 'range', 'file', 'button', 'submit', 'color']
const LOOK_MS = 500

let field: Element | null = null
let look: ReturnType<typeof setInterval> | undefined
const waiting = new Set<() => void>()
/** Texts that were entered and are being read: until that is done, they are still being typed. */
let reading: Promise<unknown>[] = []
const READ_MS = 5000

const typed = (one: EventTarget | null): one is HTMLInputElement | HTMLTextAreaElement =>
  one instanceof HTMLTextAreaElement || (one instanceof HTMLInputElement && !NOT_TYPED.includes(one.type))

function done() {
  if (reading.length) return void Promise.all(reading).then(done)
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

/** A text is on its way to be read: what arrives meanwhile waits for it too, for a while. */
export function beingRead(text: Promise<unknown>): void {
  const over = Promise.race([text.catch(() => {}), new Promise((late) => setTimeout(late, READ_MS))])
  reading.push(over)
  void over.then(() => (reading = reading.filter((one) => one !== over)))
}

/** Whether a field holds text that has been typed and not taken yet. */
export const typing = (): boolean =>
  reading.length > 0 || (field !== null && field.isConnected && document.activeElement === field)

/** Do something once nobody types; each thing once, however often it is asked for. */
export function afterTyping(run: () => void): void {
  waiting.add(run)
  look ??= setInterval(() => typing() || done(), LOOK_MS) // a field that is taken away says nothing
}
