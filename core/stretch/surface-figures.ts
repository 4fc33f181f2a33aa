import { filmStanding } from '../film/film-data'
import type { FilmSheet } from '../film/schema'
import { figure, input, type Figure } from '../reckon/figure'
import { measureStanding } from '../roll/pieces'
import type { Panel } from '../vehicle/schema'
import type { SurfaceMap } from './surface-map'

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
