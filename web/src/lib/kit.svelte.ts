/** The rest of the shelf as this page knows it: modifiers, bodies, filters. */
import { api, type Body, type Filter, type Modifier, type Stored, type UnitLine } from './api/client'
import { Newest } from './newest'

class Kit {
  modifiers = $state.raw<Stored<Modifier>[]>([])
  bodies = $state.raw<Stored<Body>[]>([])
  filters = $state.raw<Stored<Filter>[]>([])
  units = $state.raw<UnitLine[]>([])
  private newest = new Newest()

  load(): Promise<void> {
    const asked = Promise.all([
      api.GET('/api/modifiers'),
      api.GET('/api/bodies'),
      api.GET('/api/filters'),
      api.GET('/api/shelf'),
    ])
    return this.newest.take(asked, ([modifiers, bodies, filters, units]) => {
      if (modifiers.data) this.modifiers = modifiers.data
      if (bodies.data) this.bodies = bodies.data
      if (filters.data) this.filters = filters.data
      if (units.data) this.units = units.data
    })
  }
}

export const kit = new Kit()
