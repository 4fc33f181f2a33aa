import { seeded } from '../../../kit/random'
import { markOf, ofWhole, type Band } from '../model/band'
import { dive } from './dive'
import { partOf } from '../model/kinds'
import { BandPool } from './recombine'
import { Search } from './search'
import { type StripJob } from '../model/strip-job'

/**
 * Plans are put together out of the bands known for strips of so many kinds at most, again after so large a share of
 * the search, from so many rounds on; so few items are left to be laid anew, in so many rounds.
 */
const KNOWN = { kinds: 320, every: 0.05, least: 50_000, rest: 40, rounds: 12_000 }

/** Every band met while parts of a large strip were laid anew, and what these bands make items worth. */
export class KnownBands {
  private readonly pool = new BandPool()
  private readonly code: Float64Array
  private readonly used: boolean
  private next: number
  price: Float64Array

  constructor(
    private readonly job: StripJob,
    wanted: boolean,
  ) {
    this.used = wanted && job.kinds.length <= KNOWN.kinds && job.rounds > KNOWN.least
    const chance = seeded(job.kinds.length)
    this.code = Float64Array.from(job.kinds, () => Math.floor(chance() * 2 ** 45))
    this.price = job.price
    this.next = (job.gone?.() ?? 0) + KNOWN.every
  }
  /** Bands of a search over some of the kinds, which `from` names. */
  add(pool: BandPool, from: readonly number[]): void {
    if (this.used) this.pool.takeFrom(pool, from, this.code)
  }
  /**
   * A plan out of the bands known and those of the best plan, where it is time for one. `gone`: share of the search.
   */
  plan(best: readonly Band[], gone: number): Band[] | null {
    if (!this.used || gone < this.next || this.pool.size === 0) return null
    const { job, pool } = this
    const known = best.map((b) => pool.shortest(markOf(b.kinds, this.code), b))
    const price = (this.price = this.price.slice())
    const bands = dive({
      pool,
      kinds: job.kinds,
      width: job.width,
      price,
      known,
      rest: KNOWN.rest,
      layRest: (left) => this.layRest(left),
      spent: job.spent,
    })
    this.next = (job.gone?.() ?? gone) + KNOWN.every
    return bands
  }
  /** What is left of each kind, laid by itself. */
  private layRest(left: Int32Array): Band[] | null {
    const { job, price } = this
    const { kinds, from } = partOf(job.kinds, left)
    const worths = Float64Array.from(from, (k) => price[k])
    const plan = new Search({ ...job, kinds, price: worths, bound: 0, rounds: KNOWN.rounds, better: undefined }).run()
    return plan.bands.length === 0 ? null : ofWhole(plan.bands, from)
  }
}
