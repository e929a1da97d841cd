/** Layout of the set from above: metres to pixels, and where a light that is moved comes to stand. No light is computed. */
import { scaleLinear } from 'd3-scale'
import type { Light, StageText } from '../lib/api/client'
import { clamp } from '../lib/figures'
import { person } from '../lib/person.svelte'

export interface Plan {
  x: (metres: number) => number
  y: (metres: number) => number
  metres: (pixels: number) => number
  /** The stage's place under a pixel [m]. */
  at: (px: number, py: number) => [number, number]
}

const EDGE = 26
const LEAST_PX = 1 // that the stage is drawn on, where its place on the screen has no size yet

/** One scale for both axes, that shows subject, camera and lights; the background where it is not much farther off. */
export function planOf(stage: StageText, width: number, height: number): Plan {
  const half = stage.width_m / 2
  const xs = [-half - 0.4, half + 0.4]
  const ys = [-stage.camera_m, stage.depth_m + 0.5]
  for (const light of stage.lights) {
    if (light.role === 'background light' && !near(stage)) continue
    xs.push(light.x_m)
    ys.push(light.y_m)
  }
  if (stage.left_wall_m) xs.push(-stage.left_wall_m)
  if (stage.right_wall_m) xs.push(stage.right_wall_m)
  if (near(stage)) ys.push(stage.background_m!)
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const room = (pixels: number) => Math.max(LEAST_PX, pixels - 2 * EDGE)
  const scale = Math.min(room(width) / (right - left), room(height) / (high - low))
  const [midX, midY] = [(left + right) / 2, (low + high) / 2]
  const span = (middle: number, pixels: number, sign: number) =>
    scaleLinear()
      .domain([middle - (sign * pixels) / 2 / scale, middle + (sign * pixels) / 2 / scale])
      .range([0, pixels])
  const [x, y] = [span(midX, width, 1), span(midY, height, -1)]
  return { x, y, metres: (pixels) => pixels / scale, at: (px, py) => [x.invert(px), y.invert(py)] }
}

/** Whether the background stands near enough to be drawn to scale. */
export function near(stage: StageText): boolean {
  return stage.background_m !== null && stage.background_m < 2.5 * stage.camera_m
}

const LEAST = 0.2

/** A light's place for a point from above: distance and bearing from what it lights, its height left as it is. */
export function placeAt(light: Light, stage: StageText, x: number, y: number): Partial<Light> {
  const from = light.role === 'background' ? (stage.background_m ?? 0) : 0
  const level = Math.max(LEAST, Math.hypot(x, y - from))
  const position = standing(light, stage)
  const up = position.height_m - stage.face_m
  const turned = (Math.atan2(x, from - y) * 180) / Math.PI
  return {
    distance_m: clamp(Number(Math.hypot(level, up).toPrecision(3)), 0.05, 500),
    position: { ...position, bearing_deg: Math.round(turned) },
  }
}

/** A light's position; one that has none yet stands where its role usually does, at the height of the face. */
export function standing(light: Light, stage: StageText): NonNullable<Light['position']> {
  const height_m = Math.round(clamp(stage.face_m, 0, 20) * 1000) / 1000
  return (
    light.position ?? {
      bearing_deg: person.scales.roles[light.role]?.bearing_deg ?? 0,
      height_m,
      turn_deg: 0,
      tilt_deg: 0,
      bounces_off: 'ceiling',
      boom_m: 0,
      counter_m: null,
      card: false,
    }
  )
}

/** A bearing from -180 to 180. */
export function wrapped(bearing: number): number {
  return ((((bearing + 180) % 360) + 360) % 360) - 180
}
