import type { MethodName } from './method'
import type { Random } from '../../../kit/random'
import type { Band } from './band'
import type { Kind } from './kinds'

export interface StripJob {
  kinds: readonly Kind[]
  /** Gap included. */
  width: number
  /** Stages of straight cuts; Infinity for any number. */
  cuts: number
  price: Float64Array
  /** Proven bound: a plan this long ends the search. */
  bound: number
  /** The bound and the prices are those of the whole relaxation, not of what there was time for. */
  relaxed?: boolean
  random: Random
  /** Rounds of annealing at most. */
  rounds: number
  spent: () => boolean
  /** Share of the time that is gone, where there is a clock. */
  gone?: (() => number) | undefined
  /** Methods left out, to see what each is worth. */
  without?: ReadonlySet<MethodName> | undefined
  gained?: ((name: MethodName, by: number) => void) | undefined
  /** A sharper bound is worth some of the time. */
  prove?: boolean
  /** Called with each better plan and the bound proven so far. */
  better?: ((bands: Band[], bound: number) => void) | undefined
}

export interface StripPlan {
  bands: Band[]
  length: number
  /** Proven on the way, where that was asked for. */
  bound?: number
  /** No plan under this rule of cutting is shorter. */
  proven: boolean
}

/** More items than this are solved in batches of bands. */
export const LARGE = 64
/** What one length can at least be shorter than another. */
export const LEAST_STEP = 1e-4
