import type { EdgePlan, EdgeTask } from './edge-task'
import { GunSearch, isGood, rank } from './gun-search'

export type PlanFault =
  | { code: 'limit_below_band' }
  /** No gun gets there: the hottest that was reached. */
  | { code: 'cannot_reach'; hottestC: number }
  | { code: 'band_too_narrow'; best: EdgePlan }

/**
 * The quickest way to move a gun that brings the edge into the band and nothing over the limit. The pace is found from
 * the middle of the edge; hold, begin and end from its ends, by damped least squares on the rough sweep; what is found
 * is looked at with the fine one, and put right by what parts them.
 */
export function planSweep(task: EdgeTask): EdgePlan | PlanFault {
  const { bandC, limitC } = task
  if (limitC < bandC.min) return { code: 'limit_below_band' }
  const trials = task.guns.map((gun) => new GunSearch(task, gun))
  const able = trials.filter((t) => t.reaches())
  if (able.length === 0) return { code: 'cannot_reach', hottestC: Math.max(...trials.map((t) => t.hottestC)) }
  const found: EdgePlan[] = []
  const best = (): EdgePlan | undefined => [...found].sort((a, b) => rank(a) - rank(b))[0]
  const isFound = (): boolean => found.some(isGood)
  for (let passes = 1; passes <= task.passesMax && !isFound(); passes++) {
    // The gun that would be quickest comes first; one that cannot be quicker than a plan is not tried.
    const order = able
      .map((search) => ({ search, atLeastS: search.quickest(passes) }))
      .sort((a, b) => a.atLeastS - b.atLeastS)
    for (const { search, atLeastS } of order) {
      const known = best()
      if (known && isGood(known) && atLeastS >= known.seconds) continue
      const plan = search.search(passes)
      if (plan) found.push(plan)
    }
  }
  const plan = best()
  if (!plan) return { code: 'cannot_reach', hottestC: Math.max(...trials.map((t) => t.hottestC)) }
  return isGood(plan) ? plan : { code: 'band_too_narrow', best: plan }
}
