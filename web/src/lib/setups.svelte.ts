/** The setups there are, by name. */
import { api } from './api/client'
import { Newest } from './newest'

class Setups {
  all = $state<{ id: string; name: string }[]>([])
  private newest = new Newest()

  load(): Promise<void> {
    return this.newest.take(api.GET('/api/setups'), ({ data }) => {
      if (data) this.all = data.map((stored) => ({ id: stored.id, name: stored.doc.name }))
    })
  }
}

export const setups = new Setups()
