import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Method } from '../../model/method/schema'
import type { PieceChoice } from '../../model/plan/schema'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { measureStanding } from '../../engines/pieces/pieces'
import type { Panel } from '../../model/vehicle/schema'
import type { Feel } from '../../engines/stretch/feel'
import { FILM_FEEL } from '../../engines/stretch/feel-data'
import type { SurfaceMap } from '../../engines/stretch/surface-map'

/** Figures of a map and of what its film feels, with their working. */
export function surfaceFigures(
  panel: Panel,
  film: FilmSheet,
  map: SurfaceMap,
  feel: Feel,
  how: { pull: 'tightest' | 'even'; choice: PieceChoice; method: Method; scanned?: boolean },
): Figure[] {
  const id = (f: string) => `surface/${panel.id}/${f}`
  const size = (key: 'widthMm' | 'heightMm') =>
    input(
      key === 'widthMm' ? 'width' : 'height',
      panel[key],
      'mm',
      measureStanding(panel, key),
      `panels/${panel.id}/${key}`,
    )
  const crown = input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), `panels/${panel.id}/crownMm`)
  const taken = how.scanned
    ? []
    : [
        size('widthMm'),
        size('heightMm'),
        crown,
        ...panel.recesses.map((r) =>
          input(
            `recess_${r.id.replace(/\W/g, '_')}`,
            r.depthMm,
            'mm',
            measureStanding(panel, `recesses.${r.id}`),
            `panels/${panel.id}/recesses/${r.id}/depthMm`,
          ),
        ),
      ]
  const count = input('triangles', map.report.triangles, 'count', 'measured', 'data/mesh')
  const standing = 'common_practice' as const
  const most = {
    value: film.stretchLimit,
    unit: 'fraction' as const,
    kind: 'max' as const,
    standing: filmStanding(film, 'stretchLimit'),
    at: `film/${film.id}/stretchLimit`,
  }
  const laid = figure(
    id('map'),
    map.report.stretch.max,
    'fraction',
    how.pull === 'tightest'
      ? 'least worst stretch of film laid on {triangles} triangles, none of it squeezed beyond what heat shrinks'
      : 'worst stretch of the most even pull over {triangles} triangles',
    [count, ...taken],
    { standing, source: 'docs/sources.md#milnor-1969' },
  )
  const residue =
    how.method.tension === 'relax_first' && film.rollResidue > 0
      ? [
          input(
            'residue',
            film.rollResidue,
            'fraction',
            filmStanding(film, 'rollResidue'),
            `film/${film.id}/rollResidue`,
          ),
        ]
      : []
  const pre = how.choice.preStretch
  const sheet = (name: string, field: 'recovers' | 'heatShrink') =>
    input(name, film[field], 'fraction', filmStanding(film, field), `film/${film.id}/${field}`)
  const beforehand =
    pre > 0
      ? [
          input('pre', pre, 'fraction', 'measured', `pieces/${panel.id}/preStretch`),
          sheet('recovers', 'recovers'),
          sheet('shrink', 'heatShrink'),
        ]
      : []
  const worst = figure(
    id('worst'),
    feel.worst,
    'fraction',
    `${pre > 0 ? '(1 + ' : ''}{map}${residue.length > 0 ? ', {residue} taken out along the roll' : ''}${pre > 0 ? ') × (1 + {pre} × (1 − {recovers})) × (1 − min({shrink}, {pre})) − 1' : ''}, triangle by triangle, the greatest`,
    [from('map', laid), ...residue, ...beforehand],
    { limit: most, standing },
  )
  const over = input(
    'post_heat_over',
    film.postHeatOver,
    'fraction',
    filmStanding(film, 'postHeatOver'),
    `film/${film.id}/postHeatOver`,
  )
  const left = FILM_FEEL[film.kind].memoryLeft
  return [
    laid,
    worst,
    figure(
      id('mean'),
      feel.mean,
      'fraction',
      'mean of the same over the area',
      [from('worst', worst), count, ...taken],
      { standing },
    ),
    figure(id('area'), map.report.area_mm2, 'mm2', 'Σ areas of {triangles} triangles', [count, ...taken], { standing }),
    figure(
      id('post_heat'),
      (feel.areaMm2[2] ?? 0) + (feel.areaMm2[3] ?? 0),
      'mm2',
      'area stretched past {post_heat_over}',
      [over, from('worst', worst)],
      { standing },
    ),
    figure(
      id('residual'),
      feel.worst * left,
      'fraction',
      '{worst} × {memory_left}: what still pulls after post-heat',
      [from('worst', worst), input('memory_left', left, 'fraction', 'assumed', 'data/feel')],
      { standing: 'assumed' },
    ),
  ]
}
