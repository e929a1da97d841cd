/** The rest of the shelf as this page knows it: modifiers, bodies, filters. */
import {
  api,
  type Battery,
  type Body,
  type Filter,
  type LensKit,
  type Modifier,
  type Stand,
  type Stored,
  type Trigger,
  type UnitLine,
} from './api/client'
import { bench } from './bench.svelte'
import { DocumentSession } from './document.svelte'
import { history } from './history.svelte'
import type { KitKind } from './kinds'
import { newest } from './question.svelte'

/** A piece of kit being edited: once the server has a change, what shows it or counts with it is asked anew. */
export class KitDocument extends DocumentSession<{ name?: string }> {
  constructor(kind: KitKind, id: string) {
    super(kind, id)
  }

  protected override async idle(): Promise<void> {
    history.turned += 1
    await Promise.all([history.look(), bench.refresh()])
  }
}

class Kit {
  modifiers = $state.raw<Stored<Modifier>[]>([])
  bodies = $state.raw<Stored<Body>[]>([])
  lenses = $state.raw<Stored<LensKit>[]>([])
  filters = $state.raw<Stored<Filter>[]>([])
  triggers = $state.raw<Stored<Trigger>[]>([])
  batteries = $state.raw<Stored<Battery>[]>([])
  stands = $state.raw<Stored<Stand>[]>([])
  units = $state.raw<UnitLine[]>([])

  async load(): Promise<void> {
    const all = () =>
      Promise.all([
        api.GET('/api/modifiers'),
        api.GET('/api/bodies'),
        api.GET('/api/filters'),
        api.GET('/api/shelf'),
        api.GET('/api/triggers'),
        api.GET('/api/batteries'),
        api.GET('/api/lenses'),
        api.GET('/api/stands'),
      ])
    const found = await newest('kit', all)
    if (!found) return
    const [modifiers, bodies, filters, units, triggers, batteries, lenses, stands] = found
    if (modifiers.data) this.modifiers = modifiers.data
    if (bodies.data) this.bodies = bodies.data
    if (filters.data) this.filters = filters.data
    if (units.data) this.units = units.data
    if (triggers.data) this.triggers = triggers.data
    if (batteries.data) this.batteries = batteries.data
    if (lenses.data) this.lenses = lenses.data
    if (stands.data) this.stands = stands.data
  }
}

export const kit = new Kit()
