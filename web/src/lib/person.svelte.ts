/** How this person wants things: preferences and scales, kept by the server. */
import { api, sentenceOf, type Preferences, type Scales } from './api/client'

class Person {
  preferences = $state.raw() as Preferences
  scales = $state.raw() as Scales
  trouble = $state('')

  /** Read both; whether they are here. */
  async load(): Promise<boolean> {
    const { data, error } = await api.GET('/api/preferences')
    if (data) {
      this.preferences = data
      this.dress()
    } else this.trouble = sentenceOf(error)
    return data !== undefined && (await this.loadScales())
  }

  /** Remember a change; answers with what went wrong, once the server speaks that way. */
  async choose(change: Partial<Preferences>): Promise<string> {
    const { data, error } = await api.PUT('/api/preferences', { body: { ...this.preferences, ...change } })
    if (!data) return sentenceOf(error)
    this.preferences = data
    this.dress()
    if (change.step) await this.loadScales()
    return ''
  }

  /** Lowest and highest value that a figure of a document may have, by the API's own description. */
  bounds(document: string, field: string): [number, number] {
    const [low = -Infinity, high = Infinity] = this.scales.bounds[document]?.[field] ?? []
    return [low, high]
  }

  /** Steps of a third of a stop that one nudge makes. */
  get thirds(): number {
    return { full: 3, half: 1.5, third: 1 }[this.preferences.step]
  }

  private async loadScales(): Promise<boolean> {
    const { data, error } = await api.GET('/api/scales')
    if (data) this.scales = data
    else this.trouble = sentenceOf(error)
    return data !== undefined
  }

  private dress(): void {
    const { theme } = this.preferences
    if (theme === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = theme
  }
}

export const person = new Person()
