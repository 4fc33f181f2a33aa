import { DRYING_MIN } from '../conditions/conditions-data'

/**
 * Steps of a job before and after the laying, in order. Minutes are assumed for an experienced crew unless the film or
 * the plan gives them; waits are common practice, no source.
 */
export interface StepRule {
  code: string
  minutes: number
  people: number
  waitMin?: number
  /** Words of caution to show with the step. */
  cautions?: string[]
}

export const BEFORE: readonly StepRule[] = [
  // Washed and blown dry outside, then one night in the warm shop: it serves drying and warming alike.
  { code: 'wash', minutes: 45, people: 1 },
  { code: 'dry', minutes: 15, people: 1 },
  { code: 'bring_in', minutes: 10, people: 1, waitMin: DRYING_MIN },
  { code: 'hardware_off', minutes: 0, people: 1, cautions: ['airbag_trim'] },
  { code: 'decontaminate', minutes: 40, people: 1, cautions: ['solvent'] },
  { code: 'degrease', minutes: 40, people: 1, cautions: ['solvent'] },
  { code: 'mask', minutes: 30, people: 1, cautions: ['never_cover'] },
]
export const AFTER: readonly StepRule[] = [
  { code: 'check_round', minutes: 30, people: 1, cautions: ['hot'] },
  { code: 'rest', minutes: 5, people: 1, waitMin: 24 * 60 },
  { code: 'recheck', minutes: 30, people: 1, cautions: ['hot'] },
  { code: 'hardware_on', minutes: 0, people: 1, cautions: ['airbag_trim'] },
  { code: 'hand_over', minutes: 20, people: 1 },
]

/**
 * Minutes per cut on the bench, per recess, per heat point, per relief-cut corner, per metre of sealing tape
 * (assumed).
 */
export const CUT_MIN = 1.5
export const RECESS_MIN = 8
export const HEAT_POINT_MIN = 2
export const SEAM_MIN_PER_M = 6
/** A relief cut: found, cut, laid over and pressed down. Assumed. */
export const RELIEF_CUT_MIN = 2
/** A recess inlaid: its own small piece cut, laid and trimmed. Assumed. */
export const INLAY_MIN = 8
export const DRY_FIT_MIN = 3
/** Putting hardware back takes this share of taking it off (assumed). */
export const HARDWARE_ON_SHARE = 1.2

/** Laminating a print: setting up, and minutes for each m² of film. Assumed. */
export const LAMINATE = { people: 2, setUpMin: 15, perM2Min: 1.5 }
