import type { Piece } from '../../engines/pieces/pieces'
import type { StageVerdict } from '../../model/finding/stage'
import type { Plan } from '../../model/plan/schema'

export function runSheetState({ runSheet: { startAt } }: Plan, pieces: readonly Piece[]): StageVerdict {
  if (pieces.length === 0) return { state: 'missing', why: 'no_pieces', facts: {} }
  return startAt
    ? { state: 'settled', why: 'start_set', facts: { at: startAt } }
    : { state: 'open', why: 'no_start', facts: {} }
}
