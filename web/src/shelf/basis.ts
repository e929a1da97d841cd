/** What units are compared on, and how it is asked for. */
export interface Basis {
  on: 'bare' | 'modifier' | 'setup' | 'job'
  of: string
  distance: number
  hss: number
}

export const BARE: Basis = { on: 'bare', of: '', distance: 2, hss: 1 / 1000 }

export function query({ on, of, distance, hss }: Basis) {
  return { on, ...(of ? { of } : {}), ...(on === 'modifier' ? { distance_m: distance } : {}), hss_s: hss }
}
