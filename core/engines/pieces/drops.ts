import { nth } from '../../kit/known'
import { err, ok, type Result } from '../../kit/result'

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

/**
 * Drops of a print over a side: fewest drops, then least film, then the best places for the seams, exactly, by a
 * dynamic program over seam places in whole millimetres. A drop is as long as the side is within it, and a bleed at
 * each end. Errors: no_seam_place, drop_too_narrow, bad_size.
 */
export function dropPlan(task: DropTask): Result<DropPlan> {
  const { sideMm, heightMm, printableMm, overlapMm, bleedMm, distanceMm, leastMm } = task
  if (!(sideMm > 0 && heightMm > 0 && printableMm > 0)) return err({ code: 'bad_size', at: 'sideMm' })
  if (printableMm <= overlapMm + leastMm)
    return err({ code: 'drop_too_narrow', facts: { printable_mm: printableMm, overlap_mm: overlapMm } })
  const side = Math.round(sideMm / STEP_MM)
  const bad = new Uint8Array(side + 1)
  const cost = new Float64Array(side + 1)
  for (const z of task.zones)
    for (
      let x = Math.max(0, Math.ceil(z.fromMm - (z.weight === 'never' ? distanceMm : 0)));
      x <= Math.min(side, Math.floor(z.toMm + (z.weight === 'never' ? distanceMm : 0)));
      x++
    )
      if (z.weight === 'never') bad[x] = 1
      else cost[x] = nth(cost, x) + z.weight
  // A seam at s: the drop before it ends at s + overlap, the drop after it begins at s.
  const widthOf = (a: number, b: number) => b - a + (a === 0 ? bleedMm : 0) + (b === side ? bleedMm : overlapMm)
  const from = (x: number) => task.profile?.fromMm[Math.min(x, task.profile.fromMm.length - 1)] ?? 0
  const to = (x: number) => task.profile?.toMm[Math.min(x, task.profile.toMm.length - 1)] ?? heightMm
  const lap = Math.ceil(overlapMm)
  const drops = new Int32Array(side + 1).fill(2 ** 30)
  const film = new Float64Array(side + 1).fill(Infinity)
  const weight = new Float64Array(side + 1).fill(Infinity)
  const before = new Int32Array(side + 1).fill(-1)
  drops[0] = 0
  film[0] = 0
  weight[0] = 0
  for (let s = 1; s <= side; s++) {
    if (s < side && (bad[s] || s + overlapMm > side)) continue
    let [low, high] = [Infinity, -Infinity]
    const take = (x: number) => {
      low = Math.min(low, from(x))
      high = Math.max(high, to(x))
    }
    for (let x = s; x <= Math.min(side, s + (s < side ? lap : 0)); x++) take(x)
    for (let p = s - 1; p >= Math.max(0, s - Math.ceil(printableMm)); p--) {
      take(p)
      if (nth(drops, p) >= 2 ** 30) continue
      const w = widthOf(p, s)
      if (w > printableMm + 1e-9 || s - p < Math.min(leastMm, side)) continue
      const n = nth(drops, p) + 1
      const f = nth(film, p) + Math.max(0, high - low) + 2 * bleedMm
      const c = nth(weight, p) + (s < side ? nth(cost, s) : 0)
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
  if (nth(drops, side) >= 2 ** 30)
    return err({ code: 'no_seam_place', facts: { printable_mm: printableMm, distance_mm: distanceMm } })
  const ends: number[] = []
  for (let s = side; s > 0; s = nth(before, s)) ends.unshift(s)
  const list = ends.map((b, i): Drop => {
    const a = i === 0 ? 0 : nth(ends, i - 1)
    const fromMm = a === 0 ? -bleedMm : a
    const toMm = b === side ? side + bleedMm : b + overlapMm
    let [low, high] = [Infinity, -Infinity]
    for (let x = a; x <= Math.min(side, b + (b < side ? lap : 0)); x++) {
      low = Math.min(low, from(x))
      high = Math.max(high, to(x))
    }
    return {
      number: i + 1,
      fromMm,
      toMm,
      widthMm: toMm - fromMm,
      lengthMm: Math.max(0, high - low) + 2 * bleedMm,
      startMm: low - bleedMm,
    }
  })
  return ok({
    drops: list,
    seamsMm: ends.slice(0, -1),
    filmMm: list.reduce((t, d) => t + d.lengthMm, 0),
    weight: nth(weight, side),
  })
}

/** Registration marks of a drop: crosses at its corners, mm within the drop, for lining up on its neighbour. */
export const registrationMarks = (d: Drop, insetMm = 10): { xMm: number; yMm: number }[] =>
  [insetMm, d.widthMm - insetMm].flatMap((xMm) => [insetMm, d.lengthMm - insetMm].map((yMm) => ({ xMm, yMm })))
