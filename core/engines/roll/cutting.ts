import type { LogPayload, LogRow } from '../../model/log/schema'
import type { Cut } from './cuts'
import { withoutUndoneCuts } from '../../model/log/cut-pieces'
import type { FilmLayout, RollPlan } from './roll-plan'

/** A cut of a kept layout by one name, however the page is opened. */
export const cutKey = (layout: FilmLayout, roll: RollPlan, cut: Cut): string =>
  `${layout.mark}:${roll.id}:${cut.number}`

/** Names of the cuts that the ledger says are made. */
export function cutsMade(ledger: readonly LogRow[]): Set<string> {
  const made = new Set<string>()
  for (const { payload } of withoutUndoneCuts(ledger))
    if ((payload.kind === 'film_used' || payload.kind === 'cut_made') && payload.cutKey) made.add(payload.cutKey)
  return made
}

/**
 * What the ledger gets when a cut is made: a cut across the roll takes its length off the stock and makes its pieces
 * real.
 */
export function cutEntry(layout: FilmLayout, roll: RollPlan, cut: Cut, stockId: string): LogPayload {
  const key = cutKey(layout, roll, cut)
  if (cut.stage > 1) return { kind: 'cut_made', cutKey: key }
  const byId = new Map(layout.pieces.map((p) => [p.id, p]))
  const pieces = cut.pieceIds.flatMap((id) => {
    const p = byId.get(id)
    return p ? [{ id, acrossMm: p.acrossMm, alongMm: p.alongMm }] : []
  })
  return {
    kind: 'film_used',
    stockId,
    lengthMm: Math.round(cut.tapeMm * 10) / 10,
    ...(pieces.length > 0 ? { pieces } : {}),
    cutKey: key,
  }
}

/**
 * What the ledger gets when a machine has cut a whole roll's plan: its length off the stock, all of its pieces real.
 */
export function machineEntry(layout: FilmLayout, roll: RollPlan, stockId: string): LogPayload {
  const byId = new Map(layout.pieces.map((p) => [p.id, p]))
  return {
    kind: 'film_used',
    stockId,
    lengthMm: Math.round(roll.usedMm * 10) / 10,
    pieces: roll.placements.flatMap(({ pieceId }) => {
      const p = byId.get(pieceId)
      return p ? [{ id: p.id, acrossMm: p.acrossMm, alongMm: p.alongMm }] : []
    }),
    cutKey: machineKey(layout, roll),
  }
}
export const machineKey = (layout: FilmLayout, roll: RollPlan): string => `${layout.mark}:${roll.id}:machine`
