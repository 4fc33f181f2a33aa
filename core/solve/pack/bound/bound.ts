import type { Bars } from './bars'
import { commonStep, kindsOf, type Kind } from '../model/kinds'
import { PACK_TOLERANCE, type PackItem } from '../model/types'

/**
 * Proven lower bound on the length of one endless bin, and the worth of each kind that proves it: dual feasible
 * functions on the width. Whatever crosses a line over the bin has shares x of its width with Σ x ≤ 1, so
 * Σ f(x)·length ≤ length of the bin for any f with Σ x ≤ 1 ⇒ Σ f(x) ≤ 1. What may be turned counts with its cheaper
 * way.
 * Gaps are within the kinds' sizes and in `width`. Source: docs/sources.md#fekete-schepers-2004.
 */
export function dualFeasible(kinds: readonly Kind[], width: number): Bars {
  let best: Bars = { bound: 0, price: new Float64Array(kinds.length), whole: false }
  const share = kinds.map((k) => k.w / width)
  const shareTurned = kinds.map((k) => (k.turn && k.l <= width + PACK_TOLERANCE ? k.l / width : 0))
  const price = new Float64Array(kinds.length)
  const grow = (f: (x: number) => number) => {
    let sum = 0
    for (let i = 0; i < kinds.length; i++) {
      const k = kinds[i]
      const upright = f(share[i]) * k.l
      const turned = shareTurned[i]
      const p = turned > 0 ? Math.min(upright, f(turned) * k.w) : upright
      price[i] = p
      sum += p * k.items.length
    }
    if (sum > best.bound) best = { bound: sum, price: price.slice(), whole: false }
  }
  grow((x) => x)
  // Half the bin and no more: two wider items never lie side by side.
  grow((x) => (x > 0.5 + PACK_TOLERANCE ? 1 : 0))
  const cuts = [
    ...new Set([...share, ...shareTurned].map((x) => (x <= 0.5 ? x : 1 - x)).filter((x) => x > PACK_TOLERANCE)),
  ]
  const every = Math.max(1, Math.ceil(cuts.length / 200))
  for (let i = 0; i < cuts.length; i += every) {
    const cut = cuts[i]
    grow((x) => (x > 1 - cut + PACK_TOLERANCE ? 1 : x < cut - PACK_TOLERANCE ? 0 : x))
  }
  for (let k = 1; k <= 6; k++)
    grow((x) => {
      const t = (k + 1) * x
      return Math.abs(t - Math.round(t)) < 1e-9 ? x : Math.floor(t) / k
    })
  return best
}

/** The longest item alone is a bound too. */
export const longest = (kinds: readonly Kind[]): number =>
  kinds.reduce((most, k) => Math.max(most, k.turn ? Math.min(k.w, k.l) : k.l), 0)

const MOST_CELLS = 400_000

/**
 * A bound raised to the next length that any plan can have: pushed together, the last item's far edge is a sum of
 * lengths of items that lie one behind the other. Source: docs/sources.md#herz-1972.
 */
export function raised(bound: number, kinds: readonly Kind[]): number {
  const step = commonStep(kinds.flatMap((k) => [k.w, k.l]))
  if (step === 0 || kinds.length === 0) return bound
  const least = Math.ceil(bound / step - 1e-6)
  const reach = least + Math.ceil(Math.max(...kinds.map((k) => Math.max(k.w, k.l))) / step)
  const copies = kinds.reduce((n, k) => n + k.items.length, 0)
  if (reach * copies > MOST_CELLS * 40 || reach > MOST_CELLS) return least * step
  const sums = new Uint8Array(reach + 1)
  sums[0] = 1
  for (const k of kinds) {
    const a = Math.round(k.l / step)
    const b = k.turn ? Math.round(k.w / step) : a
    for (let c = 0; c < k.items.length; c++)
      for (let s = reach; s > 0; s--) if (!sums[s] && ((s >= a && sums[s - a]) || (s >= b && sums[s - b]))) sums[s] = 1
  }
  for (let s = least; s <= reach; s++) if (sums[s]) return s * step
  return least * step
}

/** Bounds asked for last: one layout asks for the same several times, shelf by shelf and roll by roll. */
const MOST_KNOWN = 6
const known: { width: number; gap: number; items: PackItem[]; bound: number }[] = []
const isSameSize = (a: PackItem, b: PackItem): boolean =>
  a.width === b.width && a.length === b.length && a.turn === b.turn

/** A quick proven lower bound on the length of one endless bin that holds all items with a clear gap between them. */
export function lengthBound(items: readonly PackItem[], width: number, gap: number): number {
  const had = known.find(
    (k) =>
      k.width === width &&
      k.gap === gap &&
      k.items.length === items.length &&
      k.items.every((item, i) => isSameSize(item, items[i])),
  )
  if (had) return had.bound
  const bound = boundOf(items, width, gap)
  known.unshift({ width, gap, items: [...items], bound })
  known.length = Math.min(known.length, MOST_KNOWN)
  return bound
}

function boundOf(items: readonly PackItem[], binWidth: number, gap: number): number {
  const fit = items.filter(
    (i) => i.width <= binWidth + PACK_TOLERANCE || (i.turn === 'quarter' && i.length <= binWidth + PACK_TOLERANCE),
  )
  if (fit.length === 0) return 0
  const kinds = kindsOf(fit, gap, binWidth + gap)
  return Math.max(dualFeasible(kinds, binWidth + gap).bound, longest(kinds)) - gap
}
