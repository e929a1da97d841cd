/** The setups there are: names, the job each belongs to, its variants, and its body's frames a second. */
import { api } from './api/client'
import { newest } from './question.svelte'

export interface Known {
  id: string
  name: string
  job_id: string | null
  variants: string[]
  perS: number
}

class Setups {
  all = $state<Known[]>([])
  async load(): Promise<void> {
    const answer = await newest('setups', () => api.GET('/api/setups'))
    if (!answer?.data) return
    this.all = answer.data.map((stored) => ({
      id: stored.id,
      name: stored.doc.name,
      job_id: stored.job_id,
      variants: stored.doc.variants.map((variant) => variant.name),
      perS: stored.doc.body.frames_per_s,
    }))
  }
}

export const setups = new Setups()
