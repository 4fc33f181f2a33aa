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
 * Any placement without overlap. A first plan on a skyline; a search for plans that lose nothing where the bound is the
 * bare area; what straight cuts can do; then beams.
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
  starts(items, new Skyline(items), take, job)
  const finished = () => length <= job.bound + PACK_TOLERANCE || job.spent()
  // Where no method takes a turn; else straight cuts begin with this plan.
  if (job.rounds === 0 && !finished()) take(guillotine(job).bands)
  const sheetArea = job.kinds.reduce((s, k) => s + k.w * k.l * k.items.length, 0)
  const noWaste = Math.abs(sheetArea / job.width - job.bound) <= 1e-6 * Math.max(1, job.bound)
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
  const most = noWaste ? CUTS_FIRST.lossless : items.n > CUTS_FIRST.many ? CUTS_FIRST.ofMany : CUTS_FIRST.ofFew
  let rounds = 0
  const methods: Method[] = [
    {
      name: 'perfect',
      share: SHARES.perfect,
      applies: (turn) => noWaste && turn === 0,
      step: () => {
        const found = lossless(job, items)
        if (found) take(found)
      },
    },
    {
      name: 'straight',
      share: SHARES.straight,
      applies: (turn) => turn === 0,
      step: () => {
        rounds = Math.min(Math.ceil(job.rounds / 2), most)
        take(guillotine({ ...job, cuts: noWaste ? STAGES : Infinity, rounds, better: take }).bands)
      },
    },
    {
      name: 'beams',
      share: SHARES.beams,
      applies: () => true,
      step: () => {
        const until = rounds + BEAM_ROUNDS
        while (rounds < until && !finished()) {
          const next = beams.run(length)
          if (next.band) take(splitIntoBands(next.band, job.kinds))
          rounds += next.rounds
        }
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

/** Shares of the time that each method is meant to take. They decide nothing. */
const SHARES = { perfect: 0.05, straight: 0.15, beams: 0.8 }
/** Rounds of straight cuts to begin with, of few items, of many, and where nothing need be lost. */
const CUTS_FIRST = { many: 40, ofMany: 90_000, ofFew: 40_000, lossless: 8_000 }
/** Rounds of a turn of beams. */
const BEAM_ROUNDS = 20_000
/** As good as any number of stages, but sides are not put together again, which is done here. */
const STAGES = 64
/** Tries at putting sides together, of few items and of many. */
const MATCHES = { few: 60, many: 12, upTo: 70 }
/** Items of which what is left is searched to the end at most; places looked at for all of them, and for the rest. */
const TO_THE_END = { items: 40, nodes: 80_000, ofRest: 2_000 }

/** A plan that loses nothing: all searched to the end, or sides that match put together and what is left searched. */
function lossless(job: StripJob, items: StripItems): Band[] | null {
  if (items.n <= TO_THE_END.items) {
    const rects = Array.from({ length: items.n }, (_, i) => ({
      w: items.w[i],
      l: items.l[i],
      turn: items.turn[i] === 1,
    }))
    const places = perfect(rects, job.width, job.bound, TO_THE_END.nodes, job.spent)
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
      if (blocks.length > TO_THE_END.items) return null
      const area = blocks.reduce((s, b) => s + b.w * b.l, 0)
      return perfect(blocks, job.width, area / job.width, TO_THE_END.ofRest, job.spent)
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
      const length = sky.run(order, new Uint8Array(items.n).fill(lie), stop)
      if (length < least) {
        least = length
        take(sky.bands(job.kinds))
      }
      if (job.spent()) return
    }
}
