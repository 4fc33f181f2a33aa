import type { StockItem } from '../../model/film/schema'
import { cutPieces, takenOff } from '../../model/log/cut-pieces'
import type { LogRow } from '../../model/log/schema'
import type { FilmLayout, LayOutContext } from './roll-plan'

/** What a layout that stands was laid out in, for a search of it: the rack, what is cut, what is set aside. */
export const layOutContext = (
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
  layout: Pick<FilmLayout, 'reserveFor'>,
): LayOutContext => ({
  stock: [...stock],
  cut: cutPieces(ledger),
  risk: new Map(layout.reserveFor.map((r) => [r.pieceId, r.risk])),
  taken: takenOff(ledger),
})
