import { seeded } from '../../../kit/random'
import { BigTurns } from './big-turns'
import { BeamSearch, LOSSLESS, LOSSY } from '../beam/beam'
import { splitIntoBands, aloneLengths, bandsLength, counts, markOf, worth, type Band } from '../model/band'
import { Decoder, EITHER } from './decode'
import { itemsOf, type StripItems } from '../model/strip-items'
import { commonStep } from '../model/kinds'
import { matched } from '../lossless/match'
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

/** Tries at putting sides together, again and again. */
const MATCHES = 150

const NODES = 100_000
/** Warmth of the annealing at its start, as a share of the length. */
const HOT = 0.01
/** Annealing of orders takes no longer runs than this beside it. */
const BESIDE_BIG = 20_000

/** One strip of up to some dozens of items, searched as a whole. */
export class Search {
  private readonly items: StripItems
  private readonly decoder: Decoder
  readonly pool: BandPool
  private readonly sum: number
  best: Band[] = []
  length = Infinity
  private order: Int32Array
  private way: Uint8Array
  private across: Uint8Array
  private glue: Uint8Array
  private rounds = 0
  /** Every plan was tried: none is shorter. */
  private exhausted = false
  private beamShare = 0
  private longest = 60_000
  /** A random number for each kind: contents of a band are known again by their sum. */
  private readonly code: Float64Array
  private readonly loss: Float64Array
  private readonly mark: Float64Array

  private readonly job: StripJob
  private readonly proof: BoundProof | null

  constructor(asked: StripJob) {
    const job = { ...asked }
    this.job = job
    this.items = itemsOf(job.kinds, job.width)
    this.decoder = new Decoder(this.items, job.cuts)
    const chance = seeded(this.items.n)
    this.code = Float64Array.from(job.kinds, () => Math.floor(chance() * 2 ** 45))
    this.loss = new Float64Array(this.items.n)
    this.mark = new Float64Array(this.items.n)
    this.pool = new BandPool()
    this.sum = job.kinds.reduce((s, k, i) => s + job.price[i] * k.items.length, 0)
    this.order = Int32Array.from({ length: this.items.n }, (_, i) => i)
    this.way = new Uint8Array(this.items.n).fill(EITHER)
    this.across = new Uint8Array(this.items.n)
    this.glue = new Uint8Array(this.items.n)
    const deep = job.cuts > 2 * this.items.n
    this.proof = job.prove && job.rounds >= PROOF_ROUNDS ? new BoundProof({ ...job, deep }) : null
  }
  private get slack(): number {
    return this.length - this.sum - LEAST_STEP
  }
  private done(): boolean {
    return this.length <= this.job.bound + PACK_TOLERANCE || this.rounds >= this.job.rounds || this.job.spent()
  }
  private take(bands: Band[]): void {
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
    this.sorted()
    if (this.done()) return this.plan(false)
    if (job.cuts > 2 * n && !known) {
      const match = matched({
        kinds: job.kinds,
        width: job.width,
        bound: job.bound,
        random: job.random,
        tries: MATCHES,
        spent: job.spent,
      })
      if (match) this.take(match)
      if (this.done()) return this.plan(false)
    }
    if (n <= EXACT_AT_ONCE && this.exact()) return this.plan(true)
    // A part of a larger strip has no bound of its own: its bands are what is wanted of it.
    const beams = job.cuts > 2 * n && !known && job.bound > 0 && job.rounds > BEAM.least ? this.beams() : null
    const big = !known && job.bound > 0 ? new BigTurns(job, this.pool, this.code) : null
    let [annealed, since] = [0, 0]
    const methods: Method[] = [
      {
        name: 'orders',
        share: SHARES.orders,
        applies: () => true,
        step: (turn) => {
          const before = this.rounds
          this.anneal(turn)
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
          if (big && big.at > 0) this.longest = BESIDE_BIG
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
      {
        name: 'match',
        share: SHARES.match,
        applies: () => job.cuts > 2 * n && !known,
        step: () => {
          const match = matched({
            kinds: job.kinds,
            width: job.width,
            bound: job.bound,
            random: job.random,
            tries: MATCHES,
            spent: job.spent,
          })
          if (match) this.take(match)
        },
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

  /** Good orders to begin with. */
  private sorted(): void {
    const { w, l, turn, n } = this.items
    const long = (i: number) => (turn[i] ? Math.max(w[i], l[i]) : l[i])
    const short = (i: number) => (turn[i] ? Math.min(w[i], l[i]) : l[i])
    const keys = [(i: number) => l[i], short, long, (i: number) => w[i] * l[i], (i: number) => w[i]]
    let least = Infinity
    for (const key of keys)
      for (let lie = 0; lie < 3; lie++)
        for (const byArea of [true, false]) {
          const order = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => key(b) - key(a))
          const way = new Uint8Array(n).fill(lie === 2 ? EITHER : lie)
          const across = new Uint8Array(n)
          const length = this.decoder.run(order, way, across, new Uint8Array(n), byArea)
          this.offer()
          if (length < least) {
            least = length
            ;[this.order, this.way, this.across] = [order, way, across]
          }
          if (this.job.spent() && this.best.length > 0) return
        }
  }

  /** The decoder's plan as bands, if it is the best yet; its low-loss bands to the pool. */
  private offer(): void {
    const { decoder } = this
    if (decoder.length < this.length - LEAST_STEP) this.take(this.read(-1))
    // A plan of several bands has few that lose much: the worst half is left out.
    const slack = this.slack * 0.5
    const { n, kind } = this.items
    const { price } = this.job
    const { loss, mark } = this
    for (let b = 0; b < decoder.bands; b++) {
      loss[b] = decoder.bandLength[b]
      mark[b] = 0
    }
    for (let i = 0; i < n; i++) {
      const b = decoder.band[i]
      const k = kind[i]
      loss[b] = loss[b] - price[k]
      mark[b] = mark[b] + this.code[k]
    }
    for (let b = 0; b < decoder.bands; b++)
      if (loss[b] < slack && this.pool.wants(mark[b], decoder.bandLength[b])) {
        const band = this.read(b)[0]
        this.pool.put(mark[b], band, loss[b])
      }
  }
  private read(only: number): Band[] {
    const { decoder, items } = this
    const bands: Band[] = Array.from({ length: decoder.bands }, (_, b) => ({
      length: decoder.bandLength[b],
      kinds: [],
      x: [],
      y: [],
      turned: [],
    }))
    for (let i = 0; i < items.n; i++) {
      const band = bands[decoder.band[i]]
      band.kinds.push(items.kind[i])
      band.x.push(decoder.x[i])
      band.y.push(decoder.y[i])
      band.turned.push(decoder.turned[i] === 1)
    }
    return only < 0 ? bands : [bands[only]]
  }

  /** One run of annealing over order, way of lying and choice of cut, from the last best order or a shaken one. */
  private anneal(turn: number): void {
    const { job, items, decoder } = this
    const { random } = job
    const n = items.n
    const cycle = Math.min(job.rounds - this.rounds, Math.min(this.longest, (300 + 60 * n) * 2 ** Math.floor(turn / 2)))
    const byArea = turn % 2 === 0
    const order = this.order.slice()
    const way = this.way.slice()
    const across = this.across.slice()
    const glue = this.glue.slice()
    // From the best order, a little shaken, or quite another one.
    const swaps = turn % 4 === 1 ? n : turn % 4 === 2 ? Math.ceil(n / 8) : 0
    for (let k = 0; k < swaps; k++) {
      const i = swaps === n ? k : Math.floor(random() * n)
      const j = Math.floor(random() * n)
      ;[order[i], order[j]] = [order[j], order[i]]
    }
    let current = decoder.run(order, way, across, glue, byArea)
    let bestHere = current
    const hot = HOT * current
    for (let r = 0; r < cycle; r++) {
      this.rounds++
      if ((r & 127) === 0 && this.done()) break
      const i = Math.floor(random() * n)
      const j = Math.floor(random() * n)
      const what = random()
      const item = order[i]
      const [hadWay, hadAcross, hadGlue] = [way[item], across[item], glue[item]]
      let moved = 0
      if (what < 0.2 && items.turn[item]) way[item] = (hadWay + 1 + Math.floor(random() * 2)) % 3
      else if (what < 0.3) across[item] = 1 - hadAcross
      else if (what < 0.42) glue[item] = (hadGlue + 1 + Math.floor(random() * 2)) % 3
      else if (what < 0.68) {
        moved = 1
        order[i] = order[j]
        order[j] = item
      } else {
        moved = 2
        shift(order, i, j)
      }
      const length = decoder.run(order, way, across, glue, byArea)
      const heat = hot * (1 - r / cycle) ** 2
      if (length <= current || random() < Math.exp((current - length) / (heat + 1e-9))) {
        if (length < current + hot * 0.5) this.offer()
        current = length
        if (length < bestHere - PACK_TOLERANCE) {
          bestHere = length
          if (length <= this.length + PACK_TOLERANCE)
            [this.order, this.way, this.across, this.glue] = [order.slice(), way.slice(), across.slice(), glue.slice()]
        }
      } else {
        way[item] = hadWay
        across[item] = hadAcross
        glue[item] = hadGlue
        if (moved === 1) {
          order[j] = order[i]
          order[i] = item
        } else if (moved === 2) shift(order, j, i)
      }
    }
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
    const { bands } = this.pool.recombine(need, price, this.length - LEAST_STEP, NODES, () => this.job.spent(), trim)
    if (bands) this.take(bands)
  }
}

/** Moves the entry at i to j. */
function shift(order: Int32Array, i: number, j: number): void {
  const item = order[i]
  if (j > i) order.copyWithin(i, i + 1, j + 1)
  else order.copyWithin(j + 1, j, i)
  order[j] = item
}
