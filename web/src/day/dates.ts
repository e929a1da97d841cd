/** A job of several days, cut to one of them for the page: nothing is computed. */
import type { DayPlanText } from '../lib/api/client'

type Dated = DayPlanText['dates'][number]

/** What of the plan lies on a date. */
export function onDate(day: DayPlanText, date: Dated): DayPlanText {
  const inside = (minutes: number) => minutes >= date.begins && minutes <= date.ends
  const units = day.units
    .map((unit) => {
      const swaps = unit.swaps.map((at, i) => [at, unit.swapped[i]!] as const).filter(([at]) => inside(at))
      return {
        ...unit,
        course: unit.course.filter(([minutes]) => inside(minutes!)),
        swaps: swaps.map(([at]) => at),
        swapped: swaps.map(([, said]) => said),
        gives_out: unit.gives_out !== null && inside(unit.gives_out) ? unit.gives_out : null,
      }
    })
    .filter((unit) => unit.course.length)
  return {
    ...day,
    begins: date.begins,
    ends: date.ends,
    over: date.ends,
    light: day.light.filter(([minutes]) => inside(minutes!)),
    turns: day.turns.filter((turn) => inside(turn.start)),
    units,
  }
}
