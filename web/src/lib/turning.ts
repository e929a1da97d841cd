/** Whether an edit goes on with the one before: one turn of a wheel, one run of keys, one drag is undone as one. */
const PAUSE_MS = 1200

let presses = 0
let pressed = false

if (typeof document !== 'undefined') {
  document.addEventListener('pointerdown', () => ((pressed = true), presses++), true)
  for (const end of ['pointerup', 'pointercancel'])
    document.addEventListener(end, () => (pressed = false), true)
}

export interface Turn {
  label: string
  at: number
  /** Which press of the pointer it belongs to; 0: none. */
  press: number
}

/** An edit made just now. */
export const turnOf = (label: string): Turn => ({
  label,
  at: performance.now(),
  press: pressed ? presses : 0,
})

/** However slow the way to the server: by what the hands did here. */
export const goesOn = (before: Turn | undefined, now: Turn): boolean =>
  before?.label === now.label &&
  (now.at - before.at < PAUSE_MS || (now.press > 0 && now.press === before.press))
