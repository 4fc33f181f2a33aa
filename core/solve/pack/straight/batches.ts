import { runPortfolio, type Method } from '../model/method'
import { BeamSearch, LOSSLESS } from '../beam/beam'
import { splitIntoBands, bandsLength, ofWhole, worth, type Band } from '../model/band'
import { KnownBands } from './known-bands'
import { Decoder } from './decode'
import { type StripItems, itemsOf } from '../model/strip-items'
import { commonStep, partOf } from '../model/kinds'
import { matchFirst } from './match-first'
import { rectangles } from '../beam/rectangles'
import { Search } from './search'
import { LEAST_STEP, LARGE, type StripPlan, type StripJob } from '../model/strip-job'
import { PACK_TOLERANCE } from '../model/types'
import { BATCH, heldBy, startLarge } from './large-start'

/** How evenly bands are picked for a batch: what loses least lends its small items to what loses most. */
const EVEN = 1

/**
 * Sheets as a whole are tried for so many items at most; how far the bound may stand above the bare area; kinds for
 * each item.
 */
const SHEET = { most: 260, lossless: 1.002, distinct: 0.9 }

/** Sides are put together for so many items at most, in so many tries shared out among them. */
const MATCH = { most: 260, tries: 8_000 }
/** Shares of the time that each method is meant to take. Measured on the bench's fleets; they decide nothing. */
const SHARES = { match: 0.05, dive: 0.1, beams: 0.9, batches: 0.6 }
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
    startLarge(job, items, new Decoder(items, job.cuts), take)
    const beams = this.sheetBeams()
    runPortfolio({
      methods: this.methods(beams),
      without: job.without,
      done: () => this.length <= job.bound + PACK_TOLERANCE || this.rounds >= job.rounds || job.spent(),
      length: () => this.length,
      gained: job.gained,
    })
    return { bands: this.best, length: this.length, proven: this.length <= job.bound + PACK_TOLERANCE }
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
    const { job, items, take } = this
    const known = new KnownBands(job, beams === null)
    // One band cannot be taken apart: only as a whole.
    const whole = (turn: number) =>
      beams !== null && (turn % BEAMS_PAUSE !== BEAMS_PAUSE - 1 || this.best.length < BANDS_APART)
    return [
      matchFirst(job, {
        share: SHARES.match,
        wanted: job.cuts > 2 * items.n && items.n <= MATCH.most,
        tries: Math.ceil(MATCH.tries / items.n),
        take,
      }),
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
  private batch(known: KnownBands): void {
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
    else if (result.length <= cap + PACK_TOLERANCE && job.random() < KEPT_ANYWAY) this.best = anew()
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
