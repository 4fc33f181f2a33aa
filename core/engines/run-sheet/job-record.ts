import { civilToMinutes } from '../../kit/civil'
import type { JobRecord } from '../../model/log/learned'
import type { CheckPlace } from '../heat/check-places'
import type { Step } from './step'

/** Times that tell of something else than the work: forgotten, ticked in passing, or over a night. Assumed. */
const BELIEVABLE = { leastShare: 0.2, mostShare: 5, mostMin: 600 }

/** What a job taught: of steps that were begun and ended, and of places that were looked at again a day later. */
export function jobRecord(steps: readonly Step[], places: readonly CheckPlace[]): JobRecord {
  const moment = (utc: string | null): number | null => (utc ? civilToMinutes(utc.slice(0, 16)) : null)
  return {
    steps: steps.flatMap((s) => {
      const [from, to] = [moment(s.startedAt), moment(s.doneAt)]
      const plannedMin = s.learned?.ruleMin ?? s.minutesByRule ?? s.minutes
      if (from === null || to === null || plannedMin <= 0) return []
      const actualMin = to - from
      const share = actualMin / plannedMin
      const isBelieved =
        share >= BELIEVABLE.leastShare && share <= BELIEVABLE.mostShare && actualMin <= BELIEVABLE.mostMin
      return isBelieved ? [{ code: s.code, plannedMin, actualMin }] : []
    }),
    places: places.flatMap((p) => {
      const looked = p.recheck
      return looked ? p.why.map((why) => ({ why, result: looked.result })) : []
    }),
  }
}
