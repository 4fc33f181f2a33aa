import type { Layer } from './layer'

/** How many of each kind: two words of bits, where a sum too large sets a guard. */
export interface Counting {
  bias: readonly [number, number]
  guard: readonly [number, number]
}

/** What blocks are sought for. */
export interface BlocksAsk {
  width: number
  narrowest: number
  /** Most that crossings of each width are worth, 1 at the whole width. */
  u: Float64Array
  /** What a plan may be longer than its items are worth, and its length. */
  slack: number
  length: number
  counting: Counting
  over: () => boolean
}

/** What a rectangle holds, as two words of counts, its worth, and how large it is. */
export interface Selection {
  low: number
  high: number
  value: number
  w: number
  h: number
}

/** A layer whose rectangles go beside others: in which order, only shorter ones or not, and whether it is the same. */
export interface Beside {
  y: Layer
  q: 0 | 1
  shorter: boolean
  same: boolean
}
