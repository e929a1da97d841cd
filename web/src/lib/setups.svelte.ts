/** The setups there are, by name. */
import { api } from './api/client'

class Setups {
  all = $state<{ id: string; name: string }[]>([])

  async load(): Promise<void> {
    const { data } = await api.GET('/api/setups')
    this.all = (data ?? []).map((stored) => ({ id: stored.id, name: stored.doc.name ?? '' }))
  }
}

export const setups = new Setups()
