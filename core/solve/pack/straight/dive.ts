import { aloneLengths, worth, type Band } from '../model/band'
import { coverLp, type Column } from '../bound/cover-lp'
import type { Kind } from '../model/kinds'
import { contentOf, type BandPool } from './recombine'

/**
 * Bands wanted at least so often by the linear program are taken. Bands it begins with where none are known, how many
 * more of all bands are looked at closely once none of those is wanted, and its steps for each kind. Bands kept for
 * the next time.
 */
const DIVE = { sure: 0.35, first: 2000, more: 400, steps: 40, kept: 40_000 }
/** A column is worth more than it costs by this at least. */
const WORTH = 1e-7

export interface Dive {
  pool: BandPool
  kinds: readonly Kind[]
  width: number
  /** What bands were worth by the last such program; brought up to date. */
  price: Float64Array
  /** Bands of a plan, that are in the pool. */
  known: readonly Band[]
  /** So few items are laid anew. */
  rest: number
  layRest: (left: Int32Array) => Band[] | null
  spent: () => boolean
}

/**
 * A plan out of the bands known: a linear program says how often each is wanted, those it is surest of are taken, and
 * so on with what is left, until that is few enough to be laid anew. Null where time ran out.
 */
export function dive({ pool, kinds, width, price, known, rest, layRest, spent }: Dive): Band[] | null {
  const alone = aloneLengths(kinds, width)
  const left = Int32Array.from(kinds, (k) => k.items.length)
  const count = () => left.reduce((sum, n) => sum + n, 0)
  const bands: Band[] = []
  let by: Float64Array = price
  for (let round = 0; count() > rest; round++) {
    const lp = wanted({ bands: pool.within(left), need: left, alone, by, known: new Set(known), spent })
    if (spent()) return null
    by = lp.price
    if (round === 0) price.set(lp.price)
    let took = 0
    for (const { band, times } of lp.taken.sort((a, b) => b.times - a.times)) {
      if (took > 0 && times < DIVE.sure) break
      for (let n = Math.max(1, Math.floor(times + WORTH)); n > 0 && takes(left, band); n--) {
        bands.push(band)
        took++
      }
    }
    if (took === 0) break
  }
  pool.keepLeast(DIVE.kept, price)
  const more = count() > 0 ? layRest(left) : []
  return more && [...bands, ...more]
}

/** How often each band is wanted, and what that makes items worth: of many bands only some are looked at at a time. */
function wanted({
  bands,
  need,
  alone,
  by,
  known,
  spent,
}: {
  bands: readonly Band[]
  need: Int32Array
  alone: Float64Array
  by: Float64Array
  known: ReadonlySet<Band>
  spent: () => boolean
}) {
  const lossAt = (u: Float64Array) => Float64Array.from(bands, (b) => b.length - worth(b.kinds, u))
  const least = (loss: Float64Array, most: number, below: number) =>
    [...loss.keys()]
      .filter((i) => loss[i] < below)
      .sort((a, b) => loss[a] - loss[b])
      .slice(0, most)
  // Those of the last plan first: it takes few steps to be as good as that.
  let active = [...bands.keys()].filter((i) => known.has(bands[i]))
  if (active.length === 0) active = least(lossAt(by), DIVE.first, Infinity)
  const bandOf = new Map<Column, Band>()
  const best = (u: Float64Array): Band | null => {
    let found: Band | null = null
    let most = WORTH
    for (const i of active) {
      const b = bands[i]
      const gain = worth(b.kinds, u) - b.length
      if (gain > most) {
        most = gain
        found = b
      }
    }
    return found
  }
  const lp = coverLp(
    need,
    [...alone].map((cost) => ({ value: 1, cost })),
    (u) => {
      if (spent()) return null
      let band = best(u)
      if (!band) {
        active = least(lossAt(u), DIVE.more, -WORTH)
        band = best(u)
      }
      if (!band) return null
      const column = contentOf(band.kinds, band.length)
      bandOf.set(column, band)
      return column
    },
    DIVE.steps * need.length,
  )
  const taken = lp.taken.map(({ column, times }) => ({ band: bandOf.get(column) as Band, times }))
  return { price: lp.price, value: lp.value, taken }
}

/** Takes what a band holds out of what is left, if that is all there. */
function takes(left: Int32Array, band: Band): boolean {
  for (const k of band.kinds) left[k] = left[k] - 1
  if (band.kinds.every((k) => left[k] >= 0)) return true
  for (const k of band.kinds) left[k] = left[k] + 1
  return false
}
