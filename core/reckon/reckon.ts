import { reckoner } from './reckoner'
import { SOLVERS } from './solvers'

export type { Reckoning } from './reckoner'

/** The one entry of the core (`reckoner`), with every solver at hand. */
export const reckon = reckoner(SOLVERS)
