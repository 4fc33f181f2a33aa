import { withDrops } from '../../engines/pieces/drop-pieces'
import type { Piece } from '../../engines/pieces/pieces'
import { filmLayoutBy, type FilmLayout, type LayOutContext } from '../../engines/roll/film-layout'
import type { LayoutSolver } from '../../engines/roll/layout-task'
import { purchase, type Purchase } from '../../engines/roll/purchase'
import { riskOf } from '../../engines/roll/risk'
import type { Catalogue } from '../../model/catalogue/catalogue'
import type { Lack } from '../../model/catalogue/solutions'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { Figure } from '../../model/figure/figure'
import type { Finding } from '../../model/finding/finding'
import { cutPieces, takenOff } from '../../model/log/cut-pieces'
import type { LogRow } from '../../model/log/schema'
import type { ShopRecord } from '../../model/log/shop-record'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { filmFigures, restFigures, sourceFigures } from './figures'
import { layoutFindings, layoutNotes, residueFindings } from './findings'

interface RollInputs {
  plan: Plan
  films: ReadonlyMap<string, FilmSheet>
  panels: ReadonlyMap<string, Panel>
  pieces: readonly Piece[]
  /** Worst stretch by panel, as fractions. */
  stretch: ReadonlyMap<string, number>
  /** The stretch of every panel is solved: a layout that hangs on it can be searched. */
  settled: boolean
  stock: readonly StockItem[]
  record: ShopRecord
  ledger: readonly LogRow[]
  solutions: Catalogue['solutions']
  /** What lays film out where no layout is known. */
  layoutSolver: LayoutSolver
}

/** Each film's pieces laid out and what is to be bought for them. */
export function rollOf(c: RollInputs) {
  const { plan, films, panels, pieces, stretch, settled, stock, record, ledger, solutions, layoutSolver } = c
  const figures: Figure[] = []
  const findings: Finding[] = []
  const layouts: FilmLayout[] = []
  const purchases = new Map<string, Purchase>()
  const lacks: Lack[] = []
  let wanted = 0
  const [cut, taken] = [cutPieces(ledger), takenOff(ledger)]
  for (const film of films.values()) {
    const ofFilm = pieces.filter((p) => p.filmId === film.id)
    const { pieces: own, figures: dropFigures } = withDrops(plan, film, ofFilm)
    if (own.length === 0) continue
    const risk = new Map(own.map((p) => [p.id, riskOf(plan, film, stretch.get(p.panelId) ?? null, record)]))
    const context: LayOutContext = { stock, cut, risk, taken, known: solutions?.layout, faults: solutions?.fault }
    const layout = filmLayoutBy(layoutSolver)(plan, film, own, context)
    wanted++
    if (solutions && settled && !solutions.layout[layout.key] && !solutions.fault[layout.key])
      lacks.push({ kind: 'layout', key: layout.key, of: film.id })
    // What hangs on the stretch of panels settles with it.
    const settling = layout.settling || (solutions !== undefined && !settled)
    const bought = purchase(film, layout, stock, ledger)
    layouts.push(layout)
    purchases.set(film.id, bought)
    const ofLayout = [...filmFigures(layout, bought, panels), ...sourceFigures(layout), ...restFigures(layout)]
    figures.push(...dropFigures, ...ofLayout.map((f) => (settling ? { ...f, settling: true as const } : f)))
    findings.push(...layoutFindings(layout, bought, panels, taken), ...layoutNotes(plan, layout, panels))
    findings.push(...residueFindings(plan, layout, stock))
  }
  return { figures, findings, layouts, purchases, wanted, lacks }
}
