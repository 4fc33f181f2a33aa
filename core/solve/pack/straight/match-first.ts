import { matched } from '../lossless/match'
import type { Band } from '../model/band'
import type { Method } from '../model/method'
import type { StripJob } from '../model/strip-job'

interface MatchFirst {
  share: number
  /** Whether sides that match are worth looking for at all. */
  wanted: boolean
  tries: number
  take: (bands: Band[]) => void
}

/**
 * Sides that match put together, at the first turn only: what does not go together in so many tries does not later
 * either (ADR 16).
 */
export const matchFirst = (job: StripJob, { share, wanted, tries, take }: MatchFirst): Method => ({
  name: 'match',
  share,
  applies: (turn) => wanted && turn === 0,
  step: () => {
    const { kinds, width, bound, random, spent } = job
    const match = matched({ kinds, width, bound, random, tries, spent })
    if (match) take(match)
  },
})
