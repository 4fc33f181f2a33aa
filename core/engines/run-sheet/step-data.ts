import type { Panel } from '../../model/vehicle/schema'
import type { CornerMethod } from '../edge/corner-plan'
import { DRYING_MIN } from '../conditions/conditions-data'

/**
 * Steps of a job before and after the laying, in order. Minutes are assumed for an experienced crew unless the film or
 * the plan gives them; waits are common practice, no source.
 */
export interface StepRule {
  code: string
  minutes: number
  waitMin?: number
  /** Words of caution to show with the step. */
  cautions?: string[]
  tools?: string[]
}

export const BEFORE: readonly StepRule[] = [
  // Washed and blown dry outside, then one night in the warm shop: it serves drying and warming alike.
  { code: 'wash', minutes: 45, tools: ['soap', 'cloths'] },
  { code: 'dry', minutes: 15, tools: ['air', 'cloths'] },
  { code: 'bring_in', minutes: 10, waitMin: DRYING_MIN },
  { code: 'hardware_off', minutes: 0, cautions: ['airbag_trim'], tools: ['trim_tools', 'bags'] },
  { code: 'decontaminate', minutes: 40, cautions: ['solvent'], tools: ['remover', 'clay'] },
  { code: 'degrease', minutes: 20, cautions: ['solvent'], tools: ['alcohol', 'cloths'] },
  { code: 'mask', minutes: 15, cautions: ['never_cover'], tools: ['masking'] },
]
export const AFTER: readonly StepRule[] = [
  { code: 'hardware_on', minutes: 0, cautions: ['airbag_trim'], tools: ['trim_tools'] },
  { code: 'last_wipe', minutes: 15, tools: ['cloths'] },
  { code: 'check_round', minutes: 30, cautions: ['hot'], tools: ['gun', 'lamp'] },
  { code: 'rest', minutes: 5, waitMin: 24 * 60 },
  { code: 'recheck', minutes: 30, cautions: ['hot'], tools: ['gun', 'thermometer'] },
  { code: 'hand_over', minutes: 20 },
]

/** Masking: minutes for each metre of a neighbour that is taped. Assumed. */
export const MASK_MIN_PER_M = 0.5
/** A print or film brought into the warm room lies there so long before it is cut, minutes. Common practice, no source. */
export const FILM_WARMS_MIN = 720

/** Old film: a trial patch, minutes; then by m², more for each year. Assumed; a warm room for half a day before. */
export const REMOVAL = { trialMin: 15, perM2Min: 8, perM2YearMin: 1.5, warmMin: 360, residuePerM2Min: 3 }
/** A coarse hull or box is scuffed, minutes for each m². Assumed. */
export const SCUFF_MIN_PER_M2 = 6
export const COARSE: readonly Panel['kind'][] = ['hull_side', 'tank_shell']

/** The last degrease of a panel, right before its film: a start, and minutes for each m². Assumed. */
export const LAST_WIPE = { startMin: 2, perM2Min: 2 }
/** Minutes on the bench for each cut, at a recess, at a place that is heated alone, and for each metre of seam. Assumed. */
export const CUT_MIN = 1.5
export const RECESS_MIN = 8
export const SEAM_MIN_PER_M = 6
/** A relief cut: found, cut, laid over and pressed down. Assumed. */
export const RELIEF_CUT_MIN = 2
/** A recess inlaid: its own small piece cut, laid and trimmed. Assumed. */
export const INLAY_MIN = 8
export const DRY_FIT_MIN = 3
/** Putting hardware back takes this share of taking it off (assumed). */
export const HARDWARE_ON_SHARE = 1.2
/** Film relaxed off the panel first: minutes for each piece, cap sheet off before. Assumed. */
export const RELAX_MIN = 4

/** A corner by how it is got round, minutes. Assumed. */
export const CORNER_MIN: Record<CornerMethod, number> = { cold_hook: 1.5, shaped: 3, shrunk: 1, relief: 2.5, seam: 5 }

/** A mirror layer takes a medium gun only, wide and slow: so much longer. Assumed. */
export const MIRROR_SLOWER = 1.5
/** Gun away, thermometer on, reading in; a place that is no edge heated and pressed. Minutes, assumed. */
export const READ_MIN = 0.3
export const PLACE_MIN = 1.5
/** Pressed once more as it cools: minutes for each metre. Assumed. */
export const PRESS_MIN_PER_M = 0.4
/** Edges heated and pressed without a reading, minutes for each metre. Assumed. */
export const PRESSED_MIN_PER_M = 1

/** With one person too few a step takes so much longer, where it may be done so at all. Assumed. */
export const ALONE_FACTOR = 1.6

/** Laminating a print: setting up, and minutes for each m² of film. Assumed. */
export const LAMINATE = { people: 2, setUpMin: 15, perM2Min: 1.5 }
/** Chrome is steamed and dried after each panel, minutes. Assumed. */
export const STEAM_MIN = 4
