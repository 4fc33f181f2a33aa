import Delaunator from 'delaunator'
import { err, ok, type Result } from '../kit/result'
import { seeded } from '../kit/random'
import type { Point } from '../kit/plane'
import type { TriMesh } from '../solve/mesh'
import { outlineOf } from '../vehicle/outline'
import type { Panel, Recess } from '../vehicle/schema'

export interface PanelMesh {
  mesh: TriMesh
  /** Where each vertex lies on the taped panel, along the surface from its top left, xy in mm (length 2n). */
  taped: Float64Array
}

/** Steps in which a profile is walked: fine against any radius that a panel has. */
const PROFILE_STEPS = 2000
/** Bends are meshed this much finer than flats. */
const FINER = 0.5
/** Steps over a bend as a share of its radius, and the share of all triangles that bends may take. */
const STEP_OF_RADIUS = 0.22
const BENDS_SHARE = 0.65
/** Points of the inside keep this share of their spacing from the rim, so that the rim's own edges are kept. */
const RIM_SHARE = 0.7
/** Walls steeper than this cannot be a height over the panel; they are taken as this steep. */
const STEEPEST_DEG = 80
const LEAST_TRIANGLES = 200
const MOST_TRIANGLES = 80_000

/**
 * A taped panel as a triangle mesh in mm: its outline laid on a surface with the taped crown both ways, the nose rolled
 * over at its side, recesses pressed in with their walls and rounded bends. Lengths along the middle of the surface are those of
 * the tape. Looked at from outside, x to the right, y up, z towards the eye. Errors: crown_too_deep, recess_too_wide,
 * nose_too_long, outline_impossible, each naming the field.
 */
export function panelMesh(panel: Panel, triangles = 5000): Result<PanelMesh> {
  const fault = impossible(panel)
  if (fault) return err(fault)
  const { widthMm: W, heightMm: H } = panel
  const rim = outlineOn(panel)
  if (!rim) return err({ code: 'outline_impossible', at: 'edges' })
  const holes = panel.holes.map((h) => rectangle(h.xMm ?? W / 2, h.yMm ?? H / 2, h.widthMm, h.heightMm))
  const across = profile(W, radiusOf(panel.crownMm, panel.crownOverMm), noseAt(panel, 'left'), noseAt(panel, 'right'))
  const down = profile(H, downRadius(panel), noseAt(panel, 'top'), noseAt(panel, 'bottom'))
  const target = Math.max(LEAST_TRIANGLES, Math.min(MOST_TRIANGLES, triangles))
  const points = scatter(panel, rim, holes, target)
  const flat = Float64Array.from(points.flatMap((p) => [p.x, p.y]))
  const list = triangulate(points, rim, holes)
  const positions = new Float64Array(points.length * 3)
  points.forEach((p, i) => {
    const [a, b] = [across(p.x), down(p.y)]
    const deep = panel.recesses.reduce((s, r) => s + depthAt(r, panel, p), 0)
    // Pressed in along the panel's own normal, as the press does.
    const [nx, ny, nz] = normal(a.slope, b.slope)
    positions.set([a.along - deep * nx, -b.along + deep * ny, a.rise + b.rise - deep * nz], 3 * i)
  })
  return ok({ mesh: { positions, triangles: Uint32Array.from(list) }, taped: flat })
}

function impossible(panel: Panel): { code: string; at: string; facts: Record<string, number | string> } | null {
  const { widthMm, heightMm } = panel
  for (const [crown, over, at] of [[panel.crownMm, panel.crownOverMm, 'crownMm'], [panel.crownDownMm ?? 0, panel.crownDownOverMm, 'crownDownMm']] as const) // prettier-ignore
    if (crown > 0 && (over <= 0 || crown > over / 2)) return { code: 'crown_too_deep', at, facts: { crown_mm: crown, over_mm: over } } // prettier-ignore
  for (const [i, r] of panel.recesses.entries()) {
    const run = r.depthMm / Math.tan((Math.min(STEEPEST_DEG, r.wallDeg) * Math.PI) / 180)
    if (r.mouthWidthMm > widthMm || r.mouthHeightMm > heightMm) return { code: 'recess_too_wide', at: `recesses[${i}].mouthWidthMm`, facts: { recess: r.name } } // prettier-ignore
    if (2 * run > Math.min(r.mouthWidthMm, r.mouthHeightMm)) return { code: 'recess_too_deep', at: `recesses[${i}].depthMm`, facts: { recess: r.name, depth_mm: r.depthMm } } // prettier-ignore
  }
  if (panel.nose) {
    const length = panel.nose.radiusMm * ((panel.nose.angleDeg * Math.PI) / 180)
    const side = panel.nose.at === 'left' || panel.nose.at === 'right' ? widthMm : heightMm
    if (length > side) return { code: 'nose_too_long', at: 'nose', facts: { length_mm: Math.round(length), side_mm: side } } // prettier-ignore
  }
  return null
}

/** Radius of an arc from its rise under a straightedge; 0 for flat. */
const radiusOf = (crown: number, over: number): number => (crown > 0 ? (over ** 2 / 4 + crown ** 2) / (2 * crown) : 0)
/** The crown the other way; one that was not taken is held to be alike both ways. */
const downRadius = (panel: Panel): number =>
  panel.crownDownMm === null
    ? radiusOf(panel.crownMm, panel.crownOverMm)
    : radiusOf(panel.crownDownMm, panel.crownDownOverMm)
const noseAt = (panel: Panel, at: NonNullable<Panel['nose']>['at']) => (panel.nose?.at === at ? panel.nose : null)

interface OnProfile {
  along: number
  rise: number
  /** Lean of the surface there, radians. */
  slope: number
}
/** A curve of a set length by its bend: the crown all along, a nose at either end. Walked from the middle; lengths along it are kept. */
function profile(length: number, radius: number, first: Panel['nose'], last: Panel['nose']): (s: number) => OnProfile {
  const bend = radius > 0 ? 1 / radius : 0
  const noseLength = (n: Panel['nose']) => (n ? (n.radiusMm * n.angleDeg * Math.PI) / 180 : 0)
  const [a, b] = [noseLength(first), noseLength(last)]
  const bendAt = (s: number) =>
    s < a && first ? 1 / first.radiusMm : s > length - b && last ? 1 / last.radiusMm : bend
  const step = length / PROFILE_STEPS
  const along = new Float64Array(PROFILE_STEPS + 1)
  const rise = new Float64Array(PROFILE_STEPS + 1)
  const slope = new Float64Array(PROFILE_STEPS + 1)
  const middle = PROFILE_STEPS / 2
  for (const way of [1, -1])
    for (let i = middle; i + way >= 0 && i + way <= PROFILE_STEPS; i += way) {
      const turn = bendAt((i + way / 2) * step) * step
      const lean = (slope[i] as number) + (way * turn) / 2
      slope[i + way] = (slope[i] as number) + way * turn
      along[i + way] = (along[i] as number) + way * step * Math.cos(lean)
      rise[i + way] = (rise[i] as number) - way * step * Math.sin(lean)
    }
  return (s) => {
    const at = Math.max(0, Math.min(PROFILE_STEPS, s / step))
    const i = Math.min(PROFILE_STEPS - 1, Math.floor(at))
    const f = at - i
    const mix = (list: Float64Array) => (list[i] as number) * (1 - f) + (list[i + 1] as number) * f
    return { along: mix(along), rise: mix(rise), slope: mix(slope) }
  }
}
/** Normal of a surface that leans by a across and by b down. */
function normal(a: number, b: number): [number, number, number] {
  const [x, y, z] = [Math.tan(a), Math.tan(b), 1]
  const l = Math.hypot(x, y, z)
  return [x / l, y / l, z / l]
}

/** How deep a recess is at a place: its floor, walls of the taped slope, bends rounded by the taped radius. */
function depthAt(r: Recess, panel: Panel, p: Point): number {
  const [cx, cy] = [r.xMm ?? panel.widthMm / 2, r.yMm ?? panel.heightMm / 2]
  const wall = (Math.min(STEEPEST_DEG, r.wallDeg) * Math.PI) / 180
  const run = r.depthMm / Math.tan(wall)
  const round = Math.max(run, r.bendRadiusMm ?? 0, 1)
  const opens = (at: string) => r.open && r.openAt === at
  // Distance within the mouth's edge, the corners rounded; an open side has no wall.
  const inset = (d: number, half: number, low: string, high: string) => (d < 0 && opens(low)) || (d > 0 && opens(high)) ? half : half - Math.abs(d) // prettier-ignore
  const [dx, dy] = [
    inset(p.x - cx, r.mouthWidthMm / 2, 'left', 'right'),
    inset(p.y - cy, r.mouthHeightMm / 2, 'top', 'bottom'),
  ]
  const corner = Math.min(r.mouthWidthMm, r.mouthHeightMm) / 3
  const inside = dx < corner && dy < corner ? corner - Math.hypot(corner - dx, corner - dy) : Math.min(dx, dy)
  const t = Math.max(0, Math.min(1, inside / round))
  return r.depthMm * t * t * (3 - 2 * t)
}

/** The panel's outline in its taped sizes, or the plain rectangle where it was not taken. */
function outlineOn(panel: Panel): Point[] | null {
  const outline = outlineOf(panel)
  if (!(outline.widthMm > 0 && outline.heightMm > 0)) return null
  const [sx, sy] = [panel.widthMm / outline.widthMm, panel.heightMm / outline.heightMm]
  return outline.path.map((p) => ({ x: p.x * sx, y: p.y * sy }))
}
const rectangle = (x: number, y: number, w: number, h: number): Point[] => [
  { x: x - w / 2, y: y - h / 2 },
  { x: x + w / 2, y: y - h / 2 },
  { x: x + w / 2, y: y + h / 2 },
  { x: x - w / 2, y: y + h / 2 },
]

function within(ring: readonly Point[], x: number, y: number): boolean {
  let inside = false
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [a, b] = [ring[i] as Point, ring[j] as Point]
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}
function toRing(ring: readonly Point[], x: number, y: number): number {
  let least = Infinity
  for (let i = 0; i < ring.length; i++) {
    const [a, b] = [ring[i] as Point, ring[(i + 1) % ring.length] as Point]
    const [dx, dy] = [b.x - a.x, b.y - a.y]
    const t = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)))
    least = Math.min(least, Math.hypot(x - a.x - t * dx, y - a.y - t * dy))
  }
  return least
}

/** Points on the rim and the holes, then a triangular lattice inside, finer where the panel bends. */
function scatter(panel: Panel, rim: readonly Point[], holes: readonly Point[][], triangles: number): Point[] {
  const { widthMm: W, heightMm: H } = panel
  const area = (ring: readonly Point[]) => Math.abs(ring.reduce((s, p, i) => s + p.x * (ring[(i + 1) % ring.length] as Point).y - p.y * (ring[(i + 1) % ring.length] as Point).x, 0)) / 2 // prettier-ignore
  const whole = area(rim) - holes.reduce((s, h) => s + area(h), 0)
  // A triangle of the lattice has √3/4 of its side squared.
  const stepFor = (mm2: number, count: number) => Math.sqrt((mm2 / count) * (4 / Math.sqrt(3)))
  const even = stepFor(whole, triangles)
  const boxes = bends(panel)
  const bent = boxes.reduce((s, f) => s + (f.x1 - f.x0) * (f.y1 - f.y0), 0)
  // Bends get steps by their radius, and no more than their share of the triangles.
  const least = bent > 0 ? stepFor(Math.min(whole, bent), triangles * BENDS_SHARE) : even
  const fine = boxes.map((f) => ({ ...f, step: Math.min(even, Math.max(least, Math.min(even * FINER, f.step))) }))
  const used = fine.reduce((s, f) => s + ((f.x1 - f.x0) * (f.y1 - f.y0)) / ((f.step ** 2 * Math.sqrt(3)) / 4), 0)
  const side = Math.max(even, stepFor(Math.max(whole * 0.05, whole - bent), Math.max(triangles * 0.2, triangles - used))) // prettier-ignore
  const spacing = (x: number, y: number) => fine.reduce((s, f) => (x >= f.x0 && x <= f.x1 && y >= f.y0 && y <= f.y1 ? Math.min(s, f.step) : s), side) // prettier-ignore
  const out: Point[] = []
  for (const ring of [rim, ...holes])
    for (let i = 0; i < ring.length; i++) {
      const [a, b] = [ring[i] as Point, ring[(i + 1) % ring.length] as Point]
      out.push(...along(a, b, spacing))
    }
  // A hair's breadth of chance keeps four points off one circle, where the lattice could be split either way.
  const random = seeded(11)
  for (const step of new Set([side, ...fine.map((f) => f.step)]))
    for (let row = 0, y = step * 0.43; y < H; row++, y += (step * Math.sqrt(3)) / 2)
      for (let x = step * (row % 2 ? 0.75 : 0.25); x < W; x += step) {
        const p = { x: x + (random() - 0.5) * step * 0.02, y: y + (random() - 0.5) * step * 0.02 }
        if (Math.abs(spacing(p.x, p.y) - step) > 1e-9 || !within(rim, p.x, p.y) || holes.some((h) => within(h, p.x, p.y))) continue // prettier-ignore
        if (toRing(rim, p.x, p.y) < RIM_SHARE * step || holes.some((h) => toRing(h, p.x, p.y) < RIM_SHARE * step))
          continue
        out.push(p)
      }
  return out
}
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
  const squeeze = long / (marks[marks.length - 1] as number)
  return marks.slice(0, -1).map((mm) => at(mm * squeeze))
}

/** Boxes in which the panel bends sharply, and steps that follow the bend. */
function bends(panel: Panel): { x0: number; y0: number; x1: number; y1: number; step: number }[] {
  const { widthMm: W, heightMm: H, nose } = panel
  const out = panel.recesses.map((r) => {
    const [x, y, more] = [r.xMm ?? W / 2, r.yMm ?? H / 2, 10]
    return { x0: x - r.mouthWidthMm / 2 - more, x1: x + r.mouthWidthMm / 2 + more, y0: y - r.mouthHeightMm / 2 - more, y1: y + r.mouthHeightMm / 2 + more, step: Math.max(2, STEP_OF_RADIUS * Math.max(r.depthMm / Math.tan((Math.min(STEEPEST_DEG, r.wallDeg) * Math.PI) / 180), r.bendRadiusMm ?? 0, 8)) } // prettier-ignore
  })
  if (nose) {
    const long = nose.radiusMm * ((nose.angleDeg * Math.PI) / 180) * 1.1
    out.push({ x0: nose.at === 'right' ? W - long : 0, x1: nose.at === 'left' ? long : W, y0: nose.at === 'bottom' ? H - long : 0, y1: nose.at === 'top' ? long : H, step: Math.max(2, STEP_OF_RADIUS * nose.radiusMm) }) // prettier-ignore
  }
  return out
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
    const longest = Math.max(Math.hypot(q.x - p.x, q.y - p.y), Math.hypot(r.x - q.x, r.y - q.y), Math.hypot(p.x - r.x, p.y - r.y)) // prettier-ignore
    // Slivers along a straight rim are no part of it.
    if (Math.abs(double) < 1e-3 * longest * longest) continue
    // y runs down the panel and up in space: the other way round.
    out.push(...(double > 0 ? [a, c, b] : [a, b, c]))
  }
  return out
}
