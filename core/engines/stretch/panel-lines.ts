import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import type { TriMesh } from '../../solve/mesh'

export interface PanelMesh {
  mesh: TriMesh
  /** Where each vertex lies on the taped panel, along the surface from its top left, xy in mm (length 2n). */
  taped: Float64Array
  /** Vertices along each line that was asked for, in order; a line that the panel's outline parts gives several. */
  chains: number[][]
}

/**
 * A run of a line that lies on the panel: its points from end to end, broken where others cross it; `line` is whose
 * it is.
 */
export interface Chain {
  line: number
  points: Point[]
}

/** Two places nearer than this are one, mm. */
const SAME_MM = 0.01

const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })
const same = (a: Point, b: Point): boolean => Math.hypot(a.x - b.x, a.y - b.y) < SAME_MM
/** Share of the line from a to b at which c–d crosses it; null where it does not. */
function crossing(a: Point, b: Point, c: Point, d: Point): number | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y]
  const cross = ux * vy - uy * vx
  if (Math.abs(cross) < 1e-9 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return null
  const t = ((c.x - a.x) * vy - (c.y - a.y) * vx) / cross
  const s = ((c.x - a.x) * uy - (c.y - a.y) * ux) / cross
  const hair = 1e-6
  return t >= -hair && t <= 1 + hair && s >= -hair && s <= 1 + hair ? Math.max(0, Math.min(1, t)) : null
}

/**
 * Straight lines cut to the panel: what of them lies within the first ring and outside the others, with points where
 * they cross one another.
 */
export function chopped(
  lines: readonly (readonly [Point, Point])[],
  rings: readonly (readonly Point[])[],
  within: (ring: readonly Point[], x: number, y: number) => boolean,
): Chain[] {
  const on = (p: Point) => rings.every((ring, i) => within(ring, p.x, p.y) === (i === 0))
  return lines.flatMap(([a, b], line) => {
    const long = Math.hypot(b.x - a.x, b.y - a.y)
    if (!(long > SAME_MM)) return []
    const marks = new Set([0, 1])
    for (const ring of rings)
      ring.forEach((p, i) => marks.add(crossing(a, b, p, nth(ring, (i + 1) % ring.length)) ?? 0))
    lines.forEach(([c, d], other) => other !== line && marks.add(crossing(a, b, c, d) ?? 0))
    const order = [...marks]
      .sort((x, y) => x - y)
      .filter((t, i, all) => i === 0 || (t - nth(all, i - 1)) * long > SAME_MM)
    const out: Chain[] = []
    let run: Point[] = []
    const corner = (p: Point): Point => rings.flat().find((q) => same(p, q)) ?? p
    for (let i = 1; i < order.length; i++) {
      const [s, t] = [nth(order, i - 1), nth(order, i)]
      const middle = between(a, b, (s + t) / 2)
      // An end within a hair of one of the outline's own corners is that corner.
      const [from, to] = [corner(between(a, b, s)), corner(between(a, b, t))]
      if (on(middle)) run = run.length > 0 ? [...run, to] : [from, to]
      else if (run.length > 0) {
        out.push({ line, points: run })
        run = []
      }
    }
    if (run.length > 0) out.push({ line, points: run })
    return out
  })
}

/** The rings with a point of their own wherever a line ends on them. */
export function ringWith(rings: readonly (readonly Point[])[], chains: readonly Chain[]): Point[][] {
  const ends = chains.flatMap(({ points }) => [nth(points, 0), nth(points, points.length - 1)])
  return rings.map((ring) =>
    ring.flatMap((a, i) => {
      const b = nth(ring, (i + 1) % ring.length)
      const long = Math.hypot(b.x - a.x, b.y - a.y)
      const own = ends
        .map((p) => ({ p, t: ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / (long * long || 1) }))
        .filter(({ p, t }) => t > 0 && t < 1 && !same(p, a) && !same(p, b) && same(p, between(a, b, t)))
        .sort((x, y) => x.t - y.t)
      return [a, ...own.map(({ p }) => p).filter((p, k, all) => k === 0 || !same(p, nth(all, k - 1)))]
    }),
  )
}
