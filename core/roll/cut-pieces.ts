import type { LogRow } from '../log/schema'
import type { CutPiece } from './lay-out'

/** Pieces that the ledger says are cut; the last cut of a piece counts. */
export function cutPieces(ledger: readonly LogRow[]): CutPiece[] {
  const byId = new Map<string, CutPiece>()
  for (const { payload } of ledger)
    if (payload.kind === 'film_used')
      for (const p of payload.pieces ?? []) byId.set(p.id, { ...p, stockId: payload.stockId })
  return [...byId.values()]
}

/** Length taken off each roll or rest by this job, mm. */
export function takenOff(ledger: readonly LogRow[]): Map<string, number> {
  const taken = new Map<string, number>()
  for (const { payload } of ledger)
    if (payload.kind === 'film_used') taken.set(payload.stockId, (taken.get(payload.stockId) ?? 0) + payload.lengthMm)
  return taken
}
