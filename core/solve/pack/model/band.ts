import type { Kind } from './kinds'
import { PACK_TOLERANCE } from './types'

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

/** Length of a band that holds nothing but one item of each kind, turned so that it takes least. */
export const aloneLengths = (kinds: readonly Kind[], width: number): Float64Array =>
  Float64Array.from(kinds, (k) => (k.turn && k.l <= width + PACK_TOLERANCE ? Math.min(k.w, k.l) : k.l))
/** A band as those it falls apart into by straight lines across that meet no item. */
export function splitIntoBands(band: Band, kinds: readonly Kind[]): Band[] {
  const order = band.y.map((_, i) => i).sort((a, b) => band.y[a] - band.y[b])
  const bands: Band[] = []
  let start = 0
  let end = 0
  let now: Band | null = null
  for (const i of order) {
    const y = band.y[i]
    const kind = kinds[band.kinds[i]]
    if (!now || y >= end - PACK_TOLERANCE) {
      start = now ? y : 0
      now = { length: 0, kinds: [], x: [], y: [], turned: [] }
      bands.push(now)
    }
    now.kinds.push(band.kinds[i])
    now.x.push(band.x[i])
    now.y.push(y - start)
    now.turned.push(band.turned[i])
    end = Math.max(end, y + (band.turned[i] ? kind.w : kind.l))
    now.length = end - start
  }
  return bands
}
