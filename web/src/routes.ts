/** One table of views: name in the bar, address, and where the view is loaded from. */
import type { Component } from 'svelte'
import type { KitKind } from './lib/kinds'

type Props = { shelf?: KitKind; setup?: string; id?: string; seed?: number; hard?: boolean }
export type View = Component<Props>

export interface Route {
  name: string
  /** The part of the address behind the # that belongs to it; its groups are the view's props. */
  path: RegExp
  view: () => Promise<{ default: View }>
  props: (found: RegExpExecArray) => Props
}

export const ROUTES: Route[] = [
  {
    name: 'Shelf',
    path: /^#\/shelf(?:\/(units|modifiers|bodies|lenses|filters|triggers|batteries|stands))?$/,
    view: () => import('./views/ShelfView.svelte'),
    props: (found) => ({ shelf: (found[1] as KitKind | undefined) ?? 'units' }),
  },
  {
    name: 'Job',
    path: /^#\/job(?:\/(\w+))?$/,
    view: () => import('./views/JobView.svelte'),
    props: (found) => ({ id: found[1] }),
  },
  {
    name: 'Kit',
    path: /^#\/kit(?:\/(\w+))?$/,
    view: () => import('./views/KitView.svelte'),
    props: (found) => ({ id: found[1] }),
  },
  {
    name: 'Log',
    path: /^#\/log(?:\/(\w+)(?:\/set\/(\w+))?)?$/,
    view: () => import('./views/LogView.svelte'),
    props: (found) => ({ id: found[1], setup: found[2] }),
  },
  {
    name: 'Day',
    path: /^#\/day(?:\/(\w+))?$/,
    view: () => import('./views/DayView.svelte'),
    props: (found) => ({ id: found[1] }),
  },
  {
    name: 'Practice',
    path: /^#\/practice(?:\/(\w+)\/(\d{1,9})(\/hard)?)?$/,
    view: () => import('./views/PracticeView.svelte'),
    props: (found) => ({ id: found[1], seed: Number(found[2] ?? 1), hard: found[3] !== undefined }),
  },
  {
    name: 'Help',
    path: /^#\/help(?:\/(\w+))?$/,
    view: () => import('./views/HelpView.svelte'),
    props: (found) => ({ id: found[1] }),
  },
  {
    name: 'Setup',
    path: /^(?:#\/setup\/(\w+)|#?\/?)$/,
    view: () => import('./views/SetupView.svelte'),
    props: (found) => ({ setup: found[1] }),
  },
]

/** The view of an address; any that is not known is the setup's. */
export function routeOf(hash: string): { route: Route; props: Props } {
  for (const route of ROUTES) {
    const found = route.path.exec(hash)
    if (found) return { route, props: route.props(found) }
  }
  return { route: ROUTES.find((route) => route.name === 'Setup')!, props: {} }
}
