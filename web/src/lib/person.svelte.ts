/** How this person wants things: preferences and scales, kept by the server. */
import { api, type Preferences, type Scales } from './api/client'

class Person {
  preferences = $state<Preferences>({
    length: 'm',
    step: 'third',
    power: 'own',
    currency: '£',
    theme: 'system',
    sort: 'spare',
    avoid: [],
  })
  scales = $state<Scales>({
    apertures: [],
    shutters: [],
    isos: [],
    conditions: {},
    lamp_lit: [],
    skies: {},
    movers: {},
    gels: {},
  })

  async load(): Promise<void> {
    const { data } = await api.GET('/api/preferences')
    if (data) this.preferences = data
    this.dress()
    await this.loadScales()
  }

  /** Remember a change; resolves when the server speaks that way. */
  async choose(change: Partial<Preferences>): Promise<void> {
    this.preferences = { ...this.preferences, ...change }
    this.dress()
    await api.PUT('/api/preferences', { body: this.preferences })
    if (change.step) await this.loadScales()
  }

  private async loadScales(): Promise<void> {
    const { data } = await api.GET('/api/scales')
    if (data) this.scales = data
  }

  private dress(): void {
    const { theme } = this.preferences
    if (theme === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = theme
  }
}

export const person = new Person()
