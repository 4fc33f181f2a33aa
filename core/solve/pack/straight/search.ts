import { seeded } from '../../../kit/random'
import { BigTurns } from './big-turns'
import { BeamSearch, LOSSLESS, LOSSY } from '../beam/beam'
import { splitIntoBands, aloneLengths, bandsLength, counts, markOf, worth, type Band } from '../model/band'
import { Orders } from './orders'
import { itemsOf, type StripItems } from '../model/strip-items'
import { commonStep } from '../model/kinds'
import { matchFirst } from './match-first'
import { BoundProof, PROOF_ROUNDS } from '../bound/proof'
import { rectangles } from '../beam/rectangles'
import { BandPool } from './recombine'
import { subsets } from './subset'
import { PACK_TOLERANCE } from '../model/types'
import { runPortfolio, type Method } from '../model/method'
import { LEAST_STEP, StripJob, StripPlan } from '../model/strip-job'

/** Shares of the time that each method is meant to take. Measured on the bench's cars; they decide nothing. */
const SHARES = { orders: 0.3, proof: 0.4, bigFirst: 0.12, exact: 0.05, batches: 0.05, recombine: 0.05, match: 0.03 }
/** Turn of the search at which few items are tried to the end. */
const EXACT_TURN = 2
/** From so many rounds on so many batches a turn. */
const MANY_BATCHES = { rounds: 50_000, each: 6 }
const EXACT_ITEMS = 14
const EXACT_AT_ONCE = 8
const BATCH_ITEMS = 8
/**
 * Beams take part from so many rounds on, with rounds in this share of those of annealing; without prices where
 * nearly nothing need be lost.
 */
const BEAM = { least: 50_000, share: 0.1, ofLossless: 6, lossless: 1.002 }

/** Tries at putting sides together. */
const MATCHES = 150

const NODES = 100_000
/** Annealing of orders takes no longer runs than this beside it. */
const BESIDE_BIG = 20_000

/** One strip of up to some dozens of items, searched as a whole. */
export class Search {
  private readonly items: StripItems
  readonly pool: BandPool
  private readonly sum: number
  best: Band[] = []
  length = Infinity
  rounds = 0
  /** Every plan was tried: none is shorter. */
  private exhausted = false
  private beamShare = 0
  /** A random number for each kind: contents of a band are known again by their sum. */
  readonly code: Float64Array

  readonly job: StripJob
  private readonly proof: BoundProof | null
  private readonly orders: Orders

  constructor(asked: StripJob) {
    const job = { ...asked }
    this.job = job
    this.items = itemsOf(job.kinds, job.width)
    const chance = seeded(this.items.n)
    this.code = Float64Array.from(job.kinds, () => Math.floor(chance() * 2 ** 45))
    this.pool = new BandPool()
    this.sum = job.kinds.reduce((s, k, i) => s + job.price[i] * k.items.length, 0)
    this.orders = new Orders(this, this.items)
    const deep = job.cuts > 2 * this.items.n
    this.proof = job.prove && job.rounds >= PROOF_ROUNDS ? new BoundProof({ ...job, deep }) : null
  }
  get slack(): number {
    return this.length - this.sum - LEAST_STEP
  }
  done(): boolean {
    return this.length <= this.job.bound + PACK_TOLERANCE || this.rounds >= this.job.rounds || this.job.spent()
  }
  take(bands: Band[]): void {
    const length = bandsLength(bands)
    if (length >= this.length - LEAST_STEP / 2) return
    this.best = bands
    this.length = length
    this.job.better?.(bands, this.job.bound)
  }

  /** `known`: a plan to begin with. */
  run(known?: Band[]): StripPlan {
    const { job } = this
    const n = this.items.n
    if (known) this.take(known)
    this.orders.sorted()
    if (this.done()) return this.plan(false)
    if (n <= EXACT_AT_ONCE && this.exact()) return this.plan(true)
    // A part of a larger strip has no bound of its own: its bands are what is wanted of it.
    const beams = job.cuts > 2 * n && !known && job.bound > 0 && job.rounds > BEAM.least ? this.beams() : null
    const big = !known && job.bound > 0 ? new BigTurns(job, this.pool, this.code) : null
    let [annealed, since] = [0, 0]
    const methods: Method[] = [
      matchFirst(job, {
        share: SHARES.match,
        wanted: job.cuts > 2 * n && !known,
        tries: MATCHES,
        take: (bands) => this.take(bands),
      }),
      {
        name: 'orders',
        share: SHARES.orders,
        applies: () => true,
        step: (turn) => {
          const before = this.rounds
          this.orders.anneal(turn)
          annealed = this.rounds - before
        },
      },
      {
        name: 'proof',
        share: SHARES.proof,
        applies: () => this.proof !== null && this.rounds > since,
        step: () => {
          this.prove(this.rounds - since)
          since = this.rounds
        },
      },
      {
        name: 'big_first',
        share: SHARES.bigFirst,
        applies: () => big !== null,
        step: (turn) => {
          this.rounds += big?.run(turn, this.length, annealed, this.rounds, (bands) => this.take(bands)) ?? 0
          if (big && big.at > 0) this.orders.longest = BESIDE_BIG
        },
      },
      {
        name: 'beams',
        share: this.beamShare,
        applies: () => beams !== null,
        step: () => beams && this.through(beams, annealed * this.beamShare),
      },
      {
        name: 'exact',
        share: SHARES.exact,
        // Against a good plan most of what could be put together is soon out of question.
        applies: (turn) => n <= EXACT_ITEMS && turn === EXACT_TURN,
        step: () => {
          this.exhausted = this.exact()
        },
      },
      {
        name: 'batches',
        share: SHARES.batches,
        applies: (turn) => job.rounds > MANY_BATCHES.rounds || turn % 3 === 2,
        step: () => {
          const batches = job.rounds > MANY_BATCHES.rounds ? MANY_BATCHES.each : 1
          for (let i = 0; i < batches && !this.done(); i++) this.batch()
        },
      },
      {
        name: 'recombine',
        share: SHARES.recombine,
        applies: () => true,
        step: (turn) => this.recombine(big !== null && big.at > 0 && turn % 2 === 0),
      },
    ]
    runPortfolio({
      methods,
      without: job.without,
      done: () => this.exhausted || this.done(),
      length: () => this.length,
      gained: job.gained,
    })
    return this.plan(this.exhausted)
  }
  /** The bound is raised beside the search, after so many rounds of it. */
  private prove(rounds: number): void {
    if (!this.proof || rounds <= 0) return
    const got = this.proof.run(rounds, this.length)
    this.rounds += got.rounds
    this.job.bound = Math.max(this.job.bound, this.proof.bound)
    if (got.bands) this.take(got.bands)
  }
  private beams(): BeamSearch {
    const { kinds, width, price, bound, random, spent } = this.job
    const area = kinds.reduce((t, k) => t + k.w * k.l * k.items.length, 0)
    const step = commonStep(kinds.flatMap((k) => [k.w, k.l])) || LEAST_STEP
    const lossless = bound <= (area / width) * BEAM.lossless
    this.beamShare = lossless ? BEAM.ofLossless : BEAM.share
    const job = { items: this.items, random, step, bound, spent, ...(lossless ? {} : { price }) }
    return new BeamSearch(job, rectangles, lossless ? LOSSLESS : LOSSY)
  }
  private through(beams: BeamSearch, rounds: number): void {
    const until = this.rounds + rounds
    while (this.rounds < until && !this.done()) {
      const next = beams.run(this.length)
      if (next.band) this.take(splitIntoBands(next.band, this.job.kinds))
      this.rounds += next.rounds
    }
  }
  /** All plans of few items; false where time ran out first. */
  private exact(): boolean {
    const { kinds, width, cuts, spent } = this.job
    const exact = subsets({ kinds, members: [...this.items.kind], width, cap: this.length, cuts, spent })
    if (exact.best) this.take(exact.best)
    return exact.whole
  }
  private plan(proven: boolean): StripPlan {
    const { bound } = this.job
    return { bands: this.best, length: this.length, proven: proven || this.length <= bound + PACK_TOLERANCE, bound }
  }

  /** A few bands of the best plan cut anew, exactly. */
  private batch(): void {
    const { job } = this
    const { random } = job
    const order = this.best.map((_, i) => i).sort(() => random() - 0.5)
    const picked: number[] = []
    let size = 0
    for (const b of order) {
      const more = this.best[b].kinds.length
      if (size + more > BATCH_ITEMS) continue
      picked.push(b)
      size += more
    }
    if (picked.length < 2) return
    const old = picked.map((b) => this.best[b])
    const members = old.flatMap((b) => b.kinds).sort((a, b) => a - b)
    const cap = bandsLength(old)
    const result = subsets({
      kinds: job.kinds,
      members,
      width: job.width,
      cap: cap + LEAST_STEP * 2,
      cuts: job.cuts,
      spent: () => job.spent(),
    })
    const slack = this.slack
    result.each((kinds, length, make) => {
      const loss = length - worth(kinds, job.price)
      if (loss >= slack) return
      const mark = markOf(kinds, this.code)
      if (this.pool.wants(mark, length)) this.pool.put(mark, make(), loss)
    })
    if (result.best) {
      const rest = this.best.filter((_, i) => !picked.includes(i))
      const length = bandsLength(result.best)
      if (length < cap - LEAST_STEP) this.take([...rest, ...result.best])
    }
  }

  /**
   * Prices from the bands known, and the best plan of all these bands: an exact search on what each loses against them.
   */
  private recombine(trim: boolean): void {
    const need = counts(this.job.kinds)
    this.pool.prune(this.slack)
    const { price } = this.pool.prices(need, aloneLengths(this.job.kinds, this.job.width), () => this.job.spent())
    if (this.done()) return
    const { bands } = this.pool.recombine({
      need,
      price,
      length: this.length - LEAST_STEP,
      nodes: NODES,
      spent: () => this.job.spent(),
      trim,
    })
    if (bands) this.take(bands)
  }
}
