import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { figure, input, type Figure } from '../../model/figure/figure'
import type { BesidePanels } from '../../model/plan/schema'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import { sheetSizes, shingledAs } from '../sheets/shingled-as'
import { EXPOSED_SETBACK_MM, type Shingle } from '../sheets/shingles'
import type { Piece } from './piece'

/** The shingles of a panel as pieces, aft to fore, the lowest row first: each as it is cut from its sheet. */
export function shinglePieces(plan: BesidePanels, panel: Panel, film: FilmSheet): Piece[] | null {
  const as = shingledAs(plan, panel, film)
  if (!as) return null
  const [first] = as.laid
  const [last] = [...as.laid].reverse()
  if (!first || !last) return null
  const aftLeft = panel.side === 'right'
  return as.laid.map((s): Piece => {
    const id = `${panel.id}.s${s.number}`
    const [aft, fore] = [s.fromAftMm === first.fromAftMm, s.fromAftMm === last.fromAftMm]
    const [bottom, top] = [s.fromBottomMm === first.fromBottomMm, s.fromBottomMm === last.fromBottomMm]
    return {
      id,
      panelId: panel.id,
      part: s.number,
      parts: as.laid.length,
      name: `${panel.name}, sheet ${s.number}/${as.laid.length}`,
      along: 'width',
      reach: {
        left: aftLeft ? aft : fore,
        right: aftLeft ? fore : aft,
        top,
        bottom,
        columns: as.columns,
        rows: as.rows,
      },
      filmId: film.id,
      cutWidthMm: s.lengthMm,
      cutHeightMm: s.heightMm,
      acrossMm: s.heightMm,
      alongMm: s.lengthMm,
      top: 'across',
      turn: 'fixed',
      upsideDown: false,
      // It lies over the one aft of it, and over the row below.
      seamMm: (aft ? 0 : s.heightMm) + (bottom ? 0 : s.lengthMm),
      outline: null,
      figures: { width: lengthFigure(plan, panel, film, s, id), height: heightFigure(plan, panel, film, s, id) },
    }
  })
}

const sheetInput = (film: FilmSheet, field: 'widthsMm' | 'rollLengthsMm', value: number) =>
  input('sheet', value, 'mm', filmStanding(film, field), `film/${film.id}/${field}`)

/** A whole sheet long, or what is left of the panel between its setbacks. */
function lengthFigure(plan: BesidePanels, panel: Panel, film: FilmSheet, s: Shingle, id: string): Figure {
  const { length } = sheetSizes(plan, film)
  const { fore, aft } = plan.layout.sheets.exposed
  if (s.lengthMm >= length - 1e-6)
    return figure({
      id: `piece/${id}/width`,
      value: length,
      unit: 'mm',
      formula: '{sheet}',
      inputs: [sheetInput(film, 'rollLengthsMm', length)],
    })
  const setbacks = (Number(fore) + Number(aft)) * EXPOSED_SETBACK_MM
  const laid = panel.widthMm - setbacks - s.lengthMm
  return figure({
    id: `piece/${id}/width`,
    value: s.lengthMm,
    unit: 'mm',
    formula: '{width} − {setbacks} − {laid}',
    inputs: [
      input('width', panel.widthMm, 'mm', measureStanding(panel, 'widthMm'), `panels/${panel.id}/widthMm`),
      input('setbacks', setbacks, 'mm', 'common_practice', 'data/shingles'),
      input('laid', laid, 'mm', 'measured', 'layout/sheets'),
    ],
  })
}

/** As high as a strip of a sheet, or what is left of the panel between its setbacks. */
function heightFigure(plan: BesidePanels, panel: Panel, film: FilmSheet, s: Shingle, id: string): Figure {
  const { width } = sheetSizes(plan, film)
  const { rips, exposed } = plan.layout.sheets
  if (s.heightMm >= width / rips - 1e-6)
    return figure({
      id: `piece/${id}/height`,
      value: s.heightMm,
      unit: 'mm',
      formula: '{sheet} ÷ {strips}',
      inputs: [sheetInput(film, 'widthsMm', width), input('strips', rips, 'count', 'measured', 'layout/sheets')],
    })
  const setbacks = (Number(exposed.top) + Number(exposed.bottom)) * EXPOSED_SETBACK_MM
  const laid = panel.heightMm - setbacks - s.heightMm
  return figure({
    id: `piece/${id}/height`,
    value: s.heightMm,
    unit: 'mm',
    formula: '{height} − {setbacks} − {laid}',
    inputs: [
      input('height', panel.heightMm, 'mm', measureStanding(panel, 'heightMm'), `panels/${panel.id}/heightMm`),
      input('setbacks', setbacks, 'mm', 'common_practice', 'data/shingles'),
      input('laid', laid, 'mm', 'measured', 'layout/sheets'),
    ],
  })
}
