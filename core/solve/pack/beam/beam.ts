import type { Random } from '../../../kit/random'
import type { Band } from '../model/band'
import type { StripItems } from '../model/strip-items'

export interface BeamJob {
  items: StripItems
  random: Random
  /** All sizes are whole multiples of it, or rounded up to one. */
  step: number
  bound: number
  /** Worth of an item of each kind in length of strip; its bare area where there is none. */
  price?: Float64Array
  spent: () => boolean
}

/** How part plans are judged and what is tried: found by trial on sheets cut up at random, and on vans. */
export interface BeamWeights {
  /** How much more a plan that holds more is worth. */
  fillExponent: number
  /** How much each step of the outline, or each free rectangle, counts against it. */
  outlinePenalty: number
  /** Items tried where none matches, largest first. */
  looseTries: number
  /** Loss as a share of all that every plan is taken to have, so that plans without loss differ by what they hold. */
  allowedLoss: number
}

/** Fills a sheet of the length `target`, so many part plans side by side; null where all of them lost too much. */
export type Filler = (job: BeamJob, target: number, wide: number, taste: BeamWeights) => Band | null

/** Where nothing need be lost. */
export const LOSSLESS: readonly BeamWeights[] = [
  { fillExponent: 2, outlinePenalty: 0.1, looseTries: 6, allowedLoss: 0.01 },
  { fillExponent: 1, outlinePenalty: 0.1, looseTries: 3, allowedLoss: 0.02 },
]

/** Where something must be. */
export const LOSSY: readonly BeamWeights[] = [
  { fillExponent: 1, outlinePenalty: 0.1, looseTries: 20, allowedLoss: 0.1 },
  { fillExponent: 1, outlinePenalty: 0.1, looseTries: 10, allowedLoss: 0.1 },
]

/** Plans differ a little by chance, so that a second try is another one. */
const CHANCE = 0.02
const WIDTH = { first: 4, grows: 1.5, mostItems: 60_000 }
/** Work on one part plan from the first item to the last, measured in orders laid by annealing. */
const ROUNDS = 20
/** The next plan is asked to be shorter by this share of what lies between the best length known and the bound. */
const AIM = 0.2

/** Places are kept in 32 bits. */
const MOST_STEPS = 2 ** 31 - 1

/** Sizes in whole steps, and what the fillers ask of them again and again. */
export interface Sheet {
  width: number
  length: number
  w: Int32Array
  h: Int32Array
  turn: Uint8Array
  area: number
  /** Area that may be lost. */
  budget: number
  /** Worth of each item in area. */
  worth: Float64Array
  /** Least width and least height that an item can take. */
  narrow: (i: number) => number
  low: (i: number) => number
  /** Items largest, narrowest, lowest first. */
  bySize: Int32Array
  byNarrow: Int32Array
  byLow: Int32Array
}

export function sheetOf({ items, step, price }: BeamJob, target: number): Sheet {
  const { n, turn, kind } = items
  const whole = (v: number) => Math.ceil(v / step - 1e-6)
  const width = Math.floor(items.width / step + 1e-6)
  const length = Math.floor(target / step + 1e-6)
  const w = Int32Array.from(items.w, whole)
  const h = Int32Array.from(items.l, whole)
  const areas = Float64Array.from(w, (a, i) => a * h[i])
  const area = areas.reduce((sum, a) => sum + a, 0)
  const narrow = (i: number) => (turn[i] && h[i] < w[i] ? h[i] : w[i])
  const low = (i: number) => (turn[i] && w[i] < h[i] ? w[i] : h[i])
  const sorted = (by: (i: number) => number) =>
    Int32Array.from({ length: n }, (_, i) => i).sort((a, b) => by(a) - by(b))
  return {
    width,
    length,
    w,
    h,
    turn,
    area,
    narrow,
    low,
    // What is counted in too many steps cannot be laid so.
    budget: length > MOST_STEPS ? -1 : width * length - area,
    worth: price ? Float64Array.from(kind, (k) => (price[k] * width) / step) : areas,
    bySize: sorted((i) => -areas[i]),
    byNarrow: sorted(narrow),
    byLow: sorted(low),
  }
}

/** A part plan: the item laid last, where, and what it was laid onto. */
export interface Part {
  /** Items laid, a bit each. */
  laid: Uint32Array
  loss: number
  placed: number
  worth: number
  parent: Part | null
  item: number
  turned: number
  x: number
  y: number
}

export const nothingLaid = (n: number): Part => ({
  laid: new Uint32Array((n >> 5) + 1),
  loss: 0,
  placed: 0,
  worth: 0,
  parent: null,
  item: -1,
  turned: 0,
  x: 0,
  y: 0,
})

export function laidOnto<P extends Part>(
  parent: P,
  { w, h, worth }: Sheet,
  { item, turned, x, y }: Pick<Part, 'item' | 'turned' | 'x' | 'y'>,
): Part {
  const area = w[item] * h[item]
  return {
    laid: plus(parent.laid, item),
    loss: parent.loss,
    placed: parent.placed + area,
    worth: parent.worth + worth[item],
    parent,
    item,
    turned,
    x,
    y,
  }
}

/** What a part plan would be worth with one item more and so much more lost: less is better. */
export function scoreOf({
  part,
  sheet,
  item,
  lost,
  steps,
  taste,
  random,
}: {
  part: Part
  sheet: Sheet
  item: number
  lost: number
  /** Of its outline, or rectangles left free. */
  steps: number
  taste: BeamWeights
  random: Random
}): number {
  const held = part.worth + sheet.worth[item]
  const gone = part.loss + lost + part.placed + sheet.w[item] * sheet.h[item]
  return (
    ((Math.max(0, gone - held + taste.allowedLoss * sheet.area) * (1 + taste.outlinePenalty * steps)) /
      held ** taste.fillExponent) *
    (1 + CHANCE * random())
  )
}

/** So many of the best, each outline with the same items once. */
export function chosen<C extends { score: number }, P>(
  children: C[],
  wide: number,
  lay: (child: C) => P,
  keyOf: (part: P) => string,
): P[] {
  children.sort((a, b) => a.score - b.score)
  const seen = new Set<string>()
  const next: P[] = []
  for (const child of children) {
    if (next.length >= wide) break
    const made = lay(child)
    const key = keyOf(made)
    if (seen.has(key)) continue
    seen.add(key)
    next.push(made)
  }
  return next
}

/** The choices that a part plan made, as one band. */
export function bandOf(last: Part, { items, step }: BeamJob, { w, h }: Sheet): Band {
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  for (let at: Part | null = last; at && at.item >= 0; at = at.parent) {
    band.kinds.push(items.kind[at.item])
    band.x.push(at.x * step)
    band.y.push(at.y * step)
    band.turned.push(at.turned === 1)
    band.length = Math.max(band.length, (at.y + (at.turned ? w[at.item] : h[at.item])) * step)
  }
  return band
}

export const has = (laid: Uint32Array, i: number): number => (laid[i >> 5] >>> (i & 31)) & 1
function plus(laid: Uint32Array, i: number): Uint32Array {
  const next = laid.slice()
  next[i >> 5] = next[i >> 5] | (1 << (i & 31))
  return next
}

/** The first of a list that is not laid yet. */
export function firstLeft(list: Int32Array, laid: Uint32Array): number {
  let a = 0
  while (has(laid, list[a])) a++
  return list[a]
}

/** Ever wider beams into a sheet a little shorter than the best plan known. */
export class BeamSearch {
  private wide = WIDTH.first
  private turn = 0
  constructor(
    private readonly job: BeamJob,
    private readonly fill: Filler,
    private readonly tastes: readonly BeamWeights[],
  ) {}
  /** A plan shorter than `length`, or null; and the rounds of annealing that it counts for. */
  run(length: number): { band: Band | null; rounds: number } {
    const { bound, step, items } = this.job
    const target = Math.max(bound, length - Math.max(step, AIM * (length - bound)))
    const band = this.fill(this.job, target, this.wide, this.tastes[this.turn % this.tastes.length])
    const rounds = this.wide * ROUNDS
    if (!band && ++this.turn % this.tastes.length === 0)
      this.wide = Math.min(Math.ceil(this.wide * WIDTH.grows), Math.ceil(WIDTH.mostItems / items.n))
    return { band, rounds }
  }
}
