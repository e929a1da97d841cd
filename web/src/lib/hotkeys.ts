/** The keys that take a figure in hand: registered by the figures themselves while they are on the screen. */

export interface Hotkey {
  label: string
  focus: () => void
}

const taken = new Map<string, Hotkey>()

/** Register a key; answers with what takes it back. */
export function hotkey(key: string, label: string, focus: () => void): () => void {
  const mine = { label, focus }
  taken.set(key, mine)
  return () => {
    if (taken.get(key) === mine) taken.delete(key)
  }
}

/** Take in hand what a key stands for; whether there was anything. */
export function press(key: string): boolean {
  const found = taken.get(key)
  found?.focus()
  return found !== undefined
}

/** All keys and what they stand for, in the order of the screen. */
export function hotkeys(): [string, string][] {
  return [...taken].map(([key, { label }]) => [key, label === 'ISO' ? label : label.toLowerCase()])
}
