/**
 * Whether a button is being pressed just now. What arrives meanwhile waits until it is let go, so that nothing moves
 * from under the finger between press and release: the press would be lost.
 */
const PRESSED = 'button, a[href], label, summary, select, input[type="checkbox"], input[type="radio"]'
const LONGEST_MS = 1000

let held: Promise<void> | null = null
let letGo = () => {}

function press(event: PointerEvent) {
  if (!(event.target instanceof Element) || !event.target.closest(PRESSED)) return
  letGo()
  const mine = new Promise<void>((done) => {
    letGo = () => {
      if (held === mine) held = null
      done()
    }
  })
  held = mine
  setTimeout(letGo, LONGEST_MS) // a release that is never told
}

if (typeof document !== 'undefined') {
  document.addEventListener('pointerdown', press, true)
  for (const end of ['pointerup', 'pointercancel'])
    document.addEventListener(end, () => setTimeout(letGo), true) // once its click is taken
}

/** Resolves when no button is pressed: null where none is, so that nobody waits for nothing. */
export const pressed = (): Promise<void> | null => held
