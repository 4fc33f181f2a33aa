/** What an item is laid as, and how two blocks are put together. */
export const MADE = { comes: 0, turned: 1, beside: 2, behind: 3 } as const

/**
 * Keys are sorted as whole numbers: in such shares of a step, from so far below 0, with more places than there are
 * rectangles of a number of items.
 */
export const SHARES = 64
const ABOVE = 2 ** 20
export const PLACES = 2 ** 20

/** Rectangles in the order of a key, with the selections they hold. */
export interface Ordered {
  key: Float64Array
  entry: Int32Array
  low: Int32Array
  high: Int32Array
  value: Float64Array
}
export const NONE: Ordered = {
  key: new Float64Array(0),
  entry: new Int32Array(0),
  low: new Int32Array(0),
  high: new Int32Array(0),
  value: new Float64Array(0),
}

/** Those not put together in the way they would be again, and those that are. */
export type Split = [Ordered, Ordered]
/** What rectangles hold, are worth and how they are put together, by their number. */
interface Rectangles {
  made: Int32Array
  low: Int32Array
  high: Int32Array
  value: Float64Array
}

/**
 * Those put together otherwise than `made`, and those so, in the order of their keys (a little less than given: whole
 * shares).
 */
export function ordered(of: Rectangles, entries: readonly number[], keys: readonly number[], made: number): Split {
  // Sorted as whole numbers of key and place, which is many times faster than by a function.
  const order = Float64Array.from(keys, (key, i) => Math.floor((key + ABOVE) * SHARES) * PLACES + i).sort()
  let same = 0
  for (const e of entries) if (of.made[e] === made) same++
  const make = (n: number): Ordered =>
    n === 0
      ? NONE
      : {
          key: new Float64Array(n),
          entry: new Int32Array(n),
          low: new Int32Array(n),
          high: new Int32Array(n),
          value: new Float64Array(n),
        }
  const into: Split = [make(entries.length - same), make(same)]
  const at = [0, 0]
  for (const k of order) {
    const e = entries[k % PLACES]
    const p = of.made[e] === made ? 1 : 0
    const to = into[p]
    const i = at[p]
    at[p] = i + 1
    to.key[i] = Math.floor(k / PLACES) / SHARES - ABOVE
    to.entry[i] = e
    to.low[i] = of.low[e]
    to.high[i] = of.high[e]
    to.value[i] = of.value[e]
  }
  return into
}

/** The last place whose key is no more than `most`, −1 for none. */
export function lastUpTo(key: Float64Array, most: number): number {
  let from = 0
  let to = key.length
  while (from < to) {
    const mid = (from + to) >> 1
    if (key[mid] <= most) from = mid + 1
    else to = mid
  }
  return from - 1
}
