import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Method } from '../../model/method/schema'
import type { PieceChoice } from '../../model/plan/schema'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import type { SurfacePart } from '../../model/figure/figure-id'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
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
  const id = (f: SurfacePart) => `surface/${panel.id}/${f}` as const
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
    how.pull === 'tightest' ? call('laid_tightest', 'triangles') : call('laid_even', 'triangles'),
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
    worstFormula(residue.length > 0, pre > 0),
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
      call('mean_over_area', 'worst'),
      [from('worst', worst), count, ...taken],
      { standing },
    ),
    figure(id('area'), map.report.area_mm2, 'mm2', call('sum_of_areas', 'triangles'), [count, ...taken], { standing }),
    figure(
      id('post_heat'),
      (feel.areaMm2[2] ?? 0) + (feel.areaMm2[3] ?? 0),
      'mm2',
      call('area_past', 'post_heat_over'),
      [over, from('worst', worst)],
      { standing },
    ),
    figure(
      id('residual'),
      feel.worst * left,
      'fraction',
      '{worst} × {memory_left}',
      [from('worst', worst), input('memory_left', left, 'fraction', 'assumed', 'data/feel')],
      { standing: 'assumed' },
    ),
  ]
}

/** Triangle by triangle what the film as made takes, the greatest of them. */
function worstFormula(relaxed: boolean, preStretched: boolean): string {
  const map = relaxed ? call('relaxed', 'map', 'residue') : '{map}'
  const whole = preStretched ? `(1 + ${map}) × (1 + {pre} × (1 − {recovers})) × (1 − min({shrink}, {pre})) − 1` : map
  return `${call('max_over_triangles')} ${whole}`
}
