import { withDrops } from '../../engines/pieces/drop-pieces'
import type { Piece } from '../../engines/pieces/pieces'
import { layOutFilm, type FilmLayout } from '../../engines/roll/film-layout'
import { purchase, type Purchase } from '../../engines/roll/purchase'
import { riskOf } from '../../engines/roll/risk'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { Figure } from '../../model/figure/figure'
import type { Finding } from '../../model/finding/finding'
import { cutPieces, takenOff } from '../../model/log/cut-pieces'
import type { LogRow } from '../../model/log/schema'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { filmFigures, restFigures, sourceFigures } from './figures'
import { layoutFindings, layoutNotes } from './findings'

interface RollInputs {
  plan: Plan
  films: ReadonlyMap<string, FilmSheet>
  panels: ReadonlyMap<string, Panel>
  pieces: readonly Piece[]
  /** Worst stretch by panel, as fractions. */
  stretch: ReadonlyMap<string, number>
  stock: readonly StockItem[]
  ledger: readonly LogRow[]
}

/** Each film's pieces laid out and what is to be bought for them. */
export function rollOf({ plan, films, panels, pieces, stretch, stock, ledger }: RollInputs) {
  const figures: Figure[] = []
  const findings: Finding[] = []
  const layouts: FilmLayout[] = []
  const purchases = new Map<string, Purchase>()
  const [cut, taken] = [cutPieces(ledger), takenOff(ledger)]
  for (const film of films.values()) {
    const ofFilm = pieces.filter((p) => p.filmId === film.id)
    const { pieces: own, figures: dropFigures } = withDrops(plan, film, ofFilm)
    if (own.length === 0) continue
    const risk = new Map(own.map((p) => [p.id, riskOf(plan, film, stretch.get(p.panelId) ?? null)]))
    const layout = layOutFilm(plan, film, own, { stock, cut, risk, taken })
    const bought = purchase(film, layout, stock, ledger)
    layouts.push(layout)
    purchases.set(film.id, bought)
    figures.push(...dropFigures, ...filmFigures(layout, bought, panels), ...sourceFigures(layout))
    figures.push(...restFigures(layout))
    findings.push(...layoutFindings(layout, bought, panels, taken), ...layoutNotes(plan, layout, panels))
  }
  return { figures, findings, layouts, purchases }
}
