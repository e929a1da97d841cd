/** The forms of kit, by kind: asked for when the shelf is opened, and kept. */
import { api, sentenceOf, type FieldText } from './api/client'
import type { KitKind } from './kinds'

class Forms {
  private all = $state.raw<Record<string, FieldText[]> | null>(null)
  trouble = $state('')

  /** What is asked of a kind of kit; null until it is known. */
  of(kind: KitKind): FieldText[] | null {
    return this.all?.[kind] ?? null
  }

  async load(): Promise<void> {
    if (this.all) return
    const { data, error } = await api.GET('/api/forms')
    this.trouble = data ? '' : sentenceOf(error)
    if (data) this.all = data
  }
}

export const forms = new Forms()
