/** Lanes in sight first: an answer that tells only some lanes, laid over the one before it. No light is computed here. */
import type { Answer, Arc, Lanes } from './api/client'

/** Shelves up to this size are told whole every time. */
const SMALL = 24

/** The ids to ask for while figures are nudged; none: ask for all. */
export function sightOf(ids: string[], shelf: number): string[] {
  return shelf > SMALL && ids.length <= SMALL ? ids : []
}

/** `fresh`, with the lanes that it leaves out as they were; null where it cannot be laid over what was. */
export function laidOver(old: Answer | null, fresh: Answer): Answer | null {
  if (!fresh.lanes || !old?.lanes) return fresh.lanes ? null : fresh
  const before = old.lanes
  const places = fresh.lanes.id.map((id) => before.id.indexOf(id))
  if (places.includes(-1)) return null
  const lanes: Record<string, unknown[]> = {}
  for (const name in before) {
    const column = name as keyof Lanes
    lanes[column] = over<unknown>(before[column], fresh.lanes[column], places)
  }
  const size = before.id.length
  const arcs = fresh.arcs.map((arc, i): Arc => {
    if (arc.stops.length === 1) return arc
    const was = old.arcs[i]?.effect === arc.effect ? old.arcs[i].stops : [0]
    const all = was.length === size ? was : new Array<number>(size).fill(was[0]!)
    return { ...arc, stops: over(all, arc.stops, places) }
  })
  return { ...fresh, arcs, lanes: lanes as unknown as Lanes }
}

function over<T>(old: T[], fresh: T[], places: number[]): T[] {
  const out = old.slice()
  places.forEach((at, i) => (out[at] = fresh[i]!))
  return out
}
