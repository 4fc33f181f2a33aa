import type { StockItem } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { cutFromId } from './cut-from'
import { cutPieces } from '../../model/log/cut-pieces'
import type { FilmLayout } from './roll-plan'
import { restsOf } from './rests'

/** What stands on the label of a piece or a rest. Lengths mm, as it lies on the roll. */
export interface Label {
  kind: 'piece' | 'rest'
  /** Id of the piece, or the rest's key. */
  id: string
  name: string
  acrossMm: number
  alongMm: number
  /** The roll or rest it is or was cut from; null while that is not known. */
  from: { label: string; lot: string } | null
  /** Panels that a rest takes. */
  takes: string[]
}

/**
 * Every label of a layout: pieces roll by roll, then the rests worth keeping. What is cut carries the lot it was cut
 * from.
 */
export function labelsOf(layout: FilmLayout, stock: readonly StockItem[], ledger: readonly LogRow[]): Label[] {
  const byId = new Map(stock.map((s) => [s.id, s]))
  const cutFrom = new Map(cutPieces(ledger).map((c) => [c.id, byId.get(c.stockId)]))
  const rollFrom = new Map(layout.rolls.map((r) => [r.id, byId.get(cutFromId(layout, r, ledger) ?? '') ?? r.stock]))
  const name = new Map(layout.pieces.map((p) => [p.id, p.name]))
  const source = (item: StockItem | null | undefined) => (item ? { label: item.label, lot: item.lot } : null)
  const pieces = layout.rolls.flatMap((roll) =>
    roll.placements.map((p): Label => ({
      kind: 'piece',
      id: p.pieceId,
      name: name.get(p.pieceId) ?? p.pieceId,
      acrossMm: p.widthMm,
      alongMm: p.lengthMm,
      from: source(cutFrom.get(p.pieceId) ?? rollFrom.get(roll.id)),
      takes: [],
    })),
  )
  const rests = restsOf(layout).map((rest): Label => {
    const from = source(rollFrom.get(rest.rollId))
    return {
      kind: 'rest',
      id: rest.key,
      name: `Rest ${from ? `${from.label}-` : ''}${rest.key}`,
      acrossMm: rest.widthMm,
      alongMm: rest.lengthMm,
      from,
      takes: rest.takes,
    }
  })
  return [...pieces, ...rests]
}
