/** The setups there are: names, the job each belongs to, its variants, and its body's frames a second. */
import { api } from './api/client'
import { Newest } from './newest'

export interface Known {
  id: string
  name: string
  job_id: string | null
  variants: string[]
  perS: number
}

class Setups {
  all = $state<Known[]>([])
  private newest = new Newest()

  load(): Promise<void> {
    return this.newest.take(api.GET('/api/setups'), ({ data }) => {
      if (data)
        this.all = data.map((stored) => ({
          id: stored.id,
          name: stored.doc.name,
          job_id: stored.job_id,
          variants: stored.doc.variants.map((variant) => variant.name),
          perS: stored.doc.body.frames_per_s,
        }))
    })
  }
}

export const setups = new Setups()
