/** What this browser keeps for the page, a text by its key. Nothing here throws; what cannot be kept is said. */

import { SvelteSet } from 'svelte/reactivity'

const PROBE = 'probe'

class Keep {
  /** Keys of what is kept nowhere but in this page. */
  private unkept = new SvelteSet<string>()
  private able = $state(true)

  constructor() {
    this.able = this.put(PROBE, 'x'.repeat(1000))
    this.drop(PROBE)
  }

  /** Whether what is written here outlives the page. */
  get works(): boolean {
    return this.able && this.unkept.size === 0
  }

  read(key: string): string | null {
    try {
      return localStorage.getItem(key)
    } catch {
      return null
    }
  }

  write(key: string, text: string): void {
    if (this.put(key, text)) this.unkept.delete(key)
    else this.unkept.add(key)
  }

  drop(key: string): void {
    this.unkept.delete(key)
    try {
      localStorage.removeItem(key)
    } catch {
      // nothing was kept
    }
  }

  /** The keys that begin so, in order. */
  keys(start: string): string[] {
    try {
      return Object.keys(localStorage)
        .filter((key) => key.startsWith(start))
        .sort()
    } catch {
      return []
    }
  }

  /** A kept value; null where there is none, or none that can be read. */
  value<T>(key: string): T | null {
    try {
      return JSON.parse(this.read(key) ?? 'null') as T | null
    } catch {
      return null
    }
  }

  private put(key: string, text: string): boolean {
    try {
      localStorage.setItem(key, text)
      return true
    } catch {
      return false
    }
  }
}

export const keep = new Keep()
