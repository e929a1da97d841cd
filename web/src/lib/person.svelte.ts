/** How this person wants things: preferences and scales, kept by the server. */
import { api, sentenceOf, sentences, type Preferences, type Scales } from './api/client'
import { decimal } from './decimal.svelte'
import { DocumentSession, type Change } from './document.svelte'
import type { Held, Reply } from './reply'

/** The preferences being edited: each field by itself, so that what another page chose stays. */
class PreferencesDocument extends DocumentSession<Preferences> {
  /** Told when the server has taken a change, or refused it. */
  ontaken: () => Promise<void> = () => Promise.resolve()

  override get title(): string {
    return 'Settings'
  }

  protected override async get(): Promise<Reply<Preferences>> {
    const { data, error, response } = await api.GET('/api/preferences')
    return { data: chosen(data), error, status: response.status }
  }

  /** Only what was changed goes out. */
  protected override async put(doc: Preferences, { ops }: Change): Promise<Reply<Preferences>> {
    const fields = Object.fromEntries(ops.map(({ path: [name] }) => [name, doc[name as keyof Preferences]]))
    const { data, error, response } = await api.PUT('/api/preferences', { body: fields as never })
    return { data: chosen(data), error, status: response.status }
  }

  protected override idle(): Promise<void> {
    return this.ontaken()
  }
}

class Person {
  readonly session = new PreferencesDocument('preferences', 'own')
  scales = $state.raw() as Scales
  trouble = $state('')
  /** Told once a choice, of this page or merged from another's, is stored. */
  onchosen: () => Promise<void> = () => Promise.resolve()
  private scaled = ''
  private told = ''

  get preferences(): Preferences {
    return this.session.doc
  }

  /** Read both; whether they are here. */
  async load(): Promise<boolean> {
    this.session.ontaken = () => this.taken()
    const { data, error } = await api.GET('/api/preferences')
    const found = chosen(data)
    if (!found) this.trouble = sentenceOf(error)
    else {
      this.session.take(found)
      this.dress()
      this.told = worded(found.doc)
    }
    return found !== undefined && (await this.loadScales())
  }

  /** Remember a change; answers with what the server refused of it. It is kept here until the server has it. */
  async choose(change: Partial<Preferences>): Promise<string> {
    this.session.edit('Settings', (all) => Object.assign(all, change))
    this.dress()
    await this.session.settle()
    const refused = this.session.aside[0]
    if (refused) this.session.forget(refused)
    return sentences(refused?.refused)
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

  private async taken(): Promise<void> {
    this.dress()
    if (this.scaled && scaledFor(this.preferences) !== this.scaled) await this.loadScales()
    const now = worded(this.preferences)
    if (now !== this.told) await this.onchosen()
    this.told = now
  }

  private async loadScales(): Promise<boolean> {
    const { data, error } = await api.GET('/api/scales')
    if (data?.apertures) {
      this.scales = data
      this.scaled = scaledFor(this.preferences)
    } else this.trouble = sentenceOf(error)
    return this.scaled !== ''
  }

  /** The theme and the decimal sign, as the page wears them. */
  dress(): void {
    const { theme, decimal: sign } = this.preferences
    decimal.comma = sign === 'comma'
    if (theme === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = theme
  }
}

/** What of the preferences the scales are made for. */
const scaledFor = ({ step, decimal }: Preferences) => `${step} ${decimal}`

/** All of the preferences that what the server says depends on; the rest is this page's own affair. */
const worded = ({ length, step, power, currency, decimal, avoid }: Preferences) =>
  JSON.stringify([length, step, power, currency, decimal, avoid])

/** Preferences out of an answer, which have no revision; undefined where that is something else. */
const chosen = (answer: Preferences | undefined): Held<Preferences> | undefined =>
  typeof answer?.step === 'string' ? { revision: 1, doc: answer } : undefined

export const person = new Person()
