import type { Kind } from '../model/kinds'
import { PACK_TOLERANCE } from '../model/types'

/** Small kinds and how many of each there are. */
export interface Small {
  kind: number
  w: number
  l: number
  turn: boolean
  count: number
}

/** Pairs of selections looked through at most while a table is made. */
const MOST_PAIRS = 250_000
/** Every selection is one whole number; a guard bit over each kind's count keeps borrowings apart. */
const BITS = 31

/**
 * Which kinds go into a table: the narrowest, no wider than `most` and so many that the pairs of selections stay few.
 */
export function smallKinds(kinds: readonly Kind[], most: number, mostPairs = MOST_PAIRS): Small[] {
  const narrow = (k: Kind) => (k.turn ? Math.min(k.w, k.l) : k.w)
  const order = [...kinds.keys()].sort((a, b) => narrow(kinds[a]) - narrow(kinds[b]))
  const small: Small[] = []
  let pairs = 1
  let bits = 0
  for (const i of order) {
    const k = kinds[i]
    const n = k.items.length
    pairs *= ((n + 1) * (n + 2)) / 2
    bits += bitsFor(n)
    if (narrow(k) > most + PACK_TOLERANCE || pairs > Math.min(mostPairs, MOST_PAIRS) || bits > BITS) break
    small.push({ kind: i, w: k.w, l: k.l, turn: k.turn, count: n })
  }
  return small
}
/** Bits of one kind's count, and its guard. */
export const bitsFor = (n: number) => Math.ceil(Math.log2(n + 1)) + 1
