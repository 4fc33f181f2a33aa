import { within, type Point } from '../../kit/plane'
import { err, ok, type Result } from '../../kit/result'
import { areaOf, type TriMesh } from '.'

/** A scanned surface with a place on the panel for each vertex: taped xy in mm from the top left (length 2n). */
export interface ScanSurface extends TriMesh {
  taped: Float64Array
}
export const UNITS = { mm: 1, cm: 10, m: 1000, inch: 25.4 } as const
export type ScanUnit = keyof typeof UNITS

/** A triangle lower than this over its longest side is no surface. */
const FLAT = 1e-6
/** Vertices of a triangle soup nearer than this share of the whole are one. */
const WELD_SHARE = 1e-6

/** Which unit brings a mesh nearest to the size that the tape gave: its longest measure across against the panel's. */
export function guessUnit(mesh: TriMesh, panelMm: number): ScanUnit {
  const size = Math.max(...span(mesh.positions))
  const off = (u: ScanUnit) => Math.abs(Math.log((size * UNITS[u]) / panelMm))
  return (Object.keys(UNITS) as ScanUnit[]).reduce((a, b) => (off(b) < off(a) ? b : a))
}
function span(positions: Float64Array): [number, number, number] {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  positions.forEach((x, i) => {
    low[i % 3] = Math.min(low[i % 3], x)
    high[i % 3] = Math.max(high[i % 3], x)
  })
  return high.map((h, d) => h - low[d]) as [number, number, number]
}

export interface Cleaned {
  mesh: TriMesh
  /** What was mended: counts. */
  welded: number
  dropped: number
  turned: number
}
/**
 * A scan made fit to be laid on: vertices at one place joined, triangles without area and those that make an edge of
 * three dropped, all turned the same way round. Holes stay. Errors: empty_mesh, bad_number.
 */
export function cleaned(mesh: TriMesh): Result<Cleaned> {
  const { positions, triangles } = mesh
  for (let i = 0; i < positions.length; i++)
    if (!Number.isFinite(positions[i])) return err({ code: 'bad_number', facts: { vertex: Math.floor(i / 3) + 1 } })
  const size = Math.max(...span(positions), 0)
  const step = Math.max(size * WELD_SHARE, 1e-12)
  const ids = new Map<string, number>()
  const own = new Uint32Array(positions.length / 3)
  const places: number[] = []
  for (let v = 0; v < own.length; v++) {
    const key = [0, 1, 2].map((d) => Math.round(positions[3 * v + d] / step)).join()
    let id = ids.get(key)
    if (id === undefined) {
      id = ids.size
      ids.set(key, id)
      for (let d = 0; d < 3; d++) places.push(positions[3 * v + d])
    }
    own[v] = id
  }
  const joined: TriMesh = { positions: Float64Array.from(places), triangles: triangles.map((v) => own[v]) }
  const { list, turned } = alike(joined)
  if (list.length === 0) return err({ code: 'empty_mesh' })
  return ok({
    mesh: compact(joined.positions, list),
    welded: own.length - ids.size,
    dropped: (triangles.length - list.length) / 3,
    turned,
  })
}

/** Triangles with area, no more than two at an edge, wound as their neighbours are. */
function alike(mesh: TriMesh): { list: number[]; turned: number } {
  const sides = new Map<string, number[]>()
  const kept: number[] = []
  const seen = new Set<string>()
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const v = [0, 1, 2].map((k) => mesh.triangles[3 * t + k]) as [number, number, number]
    const name = [...v].sort((a, b) => a - b).join()
    if (new Set(v).size < 3 || seen.has(name) || flat(mesh, t)) continue
    const keys = [0, 1, 2].map((k) => edgeKey(v[k], v[(k + 1) % 3]))
    if (keys.some((key) => (sides.get(key)?.length ?? 0) >= 2)) continue
    seen.add(name)
    for (const key of keys) sides.set(key, [...(sides.get(key) ?? []), t])
    kept.push(t)
  }
  const turnedRound = new Map<number, boolean>()
  for (const start of kept) {
    if (turnedRound.has(start)) continue
    turnedRound.set(start, false)
    const todo = [start]
    for (let t = todo.pop(); t !== undefined; t = todo.pop())
      for (let k = 0; k < 3; k++) {
        const a: number = mesh.triangles[3 * t + k]
        const b: number = mesh.triangles[3 * t + ((k + 1) % 3)]
        for (const other of sides.get(edgeKey(a, b)) ?? []) {
          if (other === t || turnedRound.has(other)) continue
          // Neighbours that run along a common side the same way are wound against one another.
          turnedRound.set(other, runs(mesh, other, a, b) !== (turnedRound.get(t) as boolean))
          todo.push(other)
        }
      }
  }
  const list: number[] = []
  let turned = 0
  for (const t of kept) {
    const v = [0, 1, 2].map((k) => mesh.triangles[3 * t + k]) as [number, number, number]
    if (turnedRound.get(t)) turned++
    list.push(...(turnedRound.get(t) ? [v[0], v[2], v[1]] : v))
  }
  return { list, turned }
}
const edgeKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`)
const runs = (mesh: TriMesh, t: number, a: number, b: number): boolean =>
  [0, 1, 2].some((k) => mesh.triangles[3 * t + k] === a && mesh.triangles[3 * t + ((k + 1) % 3)] === b)
function flat(mesh: TriMesh, t: number): boolean {
  const p = mesh.positions
  const at = (k: number) => 3 * mesh.triangles[3 * t + (k % 3)]
  const long = Math.max(...[0, 1, 2].map((k) => Math.hypot(...[0, 1, 2].map((d) => p[at(k) + d] - p[at(k + 1) + d]))))
  return !(2 * areaOf(mesh, t) > FLAT * long * long)
}
function compact(positions: Float64Array, list: readonly number[]): TriMesh {
  const ids = new Map<number, number>()
  const places: number[] = []
  const triangles = Uint32Array.from(list, (v) => {
    let id = ids.get(v)
    if (id === undefined) {
      id = ids.size
      ids.set(v, id)
      places.push(positions[3 * v], positions[3 * v + 1], positions[3 * v + 2])
    }
    return id
  })
  return { positions: Float64Array.from(places), triangles }
}

/**
 * A scan turned to be looked at as its panel is: its mean normal towards the eye, its longest measure across lying level,
 * scaled to mm. `quarter`: turned by so many quarters more, where the panel stands on its side. y up, z towards the
 * eye.
 */
export function facing(mesh: TriMesh, unit: ScanUnit, quarter = 0): TriMesh {
  const p = mesh.positions
  const n = p.length / 3
  const middle = [0, 1, 2].map((d) => p.reduce((s, x, i) => (i % 3 === d ? s + x : s), 0) / n)
  const z = unitVector(meanNormal(mesh))
  // Any level vector, then the direction of the greatest spread in the panel's plane.
  const some = Math.abs(z[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]
  const u = unitVector(crossed(some, z))
  const v = crossed(z, u)
  // Weighed by area, since a scan has many triangles where it bends.
  let [uu, uv, vv] = [0, 0, 0]
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const q = [0, 1, 2].map(
      (d) => [0, 1, 2].reduce((sum, k) => sum + p[3 * mesh.triangles[3 * t + k] + d], 0) / 3 - middle[d],
    )
    const [a, b, w] = [dot(q, u), dot(q, v), areaOf(mesh, t)]
    uu += w * a * a
    uv += w * a * b
    vv += w * b * b
  }
  const angle = Math.atan2(2 * uv, uu - vv) / 2 + (quarter * Math.PI) / 2
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const x = u.map((a, d) => a * c + v[d] * s)
  const y = crossed(z, x)
  const k = UNITS[unit]
  const positions = new Float64Array(p.length)
  for (let i = 0; i < n; i++) {
    const q = [0, 1, 2].map((d) => p[3 * i + d] - middle[d])
    positions.set([dot(q, x) * k, dot(q, y) * k, dot(q, z) * k], 3 * i)
  }
  return { positions, triangles: mesh.triangles }
}
const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((s, x, i) => s + x * b[i], 0)
const crossed = (a: readonly number[], b: readonly number[]): number[] =>
  [0, 1, 2].map((i) => a[(i + 1) % 3] * b[(i + 2) % 3] - a[(i + 2) % 3] * b[(i + 1) % 3])
function unitVector(a: readonly number[]): number[] {
  const l = Math.hypot(...a) || 1
  return a.map((x) => x / l)
}
function meanNormal({ positions: p, triangles }: TriMesh): number[] {
  const sum = [0, 0, 0]
  for (let t = 0; t < triangles.length; t += 3) {
    const at = (k: number, d: number) => p[3 * triangles[t + k] + d]
    const [a, b] = [1, 2].map((k) => [0, 1, 2].map((d) => at(k, d) - at(0, d))) as [number[], number[]]
    crossed(a, b).forEach((x, d) => (sum[d] = sum[d] + x))
  }
  return Math.hypot(...sum) > 0 ? sum : [0, 0, 1]
}

/**
 * What of a scan lies within a ring drawn on it as it is looked at (mm, y up) and faces the eye: the largest part
 * that hangs together. Errors: nothing_within.
 */
export function cropped(mesh: TriMesh, ring: readonly Point[]): Result<TriMesh> {
  const p = mesh.positions
  const inside: number[] = []
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const at = (k: number, d: number) => p[3 * mesh.triangles[t + k] + d]
    const [x, y] = [0, 1].map((d) => (at(0, d) + at(1, d) + at(2, d)) / 3) as [number, number]
    const front = (at(1, 0) - at(0, 0)) * (at(2, 1) - at(0, 1)) - (at(2, 0) - at(0, 0)) * (at(1, 1) - at(0, 1)) > 0
    if (front && within(ring, x, y)) inside.push(t / 3)
  }
  const part = largestPart(mesh, inside)
  if (part.length === 0) return err({ code: 'nothing_within' })
  return ok(
    compact(
      p,
      part.flatMap((t) => [0, 1, 2].map((k) => mesh.triangles[3 * t + k])),
    ),
  )
}
/** The part of a scan with the most triangles. */
export function main(mesh: TriMesh): TriMesh {
  const all = Array.from({ length: mesh.triangles.length / 3 }, (_, t) => t)
  return compact(
    mesh.positions,
    largestPart(mesh, all).flatMap((t) => [0, 1, 2].map((k) => mesh.triangles[3 * t + k])),
  )
}
function largestPart(mesh: TriMesh, of: readonly number[]): number[] {
  const sides = new Map<string, number[]>()
  for (const t of of)
    for (let k = 0; k < 3; k++) {
      const key = edgeKey(mesh.triangles[3 * t + k], mesh.triangles[3 * t + ((k + 1) % 3)])
      sides.set(key, [...(sides.get(key) ?? []), t])
    }
  const left = new Set(of)
  let best: number[] = []
  for (const start of of) {
    if (!left.delete(start)) continue
    const own = [start]
    for (let i = 0; i < own.length; i++)
      for (let k = 0; k < 3; k++)
        for (const t of sides.get(
          edgeKey(mesh.triangles[3 * own[i] + k], mesh.triangles[3 * own[i] + ((k + 1) % 3)]),
        ) ?? [])
          if (left.delete(t)) own.push(t)
    if (own.length > best.length) best = own
  }
  return best
}
/** Lengths over the surface across its middle, mm, as a soft tape would take them: `width` level, `height` upright. */
export function girths(mesh: TriMesh): { widthMm: number; heightMm: number } {
  const p = mesh.positions
  const range = (d: number) => {
    let [low, high] = [Infinity, -Infinity]
    for (let i = d; i < p.length; i += 3) [low, high] = [Math.min(low, p[i]), Math.max(high, p[i])]
    // A hair beside the middle, so that no side of a triangle lies in the section.
    return (low + high) / 2 + (high - low) * 1e-6
  }
  const section = (axis: 0 | 1) => {
    const at = range(1 - axis)
    let sum = 0
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const ends: number[][] = []
      for (let k = 0; k < 3; k++) {
        const [a, b] = [3 * mesh.triangles[t + k], 3 * mesh.triangles[t + ((k + 1) % 3)]]
        const [f, g] = [p[a + 1 - axis], p[b + 1 - axis]]
        if ((f - at) * (g - at) > 0 || f === g) continue
        const s = (at - f) / (g - f)
        ends.push([0, 1, 2].map((d) => p[a + d] * (1 - s) + p[b + d] * s))
      }
      if (ends.length === 2) sum += Math.hypot(...[0, 1, 2].map((d) => ends[0][d] - ends[1][d]))
    }
    return sum
  }
  return { widthMm: section(0), heightMm: section(1) }
}

/** A scan that looks as its panel does, with its places on the panel: as it is looked at, from its top left. */
export function onPanel(mesh: TriMesh): ScanSurface {
  let [left, top] = [Infinity, -Infinity]
  for (let i = 0; i < mesh.positions.length; i += 3) {
    left = Math.min(left, mesh.positions[i])
    top = Math.max(top, mesh.positions[i + 1])
  }
  const taped = new Float64Array((2 * mesh.positions.length) / 3)
  for (let v = 0; v < taped.length / 2; v++) {
    taped[2 * v] = mesh.positions[3 * v] - left
    taped[2 * v + 1] = top - mesh.positions[3 * v + 1]
  }
  return { ...mesh, taped }
}
