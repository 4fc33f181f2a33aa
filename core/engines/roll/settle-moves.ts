import type { Budget } from '../../kit/budget'

/**
 * Moves with which a film's layout is searched: counted, not timed, so that every machine comes to the same layout.
 * Some ten seconds for a car on a desk’s machine (docs/bench.md).
 */
export const SETTLE_MOVES = 50_000
/** Each source of the film is searched with this share of them. */
const SOURCE_SHARE = 0.1

type Counted = Budget & Required<Pick<Budget, 'spent' | 'elapsed'>>

/** A budget that is spent by asking: each question is a move. */
export function moves(most: number): Counted {
  let made = 0
  return {
    rounds: Number.MAX_SAFE_INTEGER,
    spent: () => ++made >= most,
    elapsed: () => Math.min(1, made / most),
  }
}
export const sourceMoves = (): Counted => moves(SETTLE_MOVES * SOURCE_SHARE)
