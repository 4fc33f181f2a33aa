import type { Kind } from './kinds'
import { PACK_TOLERANCE as EPS } from './types'

/** One strip across the bin with what lies in it. Sizes with their gaps; x across, y from the band's own start. */
export interface Band {
  length: number
  /** Kind of each item laid. */
  kinds: number[]
  x: number[]
  y: number[]
  turned: boolean[]
}

export const bandsLength = (bands: readonly Band[]): number => bands.reduce((sum, b) => sum + b.length, 0)

/** Worth of the items of a band; its loss is what its length exceeds that by. */
export const worth = (kinds: readonly number[], price: Float64Array): number =>
  kinds.reduce((sum, k) => sum + price[k], 0)

export const counts = (kinds: readonly Kind[]): Int32Array => Int32Array.from(kinds, (k) => k.items.length)

/** What a band holds as one number, by the number of each kind: that of another that holds the same. */
export const markOf = (kinds: readonly number[], code: Float64Array): number =>
  kinds.reduce((sum, k) => sum + code[k], 0)

/** Bands of a part of the kinds as bands of the whole: `from` names the whole's kind of each. */
export const ofWhole = (bands: readonly Band[], from: readonly number[]): Band[] =>
  bands.map((b) => ({ ...b, kinds: b.kinds.map((k) => from[k]) }))

/** Length of a band that holds nothing but one item of each kind, the way it takes least. */
export const aloneLengths = (kinds: readonly Kind[], width: number): Float64Array =>
  Float64Array.from(kinds, (k) => (k.turn && k.l <= width + EPS ? Math.min(k.w, k.l) : k.l))
