import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Method } from '../../model/method/schema'
import type { PieceChoice } from '../../model/plan/schema'
import { figure, from, input, type Figure, type FigureInput } from '../../model/figure/figure'
import type { SurfacePart } from '../../model/figure/figure-id'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import type { Feel } from '../../engines/stretch/feel'
import { FILM_FEEL } from '../../engines/stretch/feel-data'
import type { SurfaceMap } from '../../engines/stretch/surface-map'

interface How {
  pull: 'tightest' | 'even'
  choice: PieceChoice
  method: Method
  scanned?: boolean
}

/** What was taped of a panel and shapes its surface; a scan stands for all of it. */
function tapedInputs(panel: Panel, scanned: boolean): FigureInput[] {
  if (scanned) return []
  const taped = (key: string, field: 'widthMm' | 'heightMm' | 'crownMm') =>
    input(key, panel[field], 'mm', measureStanding(panel, field), `panels/${panel.id}/${field}`)
  const recesses = panel.recesses.map((r) =>
    input(
      `recess_${r.id.replace(/\W/g, '_')}`,
      r.depthMm,
      'mm',
      measureStanding(panel, `recesses.${r.id}`),
      `panels/${panel.id}/recesses/${r.id}/depthMm`,
    ),
  )
  return [taped('width', 'widthMm'), taped('height', 'heightMm'), taped('crown', 'crownMm'), ...recesses]
}

type SheetField = 'rollResidue' | 'recovers' | 'heatShrink' | 'postHeatOver'
const ofSheet = (film: FilmSheet, name: string, field: SheetField): FigureInput =>
  input(name, film[field], 'fraction', filmStanding(film, field), `film/${film.id}/${field}`)

/** The greatest stretch of film as it was made: the map's, less what was relaxed, with what was stretched before. */
function worstFigure(panel: Panel, film: FilmSheet, laid: Figure, feel: Feel, { choice, method }: How): Figure {
  const pre = choice.preStretch
  const relaxed = method.tension === 'relax_first' && film.rollResidue > 0
  const inputs = [
    from('map', laid),
    ...(relaxed ? [ofSheet(film, 'residue', 'rollResidue')] : []),
    ...(pre > 0
      ? [
          input('pre', pre, 'fraction', 'measured', `pieces/${panel.id}/preStretch`),
          ofSheet(film, 'recovers', 'recovers'),
          ofSheet(film, 'shrink', 'heatShrink'),
        ]
      : []),
  ]
  const limit = {
    value: film.stretchLimit,
    unit: 'fraction' as const,
    kind: 'max' as const,
    standing: filmStanding(film, 'stretchLimit'),
    at: `film/${film.id}/stretchLimit`,
  }
  const formula = worstFormula(relaxed, pre > 0)
  return figure({
    id: `surface/${panel.id}/worst`,
    value: feel.worst,
    unit: 'fraction',
    formula,
    inputs,
    limit,
    standing: STANDING,
  })
}
const STANDING = 'common_practice' as const

/** Figures of a map and of what its film feels, with their working. */
export function surfaceFigures(panel: Panel, film: FilmSheet, map: SurfaceMap, feel: Feel, how: How): Figure[] {
  const id = (f: SurfacePart) => `surface/${panel.id}/${f}` as const
  const mesh = [
    input('triangles', map.report.triangles, 'count', 'measured', 'data/mesh'),
    ...tapedInputs(panel, how.scanned ?? false),
  ]
  const laid = figure({
    id: id('map'),
    value: map.report.stretch.max,
    unit: 'fraction',
    formula: how.pull === 'tightest' ? call('laid_tightest', 'triangles') : call('laid_even', 'triangles'),
    inputs: mesh,
    standing: STANDING,
    source: 'docs/sources.md#milnor-1969',
  })
  const worst = worstFigure(panel, film, laid, feel, how)
  const ofWorst = from('worst', worst)
  const pastHeat = (feel.areaMm2[2] ?? 0) + (feel.areaMm2[3] ?? 0)
  const over = ofSheet(film, 'post_heat_over', 'postHeatOver')
  const left = FILM_FEEL[film.kind].memoryLeft
  const standing = { standing: STANDING }
  return [
    laid,
    worst,
    figure({
      id: id('mean'),
      value: feel.mean,
      unit: 'fraction',
      formula: call('mean_over_area', 'worst'),
      inputs: [ofWorst, ...mesh],
      ...standing,
    }),
    figure({
      id: id('area'),
      value: map.report.area_mm2,
      unit: 'mm2',
      formula: call('sum_of_areas', 'triangles'),
      inputs: mesh,
      ...standing,
    }),
    figure({
      id: id('post_heat'),
      value: pastHeat,
      unit: 'mm2',
      formula: call('area_past', 'post_heat_over'),
      inputs: [over, ofWorst],
      ...standing,
    }),
    figure({
      id: id('residual'),
      value: feel.worst * left,
      unit: 'fraction',
      formula: '{worst} × {memory_left}',
      inputs: [ofWorst, input('memory_left', left, 'fraction', 'assumed', 'data/feel')],
      standing: 'assumed',
    }),
  ]
}

/** Triangle by triangle what the film as made takes, the greatest of them. */
function worstFormula(relaxed: boolean, preStretched: boolean): string {
  const map = relaxed ? call('relaxed', 'map', 'residue') : '{map}'
  const whole = preStretched ? `(1 + ${map}) × (1 + {pre} × (1 − {recovers})) × (1 − min({shrink}, {pre})) − 1` : map
  return `${call('max_over_triangles')} ${whole}`
}
