import { MADE, type Split } from './ordered'

/** Classes of rectangles by what they keep from what lies beside them, and by width. */
export const LEVELS = 8
const WIDTHS = 32
export const LEAST = 1e-9

/** Rectangles of one number of items. */
export interface Layer {
  /**
   * By what they keep: `own` those of a level by what they lose, `lower` those that may still go behind them, by what
   * they would lose as wide as that.
   */
  own: Split[]
  lower: Split[]
  /** By width, by length in each; the thinnest of them, the most any is worth and that for its length. */
  wide: { thin: number; worth: number; rich: number; split: Split }[]
}

/** Rectangles by their number: size, worth, and what they keep from what lies beside them. */
interface Rectangles {
  w: Int32Array
  h: Int32Array
  value: Float64Array
  level: Uint8Array
  /** By width; and at the least width of each level. */
  keep: Float64Array
  keepOf: Float64Array
  width: number
}

/** The rectangles `from` to `to` in their orders; `most`: what may be lost behind another one. */
export function layerOf(
  { w, h, value, level, keep, keepOf, width }: Rectangles,
  { from, to, most }: { from: number; to: number; most: number },
  split: (entries: readonly number[], keys: readonly number[], made: number) => Split,
): Layer {
  const own: number[][] = Array.from({ length: LEVELS }, () => [])
  const wide: number[][] = Array.from({ length: WIDTHS }, () => [])
  for (let e = from; e < to; e++) {
    own[level[w[e]]].push(e)
    wide[Math.floor((w[e] * WIDTHS) / (width + 1))].push(e)
  }
  // Of all that is thinner, what may still lie behind something as wide as the level.
  let below: number[] = []
  const lower = own.map((list, l) => {
    const factor = keepOf[l]
    const left: number[] = []
    const keys: number[] = []
    for (const e of below) {
      const loss = h[e] * factor - value[e]
      if (loss > most) continue
      left.push(e)
      keys.push(loss)
    }
    below = left.concat(list)
    return split(left, keys, MADE.behind)
  })
  return {
    lower,
    own: own.map((list) =>
      split(
        list,
        list.map((e) => h[e] * keep[w[e]] - value[e]),
        MADE.behind,
      ),
    ),
    wide: wide
      .filter((list) => list.length > 0)
      .map((list) => {
        let [thin, worth, rich] = [Infinity, 0, LEAST]
        for (const e of list) {
          thin = Math.min(thin, w[e])
          worth = Math.max(worth, value[e])
          rich = Math.max(rich, value[e] / h[e])
        }
        return {
          thin,
          worth,
          rich,
          split: split(
            list,
            list.map((e) => h[e]),
            MADE.beside,
          ),
        }
      }),
  }
}
