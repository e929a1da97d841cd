/**
 * What was typed and has not been read yet. Each text is kept in this browser from the moment it is entered until the
 * server has read it: over a reload, and while the server is away.
 */
import { SvelteMap } from 'svelte/reactivity'
import { keep } from './keep.svelte'
import { outbox, type Queue } from './outbox.svelte'

export interface Text {
  label: string
  text: string
  since: number
}

const KEPT = 'unread/'

class Unread implements Queue {
  all = new SvelteMap<string, Text>()
  /** Why they are not read; '' while they are on their way. */
  waits = $state('')

  constructor() {
    for (const key of keep.keys(KEPT)) this.load(key)
    outbox.queues = [...outbox.queues, this]
    if (typeof window === 'undefined') return
    addEventListener('storage', (event) => {
      if (event.key?.startsWith(KEPT) && event.newValue === null)
        this.all.delete(event.key.slice(KEPT.length))
    })
  }

  private load(key: string) {
    const found = keep.value<Text>(key)
    if (found) this.all.set(key.slice(KEPT.length), found)
  }

  get count(): number {
    return this.all.size
  }
  get since(): number {
    return Math.min(...[...this.all.values()].map((one) => one.since))
  }
  readonly refused = 0

  put(place: string, label: string, text: string): void {
    const one = { label, text, since: Date.now() }
    this.all.set(place, one)
    keep.write(KEPT + place, JSON.stringify(one))
  }

  drop(place: string): void {
    this.all.delete(place)
    keep.drop(KEPT + place)
    if (!this.all.size) this.waits = ''
  }
}

export const unread = new Unread()
