import { Skyline } from './skyline'
import { runPortfolio, type Method } from '../model/method'
import { bandsLength, type Band, splitIntoBands } from '../model/band'
import { EITHER, TURNED, AS_COMES } from '../straight/decode'
import { type StripItems, itemsOf } from '../model/strip-items'
import { guillotine } from '../straight/guillotine'
import { type StripJob, type StripPlan, LEAST_STEP } from '../model/strip-job'
import { commonStep } from '../model/kinds'
import { BeamSearch, LOSSLESS, LOSSY } from '../beam/beam'
import { niches } from '../beam/niches'
import { matched } from '../lossless/match'
import { perfect } from '../lossless/perfect'
import { PACK_TOLERANCE } from '../model/types'

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
  const finished = () => length <= job.bound + PACK_TOLERANCE || job.spent()
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
  const most = noWaste ? LOSSLESS_SHARE : items.n > CUTS_FIRST.many ? CUTS_FIRST.ofMany : CUTS_FIRST.ofFew
  let rounds = Math.min(Math.ceil(job.rounds / 2), most)
  if (!finished()) take(guillotine({ ...job, cuts: noWaste ? STAGES : Infinity, rounds, better: take }).bands)
  const methods: Method[] = [
    {
      name: 'perfect',
      share: SHARES.perfect,
      applies: () => noWaste,
      step: (turn) => {
        const found = lossless(job, items, turn)
        if (found) take(found)
      },
    },
    {
      name: 'beams',
      share: SHARES.beams,
      applies: (turn) => noWaste || turn % 2 === 0,
      step: () => {
        const until = rounds + BEAM_ROUNDS
        while (rounds < until && !finished()) {
          const next = beams.run(length)
          if (next.band) take(splitIntoBands(next.band, job.kinds))
          rounds += next.rounds
        }
      },
    },
    {
      name: 'skyline',
      share: SHARES.skyline,
      applies: (turn) => !noWaste && turn % 2 === 1,
      step: (turn) => {
        rounds += anneal({ job, items, sky, take, best: () => length, turn })
      },
    },
  ]
  runPortfolio({
    methods,
    without: job.without,
    done: () => rounds >= job.rounds || finished(),
    length: () => length,
    gained: job.gained,
  })
  return { bands: best, length, proven: length <= job.bound + PACK_TOLERANCE }
}

/** Shares of the time that each method is meant to take; beams and skylines take turns. They decide nothing. */
const SHARES = { perfect: 0.3, beams: 0.5, skyline: 0.5 }
/** Rounds of straight cuts to begin with, of few items and of many. */
const CUTS_FIRST = { many: 40, ofMany: 90_000, ofFew: 40_000 }
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
  return matched({
    kinds: job.kinds,
    width: job.width,
    bound: job.bound,
    random: job.random,
    tries: items.n > MATCHES.upTo ? MATCHES.many : MATCHES.few,
    spent: job.spent,
    rest: (blocks) => {
      if (blocks.length > 40) return null
      const area = blocks.reduce((s, b) => s + b.w * b.l, 0)
      return perfect(blocks, job.width, area / job.width, nodes, job.spent)
    },
  })
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

function anneal({
  job,
  items,
  sky,
  take,
  best,
  turn,
}: {
  job: StripJob
  items: StripItems
  sky: Skyline
  take: (bands: Band[]) => void
  best: () => number
  turn: number
}): number {
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
    if ((r & 63) === 0 && (job.spent() || best() <= job.bound + PACK_TOLERANCE)) break
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
