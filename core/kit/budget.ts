/** What a solver may spend. Rounds make a run repeat exactly; a clock, where wanted, comes from outside. */
export interface Budget {
  rounds: number
  /** True once the time is up or the caller has cancelled. */
  spent?: () => boolean
  /** Share of the time gone, 0 to 1, where there is a clock. */
  elapsed?: () => number
  progress?: (done: number, of: number) => void
}

/** A budget of wall time over a clock that the caller brings (milliseconds, any origin). */
export function timeBudget(clockMs: () => number, seconds: number, rounds = Number.MAX_SAFE_INTEGER): Budget {
  const begin = clockMs()
  const end = begin + seconds * 1000
  return { rounds, spent: () => clockMs() >= end, elapsed: () => Math.min(1, (clockMs() - begin) / (end - begin)) }
}
