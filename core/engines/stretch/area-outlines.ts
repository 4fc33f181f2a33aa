import { nth } from '../../kit/known'
import { polygonAreaMm2, within, type Point } from '../../kit/plane'
import type { SurfaceMap } from './surface-map'

/** Smaller places are heated with what lies around them, mm². Assumed. */
const LEAST_MM2 = 400
const MOST_AREAS = 6
const MOST_POINTS = 40
/** How far an outline may lie off the triangles it goes round, to begin with. mm */
const OFF_MM = 4

/**
 * Outlines of the places of a map that are `inside`, on the panel's surface, mm from its top left: the largest first, as
 * few points as will do. Holes in them are not told.
 */
export function areaOutlines(map: Pick<SurfaceMap, 'triangles' | 'taped'>, inside: (t: number) => boolean): Point[][] {
  const near = boundary(map, inside)
  const loops: number[][] = []
  for (const first of near.keys()) {
    const loop: number[] = []
    for (let at: number | undefined = first; at !== undefined;) {
      loop.push(at)
      const to: number | undefined = near.get(at)?.values().next().value
      if (to !== undefined) {
        near.get(at)?.delete(to)
        near.get(to)?.delete(at)
      }
      at = to === first ? undefined : to
    }
    if (loop.length > 2) loops.push(loop)
  }
  const rings = loops.map((loop) => loop.map((v) => ({ x: nth(map.taped, 2 * v), y: nth(map.taped, 2 * v + 1) })))
  return rings
    .filter((r, i) => areaOf(r) >= LEAST_MM2 && !rings.some((other, k) => k !== i && isInside(r, other)))
    .sort((a, b) => areaOf(b) - areaOf(a))
    .slice(0, MOST_AREAS)
    .map(fewer)
}

/** The same whether it runs clockwise or not. */
const areaOf = (ring: readonly Point[]): number => Math.abs(polygonAreaMm2(ring))

/** By vertex, those that the rim of the place goes on to: sides of its triangles that have none of it beyond. */
function boundary(
  { triangles }: Pick<SurfaceMap, 'triangles'>,
  inside: (t: number) => boolean,
): Map<number, Set<number>> {
  const sides = new Map<string, [number, number]>()
  for (let t = 0; t < triangles.length / 3; t++) {
    if (!inside(t)) continue
    for (let k = 0; k < 3; k++) {
      const [a, b] = [nth(triangles, 3 * t + k), nth(triangles, 3 * t + ((k + 1) % 3))]
      const key = a < b ? `${a},${b}` : `${b},${a}`
      // Met a second time, it lies within.
      if (!sides.delete(key)) sides.set(key, [a, b])
    }
  }
  const near = new Map<number, Set<number>>()
  const link = (a: number, b: number) => near.set(a, (near.get(a) ?? new Set()).add(b))
  for (const [a, b] of sides.values()) {
    link(a, b)
    link(b, a)
  }
  return near
}

/** A hole lies within what it is a hole of: with all its points, and is the smaller. */
const isInside = (ring: readonly Point[], other: readonly Point[]): boolean =>
  areaOf(ring) < areaOf(other) && ring.every((p) => other.includes(p) || within(other, p.x, p.y))

/** A ring by fewer points: what lies nearly straight between two others is left out (Douglas & Peucker 1973). */
function fewer(ring: readonly Point[]): Point[] {
  // Parted at the place farthest from its begin, so that both halves are open lines.
  const from = nth(ring, 0)
  const far = ring.reduce((m, p, i) => (away(p, from) > away(nth(ring, m), from) ? i : m), 0)
  for (let off = OFF_MM; ; off *= 1.5) {
    const out = [
      ...kept(ring.slice(0, far + 1), off).slice(0, -1),
      ...kept([...ring.slice(far), from], off).slice(0, -1),
    ]
    if (out.length <= MOST_POINTS) return out.map((p) => ({ x: Math.round(p.x), y: Math.round(p.y) }))
  }
}
const away = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y)

function kept(line: readonly Point[], off: number): Point[] {
  const [a, b] = [nth(line, 0), nth(line, line.length - 1)]
  const long = away(a, b)
  let [most, at] = [0, 0]
  line.forEach((p, i) => {
    const d = long > 0 ? Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / long : away(p, a)
    if (d > most) [most, at] = [d, i]
  })
  return most <= off ? [a, b] : [...kept(line.slice(0, at + 1), off).slice(0, -1), ...kept(line.slice(at), off)]
}
