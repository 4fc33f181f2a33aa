import { runPortfolio, type Method, type MethodName } from '../model/method'
import { BeamSearch, LOSSLESS } from '../beam/beam'
import { splitIntoBands, aloneLengths, bandsLength, counts, ofWhole, worth, type Band } from '../model/band'
import { Known } from './known-bands'
import { Decoder, EITHER } from './decode'
import { type StripItems, itemsOf } from '../model/strip-items'
import { Filling, leaning } from './fill'
import { commonStep, partOf } from '../model/kinds'
import { matched } from '../lossless/match'
import { BandPool } from './recombine'
import { rectangles } from '../beam/rectangles'
import { Search } from './search'
import { LEAST_STEP, LARGE, type StripPlan, type StripJob } from '../model/strip-job'
import { PACK_TOLERANCE as EPS } from '../model/types'

/** Where kinds come many times over: items of the part that bands are looked for on, and rounds spent on it. */
const PART_ITEMS = 28
const PART_ROUNDS = 150_000
const LEAST_ROUNDS = 5_000
/** Share of the time after which repeated parts are left as they are. */
const PART_SHARE = 0.55

/** Items in a batch of a large strip, and rounds spent on it. */
const BATCH = { least: 16, spread: 16, rounds: 1_500, roundsOfMany: 2_500, many: 250 }

/** How evenly bands are picked for a batch: what loses least lends its small items to what loses most. */
const EVEN = 1

/**
 * Bands filled one after another: tries at each to begin with, worths leaning towards area by these shares; the share
 * of time and rounds, and of time for the first of them.
 */
const FILL = { tries: 400, triesOfMany: 1_500, leans: [0.15, 0.3, 0.5], share: 0.2, first: 0.5 }

/**
 * Sheets as a whole are tried for so many items at most; how far the bound may stand above the bare area; kinds for
 * each item.
 */
const SHEET = { most: 260, lossless: 1.002, distinct: 0.9 }

/** Sides are put together for so many items at most, in so many tries shared out among them. */
const MATCH = { most: 260, tries: 8_000 }
/** Shares of the time that each method is meant to take. Measured on the bench's fleets; they decide nothing. */
const SHARES = { dive: 0.1, beams: 0.9, batches: 0.6 }
/** Where a sheet is laid whole, one turn in so many is left to batches; fewer bands cannot be taken apart. */
const BEAMS_PAUSE = 8
const BANDS_APART = 3
/** Of a batch as long as before, but otherwise cut, this share is kept, to come loose. */
const KEPT_ANYWAY = 0.5

/** Many items: good orders, then batches of bands solved anew one after another. */
export function batches(job: StripJob): StripPlan {
  return new LargeSearch(job).run()
}

class LargeSearch {
  private readonly items: StripItems
  private readonly area: number
  private best: Band[] = []
  private length = Infinity
  private rounds = 0

  constructor(private readonly job: StripJob) {
    this.items = itemsOf(job.kinds, job.width)
    this.area = job.kinds.reduce((t, k) => t + k.w * k.l * k.items.length, 0)
  }
  private readonly take = (bands: Band[]): void => {
    const next = bandsLength(bands)
    if (next >= this.length - LEAST_STEP) return
    this.best = bands
    this.length = next
    this.job.better?.(bands, this.job.bound)
  }

  run(): StripPlan {
    const { job, items, take } = this
    const without = (name: MethodName) => job.without?.has(name) === true
    startLarge(job, items, new Decoder(items, job.cuts), take)
    if (job.cuts > 2 * items.n && items.n <= MATCH.most && !without('match')) {
      const tries = Math.ceil(MATCH.tries / items.n)
      const match = matched(job.kinds, job.width, job.bound, job.random, tries, job.spent)
      if (match) take(match)
    }
    const beams = this.sheetBeams()
    if (!beams && job.rounds >= LEAST_ROUNDS && !without('fill')) this.rounds += filled(job, items, this.area, take)
    if (!job.spent() && this.length > job.bound + EPS && !without('repeated')) {
      const repeated = repeatedPart(until(job, PART_SHARE))
      if (repeated) take(repeated)
    }
    runPortfolio({
      methods: this.methods(beams),
      without: job.without,
      done: () => this.length <= job.bound + EPS || this.rounds >= job.rounds || job.spent(),
      length: () => this.length,
      gained: job.gained,
    })
    return { bands: this.best, length: this.length, proven: this.length <= job.bound + EPS }
  }

  /** Beams over a whole sheet that loses next to nothing: such plans rarely fall into bands. */
  private sheetBeams(): BeamSearch | null {
    const { job, items, area } = this
    // Where the relaxation was not solved in time, what is no sheet is known by its many copies.
    const distinct = job.relaxed === true || job.kinds.length >= items.n * SHEET.distinct
    const lossless = job.bound <= (area / job.width) * SHEET.lossless
    if (!distinct || job.cuts <= 2 * items.n || items.n > SHEET.most || !lossless) return null
    const step = commonStep(job.kinds.flatMap((k) => [k.w, k.l])) || LEAST_STEP * 10
    return new BeamSearch({ items, random: job.random, step, bound: job.bound, spent: job.spent }, rectangles, LOSSLESS)
  }

  private methods(beams: BeamSearch | null): Method[] {
    const { job, take } = this
    const known = new Known(job, beams === null)
    // One band cannot be taken apart: only as a whole.
    const whole = (turn: number) =>
      beams !== null && (turn % BEAMS_PAUSE !== BEAMS_PAUSE - 1 || this.best.length < BANDS_APART)
    return [
      {
        name: 'dive',
        share: SHARES.dive,
        applies: () => true,
        step: () => {
          const made = known.plan(this.best, job.gone?.() ?? this.rounds / job.rounds)
          if (made) take(made)
        },
      },
      {
        name: 'beams',
        share: SHARES.beams,
        applies: whole,
        step: () => {
          const next = beams?.run(this.length)
          if (next?.band) take(splitIntoBands(next.band, job.kinds))
          this.rounds += next?.rounds ?? 0
        },
      },
      { name: 'batches', share: SHARES.batches, applies: (turn) => !whole(turn), step: () => this.batch(known) },
    ]
  }

  /** Some bands of the best plan, those that lose most among them, solved anew as a strip of their own. */
  private batch(known: Known): void {
    const { job, items } = this
    const depth = Math.min(items.n > BATCH.many ? BATCH.roundsOfMany : BATCH.rounds, job.rounds - this.rounds)
    this.rounds += depth
    const { picked, size } = this.pick()
    if (picked.length < 2 && size > LARGE) return
    const old = picked.map((i) => this.best[i])
    const cap = bandsLength(old)
    const sub = partOf(job.kinds, heldBy(old, job.kinds.length))
    const bound = sub.kinds.reduce((t, k, i) => t + job.price[sub.from[i]] * k.items.length, 0)
    if (bound >= cap - LEAST_STEP) return
    const search = new Search({
      ...job,
      kinds: sub.kinds,
      price: Float64Array.from(sub.from, (k) => known.price[k]),
      bound,
      rounds: depth,
      better: undefined,
      gained: undefined,
    })
    const result = search.run(old.map((b) => ({ ...b, kinds: b.kinds.map((k) => sub.from.indexOf(k)) })))
    known.add(search.pool, sub.from)
    const anew = () => [...this.best.filter((_, i) => !picked.includes(i)), ...ofWhole(result.bands, sub.from)]
    if (result.length < cap - LEAST_STEP) this.take(anew())
    else if (result.length <= cap + EPS && job.random() < KEPT_ANYWAY) this.best = anew()
  }

  /** Bands by chance, those that lose much rather than others, until they hold as many items as a batch takes. */
  private pick(): { picked: number[]; size: number } {
    const { job, items, best } = this
    const each = items.n / Math.max(1, best.length)
    const target = Math.min(
      LARGE,
      Math.max(BATCH.least + Math.floor(job.random() * BATCH.spread), Math.ceil(each * (2 + 1.5 * job.random()))),
    )
    const even = (EVEN * (this.length - job.bound)) / best.length + 1
    const losses = best.map((b, i) => ({
      i,
      key: Math.log(job.random()) / (b.length - worth(b.kinds, job.price) + even),
    }))
    losses.sort((a, b) => b.key - a.key)
    const picked: number[] = []
    let size = 0
    for (const { i } of losses) {
      const more = best[i].kinds.length
      if (picked.length > 0 && size + more > target) continue
      picked.push(i)
      size += more
      if (size >= target - 1) break
    }
    return { picked, size }
  }
}

/**
 * Plans of bands filled one after another, with worths that lean more or less towards bare area; answers the rounds
 * spent.
 */
function filled(job: StripJob, items: StripItems, area: number, take: (bands: Band[]) => void): number {
  const all = [...items.kind.keys()]
  let rounds = 0
  for (let turn = 0; rounds < job.rounds * FILL.share; turn++) {
    const lean = FILL.leans[turn % FILL.leans.length]
    const value = leaning(job.kinds, job.price, job.bound / area, lean)
    const { spent } = until(job, turn === 0 ? FILL.first : FILL.share)
    const filling = new Filling(items, job.cuts, value, job.random, spent)
    const tries = (items.n > BATCH.many ? FILL.triesOfMany : FILL.tries) * 2 ** Math.floor(turn / FILL.leans.length)
    const bands = filling.run(all, Math.ceil(Math.min(tries, (job.rounds * FILL.share) / items.n)))
    rounds += filling.rounds
    if (!bands) break
    take(bands)
  }
  return rounds
}

/** The same job, spent once a share of its time is gone. */
const until = (job: StripJob, share: number): StripJob => ({
  ...job,
  spent: () => job.spent() || (job.gone?.() ?? 0) > share,
})

function startLarge(job: StripJob, items: StripItems, decoder: Decoder, take: (bands: Band[]) => void): void {
  const { w, l, turn, n } = items
  const keys = [
    (i: number) => l[i],
    (i: number) => (turn[i] ? Math.max(w[i], l[i]) : l[i]),
    (i: number) => w[i] * l[i],
    (i: number) => w[i],
  ]
  let least = Infinity
  for (const key of keys)
    for (const lie of n > BATCH.many ? [EITHER] : [0, 1, EITHER]) {
      const order = Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => key(b) - key(a))
      const length = decoder.run(order, new Uint8Array(n).fill(lie), new Uint8Array(n), new Uint8Array(n), true)
      if (length < least - EPS) {
        least = length
        take(readBands(decoder))
      }
      if (job.spent()) return
    }
}

function readBands(decoder: Decoder): Band[] {
  const bands: Band[] = Array.from({ length: decoder.bands }, (_, b) => ({
    length: decoder.bandLength[b],
    kinds: [],
    x: [],
    y: [],
    turned: [],
  }))
  for (let i = 0; i < decoder.items.n; i++) {
    const band = bands[decoder.band[i]]
    band.kinds.push(decoder.items.kind[i])
    band.x.push(decoder.x[i])
    band.y.push(decoder.y[i])
    band.turned.push(decoder.turned[i] === 1)
  }
  return bands
}

/** How many of each of so many kinds these bands hold. */
function heldBy(bands: readonly Band[], kinds: number): Int32Array {
  const held = new Int32Array(kinds)
  for (const b of bands) for (const k of b.kinds) held[k] = held[k] + 1
  return held
}

/**
 * Where kinds come many times over: bands found on a part or two of the whole, taken as often as a linear program over
 * them says, and what is left laid by itself.
 */
function repeatedPart(job: StripJob): Band[] | null {
  const copies = job.kinds.reduce((s, k) => s + k.items.length, 0)
  const times = Math.floor(copies / PART_ITEMS)
  if (times < 2 || job.rounds < LEAST_ROUNDS || job.kinds.length > PART_ITEMS * 2) return null
  const pool = new BandPool()
  for (const share of [times, times / 2, times / 1.5]) {
    const kinds = job.kinds.map((k) => ({
      ...k,
      items: k.items.slice(0, Math.max(1, Math.round(k.items.length / share))),
    }))
    if (kinds.reduce((s, k) => s + k.items.length, 0) > LARGE) continue
    const mine = until(job, (job.gone?.() ?? 0) + PART_SHARE / 8)
    const part = new Search({ ...mine, kinds, bound: 0, rounds: Math.min(job.rounds, PART_ROUNDS), better: undefined })
    part.run()
    pool.takeIn(part.pool)
    if (job.spent()) break
  }
  const need = counts(job.kinds)
  const alone = aloneLengths(job.kinds, job.width)
  const bands: Band[] = []
  const left = need.slice()
  for (const { band, times: n } of pool.prices(need, alone, job.spent).taken) {
    // What is covered more than once too often is left to the rest.
    let whole = Math.floor(n + 1e-6)
    const held = new Map<number, number>()
    for (const k of band.kinds) held.set(k, (held.get(k) ?? 0) + 1)
    for (const [k, m] of held) whole = Math.min(whole, Math.floor(left[k] / m))
    for (let i = 0; i < whole; i++) bands.push(band)
    for (const [k, m] of held) left[k] = left[k] - m * whole
  }
  const { kinds: rest, from } = partOf(job.kinds, left)
  if (from.length === 0) return bands
  const n = rest.reduce((s, k) => s + k.items.length, 0)
  if (n > copies / 2) return null
  const sub = {
    ...job,
    kinds: rest,
    price: Float64Array.from(from, (k) => job.price[k]),
    bound: 0,
    rounds: Math.min(job.rounds, PART_ROUNDS),
    better: undefined,
  }
  const plan = n > LARGE ? batches(sub) : new Search(sub).run()
  return [...bands, ...ofWhole(plan.bands, from)]
}
