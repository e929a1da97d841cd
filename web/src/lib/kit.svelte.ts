/** The rest of the shelf as this page knows it: modifiers, bodies, filters. */
import { api, type Body, type Filter, type Modifier, type Stored } from './api/client'

class Kit {
  modifiers = $state.raw<Stored<Modifier>[]>([])
  bodies = $state.raw<Stored<Body>[]>([])
  filters = $state.raw<Stored<Filter>[]>([])

  async load(): Promise<void> {
    const [m, b, f] = await Promise.all([
      api.GET('/api/modifiers'),
      api.GET('/api/bodies'),
      api.GET('/api/filters'),
    ])
    this.modifiers = m.data ?? []
    this.bodies = b.data ?? []
    this.filters = f.data ?? []
  }
}

export const kit = new Kit()
