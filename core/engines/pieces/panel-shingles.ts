import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Result } from '../../kit/result'
import type { Plan } from '../../model/plan/schema'
import { figure, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import type { Panel } from '../../model/vehicle/schema'
import { sheetSizes } from '../sheets/shingled-as'
import { EXPOSED_SETBACK_MM, shingles, type Shingle, type ShingleFault } from '../sheets/shingles'

export interface PanelShingles {
  panel: Panel
  /** Which end of the panel, as it is looked at, is aft. */
  aftAt: 'left' | 'right'
  plan: Result<{ laid: Shingle[]; sheets: number }, ShingleFault>
}

/** Each panel of a job that is laid in this sheet film, as shingles from aft to fore, the lowest row first. */
export function shinglesOf(plan: Plan, film: FilmSheet): PanelShingles[] {
  const { rips, exposed } = plan.layout.sheets
  const size = sheetSizes(plan, film)
  return plan.panels
    .filter((p) => p.wrap && (p.filmId ?? plan.film.mainId) === film.id)
    .map((panel) => ({
      panel,
      // Looked at from outside, the front of a left side is on the left.
      aftAt: panel.side === 'right' ? ('left' as const) : ('right' as const),
      plan: shingles({
        lengthMm: panel.widthMm,
        heightMm: panel.heightMm,
        sheetMm: { width: size.width, length: size.length },
        rips,
        overlapMm: size.overlap,
        exposed,
      }),
    }))
}

/** Sheets and strips of one panel with their working. */
export function shingleFigures(plan: Plan, film: FilmSheet, at: PanelShingles): Figure[] {
  if (!at.plan.ok) return []
  const id = (f: 'strip' | 'sheets') => `shingles/${film.id}/${at.panel.id}/${f}` as const
  const size = sheetSizes(plan, film)
  const { rips } = plan.layout.sheets
  const strips = input('strips', rips, 'count', 'measured', 'layout/sheets')
  const width = input('sheet_width', size.width, 'mm', filmStanding(film, 'widthsMm'), `film/${film.id}/widthsMm`)
  return [
    figure({
      id: id('strip'),
      value: size.width / rips,
      unit: 'mm',
      formula: '{sheet_width} ÷ {strips}',
      inputs: [width, strips],
    }),
    figure({
      id: id('sheets'),
      value: at.plan.value.sheets,
      unit: 'count',
      formula: `${call('shingle_sheets', 'length', 'height', 'overlap', 'setback')} ÷ {strips}`,
      inputs: [
        input('length', at.panel.widthMm, 'mm', 'measured', `panels/${at.panel.id}/widthMm`),
        input('height', at.panel.heightMm, 'mm', 'measured', `panels/${at.panel.id}/heightMm`),
        input(
          'overlap',
          size.overlap,
          'mm',
          plan.layout.sheets.overlapMm === null ? filmStanding(film, 'overlapMm') : 'measured',
          `film/${film.id}/overlapMm`,
        ),
        input('setback', EXPOSED_SETBACK_MM, 'mm', 'common_practice', 'data/shingles'),
        width,
        strips,
      ],
    }),
  ]
}
