/** Where each view stands, by what it shows. */
import type { KitKind } from './kitfields'

export const address = {
  job: (id = '') => (id ? `#/job/${id}` : '#/job'),
  day: (id = '') => (id ? `#/day/${id}` : '#/day'),
  kit: (id = '') => (id ? `#/kit/${id}` : '#/kit'),
  log: (id = '') => (id ? `#/log/${id}` : '#/log'),
  onSet: (id: string, setup: string) => `#/log/${id}/set/${setup}`,
  setup: (id: string) => `#/setup/${id}`,
  shelf: (kind: KitKind = 'units') => (kind === 'units' ? '#/shelf' : `#/shelf/${kind}`),
}
