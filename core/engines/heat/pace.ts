import type { Panel } from '../../model/vehicle/schema'
import { GUN_PACE } from '../../model/heat/heat-data'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'

/** How a mark runs along an edge: seconds and millimetres. */
export interface Pace {
  lengthMm: number
  holdS: number
  mmS: number
  passes: number
  gapS: number
  /** Begins so far before the edge, ends so far past it. */
  beforeMm: number
  pastMm: number
  /** Worked out for this edge, or what is usual on such a panel. */
  solved: boolean
}

/** Where the gun has to be at a moment. `along`: of the edge's length, below 0 and over 1 past its ends. */
export type PaceMoment =
  | { phase: 'hold' | 'move'; pass: number; along: number; leftS: number }
  | { phase: 'gap'; pass: number; leftS: number }
  | { phase: 'away' }

/** By what is usual on such a panel: begun a little before the edge, and run a little past it. */
export function usualPace(panel: Pick<Panel, 'surface'>, lengthMm: number): Pace {
  const { holdS, mmS, passes, gapS } = GUN_PACE[panel.surface.material]
  return { lengthMm, holdS, mmS, passes, gapS, beforeMm: 0, pastMm: 20, solved: false }
}

export const solvedPace = (plan: Extract<SolvedHeat, { kind: 'plan' }>, lengthMm: number): Pace => ({
  lengthMm,
  holdS: plan.holdS,
  mmS: plan.paceMmS,
  passes: plan.passes,
  gapS: plan.gapS,
  beforeMm: plan.beforeMm,
  pastMm: plan.pastMm,
  solved: true,
})

/** As it was solved for this panel and film, else by what is usual on such a panel. */
export const paceFor = (panel: Pick<Panel, 'surface'>, sweep: SolvedHeat | null | undefined, lengthMm: number): Pace =>
  sweep?.kind === 'plan' ? solvedPace(sweep, lengthMm) : usualPace(panel, lengthMm)

const passS = (p: Pace): number => p.holdS + (p.beforeMm + p.lengthMm + p.pastMm) / p.mmS
export const paceSeconds = (p: Pace): number => p.passes * passS(p) + (p.passes - 1) * p.gapS

/** Where the gun is after so many seconds: held at the start of each pass, then along, and away between passes. */
export function paceAt(p: Pace, seconds: number): PaceMoment {
  const each = passS(p)
  const pass = Math.floor(seconds / (each + p.gapS))
  if (seconds < 0 || pass >= p.passes || (pass === p.passes - 1 && seconds - pass * (each + p.gapS) >= each))
    return seconds < 0 ? paceAt(p, 0) : { phase: 'away' }
  const within = seconds - pass * (each + p.gapS)
  if (within >= each) return { phase: 'gap', pass: pass + 1, leftS: each + p.gapS - within }
  // Passes go to and fro.
  const turned = pass % 2 === 1
  const travelled = Math.max(0, within - p.holdS) * p.mmS
  const mm = turned ? p.lengthMm + p.pastMm - travelled : travelled - p.beforeMm
  const phase = within < p.holdS ? 'hold' : 'move'
  return { phase, pass: pass + 1, along: mm / p.lengthMm, leftS: each - within }
}
