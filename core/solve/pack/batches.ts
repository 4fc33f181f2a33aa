import { bandsLength, counts, worth, type Band } from './band'
import { Decoder, EITHER, type StripItems } from './decode'
import type { Kind } from './kinds'
import { matched } from './match'
import { BandPool } from './recombine'
import { itemsOf, LARGE, LEAST_STEP, Search, type StripJob, type StripPlan } from './search'
import { PACK_TOLERANCE as EPS } from './types'

/** Where kinds come many times over: items of the part that bands are looked for on, and rounds spent on it. */
const PART_ITEMS = 28
const PART_ROUNDS = 150_000
const LEAST_ROUNDS = 5_000

/** Items in a batch of a large strip, and rounds spent on it. */
const BATCH = { least: 16, spread: 16, rounds: 12_000, roundsOfMany: 2_500, many: 600 }

/** Many items: good orders, then batches of bands solved anew one after another. */
export function batches(job: StripJob): StripPlan {
  const items = itemsOf(job.kinds, job.width)
  const decoder = new Decoder(items, job.cuts)
  let best: Band[] = []
  let length = Infinity
  const take = (bands: Band[]) => {
    const next = bandsLength(bands)
    if (next >= length - LEAST_STEP) return
    best = bands
    length = next
    job.better?.(bands)
  }
  const repeated = repeatedPart(job)
  if (repeated) take(repeated)
  startLarge(job, items, decoder, take)
  let rounds = 0
  const price = job.price
  if (job.cuts > 2 * items.n && items.n <= 260) {
    const match = matched(job.kinds, job.width, job.bound, job.random, Math.ceil(40_000 / items.n), job.spent)
    if (match) take(match)
  }
  while (length > job.bound + EPS && rounds < job.rounds && !job.spent()) {
    const depth = Math.min(items.n > BATCH.many ? BATCH.roundsOfMany : BATCH.rounds, job.rounds - rounds)
    rounds += depth
    const each = items.n / Math.max(1, best.length)
    const target = Math.min(
      LARGE,
      Math.max(BATCH.least + Math.floor(job.random() * BATCH.spread), Math.ceil(each * (2 + 1.5 * job.random()))),
    )
    const even = (0.3 * (length - job.bound)) / best.length + 1
    const losses = best.map((b, i) => ({ i, key: Math.log(job.random()) / (b.length - worth(b.kinds, price) + even) }))
    losses.sort((a, b) => b.key - a.key)
    const picked: number[] = []
    let size = 0
    for (const { i } of losses) {
      const more = (best[i] as Band).kinds.length
      if (picked.length > 0 && size + more > target) continue
      picked.push(i)
      size += more
      if (size >= target - 1) break
    }
    if (picked.length < 2 && size > LARGE) continue
    const old = picked.map((i) => best[i] as Band)
    const cap = bandsLength(old)
    const sub = partOf(job.kinds, old)
    const bound = sub.kinds.reduce((t, k, i) => t + (price[sub.from[i] as number] as number) * k.items.length, 0)
    if (bound >= cap - LEAST_STEP) continue
    const result = new Search({
      ...job,
      kinds: sub.kinds,
      price: Float64Array.from(sub.from, (k) => price[k] as number),
      bound,
      rounds: depth,
      better: undefined,
    }).run(old.map((b) => ({ ...b, kinds: b.kinds.map((k) => sub.from.indexOf(k)) })))
    if (result.length < cap - LEAST_STEP) {
      const anew = result.bands.map((b) => ({ ...b, kinds: b.kinds.map((k) => sub.from[k] as number) }))
      take([...best.filter((_, i) => !picked.includes(i)), ...anew])
    } else {
      // As long as before, but otherwise cut: kept now and then, to come loose.
      if (result.length <= cap + EPS && job.random() < 0.5) {
        const anew = result.bands.map((b) => ({ ...b, kinds: b.kinds.map((k) => sub.from[k] as number) }))
        best = [...best.filter((_, i) => !picked.includes(i)), ...anew]
      }
    }
  }
  return { bands: best, length, proven: length <= job.bound + EPS }
}

function startLarge(job: StripJob, items: StripItems, decoder: Decoder, take: (bands: Band[]) => void): void {
  const { w, l, turn, n } = items
  const keys = [
    (i: number) => l[i] as number,
    (i: number) => (turn[i] ? Math.max(w[i] as number, l[i] as number) : (l[i] as number)),
    (i: number) => (w[i] as number) * (l[i] as number),
    (i: number) => w[i] as number,
  ]
  let least = Infinity
  for (const key of keys)
    for (const lie of [0, 1, EITHER]) {
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
    length: decoder.bandLength[b] as number, kinds: [], x: [], y: [], turned: [],
  })) // prettier-ignore
  for (let i = 0; i < decoder.items.n; i++) {
    const band = bands[decoder.band[i] as number] as Band
    band.kinds.push(decoder.items.kind[i] as number)
    band.x.push(decoder.x[i] as number)
    band.y.push(decoder.y[i] as number)
    band.turned.push(decoder.turned[i] === 1)
  }
  return bands
}

/** The items of some bands as kinds of their own; `from` names the whole's kind of each. */
function partOf(kinds: readonly Kind[], bands: readonly Band[]): { kinds: Kind[]; from: number[] } {
  const taken = new Map<number, number>()
  for (const b of bands) for (const k of b.kinds) taken.set(k, (taken.get(k) ?? 0) + 1)
  const from = [...taken.keys()].sort((a, b) => a - b)
  return {
    from,
    kinds: from.map((k) => {
      const kind = kinds[k] as Kind
      return { ...kind, items: kind.items.slice(0, taken.get(k)) }
    }),
  }
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
    const part = new Search({ ...job, kinds, bound: 0, rounds: Math.min(job.rounds, PART_ROUNDS), better: undefined })
    part.run()
    pool.takeIn(part.pool)
    if (job.spent()) break
  }
  const need = counts(job.kinds)
  const alone = Float64Array.from(job.kinds, (k) => (k.turn && k.l <= job.width + EPS ? Math.min(k.w, k.l) : k.l))
  const bands: Band[] = []
  const left = need.slice()
  for (const { band, times: n } of pool.prices(need, alone, job.spent).taken) {
    // What is covered more than once too often is left to the rest.
    let whole = Math.floor(n + 1e-6)
    const held = new Map<number, number>()
    for (const k of band.kinds) held.set(k, (held.get(k) ?? 0) + 1)
    for (const [k, m] of held) whole = Math.min(whole, Math.floor((left[k] as number) / m))
    for (let i = 0; i < whole; i++) bands.push(band)
    for (const [k, m] of held) left[k] = (left[k] as number) - m * whole
  }
  const from = [...left.keys()].filter((k) => (left[k] as number) > 0)
  if (from.length === 0) return bands
  const rest = from.map((k) => ({ ...(job.kinds[k] as Kind), items: (job.kinds[k] as Kind).items.slice(0, left[k]) }))
  const n = rest.reduce((s, k) => s + k.items.length, 0)
  if (n > copies / 2) return null
  const sub = { ...job, kinds: rest, price: Float64Array.from(from, (k) => job.price[k] as number), bound: 0, rounds: Math.min(job.rounds, PART_ROUNDS), better: undefined } // prettier-ignore
  const plan = n > LARGE ? batches(sub) : new Search(sub).run()
  return [...bands, ...plan.bands.map((b) => ({ ...b, kinds: b.kinds.map((k) => from[k] as number) }))]
}
