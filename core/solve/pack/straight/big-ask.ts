import type { Random } from '../../../kit/random'
import type { Kind } from '../model/kinds'
import type { BandPool } from './recombine'
import type { Small } from './small-kinds'

/** What is laid with its big items first, and where bands go that lose little. */
export interface BigAsk {
  kinds: readonly Kind[]
  width: number
  /** A plan this long is known. */
  known: number
  cuts: number
  random: Random
  spent: () => boolean
  price: Float64Array
  code: Float64Array
  pool: BandPool
  /** What goes into the table. */
  small: readonly Small[]
}
