import type { LogRow } from './schema'
import type { StockItem } from '../film/schema'

/** The ledger without the cuts that were taken back, and without what took them back. */
export function withoutUndoneCuts(ledger: readonly LogRow[]): LogRow[] {
  const out: LogRow[] = []
  for (const row of ledger) {
    const { payload } = row
    if (payload.kind !== 'cut_taken_back') {
      out.push(row)
      continue
    }
    const at = out.findLastIndex(
      (r) => (r.payload.kind === 'film_used' || r.payload.kind === 'cut_made') && r.payload.cutKey === payload.cutKey,
    )
    if (at >= 0) out.splice(at, 1)
  }
  return out
}

/** Pieces that the ledger says are cut; the last cut of a piece counts. */
export function cutPieces(ledger: readonly LogRow[]): CutPiece[] {
  const byId = new Map<string, CutPiece>()
  for (const { payload } of withoutUndoneCuts(ledger)) {
    if (payload.kind === 'film_used')
      for (const p of payload.pieces ?? []) byId.set(p.id, { ...p, stockId: payload.stockId })
    // A piece that is redone is off the vehicle: it has to be cut once more.
    if (payload.kind === 'defect_closed') for (const id of payload.pieceIds ?? []) byId.delete(id)
  }
  return [...byId.values()]
}

/** The rack after the cuts of some rows, which the rack given does not know of yet. */
export function stockAfter(
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
  unknown: (row: LogRow) => boolean,
): readonly StockItem[] {
  const change = new Map<string, number>()
  const add = (id: string, mm: number) => void change.set(id, (change.get(id) ?? 0) + mm)
  ledger.forEach((row, i) => {
    if (!unknown(row)) return
    const { payload } = row
    if (payload.kind === 'film_used') add(payload.stockId, -payload.lengthMm)
    if (payload.kind !== 'cut_taken_back') return
    const made = withoutUndoneCuts(ledger.slice(0, i)).findLast(
      (r) => r.payload.kind === 'film_used' && r.payload.cutKey === payload.cutKey,
    )
    if (made?.payload.kind === 'film_used') add(made.payload.stockId, made.payload.lengthMm)
  })
  if (change.size === 0) return stock
  return stock.map((item) => ({ ...item, leftMm: Math.max(0, item.leftMm + (change.get(item.id) ?? 0)) }))
}

/** Length taken off each roll or rest by this job, mm. */
export function takenOff(ledger: readonly LogRow[]): Map<string, number> {
  const taken = new Map<string, number>()
  for (const { payload } of withoutUndoneCuts(ledger))
    if (payload.kind === 'film_used') taken.set(payload.stockId, (taken.get(payload.stockId) ?? 0) + payload.lengthMm)
  return taken
}

export interface CutPiece {
  id: string
  acrossMm: number
  alongMm: number
  stockId: string
}
