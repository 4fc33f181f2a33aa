import { nth } from '../../kit/known'
import Delaunator from 'delaunator'
import { err, ok, type Result } from '../../kit/result'
import { seeded } from '../../kit/random'
import { within, type Point } from '../../kit/plane'
import { outlineOf } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'
import { flanged } from './flange'
import { cutRound, impossible, panelSurface, type Bend } from './panel-surface'
import { chopped, ringWith, type Chain, type PanelMesh } from './panel-lines'

export type { PanelMesh }
export interface PanelMeshOptions {
  /** Straight lines across the taped panel that shall be sides of triangles: seams and relief cuts. */
  lines?: readonly (readonly [Point, Point])[]
  /** Film turned over all edges by this much, mm. */
  flangeMm?: number
}

/** Bends are meshed this much finer than flats. */
const FINER = 0.5
/** The share of all triangles that bends may take. */
const BENDS_SHARE = 0.65
/**
 * Points of the inside keep this share of their spacing from the rim and from lines, so that these are kept as sides.
 */
const RIM_SHARE = 0.7
const LEAST_TRIANGLES = 200
const MOST_TRIANGLES = 80_000

/**
 * A taped panel as a triangle mesh in mm: its outline laid on the surface of `panelSurface`, holes and what film is cut
 * round left open. Looked at from outside, x to the right, y up, z towards the eye. Errors: crown_too_deep,
 * recess_too_wide, recess_off_panel, recess_too_deep, raised_off_panel, nose_too_long, turn_too_tight,
 * fold_off_panel, outline_impossible, each naming the field.
 */
export function panelMesh(panel: Panel, triangles = 5000, options: PanelMeshOptions = {}): Result<PanelMesh> {
  const fault = impossible(panel)
  if (fault) return err(fault)
  const { widthMm: W, heightMm: H } = panel
  const outline = outlineOn(panel)
  if (!outline) return err({ code: 'outline_impossible', at: 'edges' })
  const surface = panelSurface(panel)
  const open = [...panel.holes, ...cutRound(panel)]
  const bare = open.map((h) => rectangle(h.xMm ?? W / 2, h.yMm ?? H / 2, h.widthMm, h.heightMm))
  const asked = (options.lines ?? []).map(([from, to]): [Point, Point] => [from, to])
  const chains = chopped([...asked, ...surface.folds], [outline, ...bare], within)
  const [rim, ...holes] = ringWith([outline, ...bare], chains) as [Point[], ...Point[][]]
  const target = Math.max(LEAST_TRIANGLES, Math.min(MOST_TRIANGLES, triangles))
  const { points, along } = scatter({ panel, boxes: surface.bends, rim, holes, chains, triangles: target })
  const list = triangulate(points, rim, holes)
  const used = usedOnly(points, list)
  const positions = new Float64Array(used.points.length * 3)
  used.points.forEach((p, i) => positions.set(surface.on(p).at, 3 * i))
  const mesh = { positions, triangles: Uint32Array.from(used.triangles) }
  const taped = Float64Array.from(used.points.flatMap((p) => [p.x, p.y]))
  const lines = along
    .flatMap((chain, i) =>
      nth(chains, i).line < asked.length ? [chain.map((v) => nth(used.ids, v)).filter((v) => v >= 0)] : [],
    )
    .filter((c) => c.length > 1)
  const made = { mesh, taped, chains: lines }
  return ok(options.flangeMm ? flanged(made, surface, options.flangeMm) : made)
}

/** Points that no triangle takes are dropped: a stray one would be no part of the surface. */
function usedOnly(points: readonly Point[], triangles: readonly number[]) {
  const ids = new Int32Array(points.length).fill(-1)
  const out: Point[] = []
  const own = triangles.map((v) => {
    if (nth(ids, v) < 0) {
      ids[v] = out.length
      out.push(nth(points, v))
    }
    return nth(ids, v)
  })
  return { points: out, triangles: own, ids }
}

/** The panel's outline in its taped sizes, or the plain rectangle where it was not taken. */
function outlineOn(panel: Panel): Point[] | null {
  const outline = outlineOf(panel)
  if (!(outline.widthMm > 0 && outline.heightMm > 0)) return null
  const [sx, sy] = [panel.widthMm / outline.widthMm, panel.heightMm / outline.heightMm]
  const radius = new Map(
    outline.edges.map(({ edge, to }) => [keyOf(to), edge.cornerRadiusMm ?? panel.cornerRadiusMm ?? 0]),
  )
  return outline.path.flatMap((p, i, all) => {
    const at = (q: Point): Point => ({ x: q.x * sx, y: q.y * sy })
    const [before, after] = [nth(all, (i + all.length - 1) % all.length), nth(all, (i + 1) % all.length)]
    return rounded(at(before), at(p), at(after), radius.get(keyOf(p)) ?? 0)
  })
}
const keyOf = (p: Point): string => `${p.x.toFixed(3)} ${p.y.toFixed(3)}`
/** A rounded corner takes no more than this share of either side. */
const CORNER_SHARE = 0.45
const CORNER_STEP = Math.PI / 24
/** A corner as the arc of its radius, between the straight runs before and after it. */
function rounded(before: Point, corner: Point, after: Point, radius: number): Point[] {
  const [la, lb] = [
    Math.hypot(before.x - corner.x, before.y - corner.y),
    Math.hypot(after.x - corner.x, after.y - corner.y),
  ]
  const [ax, ay, bx, by] = [
    (before.x - corner.x) / la,
    (before.y - corner.y) / la,
    (after.x - corner.x) / lb,
    (after.y - corner.y) / lb,
  ]
  const half = Math.acos(Math.max(-1, Math.min(1, ax * bx + ay * by))) / 2
  const trim = Math.min(radius / Math.tan(half), CORNER_SHARE * Math.min(la, lb))
  if (!(trim > 1) || !(half < Math.PI / 2 - 0.02)) return [corner]
  const [r, turn] = [trim * Math.tan(half), Math.PI - 2 * half]
  const l = Math.hypot(ax + bx, ay + by) || 1
  const centre = {
    x: corner.x + ((ax + bx) / l) * (r / Math.sin(half)),
    y: corner.y + ((ay + by) / l) * (r / Math.sin(half)),
  }
  const start = Math.atan2(corner.y + ay * trim - centre.y, corner.x + ax * trim - centre.x)
  const sense = ax * by - ay * bx < 0 ? 1 : -1
  const steps = Math.max(2, Math.ceil(turn / CORNER_STEP))
  return Array.from({ length: steps + 1 }, (_, k) => {
    const a = start + (sense * turn * k) / steps
    return { x: centre.x + r * Math.cos(a), y: centre.y + r * Math.sin(a) }
  })
}
const rectangle = (x: number, y: number, w: number, h: number): Point[] => [
  { x: x - w / 2, y: y - h / 2 },
  { x: x + w / 2, y: y - h / 2 },
  { x: x + w / 2, y: y + h / 2 },
  { x: x - w / 2, y: y + h / 2 },
]

function toSegment(a: Point, b: Point, x: number, y: number): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const t = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(x - a.x - t * dx, y - a.y - t * dy)
}
function toRing(ring: readonly Point[], x: number, y: number): number {
  let least = Infinity
  for (let i = 0; i < ring.length; i++)
    least = Math.min(least, toSegment(nth(ring, i), nth(ring, (i + 1) % ring.length), x, y))
  return least
}

interface Scattered {
  panel: Panel
  boxes: readonly Bend[]
  rim: readonly Point[]
  holes: readonly Point[][]
  chains: readonly Chain[]
  triangles: number
}

/** Points on the rim, the holes and the lines, then a triangular lattice inside, finer where the panel bends. */
function scatter(task: Scattered): { points: Point[]; along: number[][] } {
  const { panel, rim, holes, chains } = task
  const { steps, spacing } = spacingOf(task)
  const out: Point[] = []
  const ids = new Map<string, number>()
  const put = (p: Point): number => {
    const key = `${p.x.toFixed(4)} ${p.y.toFixed(4)}`
    const known = ids.get(key)
    if (known !== undefined) return known
    ids.set(key, out.length)
    out.push(p)
    return out.length - 1
  }
  for (const ring of [rim, ...holes])
    for (let i = 0; i < ring.length; i++) {
      const [a, b] = [nth(ring, i), nth(ring, (i + 1) % ring.length)]
      for (const p of along(a, b, spacing)) put(p)
    }
  const lines = chains.map(({ points }) =>
    points.flatMap((a, i) => {
      const b = points[i + 1]
      return (b ? along(a, b, spacing) : [a]).map(put)
    }),
  )
  // A hair's breadth of chance keeps four points off one circle, where the lattice could be split either way.
  const random = seeded(11)
  for (const step of steps)
    for (let row = 0, y = step * 0.43; y < panel.heightMm; row++, y += (step * Math.sqrt(3)) / 2)
      for (let x = step * (row % 2 ? 0.75 : 0.25); x < panel.widthMm; x += step) {
        const p = { x: x + (random() - 0.5) * step * 0.02, y: y + (random() - 0.5) * step * 0.02 }
        if (Math.abs(spacing(p.x, p.y) - step) <= 1e-9 && isClear(p, RIM_SHARE * step, task)) out.push(p)
      }
  return { points: out, along: lines }
}

/** How far apart points lie: wide on what is flat, by the radius in bends, so that the triangles asked for cover it. */
function spacingOf({ boxes, rim, holes, triangles }: Scattered): {
  steps: ReadonlySet<number>
  spacing: (x: number, y: number) => number
} {
  const area = (ring: readonly Point[]) =>
    Math.abs(
      ring.reduce(
        (s, p, i) => s + p.x * nth(ring, (i + 1) % ring.length).y - p.y * nth(ring, (i + 1) % ring.length).x,
        0,
      ),
    ) / 2
  const whole = area(rim) - holes.reduce((s, h) => s + area(h), 0)
  // A triangle of the lattice has √3/4 of its side squared.
  const stepFor = (mm2: number, count: number) => Math.sqrt((mm2 / count) * (4 / Math.sqrt(3)))
  const even = stepFor(whole, triangles)
  const bent = boxes.reduce((s, f) => s + (f.x1 - f.x0) * (f.y1 - f.y0), 0)
  // Bends get steps by their radius, and no more than their share of the triangles.
  const least = bent > 0 ? stepFor(Math.min(whole, bent), triangles * BENDS_SHARE) : even
  const fine = boxes.map((f) => ({ ...f, step: Math.min(even, Math.max(least, Math.min(even * FINER, f.step))) }))
  const used = fine.reduce((s, f) => s + ((f.x1 - f.x0) * (f.y1 - f.y0)) / ((f.step ** 2 * Math.sqrt(3)) / 4), 0)
  const side = Math.max(
    even,
    stepFor(Math.max(whole * 0.05, whole - bent), Math.max(triangles * 0.2, triangles - used)),
  )
  return {
    steps: new Set([side, ...fine.map((f) => f.step)]),
    spacing: (x, y) =>
      fine.reduce((s, f) => (x >= f.x0 && x <= f.x1 && y >= f.y0 && y <= f.y1 ? Math.min(s, f.step) : s), side),
  }
}

/** Within the rim, outside of every hole, and not too near to any of them or to a line. */
const isClear = (p: Point, nearMm: number, { rim, holes, chains }: Scattered): boolean =>
  within(rim, p.x, p.y) &&
  !holes.some((h) => within(h, p.x, p.y)) &&
  toRing(rim, p.x, p.y) >= nearMm &&
  !holes.some((h) => toRing(h, p.x, p.y) < nearMm) &&
  !chains.some((c) => c.points.some((a, i) => i > 0 && toSegment(nth(c.points, i - 1), a, p.x, p.y) < nearMm))

/** Points from a up to b, not b itself, as far apart as the spacing is where they are. */
function along(a: Point, b: Point, spacing: (x: number, y: number) => number): Point[] {
  const long = Math.hypot(b.x - a.x, b.y - a.y)
  const at = (mm: number): Point => ({ x: a.x + ((b.x - a.x) * mm) / long, y: a.y + ((b.y - a.y) * mm) / long })
  const marks = [0]
  for (let mm = 0; mm < long;) {
    const here = at(mm)
    const near = spacing(here.x, here.y)
    // Looking one step ahead, so that a bend is met with its own step.
    const ahead = at(Math.min(long, mm + near))
    mm += Math.min(near, spacing(ahead.x, ahead.y))
    marks.push(mm)
  }
  // The last step is shared out over all of them.
  const squeeze = long / nth(marks, marks.length - 1)
  return marks.slice(0, -1).map((mm) => at(mm * squeeze))
}

/** Delaunay triangles within the rim and outside the holes, counter-clockwise as the panel is looked at. */
function triangulate(points: readonly Point[], rim: readonly Point[], holes: readonly Point[][]): number[] {
  const { triangles } = new Delaunator(Float64Array.from(points.flatMap((p) => [p.x, p.y])))
  const out: number[] = []
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t], triangles[t + 1], triangles[t + 2]] as [number, number, number]
    const [p, q, r] = [points[a], points[b], points[c]] as [Point, Point, Point]
    const [x, y] = [(p.x + q.x + r.x) / 3, (p.y + q.y + r.y) / 3]
    if (!within(rim, x, y) || holes.some((h) => within(h, x, y))) continue
    const double = (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)
    const longest = Math.max(
      Math.hypot(q.x - p.x, q.y - p.y),
      Math.hypot(r.x - q.x, r.y - q.y),
      Math.hypot(p.x - r.x, p.y - r.y),
    )
    // Slivers along a straight rim are no part of it.
    if (Math.abs(double) < 1e-3 * longest * longest) continue
    // y runs down the panel and up in space: the other way round.
    out.push(...(double > 0 ? [a, c, b] : [a, b, c]))
  }
  return out
}
