import { bandsLength, type Band, apart } from '../model/band'
import { EITHER, TURNED, AS_COMES } from '../straight/decode'
import { type StripItems, itemsOf } from '../model/strip-items'
import { guillotine } from '../straight/guillotine'
import { type StripJob, type StripPlan, LEAST_STEP } from '../model/strip-job'
import { commonStep } from '../model/kinds'
import { BeamSearch, LOSSLESS, LOSSY } from '../beam/beam'
import { niches } from '../beam/niches'
import { matched } from '../lossless/match'
import { perfect } from '../lossless/perfect'
import { PACK_TOLERANCE as EPS } from '../model/types'

/**
 * Any placement without overlap. First what straight cuts can do; a search for plans that lose nothing where the bound
 * is the bare area; then annealed orders laid on a skyline, each item at its lowest place with the least left under it.
 */
export function free(job: StripJob): StripPlan {
  const items = itemsOf(job.kinds, job.width)
  if (items.n === 0) return { bands: [], length: 0, proven: true }
  let best: Band[] = []
  let length = Infinity
  const take = (bands: Band[]) => {
    const next = bandsLength(bands)
    if (next >= length - 1e-7) return
    best = bands
    length = next
    job.better?.(bands, job.bound)
  }
  const sky = new Skyline(items)
  starts(items, sky, take, job)
  const finished = () => length <= job.bound + EPS || job.spent()
  const sheetArea = job.kinds.reduce((s, k) => s + k.w * k.l * k.items.length, 0)
  const noWaste = Math.abs(sheetArea / job.width - job.bound) <= 1e-6 * Math.max(1, job.bound)
  if (noWaste && job.rounds > 0 && !finished()) {
    const found = lossless(job, items, 0)
    if (found) take(found)
  }
  const step = commonStep(job.kinds.flatMap((k) => [k.w, k.l])) || LEAST_STEP
  const beamJob = {
    items,
    random: job.random,
    step,
    bound: job.bound,
    spent: job.spent,
    ...(noWaste ? {} : { price: job.price }),
  }
  const beams = new BeamSearch(beamJob, niches, noWaste ? LOSSLESS : LOSSY)
  const most = noWaste ? LOSSLESS_SHARE : items.n > 40 ? 90_000 : 40_000
  let rounds = Math.min(Math.ceil(job.rounds / 2), most)
  if (!finished()) take(guillotine({ ...job, cuts: noWaste ? STAGES : Infinity, rounds, better: take }).bands)
  for (let turn = 0; rounds < job.rounds && !finished(); turn++) {
    if (noWaste) {
      const found = lossless(job, items, turn)
      if (found) take(found)
      if (finished()) break
    }
    if (noWaste || turn % 2 === 0) {
      const until = rounds + BEAM_ROUNDS
      while (rounds < until && !finished()) {
        const next = beams.run(length)
        if (next.band) take(apart(next.band, job.kinds))
        rounds += next.rounds
      }
    } else rounds += anneal(job, items, sky, take, () => length, turn)
  }
  return { bands: best, length, proven: length <= job.bound + EPS }
}

/** Rounds of straight cuts where nothing need be lost; and those of a turn of beams. */
const LOSSLESS_SHARE = 8_000
const BEAM_ROUNDS = 20_000
/** As good as any number of stages, but sides are not put together again, which is done here. */
const STAGES = 64
/** Tries at putting sides together each time, of few items and of many. */
const MATCHES = { few: 60, many: 12, upTo: 70 }

/** Plans that lose nothing: sides that match go together, and what is left is searched to the end. */
function lossless(job: StripJob, items: StripItems, turn: number): Band[] | null {
  const nodes = 2_000 * (1 + turn)
  if (items.n <= 40 && turn % 2 === 0) {
    const rects = Array.from({ length: items.n }, (_, i) => ({
      w: items.w[i],
      l: items.l[i],
      turn: items.turn[i] === 1,
    }))
    const places = perfect(rects, job.width, job.bound, nodes * 40, job.spent)
    if (places)
      return [
        {
          length: job.bound,
          kinds: [...items.kind],
          x: places.map((p) => p.x),
          y: places.map((p) => p.y),
          turned: places.map((p) => p.turned),
        },
      ]
  }
  return matched(
    job.kinds,
    job.width,
    job.bound,
    job.random,
    items.n > MATCHES.upTo ? MATCHES.many : MATCHES.few,
    job.spent,
    (blocks) => {
      if (blocks.length > 40) return null
      const area = blocks.reduce((s, b) => s + b.w * b.l, 0)
      return perfect(blocks, job.width, area / job.width, nodes, job.spent)
    },
  )
}

/** Items laid between two looks at the clock. */
const ASK_EVERY = 256

/** Lays items one by one on the outline of what lies already. */
class Skyline {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly turned: Uint8Array
  length = 0
  private sx: Float64Array
  private sy: Float64Array
  private sw: Float64Array
  private count = 0
  constructor(readonly items: StripItems) {
    this.x = new Float64Array(items.n)
    this.y = new Float64Array(items.n)
    this.turned = new Uint8Array(items.n)
    this.sx = new Float64Array(items.n + 4)
    this.sy = new Float64Array(items.n + 4)
    this.sw = new Float64Array(items.n + 4)
  }
  /**
   * `weight`: how much the area lost under an item counts against its height. `stop` is asked now and then; once it
   * says
   * so the run ends without a plan, Infinity long.
   */
  run(order: Int32Array, way: Uint8Array, weight: number, stop?: () => boolean): number {
    const { items, sx, sy, sw } = this
    const { width } = items
    this.count = 1
    sx[0] = 0
    sy[0] = 0
    sw[0] = width
    this.length = 0
    for (let o = 0; o < items.n; o++) {
      if (o % ASK_EVERY === ASK_EVERY - 1 && stop?.()) return Infinity
      const i = order[o]
      const asked = items.turn[i] ? way[i] : AS_COMES
      let best = Infinity
      let at = -1
      let atY = 0
      let lies = 0
      for (let t = 0; t < 2; t++) {
        if (asked !== EITHER && t !== asked) continue
        const w = t ? items.l[i] : items.w[i]
        const h = t ? items.w[i] : items.l[i]
        for (let s = 0; s < this.count; s++) {
          if (sx[s] + w > width + EPS) break
          let y = 0
          let left = w
          let e = s
          let under = 0
          for (; left > EPS && e < this.count; e++) {
            const sey = sy[e]
            const take = Math.min(left, sw[e])
            if (sey > y) {
              under += (w - left) * (sey - y)
              y = sey
            }
            under += take * (y - sey)
            left -= sw[e]
          }
          const score = y + h + (weight * under) / width + (y + h) * 1e-7 * s
          if (score < best - 1e-9) {
            best = score
            at = s
            atY = y
            lies = t
          }
        }
      }
      if (at < 0) {
        // It fits one way only.
        way[i] = asked === TURNED ? AS_COMES : TURNED
        o--
        continue
      }
      const w = lies ? items.l[i] : items.w[i]
      const h = lies ? items.w[i] : items.l[i]
      const x = sx[at]
      this.x[i] = x
      this.y[i] = atY
      this.turned[i] = lies
      this.lift(at, x, w, atY + h)
      if (atY + h > this.length) this.length = atY + h
    }
    return this.length
  }
  private lift(at: number, x: number, w: number, top: number): void {
    const { sx, sy, sw } = this
    let end = at
    let left = w
    while (end < this.count && left > EPS) {
      left -= sw[end]
      end++
    }
    // Segments at..end−1 are covered; the last of them may stick out by −left.
    const out = left < -EPS ? -left : 0
    const outY = sy[end - 1]
    const outX = sx[end - 1] + sw[end - 1] - out
    const grow = 1 + (out > 0 ? 1 : 0) - (end - at)
    if (grow !== 0) {
      sx.copyWithin(end + grow, end, this.count)
      sy.copyWithin(end + grow, end, this.count)
      sw.copyWithin(end + grow, end, this.count)
      this.count += grow
    }
    sx[at] = x
    sy[at] = top
    sw[at] = w
    if (out > 0) {
      sx[at + 1] = outX
      sy[at + 1] = outY
      sw[at + 1] = out
    }
    if (at > 0 && Math.abs(sy[at - 1] - top) < EPS) {
      sw[at - 1] = sw[at - 1] + w
      this.drop(at)
      at--
    }
    if (at + 1 < this.count && Math.abs(sy[at + 1] - sy[at]) < EPS) {
      sw[at] = sw[at] + sw[at + 1]
      this.drop(at + 1)
    }
  }
  private drop(at: number): void {
    this.sx.copyWithin(at, at + 1, this.count)
    this.sy.copyWithin(at, at + 1, this.count)
    this.sw.copyWithin(at, at + 1, this.count)
    this.count--
  }
  /** The plan as bands. */
  bands(kinds: StripJob['kinds']): Band[] {
    const { kind } = this.items
    return apart(
      {
        length: this.length,
        kinds: [...kind],
        x: [...this.x],
        y: [...this.y],
        turned: [...this.turned].map((t) => t === 1),
      },
      kinds,
    )
  }
}

function starts(items: StripItems, sky: Skyline, take: (bands: Band[]) => void, job: StripJob): void {
  const keys = [(i: number) => items.w[i] * items.l[i], (i: number) => items.l[i], (i: number) => items.w[i]]
  let least = Infinity
  for (const key of keys)
    for (const lie of [AS_COMES, TURNED, EITHER]) {
      const order = Int32Array.from({ length: items.n }, (_, i) => i).sort((a, b) => key(b) - key(a))
      const stop = least < Infinity ? job.spent : undefined
      const length = sky.run(order, new Uint8Array(items.n).fill(lie), 1, stop)
      if (length < least) {
        least = length
        take(sky.bands(job.kinds))
      }
      if (job.spent()) return
    }
}

function anneal(
  job: StripJob,
  items: StripItems,
  sky: Skyline,
  take: (bands: Band[]) => void,
  best: () => number,
  turn: number,
): number {
  const { random } = job
  const n = items.n
  const cycle = Math.min(60_000, (200 + 40 * n) * 2 ** Math.min(6, Math.floor(turn / 2)))
  const order = Int32Array.from({ length: n }, (_, i) => i)
  order.sort((a, b) => items.w[b] * items.l[b] * (0.5 + random()) - items.w[a] * items.l[a] * (0.5 + random()))
  const way = new Uint8Array(n).fill(EITHER)
  const weight = [1, 0.5, 2, 0][turn % 4]
  let current = sky.run(order, way, weight)
  const hot = 0.01 * current
  let r = 0
  for (; r < cycle; r++) {
    if ((r & 63) === 0 && (job.spent() || best() <= job.bound + EPS)) break
    const i = Math.floor(random() * n)
    const j = Math.floor(random() * n)
    const item = order[i]
    const had = way[item]
    let moved = false
    if (random() < 0.2 && items.turn[item]) way[item] = (had + 1 + Math.floor(random() * 2)) % 3
    else {
      moved = true
      order[i] = order[j]
      order[j] = item
    }
    const length = sky.run(order, way, weight)
    if (length <= current || random() < Math.exp((current - length) / (hot * (1 - r / cycle) ** 2 + 1e-9))) {
      current = length
      if (length < best() - 1e-7) take(sky.bands(job.kinds))
    } else {
      way[item] = had
      if (moved) {
        order[j] = order[i]
        order[i] = item
      }
    }
  }
  return Math.max(1, r)
}
