import type { SurfaceMap } from '@/core/engines/stretch/surface-map'

/** A line of one stretch across a map, px, and where its figure may stand. */
export interface StretchLine {
  limit: number
  d: string
  label: { x: number; y: number } | null
}

export interface StretchBands {
  /** One path a band, from hardly stretched up to past the last limit. */
  bands: string[]
  lines: StretchLine[]
  /** What wrinkles: whole triangles, as squeeze is told triangle by triangle. */
  wrinkles: string
}

interface Corner {
  x: number
  y: number
  value: number
}
const n = (v: number): string => v.toFixed(1)
const WRINKLES = 4
/** A figure stands on a line only where it has this much of it, px. */
const LEAST_LINE_PX = 40

/** Stretch at the vertices: the mean of the triangles round each, by their area. */
export function vertexStretch(map: Pick<SurfaceMap, 'triangles' | 'area'>, taken: Float64Array): Float64Array {
  const vertices = map.triangles.reduce((most, v) => Math.max(most, v), -1) + 1
  const sum = new Float64Array(vertices)
  const weight = new Float64Array(vertices)
  map.triangles.forEach((v, corner) => {
    const t = Math.floor(corner / 3)
    const area = map.area[t] ?? 0
    sum[v] = (sum[v] ?? 0) + area * (taken[t] ?? 0)
    weight[v] = (weight[v] ?? 0) + area
  })
  return sum.map((s, v) => ((weight[v] ?? 0) > 0 ? s / (weight[v] ?? 1) : 0))
}

/** The part of a polygon whose values lie between two bounds; values run straight along each side. */
function between(polygon: readonly Corner[], low: number, high: number): Corner[] {
  const cut = (list: readonly Corner[], bound: number, sign: 1 | -1): Corner[] =>
    list.flatMap((a, i) => {
      const b = list[(i + 1) % list.length] ?? a
      const [da, db] = [sign * (a.value - bound), sign * (b.value - bound)]
      const kept = da >= 0 ? [a] : []
      return da >= 0 === db >= 0 ? kept : [...kept, crossing(a, b, bound)]
    })
  return cut(cut(polygon, low, 1), high, -1)
}

function crossing(a: Corner, b: Corner, value: number): Corner {
  const share = (value - a.value) / (b.value - a.value)
  return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y), value }
}

/**
 * The bands of a stretch map with edges along interpolated lines. `places`: of the vertices, mm; `limits`: ascending
 * fractions between the bands; `band`: of each triangle, 4 where it wrinkles. Pure.
 */
export function stretchBands(
  map: SurfaceMap,
  places: Float64Array,
  scale: number,
  feel: { taken: Float64Array; band: Uint8Array },
  limits: readonly number[],
): StretchBands {
  const values = vertexStretch(map, feel.taken)
  const edges = [-Infinity, ...limits, Infinity]
  const bands = edges.slice(1).map(() => '')
  const parts: { a: Corner; b: Corner }[][] = limits.map(() => [])
  let wrinkles = ''
  for (let t = 0; t < map.triangles.length / 3; t++) {
    const triangle = Array.from(map.triangles.subarray(3 * t, 3 * t + 3), (v): Corner => {
      const [x = 0, y = 0] = places.subarray(2 * v, 2 * v + 2)
      return { x: x * scale, y: y * scale, value: values[v] ?? 0 }
    })
    if (feel.band[t] === WRINKLES) {
      wrinkles += path(triangle)
      continue
    }
    bands.forEach((d, i) => {
      const part = between(triangle, edges[i] ?? 0, edges[i + 1] ?? 0)
      if (part.length > 2) bands[i] = d + path(part)
    })
    limits.forEach((limit, i) => {
      const ends = triangle.flatMap((a, k) => {
        const b = triangle[(k + 1) % 3] ?? a
        return a.value >= limit === b.value >= limit ? [] : [crossing(a, b, limit)]
      })
      const [a, b] = ends
      if (a && b) parts[i]?.push({ a, b })
    })
  }
  return { bands, wrinkles, lines: limits.map((limit, i) => lineOf(limit, parts[i] ?? [])) }
}

const path = (corners: readonly Corner[]): string => `M${corners.map((c) => `${n(c.x)} ${n(c.y)}`).join('L')}Z`

function lineOf(limit: number, parts: readonly { a: Corner; b: Corner }[]): StretchLine {
  const long = parts.reduce((sum, { a, b }) => sum + Math.hypot(b.x - a.x, b.y - a.y), 0)
  const middle = parts[Math.floor(parts.length / 2)]
  return {
    limit,
    d: parts.map(({ a, b }) => `M${n(a.x)} ${n(a.y)}L${n(b.x)} ${n(b.y)}`).join(''),
    label:
      middle && long >= LEAST_LINE_PX ? { x: (middle.a.x + middle.b.x) / 2, y: (middle.a.y + middle.b.y) / 2 } : null,
  }
}
