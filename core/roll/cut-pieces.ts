import type { LogRow } from '../log/schema'
import type { CutPiece } from './layout'

/** The ledger without the cuts that were taken back, and without what took them back. */
export function standing(ledger: readonly LogRow[]): LogRow[] {
  const out: LogRow[] = []
  for (const row of ledger) {
    const { payload } = row
    if (payload.kind !== 'cut_taken_back') {
      out.push(row)
      continue
    }
    const at = out.findLastIndex((r) => (r.payload.kind === 'film_used' || r.payload.kind === 'cut_made') && r.payload.cutKey === payload.cutKey) // prettier-ignore
    if (at >= 0) out.splice(at, 1)
  }
  return out
}

/** Pieces that the ledger says are cut; the last cut of a piece counts. */
export function cutPieces(ledger: readonly LogRow[]): CutPiece[] {
  const byId = new Map<string, CutPiece>()
  for (const { payload } of standing(ledger))
    if (payload.kind === 'film_used')
      for (const p of payload.pieces ?? []) byId.set(p.id, { ...p, stockId: payload.stockId })
  return [...byId.values()]
}

/** Length taken off each roll or rest by this job, mm. */
export function takenOff(ledger: readonly LogRow[]): Map<string, number> {
  const taken = new Map<string, number>()
  for (const { payload } of standing(ledger))
    if (payload.kind === 'film_used') taken.set(payload.stockId, (taken.get(payload.stockId) ?? 0) + payload.lengthMm)
  return taken
}
