import { nth, mustGet } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { err, ok, type Result } from '../../kit/result'
import { strainOf, topologyOf, type TriMesh } from '../../solve/mesh'
import type { Panel } from '../../model/vehicle/schema'
import { flatPanel, type FlatPanel, type StretchReport } from './flat-panel'
import { panelMesh } from './panel-mesh'

/**
 * A panel and its flat film, triangle by triangle: what the pieces page shows. Vertices along seams and relief cuts
 * stand once for each side.
 */
export interface SurfaceMap {
  /** Places in space, mm: x to the right, y up, z towards the eye (length 3n). */
  positions: Float64Array
  /** Places of each vertex as the panel is looked at, xy in mm, y down (length 2n). */
  seen: Float64Array
  /** Where each vertex lies on the taped panel, mm from its top left (length 2n). */
  taped: Float64Array
  triangles: Uint32Array
  /** Film place of each vertex, mm, y down (length 2n); each piece lies as its panel does. */
  film: Float64Array
  /** Piece of each triangle, from 0. */
  piece: Uint8Array
  /** λ1 − 1 and 1 − λ2 of each triangle, and the direction of λ1 in film as it lies here (radians, y down). */
  stretch: Float64Array
  squeeze: Float64Array
  direction: Float64Array
  area: Float64Array
  report: StretchReport
}
export interface SurfaceOptions {
  triangles: number
  limit: number
  shrink: number
  pull?: 'tightest' | 'even'
  quick?: boolean
  /** How much film beside what is stuck already may be squeezed. */
  restShrink?: number
  /** Seams and relief cuts, straight on the taped panel, mm from its top left. */
  lines?: readonly (readonly [Point, Point])[]
  /** What is stuck before the rest is laid: places on the taped panel. */
  laid?: (p: Point) => boolean
  /** Film turned over the edge all round by so much, mm. */
  flangeMm?: number
  spent?: () => boolean
  progress?: (share: number) => void
}

/** Pieces are drawn this far apart, as a share of their distance from the panel's middle. */
const APART = 0.06

/** The stretch map of a taped panel, solved. Errors: those of `panelMesh` and `flatPanel`. */
export function surfaceMap(panel: Panel, options: SurfaceOptions): Result<SurfaceMap> {
  const { lines, flangeMm } = options
  const made = panelMesh(panel, options.triangles, { ...(lines ? { lines } : {}), ...(flangeMm ? { flangeMm } : {}) })
  if (!made.ok) return made
  const { mesh, taped, chains } = made.value
  if (!lines) {
    const there = topologyOf(mesh)
    if (there.ok && there.value.parts.length !== 1)
      return err({ code: 'not_one_piece', facts: { pieces: there.value.parts.length } })
  }
  return mapOf(mesh, taped, { ...options, chains })
}

/** The stretch map of any surface with a place on the panel for each vertex. Errors: those of `flatPanel`. */
export function mapOf(
  mesh: TriMesh,
  taped: Float64Array,
  options: SurfaceOptions & { chains?: readonly (readonly number[])[] },
): Result<SurfaceMap> {
  const { limit, shrink, restShrink, pull, quick, spent, progress, laid, chains } = options
  const stuck = laid ? wholly(mesh, (v) => laid({ x: nth(taped, 2 * v), y: nth(taped, 2 * v + 1) })) : []
  const flat = flatPanel(mesh, {
    limit,
    shrink,
    ...(restShrink === undefined ? {} : { restShrink }),
    ...(pull ? { pull } : {}),
    ...(quick ? { quick } : {}),
    ...(spent ? { spent } : {}),
    ...(progress ? { progress } : {}),
    ...(chains && chains.length > 0 ? { lines: chains } : {}),
    ...(stuck.length > 0 ? { laid: stuck } : {}),
  })
  return flat.ok ? ok(shown(mesh, taped, flat.value)) : flat
}
/** Triangles whose corners all meet a condition. */
function wholly(mesh: TriMesh, of: (vertex: number) => boolean): number[] {
  const out: number[] = []
  for (let t = 0; t < mesh.triangles.length / 3; t++)
    if ([0, 1, 2].every((k) => of(nth(mesh.triangles, 3 * t + k)))) out.push(t)
  return out
}

/** A solved flat film as a map, with a place on the panel for each vertex of the mesh. */
export function shown(mesh: TriMesh, places: Float64Array, flat: FlatPanel): SurfaceMap {
  const { corners, filmVertex, filmVertices: n, report } = flat
  const film = new Float64Array(2 * n)
  const taped = new Float64Array(2 * n)
  const positions = new Float64Array(3 * n)
  const seen = new Float64Array(2 * n)
  filmVertex.forEach((v, c) => {
    const source = nth(mesh.triangles, c)
    film[2 * v] = nth(corners, 2 * c)
    film[2 * v + 1] = -nth(corners, 2 * c + 1)
    taped.set(places.subarray(2 * source, 2 * source + 2), 2 * v)
    positions.set(mesh.positions.subarray(3 * source, 3 * source + 3), 3 * v)
    seen[2 * v] = nth(mesh.positions, 3 * source)
    seen[2 * v + 1] = -nth(mesh.positions, 3 * source + 1)
  })
  const piece = piecesOf(filmVertex, n)
  const turns = lieAsPanel(film, taped, filmVertex, piece)
  const strain = strainOf(mesh, corners)
  return {
    positions,
    seen,
    taped,
    triangles: filmVertex,
    film,
    piece,
    stretch: strain.stretch,
    squeeze: strain.squeeze,
    area: strain.area,
    report,
    direction: strain.direction.map((a, t) => nth(turns, piece[t] as number) - a),
  }
}

/** Which triangles hang together, by shared vertices. */
function piecesOf(triangles: Uint32Array, vertices: number): Uint8Array {
  const root = Int32Array.from({ length: vertices }, (_, i) => i)
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = nth(root, root[i] as number)
    return i
  }
  for (let c = 0; c < triangles.length; c++) root[find(nth(triangles, c))] = find(nth(triangles, c - (c % 3)))
  const ids = new Map<number, number>()
  return Uint8Array.from({ length: triangles.length / 3 }, (_, t) => {
    const r = find(nth(triangles, 3 * t))
    if (!ids.has(r)) ids.set(r, ids.size)
    return mustGet(ids, r)
  })
}

/**
 * Turns each piece of film in its plane so that it lies as its panel does, pieces a little apart; answers the angle
 * of each.
 */
function lieAsPanel(film: Float64Array, taped: Float64Array, triangles: Uint32Array, piece: Uint8Array): number[] {
  const count = piece.reduce((m, p) => Math.max(m, p), 0) + 1
  const middle = [0, 1].map((d) => taped.reduce((s, x, i) => (i % 2 === d ? s + x : s), 0) / (taped.length / 2)) as [
    number,
    number,
  ]
  return Array.from({ length: count }, (_, p) => {
    const own = [...new Set(Array.from(triangles).filter((_, c) => piece[Math.floor(c / 3)] === p))]
    const mean = (list: Float64Array, d: number) => own.reduce((s, v) => s + nth(list, 2 * v + d), 0) / own.length
    const [fx, fy, tx, ty] = [mean(film, 0), mean(film, 1), mean(taped, 0), mean(taped, 1)]
    let [dot, cross] = [0, 0]
    for (const v of own) {
      const [a, b] = [nth(film, 2 * v) - fx, nth(film, 2 * v + 1) - fy]
      const [c, d] = [nth(taped, 2 * v) - tx, nth(taped, 2 * v + 1) - ty]
      dot += a * c + b * d
      cross += a * d - b * c
    }
    const l = Math.hypot(dot, cross) || 1
    const [cos, sin] = [dot / l, cross / l]
    const [ax, ay] = count > 1 ? [(tx - middle[0]) * APART, (ty - middle[1]) * APART] : [0, 0]
    for (const v of own) {
      const [a, b] = [nth(film, 2 * v) - fx, nth(film, 2 * v + 1) - fy]
      film[2 * v] = a * cos - b * sin + tx + ax
      film[2 * v + 1] = a * sin + b * cos + ty + ay
    }
    return Math.atan2(sin, cos)
  })
}
