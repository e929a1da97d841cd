/** Where each view stands, by what it shows. */
import type { KitKind } from './kinds'

export const address = {
  job: (id = '') => (id ? `#/job/${id}` : '#/job'),
  day: (id = '') => (id ? `#/day/${id}` : '#/day'),
  kit: (id = '') => (id ? `#/kit/${id}` : '#/kit'),
  log: (id = '') => (id ? `#/log/${id}` : '#/log'),
  onSet: (id: string, setup: string) => `#/log/${id}/set/${setup}`,
  setup: (id: string) => `#/setup/${id}`,
  practice: (drill = '', seed = 1, hard = false) =>
    drill ? `#/practice/${drill}/${seed}${hard ? '/hard' : ''}` : '#/practice',
  shelf: (kind: KitKind = 'units') => (kind === 'units' ? '#/shelf' : `#/shelf/${kind}`),
}

/** Whether a setup is on the screen: the bench is what opens without an address, too. */
export const atSetup = () => /^#?\/?(setup\b.*)?$/.test(location.hash)
