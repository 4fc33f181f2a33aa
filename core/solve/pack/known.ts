import { seeded } from '../../kit/random'
import type { Band } from './band'
import { dive } from './dive'
import type { Kind } from './kinds'
import { BandPool } from './recombine'
import { Search, type StripJob } from './search'

/**
 * Plans are put together out of the bands known for strips of so many kinds at most, again after so large a share of the
 * search, from so many rounds on; so few items are left to be laid anew, in so many rounds.
 */
const KNOWN = { kinds: 320, every: 0.05, least: 50_000, rest: 40, rounds: 12_000 }

/** Every band met while parts of a large strip were laid anew, and what these bands make items worth. */
export class Known {
  private readonly pool = new BandPool()
  private readonly code: Float64Array
  private readonly used: boolean
  private next = KNOWN.every
  price: Float64Array

  constructor(
    private readonly job: StripJob,
    wanted: boolean,
  ) {
    this.used = wanted && job.kinds.length <= KNOWN.kinds && job.rounds > KNOWN.least
    const chance = seeded(job.kinds.length)
    this.code = Float64Array.from(job.kinds, () => Math.floor(chance() * 2 ** 45))
    this.price = job.price
  }
  /** Bands of a search over some of the kinds, which `from` names. */
  add(pool: BandPool, from: readonly number[]): void {
    if (this.used) this.pool.takeFrom(pool, from, this.code)
  }
  /** A plan out of the bands known and those of the best plan, where it is time for one. `gone`: share of the search. */
  plan(best: readonly Band[], gone: number): Band[] | null {
    if (!this.used || gone < this.next || this.pool.size === 0) return null
    const { job, pool } = this
    for (const b of best)
      pool.put(
        b.kinds.reduce((sum, k) => sum + (this.code[k] as number), 0),
        b,
        0,
      )
    const price = (this.price = this.price.slice())
    const bands = dive({ pool, kinds: job.kinds, width: job.width, price, known: best, rest: KNOWN.rest, layRest: (left) => this.layRest(left), spent: job.spent }) // prettier-ignore
    this.next = (job.gone?.() ?? gone) + KNOWN.every
    return bands
  }
  /** What is left of each kind, laid by itself. */
  private layRest(left: Int32Array): Band[] | null {
    const { job, price } = this
    const from = [...left.keys()].filter((k) => (left[k] as number) > 0)
    const kinds = from.map((k) => {
      const kind = job.kinds[k] as Kind
      return { ...kind, items: kind.items.slice(0, left[k]) }
    })
    const worths = Float64Array.from(from, (k) => price[k] as number)
    const plan = new Search({ ...job, kinds, price: worths, bound: 0, rounds: KNOWN.rounds, better: undefined }).run()
    return plan.bands.length === 0
      ? null
      : plan.bands.map((b) => ({ ...b, kinds: b.kinds.map((k) => from[k] as number) }))
  }
}
