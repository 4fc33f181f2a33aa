import { aloneLengths, counts, type Band } from '../model/band'
import type { BigAsk } from './big-ask'
import { BigFirst } from './big-first'
import { smallKinds } from './small-kinds'
import { aloneInBand } from '../model/kinds'
import type { BandPool } from './recombine'
import { PACK_TOLERANCE } from '../model/types'

/**
 * Big items first: from so many rounds on (`least`), for so many big ones (`most`) of so many kinds (`mostKinds`)
 * beside
 * those that lie alone. What is no wider than one of the `narrow` shares of the strip is small. `tries` for each
 * round of
 * annealing, in one `run`, at `single` bands begun with one kind but `singles` in all; so many tries take as long as a
 * round (`perRound`); one turn takes `turnShare` of the time at most. A table may have so many pairs of selections for
 * each round there is time for, `fewer` times less once one was too large, and take `tableShare` of the time. Where the
 * bound is no further above the area than `above`, only with `leisure` rounds to come. While its own plans stay
 * `behind`
 * the best known it has half the tries of the turn before, down to `leastShare`.
 */
const BIG = {
  least: 20_000,
  most: 20,
  mostKinds: 16,
  narrow: [0.36, 0.3, 0.2],
  tries: 3,
  run: 50_000,
  single: 4000,
  singles: 36_000,
  perRound: 5,
  turnShare: 0.12,
  pairsPerRound: 10,
  fewer: 8,
  tableShare: 0.12,
  above: 1.04,
  leisure: 50_000,
  behind: 1.003,
  leastShare: 1 / 8,
}

/**
 * Warmth at the start, as a share of the length; what a band may lose of what the plan does, of whole plans and of
 * single bands.
 */
const HOT = 0.01
const LOSS = { whole: 0.5, single: 0.7 }

/** Of the strip's job what these turns need. */
type BigJob = Pick<BigAsk, 'kinds' | 'width' | 'cuts' | 'random' | 'spent' | 'price'> & {
  bound: number
  rounds: number
  gone?: (() => number) | undefined
}

/** Turns of laying big items first, beside those of annealing orders: each with another idea of what is small. */
export class BigTurns {
  private readonly tables: BigFirst[] = []
  /** Pairs of selections a table may have for each round. */
  private pairs = BIG.pairsPerRound
  private readonly began: number
  private readonly items: number
  /** Worth of all items: what a plan is longer than that it loses. */
  private readonly sum: number
  /** The bound leaves area free, as where wide items never lie side by side. */
  private readonly spare: boolean

  constructor(
    private readonly job: BigJob,
    private readonly pool: BandPool,
    private readonly code: Float64Array,
  ) {
    const { kinds, width, bound, price } = job
    const all = (of: (k: (typeof kinds)[number], i: number) => number) =>
      kinds.reduce((t, k, i) => t + of(k, i) * k.items.length, 0)
    this.items = all(() => 1)
    this.sum = all((_, i) => price[i])
    this.spare = bound * width > all((k) => k.w * k.l) * BIG.above
    this.began = job.gone?.() ?? 0
  }
  /** Tables there are. */
  get at(): number {
    return this.tables.length
  }

  /**
   * Whole plans, then single bands, in proportion to the rounds `annealed` this turn. `length`: the best plan known,
   * `rounds`: those so far. Answers how many rounds this was worth.
   */
  run(turn: number, length: number, annealed: number, rounds: number, take: (bands: Band[]) => void): number {
    const { job } = this
    if (job.rounds <= BIG.least) return 0
    const all = this.allRounds(rounds)
    const big = this.table(turn, length, all)
    if (!big) return 0
    const before = big.rounds
    const tries = Math.ceil(BIG.tries * annealed * big.share)
    const each = Math.min(tries, BIG.run)
    const gone = () => job.gone?.() ?? 0
    const until = gone() + BIG.turnShare
    const done = () => big.length <= job.bound + PACK_TOLERANCE || job.spent() || gone() > until
    const lost = () => big.length - this.sum
    big.own = Infinity
    big.length = Math.min(big.length, length)
    for (let t = 0; t < tries && !done(); t += each) {
      const bands = big.run(each, HOT * big.length, lost() * LOSS.whole, done)
      if (bands) take(bands)
    }
    big.share = big.own > big.length * BIG.behind ? Math.max(BIG.leastShare, big.share / 2) : 1
    if (big.length > job.bound + PACK_TOLERANCE && !job.spent()) {
      const { price } = this.pool.prices(counts(job.kinds), aloneLengths(job.kinds, job.width), job.spent)
      const single = Math.ceil(
        all < BIG.leisure ? tries / big.bigKinds : Math.min(BIG.single, BIG.singles / big.bigKinds) * big.share,
      )
      big.find(price, single, HOT * big.length, lost() * LOSS.single, done)
    }
    return (big.rounds - before) / BIG.perRound
  }
  /**
   * A new table while there are other ideas of what is small, then those there are in turn; none where there is no
   * time for one.
   */
  private table(turn: number, length: number, all: number): BigFirst | undefined {
    const { kinds, width, cuts, random, spent, price } = this.job
    const { tables } = this
    if (!this.spare && all < BIG.leisure) return undefined
    const narrow = BIG.narrow[turn]
    if (narrow === undefined) return tables[turn % Math.max(1, tables.length)]
    const small = smallKinds(kinds, narrow * width, this.pairs * all)
    const inTable = new Set(small.map((s) => s.kind))
    const annealed = kinds.filter((_, i) => !inTable.has(i) && !aloneInBand(kinds, i, width, inTable))
    const many = annealed.reduce((sum, k) => sum + k.items.length, 0)
    if (annealed.length > BIG.mostKinds) return tables[0]
    if (many < 2 || many > BIG.most || small.length < 2 || tables.some((b) => b.smallKinds === small.length))
      return tables[0]
    const gone = () => this.job.gone?.() ?? 0
    const until = gone() + BIG.tableShare
    const big = new BigFirst({
      kinds,
      width,
      known: length,
      cuts,
      random,
      spent: () => spent() || gone() > until,
      price,
      code: this.code,
      pool: this.pool,
      small,
    })
    if (!big.usable) {
      this.pairs /= BIG.fewer
      return tables[0]
    }
    tables.push(big)
    return big
  }
  /** Rounds of annealing that there is time for, by those there were. */
  private allRounds(rounds: number): number {
    const gone = this.job.gone?.()
    return gone === undefined ? this.job.rounds : rounds / Math.max(1e-6, gone - this.began)
  }
}
