import { aloneLengths, counts, ofWhole, type Band } from '../model/band'
import type { StripItems } from '../model/strip-items'
import { LARGE, type StripJob, type StripPlan } from '../model/strip-job'
import { PACK_TOLERANCE } from '../model/types'
import { Decoder, EITHER } from './decode'
import { leaning, Filling } from './fill'
import { partOf } from '../model/kinds'
import { BandPool } from './recombine'
import { Search } from './search'

/**
 * Bands filled one after another: tries at each to begin with, worths leaning towards area by these shares; the share
 * of time and rounds, and of time for the first of them.
 */
export const FILL = { tries: 400, triesOfMany: 1500, leans: [0.15, 0.3, 0.5], share: 0.2, first: 0.5 }
/** Where kinds come many times over: items of the part that bands are looked for on, and rounds spent on it. */
export const PART_ITEMS = 28
export const PART_ROUNDS = 150000
/** The same job, spent once a share of its time is gone. */
export const until = (job: StripJob, share: number): StripJob => ({
  ...job,
  spent: () => job.spent() || (job.gone?.() ?? 0) > share,
})

export function readBands(decoder: Decoder): Band[] {
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
export function heldBy(bands: readonly Band[], kinds: number): Int32Array {
  const held = new Int32Array(kinds)
  for (const b of bands) for (const k of b.kinds) held[k] = held[k] + 1
  return held
}

export function startLarge(job: StripJob, items: StripItems, decoder: Decoder, take: (bands: Band[]) => void): void {
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
      if (length < least - PACK_TOLERANCE) {
        least = length
        take(readBands(decoder))
      }
      if (job.spent()) return
    }
}

/**
 * Plans of bands filled one after another, with worths that lean more or less towards bare area; answers the rounds
 * spent.
 */
export function filled(job: StripJob, items: StripItems, area: number, take: (bands: Band[]) => void): number {
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

/**
 * Where kinds come many times over: bands found on a part or two of the whole, taken as often as a linear program over
 * them says, and what is left laid by itself.
 */
export function repeatedPart(job: StripJob, large: (job: StripJob) => StripPlan): Band[] | null {
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
  const plan = n > LARGE ? large(sub) : new Search(sub).run()
  return [...bands, ...ofWhole(plan.bands, from)]
}

/** Items in a batch of a large strip, and rounds spent on it. */
export const BATCH = { least: 16, spread: 16, rounds: 1500, roundsOfMany: 2500, many: 250 }
/** Share of the time after which repeated parts are left as they are. */
export const PART_SHARE = 0.55
export const LEAST_ROUNDS = 5000
