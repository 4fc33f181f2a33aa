import type { ShopRecord } from './shop-record'

/** From so many cases on a shop's own record counts: nothing is learned from three. */
export const ENOUGH_STEPS = 8
export const ENOUGH_PLACES = 20

/** What one finished job taught: how long steps took beside the rules, and how its places stood a day later. */
export interface JobRecord {
  steps: { code: string; plannedMin: number; actualMin: number }[]
  /** By what spoke for looking at a place. */
  places: { why: string; result: 'holds' | 'pressed' | 'redo' }[]
}
export const NO_RECORD: ShopRecord = { steps: {}, places: {} }

/** A shop's record out of those of its jobs. */
export function shopRecord(jobs: readonly JobRecord[]): ShopRecord {
  const ratios = new Map<string, number[]>()
  const places: ShopRecord['places'] = {}
  for (const job of jobs) {
    for (const { code, plannedMin, actualMin } of job.steps)
      ratios.set(code, [...(ratios.get(code) ?? []), actualMin / plannedMin])
    for (const { why, result } of job.places) {
      const was = places[why] ?? { cases: 0, pressed: 0, redo: 0 }
      places[why] = {
        cases: was.cases + 1,
        pressed: was.pressed + (result === 'pressed' ? 1 : 0),
        redo: was.redo + (result === 'redo' ? 1 : 0),
      }
    }
  }
  const steps = Object.fromEntries(
    [...ratios].map(([code, list]) => [code, { cases: list.length, factor: Math.round(middle(list) * 100) / 100 }]),
  )
  return { steps, places }
}

/** The middle one of a list, or between the two middle ones: one forgotten tick does not move it. */
function middle(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b)
  const half = Math.floor(sorted.length / 2)
  const upper = sorted[half] ?? 1
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] ?? upper) + upper) / 2
}

/** By how much longer (or shorter) this shop takes for a step; null where it has too few cases to say. */
export const learnedPace = (record: ShopRecord, code: string): { cases: number; factor: number } | null => {
  const own = record.steps[code]
  return own && own.cases >= ENOUGH_STEPS ? own : null
}
/** How often such a place had to be done again; null where there are too few cases to say. */
export const learnedRedo = (record: ShopRecord, why: string): { cases: number; share: number } | null => {
  const own = record.places[why]
  return own && own.cases >= ENOUGH_PLACES ? { cases: own.cases, share: own.redo / own.cases } : null
}
