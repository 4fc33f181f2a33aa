import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { ok, type Result } from '../../kit/result'
import type { TriMesh } from '../../solve/mesh'
import { flatPanel } from './flat-panel'
import { proposals, seamWithSlits, type Proposal } from './proposals'
import { shown, type SurfaceMap, type SurfaceOptions } from './surface-map'

/** A way out found on a mesh alone, solved: vertices along each cut, numbered from 0. Fractions, mm, mm². */
export interface MeshWayOut {
  kind: 'seam' | 'slits' | 'seam_and_slits'
  lines: number[][]
  stretch: number
  overLimitMm2: number
  /** Length of all cuts along the surface. */
  cutMm: number
  pieces: number
}
export interface MeshWaysOutOptions extends Pick<SurfaceOptions, 'limit' | 'shrink' | 'spent'> {
  found?: (done: number, of: number) => void
}

/** Steps of a line on the flat film at which the nearest vertex is taken. */
const STEPS = 160

/**
 * The surface with its own flat film as the plane in which lines are drawn: how `proposals` sees a mesh that was
 * never taped.
 */
export function onOwnFilm(
  mesh: TriMesh,
  options: Pick<SurfaceOptions, 'limit' | 'shrink' | 'spent'>,
): Result<SurfaceMap> {
  const flat = flatPanel(mesh, { ...options, quick: true })
  if (!flat.ok) return flat
  const film = new Float64Array((2 * mesh.positions.length) / 3)
  mesh.triangles.forEach((v, c) => {
    film[2 * v] = nth(flat.value.corners, 2 * c)
    film[2 * v + 1] = -nth(flat.value.corners, 2 * c + 1)
  })
  return ok(shown(mesh, film, flat.value))
}

/**
 * Seams and relief cuts found on a mesh alone, each solved: sorted by the worst stretch they leave. Lines run straight
 * on the flat film of the whole. Errors: those of `flatPanel`.
 */
export function waysOutOnMesh(
  mesh: TriMesh,
  options: MeshWaysOutOptions,
): Result<{ whole: SurfaceMap; ways: MeshWayOut[] }> {
  const { spent = () => false, found } = options
  const whole = onOwnFilm(mesh, options)
  if (!whole.ok) return whole
  const list = proposals(whole.value)
  const near = nearest(whole.value.taped)
  const step = Math.sqrt(whole.value.report.area_mm2 / whole.value.report.triangles) * 2
  const ways: { way: MeshWayOut; from: Proposal }[] = []
  const solve = (p: Proposal, kind: MeshWayOut['kind']) => {
    if (spent()) return
    const lines = p.lines.map((l) => verticesAlong(l, near, step)).filter((l) => l.length > 1)
    const made = lines.length > 0 ? flatPanel(mesh, { ...options, quick: true, lines }) : null
    found?.(ways.length + 1, list.length)
    if (!made?.ok || made.value.report.overlaps) return
    const { stretch, over_limit_mm2, pieces } = made.value.report
    ways.push({
      from: p,
      way: {
        kind,
        lines,
        stretch: stretch.max,
        overLimitMm2: over_limit_mm2,
        cutMm: lines.reduce((s, l) => s + lengthOf(mesh, l), 0),
        pieces,
      },
    })
  }
  for (const p of list) solve(p, p.kind)
  const best = (kind: MeshWayOut['kind'], n: number) =>
    ways
      .filter((w) => w.way.kind === kind)
      .sort((a, b) => a.way.stretch - b.way.stretch)
      .slice(0, n)
  for (const seam of best('seam', 1))
    for (const cut of best('slits', 2)) solve(seamWithSlits(seam.from, cut.from), 'seam_and_slits')
  return ok({ whole: whole.value, ways: ways.map((w) => w.way).sort((a, b) => a.stretch - b.stretch) })
}

/** Vertices of a mesh under straight lines in the plane of its places; `reach`: no further off than this. */
export function chainsOn(places: Float64Array, lines: readonly (readonly [Point, Point])[], reach: number): number[][] {
  const near = nearest(places)
  return lines.map(([a, b]) => verticesAlong([a, b], near, reach)).filter((l) => l.length > 1)
}
function nearest(places: Float64Array): (p: Point) => { vertex: number; mm: number } {
  return (p) => {
    let [vertex, best] = [0, Infinity]
    for (let v = 0; v < places.length / 2; v++) {
      const d = (nth(places, 2 * v) - p.x) ** 2 + (nth(places, 2 * v + 1) - p.y) ** 2
      if (d < best) [vertex, best] = [v, d]
    }
    return { vertex, mm: Math.sqrt(best) }
  }
}
/** Vertices under a straight line, as far as it runs over the surface. */
function verticesAlong([a, b]: [Point, Point], near: ReturnType<typeof nearest>, withinMm: number): number[] {
  const out: number[] = []
  for (let i = 0; i <= STEPS; i++) {
    const { vertex, mm } = near({ x: a.x + ((b.x - a.x) * i) / STEPS, y: a.y + ((b.y - a.y) * i) / STEPS })
    if (mm <= withinMm && out[out.length - 1] !== vertex) out.push(vertex)
  }
  return out
}
const lengthOf = (mesh: TriMesh, line: readonly number[]): number =>
  line.reduce((s, v, i) => {
    const w = line[i - 1]
    return w === undefined
      ? s
      : s + Math.hypot(...[0, 1, 2].map((d) => nth(mesh.positions, 3 * v + d) - nth(mesh.positions, 3 * w + d)))
  }, 0)
