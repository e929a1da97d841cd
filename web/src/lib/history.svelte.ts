/** Undo and redo of this page's edits, over setups and shelf alike, and the word about what was done. */
import { atSetup } from './addresses'
import { api, sentenceOf, type Stored } from './api/client'
import { bench } from './bench.svelte'
import type { KitKind } from './kinds'
import { outbox } from './outbox.svelte'
import { setups } from './setups.svelte'

const SHOWN_MS = 6000
const PAUSE_MS = 300

class History {
  undo = $state<string | null>(null)
  redo = $state<string | null>(null)
  said = $state('')
  refused = $state(false)
  /** Raised when the shelf may have changed. */
  turned = $state(0)
  /** What is being taken away. */
  private going = new Set<string>()
  private soon: ReturnType<typeof setTimeout> | undefined

  async look(): Promise<void> {
    const { data } = await api.GET('/api/history')
    if (!data) return
    this.undo = data.undo
    this.redo = data.redo
  }

  /** Look once the person pauses: not between two nudges. */
  later(): void {
    clearTimeout(this.soon)
    this.soon = setTimeout(() => void this.look(), PAUSE_MS)
  }

  async turn(way: 'undo' | 'redo'): Promise<void> {
    await outbox.settle()
    if (outbox.held)
      return this.tell(`What was changed last still waits: ${outbox.held} Then ${way} works again.`)
    const { data, error } = way === 'undo' ? await api.POST('/api/undo') : await api.POST('/api/redo')
    if (data) {
      this.undo = data.undo
      this.redo = data.redo
      const done = `${way === 'undo' ? 'Undone' : 'Done again'}: ${data.label}`
      if (data.without.length)
        this.tell(`${done}. But not ${data.without.join(', ')}: it was changed elsewhere since.`)
      else this.say(data.label ? done : `Nothing to ${way}`)
    } else {
      this.tell(sentenceOf(error))
      await this.look()
    }
    await setups.load()
    const next = bench.left(setups.all.map((one) => one.id))
    if (next && atSetup()) location.hash = next
    this.turned += 1
    await bench.session?.reload()
    bench.missing = false
  }

  /** A copy of a piece of kit, named by the server. */
  copy(kind: KitKind | 'setups', id: string): Promise<Stored<{ name: string }> | null> {
    return this.done(
      api.POST(`/api/${kind as 'units'}/{item_id}/copy`, { params: { path: { item_id: id } } }),
      (made) => `Added ${made.doc.name}`,
    )
  }

  /** Something taken away; whether it is. A second press while the first is under way is the same wish. */
  async remove(kind: KitKind | 'setups' | 'jobs' | 'log', id: string, name: string): Promise<boolean> {
    if (this.going.has(id)) return false
    this.going.add(id)
    try {
      const { error, response } = await api.DELETE(`/api/${kind}`, { params: { query: { item_id: [id] } } })
      if (response.ok) this.say(`Deleted ${name}. Undo brings it back.`)
      else this.tell(`${name} was not deleted. ${sentenceOf(error)}`)
      await this.look()
      return response.ok
    } finally {
      this.going.delete(id)
    }
  }

  /** What the server did, said once it has; or why it has not. */
  async done<T>(
    asked: Promise<{ data?: T; error?: unknown }>,
    words: (made: T) => string,
  ): Promise<T | null> {
    const { data, error } = await asked
    if (data === undefined) {
      this.tell(sentenceOf(error))
      return null
    }
    this.say(words(data))
    await this.look()
    return data
  }

  say(words: string): void {
    this.show(words, false)
  }

  /** Say what was refused; it stays until something else is said. */
  tell(words: string): void {
    this.show(words, true)
  }

  private show(words: string, refused: boolean): void {
    this.said = words
    this.refused = refused
    if (refused) return
    setTimeout(() => {
      if (this.said === words) this.said = ''
    }, SHOWN_MS)
  }
}

export const history = new History()
