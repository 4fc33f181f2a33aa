import { filmStanding } from '../film/film-data'
import type { FilmSheet } from '../film/schema'
import { err, ok, type Result } from '../kit/result'
import { figure, input, type Figure } from '../reckon/figure'
import { measureStanding } from '../roll/pieces'
import type { Panel } from '../vehicle/schema'
import { strainOf } from '../solve/mesh'
import { flatPanel, type StretchReport } from './flat-panel'
import { panelMesh } from './panel-mesh'

/** A panel and its flat film, triangle by triangle: what the pieces page shows. */
export interface SurfaceMap {
  /** Places of each vertex as the panel is looked at, xy in mm, y down (length 2n). */
  seen: Float64Array
  /** Where each vertex lies on the taped panel, mm from its top left (length 2n). */
  taped: Float64Array
  triangles: Uint32Array
  /** Film place of each vertex, mm, y down (length 2n). */
  film: Float64Array
  /** λ1 − 1 of each triangle, and its direction in film as it lies here (radians, y down). */
  stretch: Float64Array
  direction: Float64Array
  area: Float64Array
  report: StretchReport
}

/** The stretch map of a taped panel, solved. Errors: those of `panelMesh` and `flatPanel`. */
export function surfaceMap(
  panel: Panel,
  options: {
    triangles: number
    limit: number
    shrink: number
    spent?: () => boolean
    progress?: (share: number) => void
  },
): Result<SurfaceMap> {
  const made = panelMesh(panel, options.triangles)
  if (!made.ok) return made
  const { mesh, taped } = made.value
  const flat = flatPanel(mesh, { limit: options.limit, shrink: options.shrink, ...(options.spent ? { spent: options.spent } : {}), ...(options.progress ? { progress: options.progress } : {}) }) // prettier-ignore
  if (!flat.ok) return flat
  const { corners, report } = flat.value
  const n = mesh.positions.length / 3
  const film = new Float64Array(2 * n)
  mesh.triangles.forEach((v, c) => {
    film[2 * v] = corners[2 * c] as number
    film[2 * v + 1] = -(corners[2 * c + 1] as number)
  })
  const turn = upright(film, taped)
  const seen = new Float64Array(2 * n)
  for (let v = 0; v < n; v++) {
    seen[2 * v] = mesh.positions[3 * v] as number
    seen[2 * v + 1] = -(mesh.positions[3 * v + 1] as number)
  }
  const strain = strainOf(mesh, corners)
  if (report.pieces !== 1) return err({ code: 'not_one_piece', facts: { pieces: report.pieces } })
  return ok({
    seen,
    taped,
    triangles: mesh.triangles,
    film,
    stretch: strain.stretch,
    direction: strain.direction.map((a) => turn - a),
    area: strain.area,
    report,
  })
}

/** Film turned in its plane so that it lies as its panel does: the best turn of all its places at once; answers the angle. */
function upright(film: Float64Array, taped: Float64Array): number {
  const n = film.length / 2
  const mean = (list: Float64Array, d: number) => list.reduce((s, x, i) => (i % 2 === d ? s + x : s), 0) / n
  const [fx, fy, tx, ty] = [mean(film, 0), mean(film, 1), mean(taped, 0), mean(taped, 1)]
  let [dot, cross] = [0, 0]
  for (let v = 0; v < n; v++) {
    const [a, b] = [(film[2 * v] as number) - fx, (film[2 * v + 1] as number) - fy]
    const [c, d] = [(taped[2 * v] as number) - tx, (taped[2 * v + 1] as number) - ty]
    dot += a * c + b * d
    cross += a * d - b * c
  }
  const l = Math.hypot(dot, cross) || 1
  const [cos, sin] = [dot / l, cross / l]
  for (let v = 0; v < n; v++) {
    const [a, b] = [(film[2 * v] as number) - fx, (film[2 * v + 1] as number) - fy]
    film[2 * v] = a * cos - b * sin + tx
    film[2 * v + 1] = a * sin + b * cos + ty
  }
  return Math.atan2(sin, cos)
}

export const SURFACE_BANDS = ['slight', 'fine', 'post_heat', 'past_limit'] as const
/** Ordered bands: up to half of what must be post-heated, up to it, up to the film's limit, past it. */
export const bandOf = (stretch: number, postHeatOver: number, limit: number): number =>
  stretch > limit ? 3 : stretch > postHeatOver ? 2 : stretch > postHeatOver / 2 ? 1 : 0

export interface Spot {
  /** Row and column of thirds as the panel is looked at. */
  row: 'top' | 'middle' | 'bottom'
  column: 'left' | 'middle' | 'right'
  stretch: number
  areaMm2: number
  xMm: number
  yMm: number
}
/** Places past the limit: triangles that hang together, the worst first. */
export function spotsOver(map: SurfaceMap, limit: number): Spot[] {
  const { triangles, stretch, area, taped } = map
  const over = new Set<number>()
  stretch.forEach((s, t) => s > limit && over.add(t))
  const byVertex = new Map<number, number[]>()
  for (const t of over) for (let k = 0; k < 3; k++) byVertex.set(triangles[3 * t + k] as number, [...(byVertex.get(triangles[3 * t + k] as number) ?? []), t]) // prettier-ignore
  const [w, h] = [0, 1].map((d) => taped.reduce((m, x, i) => (i % 2 === d ? Math.max(m, x) : m), 0)) as [number, number]
  const spots: Spot[] = []
  while (over.size > 0) {
    const first = over.values().next().value as number
    over.delete(first)
    const own = [first]
    for (let i = 0; i < own.length; i++)
      for (let k = 0; k < 3; k++)
        for (const t of byVertex.get(triangles[3 * (own[i] as number) + k] as number) ?? [])
          if (over.delete(t)) own.push(t)
    const worst = own.reduce((a, t) => ((stretch[t] as number) > (stretch[a] as number) ? t : a))
    const at = (d: number) =>
      [0, 1, 2].reduce((s, k) => s + (taped[2 * (triangles[3 * worst + k] as number) + d] as number) / 3, 0)
    const [x, y] = [at(0), at(1)]
    spots.push({
      row: y < h / 3 ? 'top' : y > (2 * h) / 3 ? 'bottom' : 'middle', column: x < w / 3 ? 'left' : x > (2 * w) / 3 ? 'right' : 'middle',
      stretch: stretch[worst] as number, areaMm2: own.reduce((s, t) => s + (area[t] as number), 0), xMm: x, yMm: y,
    }) // prettier-ignore
  }
  return spots.sort((a, b) => b.stretch - a.stretch)
}

/** Figures of the map with their working. */
export function surfaceFigures(panel: Panel, film: FilmSheet, map: SurfaceMap, limit: number): Figure[] {
  const id = (f: string) => `surface/${panel.id}/${f}`
  const size = (key: 'widthMm' | 'heightMm') => input(key === 'widthMm' ? 'width' : 'height', panel[key], 'mm', measureStanding(panel, key), `panels/${panel.id}/${key}`) // prettier-ignore
  const crown = input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), `panels/${panel.id}/crownMm`)
  const taken = [size('widthMm'), size('heightMm'), crown, ...panel.recesses.map((r) => input(`recess_${r.id.replace(/\W/g, '_')}`, r.depthMm, 'mm', measureStanding(panel, `recesses.${r.id}`), `panels/${panel.id}/recesses/${r.id}/depthMm`))] // prettier-ignore
  const count = input('triangles', map.report.triangles, 'count', 'measured', 'data/mesh')
  const most = { value: limit, unit: 'fraction' as const, kind: 'max' as const, standing: filmStanding(film, 'stretchLimit'), at: `film/${film.id}/stretchLimit` } // prettier-ignore
  const over = map.stretch.reduce((s, x, t) => (x > film.postHeatOver ? s + (map.area[t] as number) : s), 0)
  const standing = 'common_practice' as const
  return [
    figure(id('worst'), map.report.stretch.max, 'fraction', 'least worst stretch of film laid on {triangles} triangles with the taped lengths, none of it squeezed', [count, ...taken], { limit: most, standing, source: 'docs/sources.md#milnor-1969' }), // prettier-ignore
    figure(id('mean'), map.report.stretch.mean, 'fraction', 'mean over the area of the same map', [count, ...taken], {
      standing,
    }),
    figure(id('area'), map.report.area_mm2, 'mm2', 'Σ areas of {triangles} triangles', [count, ...taken], { standing }),
    figure(id('post_heat'), over, 'mm2', 'area stretched past {post_heat_over}', [input('post_heat_over', film.postHeatOver, 'fraction', filmStanding(film, 'postHeatOver'), `film/${film.id}/postHeatOver`), count], { standing }), // prettier-ignore
  ]
}
