import { nth } from '../../kit/known'
import { err, ok, type Fault, type Result } from '../../kit/result'

/** A stretch along the side that a seam keeps away from (or, with `worth` below 0, is welcome in), mm. */
export interface SeamZone {
  fromMm: number
  toMm: number
  /**
   * `never`: no seam may lie in it or nearer than the distance; a number: how bad a seam there is, or how good where
   * negative.
   */
  weight: 'never' | number
}
export interface DropTask {
  /** Length of the side along which the drops stand side by side. */
  sideMm: number
  /** Height of the side: how long each drop is. */
  heightMm: number
  /** Width that can be printed. */
  printableMm: number
  overlapMm: number
  /** Print beyond the side at its two ends. */
  bleedMm: number
  zones: readonly SeamZone[]
  /** Seams keep this far from every zone that is `never`. */
  distanceMm: number
  /** The narrowest drop that can be laid. */
  leastMm: number
  /**
   * Where the side begins and ends across, at each whole millimetre along it, so that drops are no longer than they
   * must be; left out: all of the height.
   */
  profile?: { fromMm: Float64Array; toMm: Float64Array }
}
export interface Drop {
  number: number
  /** What it covers of the side, overlap and bleed included, mm from the front. */
  fromMm: number
  toMm: number
  widthMm: number
  lengthMm: number
  /** Where the print begins across the side, bleed included, mm from its top (or front). */
  startMm: number
}
export interface DropPlan {
  drops: Drop[]
  /** Where the upper drop's edge runs, mm from the front. */
  seamsMm: number[]
  filmMm: number
  /** Sum of the weights of the seams. */
  weight: number
}

/** Seams are tried on whole millimetres. */
const STEP_MM = 1

export type DropFault = Fault<'bad_size' | 'drop_too_narrow' | 'no_seam_place'>

/**
 * Drops of a print over a side: fewest drops, then least film, then the best places for the seams, exactly, by a
 * dynamic program over seam places in whole millimetres. A drop is as long as the side is within it, and a bleed at
 * each end. Errors: no_seam_place, drop_too_narrow, bad_size.
 */
export function dropPlan(task: DropTask): Result<DropPlan, DropFault> {
  const { sideMm, heightMm, printableMm, overlapMm, distanceMm, leastMm } = task
  if (!(sideMm > 0 && heightMm > 0 && printableMm > 0)) return err({ code: 'bad_size', at: 'sideMm' })
  if (printableMm <= overlapMm + leastMm)
    return err({ code: 'drop_too_narrow', facts: { printable_mm: printableMm, overlap_mm: overlapMm } })
  const side = new SideInSteps(task)
  const ends = bestSeams(side)
  if (!ends) return err({ code: 'no_seam_place', facts: { printable_mm: printableMm, distance_mm: distanceMm } })
  const drops = ends.values.map((end, i) => side.drop(i + 1, ends.values[i - 1] ?? 0, end))
  return ok({
    drops,
    seamsMm: ends.values.slice(0, -1),
    filmMm: drops.reduce((t, d) => t + d.lengthMm, 0),
    weight: ends.weight,
  })
}

/** A side in whole millimetres from its front: where no seam may lie, what one costs, and how high the side is there. */
class SideInSteps {
  readonly size: number
  /** A drop reaches so far past its seam, in steps. */
  readonly lap: number
  readonly never: Uint8Array
  readonly cost: Float64Array

  constructor(readonly task: DropTask) {
    this.size = Math.round(task.sideMm / STEP_MM)
    this.lap = Math.ceil(task.overlapMm)
    this.never = new Uint8Array(this.size + 1)
    this.cost = new Float64Array(this.size + 1)
    for (const { fromMm, toMm, weight } of task.zones) {
      const around = weight === 'never' ? task.distanceMm : 0
      const last = Math.min(this.size, Math.floor(toMm + around))
      for (let x = Math.max(0, Math.ceil(fromMm - around)); x <= last; x++)
        if (weight === 'never') this.never[x] = 1
        else this.cost[x] = nth(this.cost, x) + weight
    }
  }

  mayHaveSeam(at: number): boolean {
    return at === this.size || (!this.never[at] && at + this.task.overlapMm <= this.size)
  }
  /** A seam at s: the drop before it ends at s + overlap, the drop after it begins at s. */
  widthOf(a: number, b: number): number {
    const { bleedMm, overlapMm } = this.task
    return b - a + (a === 0 ? bleedMm : 0) + (b === this.size ? bleedMm : overlapMm)
  }
  /** The last place that a drop which ends at a seam covers. */
  coveredTo(end: number): number {
    return Math.min(this.size, end + (end < this.size ? this.lap : 0))
  }
  /** Highest and lowest place of the side at x, mm from its top. */
  reach(x: number): [from: number, to: number] {
    const { profile, heightMm } = this.task
    const at = Math.min(x, (profile?.fromMm.length ?? 1) - 1)
    return [profile?.fromMm[at] ?? 0, profile?.toMm[at] ?? heightMm]
  }

  drop(number: number, begin: number, end: number): Drop {
    const { bleedMm, overlapMm } = this.task
    const fromMm = begin === 0 ? -bleedMm : begin
    const toMm = end === this.size ? this.size + bleedMm : end + overlapMm
    let [low, high] = [Infinity, -Infinity]
    for (let x = begin; x <= this.coveredTo(end); x++) {
      const [from, to] = this.reach(x)
      low = Math.min(low, from)
      high = Math.max(high, to)
    }
    const lengthMm = Math.max(0, high - low) + 2 * bleedMm
    return { number, fromMm, toMm, widthMm: toMm - fromMm, lengthMm, startMm: low - bleedMm }
  }
}

/** No chain of drops reaches there. */
const NO_DROPS = 2 ** 30

/** Ends of the drops, the last at the side's rear; null: no seams go. */
function bestSeams(side: SideInSteps): { values: number[]; weight: number } | null {
  const { printableMm, leastMm, bleedMm } = side.task
  const { size } = side
  const drops = new Int32Array(size + 1).fill(NO_DROPS)
  const film = new Float64Array(size + 1).fill(Infinity)
  const weight = new Float64Array(size + 1).fill(Infinity)
  const before = new Int32Array(size + 1).fill(-1)
  drops[0] = 0
  film[0] = 0
  weight[0] = 0
  for (let s = 1; s <= size; s++) {
    if (!side.mayHaveSeam(s)) continue
    let [low, high] = [Infinity, -Infinity]
    const take = (x: number) => {
      const [from, to] = side.reach(x)
      low = Math.min(low, from)
      high = Math.max(high, to)
    }
    for (let x = s; x <= side.coveredTo(s); x++) take(x)
    for (let p = s - 1; p >= Math.max(0, s - Math.ceil(printableMm)); p--) {
      take(p)
      if (nth(drops, p) >= NO_DROPS) continue
      if (side.widthOf(p, s) > printableMm + 1e-9 || s - p < Math.min(leastMm, size)) continue
      const n = nth(drops, p) + 1
      const f = nth(film, p) + Math.max(0, high - low) + 2 * bleedMm
      const c = nth(weight, p) + (s < size ? nth(side.cost, s) : 0)
      if (n > nth(drops, s)) continue
      const same = n === drops[s]
      if (same && f > nth(film, s) + 1e-6) continue
      if (same && Math.abs(f - nth(film, s)) <= 1e-6 && c >= nth(weight, s) - 1e-9) continue
      drops[s] = n
      film[s] = f
      weight[s] = c
      before[s] = p
    }
  }
  if (nth(drops, size) >= NO_DROPS) return null
  const values: number[] = []
  for (let s = size; s > 0; s = nth(before, s)) values.unshift(s)
  return { values, weight: nth(weight, size) }
}

/** Registration marks of a drop: crosses at its corners, mm within the drop, for lining up on its neighbour. */
export const registrationMarks = (d: Drop, insetMm = 10): { xMm: number; yMm: number }[] =>
  [insetMm, d.widthMm - insetMm].flatMap((xMm) => [insetMm, d.lengthMm - insetMm].map((yMm) => ({ xMm, yMm })))
