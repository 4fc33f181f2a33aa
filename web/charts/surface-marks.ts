import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import { gridPieces } from './film-lines'

/** What the two drawings of a stretch map show, in px: one path a band, the rim, strokes along the greatest stretch. */
export interface SurfaceMarks {
  scale: number
  left: number
  top: number
  width: number
  height: number
  bands: string[]
  rim: string
  strokes: string
  middle: (triangle: number) => { x: number; y: number }
}

const PAD = 6
const STROKES = 140
/** Less stretch than this shows no direction. */
const SHOWS = 0.004
const n = (v: number): string => v.toFixed(1)

/** Pure: a map with its vertices at `places` (mm) into a box `px` wide; `band` puts a triangle into one of five. */
export function surfaceMarks(
  map: SurfaceMap,
  places: Float64Array,
  px: number,
  band: (triangle: number) => number,
): SurfaceMarks {
  const { triangles } = map
  const range = (d: number) => {
    let [low, high] = [Infinity, -Infinity]
    for (let i = d; i < places.length; i += 2) {
      low = Math.min(low, places[i] as number)
      high = Math.max(high, places[i] as number)
    }
    return [low, high] as const
  }
  const [[x0, x1], [y0, y1]] = [range(0), range(1)]
  const scale = (px - 2 * PAD) / Math.max(x1 - x0, (y1 - y0) * 0.9, 1)
  const at = (v: number) => `${n((places[2 * v] as number) * scale)} ${n((places[2 * v + 1] as number) * scale)}`
  const bands = ['', '', '', '', '']
  const edges = new Map<string, [number, number]>()
  for (let t = 0; t < triangles.length / 3; t++) {
    const v = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]] as [number, number, number]
    const b = band(t)
    bands[b] = `${bands[b]}M${at(v[0])}L${at(v[1])}L${at(v[2])}Z`
    for (let k = 0; k < 3; k++) {
      const [a, c] = [v[k] as number, v[(k + 1) % 3] as number]
      const key = a < c ? `${a} ${c}` : `${c} ${a}`
      if (edges.has(key)) edges.delete(key)
      else edges.set(key, [a, c])
    }
  }
  const middle = (t: number) => {
    const mean = (d: number) =>
      [0, 1, 2].reduce((s, k) => s + (places[2 * (triangles[3 * t + k] as number) + d] as number), 0) / 3
    return { x: mean(0) * scale, y: mean(1) * scale }
  }
  return {
    scale,
    left: x0 * scale - PAD,
    top: y0 * scale - PAD,
    width: (x1 - x0) * scale + 2 * PAD,
    height: (y1 - y0) * scale + 2 * PAD,
    bands,
    rim: [...edges.values()].map(([a, c]) => `M${at(a)}L${at(c)}`).join(''),
    strokes: strokes(map, places, middle),
    middle,
  }
}

/** Triangles that carry a stroke: spread evenly over the area, none where hardly anything is stretched. */
export function strokeTriangles(map: SurfaceMap): number[] {
  // Spread evenly over the area, not over the triangles: bends have many small ones.
  const total = map.area.reduce((s, a) => s + a, 0)
  const out: number[] = []
  let run = 0
  let next = 0.5
  for (let t = 0; t < map.area.length; t++) {
    run += ((map.area[t] as number) / total) * STROKES
    if (run < next) continue
    next = Math.floor(run) + 0.5 + (run % 1 >= 0.5 ? 1 : 0)
    if ((map.stretch[t] as number) >= SHOWS) out.push(t)
  }
  return out
}

/** Strokes along the greatest stretch. */
function strokes(map: SurfaceMap, places: Float64Array, middle: SurfaceMarks['middle']): string {
  let out = ''
  for (const t of strokeTriangles(map)) {
    const along = direction(map, places, t)
    if (!along) continue
    const { x, y } = middle(t)
    const long = 4 + Math.min(6, 60 * (map.stretch[t] as number))
    out += `M${n(x - along.x * long)} ${n(y - along.y * long)}L${n(x + along.x * long)} ${n(y + along.y * long)}`
  }
  return out
}

/**
 * The greatest stretch of a triangle as shares of its two sides from the first corner; null where it has no area on
 * the film.
 */
export function alongSides(map: SurfaceMap, t: number): [number, number] | null {
  const side = (k: number) => {
    const [a, b] = [0, k].map((i) => 2 * (map.triangles[3 * t + i] as number)) as [number, number]
    return [
      (map.film[b] as number) - (map.film[a] as number),
      (map.film[b + 1] as number) - (map.film[a + 1] as number),
    ] as const
  }
  const [f1, f2] = [side(1), side(2)]
  const det = f1[0] * f2[1] - f2[0] * f1[1]
  if (Math.abs(det) < 1e-9) return null
  const [x, y] = [Math.cos(map.direction[t] as number), Math.sin(map.direction[t] as number)]
  return [(x * f2[1] - y * f2[0]) / det, (y * f1[0] - x * f1[1]) / det]
}
/** The direction of the greatest stretch as it lies in these places. */
function direction(map: SurfaceMap, places: Float64Array, t: number): { x: number; y: number } | null {
  const shares = alongSides(map, t)
  if (!shares) return null
  const at = (k: number, d: number) => places[2 * (map.triangles[3 * t + k] as number) + d] as number
  const [dx, dy] = [0, 1].map((d) => (at(1, d) - at(0, d)) * shares[0] + (at(2, d) - at(0, d)) * shares[1]) as [
    number,
    number,
  ]
  const l = Math.hypot(dx, dy)
  return l > 0 ? { x: dx / l, y: dy / l } : null
}

/** The film's own grid, drawn where each triangle puts it. */
export const filmGrid = (map: SurfaceMap, places: Float64Array, scale: number): string =>
  gridPieces(map)
    .map(({ corners, ends }) => {
      const at = (share: number[], d: number) =>
        share.reduce((s, w, k) => s + w * (places[2 * (corners[k] as number) + d] as number), 0) * scale
      return `M${n(at(ends[0], 0))} ${n(at(ends[0], 1))}L${n(at(ends[1], 0))} ${n(at(ends[1], 1))}`
    })
    .join('')

/** The triangle under a place (px), null where there is none. */
export function trianglesAt(map: SurfaceMap, places: Float64Array, scale: number, x: number, y: number): number | null {
  const [px, py] = [x / scale, y / scale]
  const { triangles } = map
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => 2 * (triangles[3 * t + k] as number)) as [number, number, number]
    const side = (i: number, j: number) =>
      ((places[j] as number) - (places[i] as number)) * (py - (places[i + 1] as number)) -
      ((places[j + 1] as number) - (places[i + 1] as number)) * (px - (places[i] as number))
    const [p, q, r] = [side(a, b), side(b, c), side(c, a)]
    if ((p >= 0 && q >= 0 && r >= 0) || (p <= 0 && q <= 0 && r <= 0)) return t
  }
  return null
}
