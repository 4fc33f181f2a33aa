import type { EdgePlan, EdgeTask } from './edge-task'
import { GunSearch, IN_BAND_ASKED, isGood, rank } from './gun-search'

/** A pass more has to bring so much more of the edge into the band. */
const WORTH_A_PASS = 0.02

export type PlanFault =
  | { code: 'limit_below_band' }
  /** No gun gets there: the hottest that was reached. */
  | { code: 'cannot_reach'; hottestC: number }
  | { code: 'band_too_narrow'; best: EdgePlan }

/**
 * The quickest sweep of a gun that brings the edge into the band and nothing over the limit. The pace is found from
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
  const confirmed = (plan: EdgePlan): EdgePlan => able.find((a) => a.gun.id === plan.gun)?.confirmed(plan) ?? plan
  for (let passes = 1; passes <= task.passesMax && !isFound(); passes++) {
    const before = best()?.inBand ?? 0
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
    // A plan that just misses what is wanted of the check may have what is asked: the fine sweep says.
    const near = isFound() ? undefined : best()
    const seen = near && near.inBand >= IN_BAND_ASKED ? confirmed(near) : undefined
    if (seen && seen.inBand >= IN_BAND_ASKED && seen.maxPeakC <= limitC) return seen
    // Where one more pass helps hardly, the next one will not help either.
    if (passes > 1 && (best()?.inBand ?? 0) < before + WORTH_A_PASS) break
  }
  // Every gun spoils the film, however quickly it is moved.
  const plan = best() ?? able.map((a) => a.coolest()).sort((a, b) => a.maxPeakC - b.maxPeakC)[0]
  return isGood(plan) && plan.maxPeakC <= limitC ? plan : { code: 'band_too_narrow', best: plan }
}
