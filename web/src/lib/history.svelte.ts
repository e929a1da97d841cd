/** Undo and redo, over setups and shelf alike, and the word about what was done. */
import { api } from './api/client'
import { setups } from './setups.svelte'
import { bench } from './workbench.svelte'

class History {
  undo = $state<string | null>(null)
  redo = $state<string | null>(null)
  said = $state('')
  /** Raised when the shelf may have changed. */
  turned = $state(0)

  async look(): Promise<void> {
    const { data } = await api.GET('/api/history')
    this.undo = data?.undo ?? null
    this.redo = data?.redo ?? null
  }

  private soon: ReturnType<typeof setTimeout> | undefined

  /** Look once the person pauses: not between two nudges. */
  later(): void {
    clearTimeout(this.soon)
    this.soon = setTimeout(() => void this.look(), 300)
  }

  async turn(way: 'undo' | 'redo'): Promise<void> {
    await bench.settle()
    const { data } = way === 'undo' ? await api.POST('/api/undo') : await api.POST('/api/redo')
    if (!data) return
    this.undo = data.undo
    this.redo = data.redo
    this.say(data.label ? `${way === 'undo' ? 'Undone' : 'Done again'}: ${data.label}` : `Nothing to ${way}`)
    this.turned += 1
    await setups.load()
    await bench.again()
  }

  say(words: string): void {
    this.said = words
    setTimeout(() => {
      if (this.said === words) this.said = ''
    }, 6000)
  }
}

export const history = new History()
