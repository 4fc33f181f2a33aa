import type { LogRow } from './schema'

export const HAND_OVER_STEP = 'hand_over'

/** The entry that handed the vehicle over, if one stands, and all that had happened until then. */
export function handedOver(ledger: readonly LogRow[]): { row: LogRow; until: LogRow[] } | null {
  let at = -1
  ledger.forEach(({ payload }, i) => {
    if (payload.kind === 'step_done' && payload.stepId === HAND_OVER_STEP && at < 0) at = i
    if (payload.kind === 'step_done_taken_back' && payload.stepId === HAND_OVER_STEP) at = -1
  })
  const row = ledger[at]
  return row ? { row, until: ledger.slice(0, at + 1) } : null
}
