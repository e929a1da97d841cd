/** One table of views: address, name in the bar, component. */
import type { Component } from 'svelte'
import type { KitKind } from './lib/kitfields'
import DayView from './views/DayView.svelte'
import KitView from './views/KitView.svelte'
import LogView from './views/LogView.svelte'
import JobView from './views/JobView.svelte'
import SetupView from './views/SetupView.svelte'
import ShelfView from './views/ShelfView.svelte'

export interface Route {
  name: string
  /** The part of the address behind the # that belongs to it; its groups are the view's props. */
  path: RegExp
  view: Component<{ shelf?: KitKind; setup?: string; id?: string }>
  props: (found: RegExpExecArray) => { shelf?: KitKind; setup?: string; id?: string }
}

export const ROUTES: Route[] = [
  {
    name: 'Shelf',
    path: /^#\/shelf(?:\/(units|modifiers|bodies|filters|triggers|batteries))?$/,
    view: ShelfView,
    props: (found) => ({ shelf: (found[1] as KitKind | undefined) ?? 'units' }),
  },
  { name: 'Job', path: /^#\/job(?:\/(\w+))?$/, view: JobView, props: (found) => ({ id: found[1] }) },
  { name: 'Kit', path: /^#\/kit(?:\/(\w+))?$/, view: KitView, props: (found) => ({ id: found[1] }) },
  {
    name: 'Log',
    path: /^#\/log(?:\/(\w+)(?:\/set\/(\w+))?)?$/,
    view: LogView,
    props: (found) => ({ id: found[1], setup: found[2] }),
  },
  { name: 'Day', path: /^#\/day(?:\/(\w+))?$/, view: DayView, props: (found) => ({ id: found[1] }) },
  {
    name: 'Setup',
    path: /^(?:#\/setup\/(\w+)|#?\/?)$/,
    view: SetupView,
    props: (found) => ({ setup: found[1] }),
  },
]

export const address = {
  job: (id = '') => (id ? `#/job/${id}` : '#/job'),
  day: (id = '') => (id ? `#/day/${id}` : '#/day'),
  kit: (id = '') => (id ? `#/kit/${id}` : '#/kit'),
  log: (id = '') => (id ? `#/log/${id}` : '#/log'),
  onSet: (id: string, setup: string) => `#/log/${id}/set/${setup}`,
  setup: (id: string) => `#/setup/${id}`,
  shelf: (kind: KitKind = 'units') => (kind === 'units' ? '#/shelf' : `#/shelf/${kind}`),
}

/** The view of an address; any that is not known is the setup's. */
export function routeOf(hash: string): { route: Route; props: ReturnType<Route['props']> } {
  for (const route of ROUTES) {
    const found = route.path.exec(hash)
    if (found) return { route, props: route.props(found) }
  }
  return { route: ROUTES.find((route) => route.name === 'Setup')!, props: {} }
}
