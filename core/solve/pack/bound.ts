import { PACK_TOLERANCE as EPS, type PackItem } from './types'

/**
 * Proven lower bound on the length of one endless bin that holds all items with a clear gap between them.
 * Dual feasible functions on the width: whatever crosses a line over the bin has widths (each with its gap) summing to
 * at most bin width + gap, so Σ f(width)·length ≤ length of the bin for any f with Σ x ≤ 1 ⇒ Σ f(x) ≤ 1.
 * An item that may be turned counts with its cheaper turn. Source: docs/sources.md#fekete-schepers-2004.
 */
export function lengthBound(items: readonly PackItem[], binWidth: number, gap: number): number {
  if (items.length === 0) return 0
  const total = binWidth + gap
  const shares = items
    .map((i) => {
      const turns: [number, number][] = []
      if (i.width <= binWidth + EPS) turns.push([(i.width + gap) / total, i.length + gap])
      if (i.turn === 'quarter' && i.length <= binWidth + EPS) turns.push([(i.length + gap) / total, i.width + gap])
      return turns
    })
    .filter((turns) => turns.length > 0) // what fits no way is in no plan
  if (shares.length === 0) return 0
  let best = 0
  const longest = Math.max(...shares.map((turns) => Math.min(...turns.map(([, l]) => l)))) - gap
  const grow = (f: (x: number) => number) => {
    let sum = 0
    for (const turns of shares) sum += Math.min(...turns.map(([x, l]) => f(x) * l))
    best = Math.max(best, sum - gap)
  }
  grow((x) => x)
  const cuts = [...new Set(shares.flat().map(([x]) => (x <= 0.5 ? x : 1 - x)).filter((x) => x > EPS))] // prettier-ignore
  for (const cut of [...cuts, 0.5].slice(0, 200)) grow((x) => (x > 1 - cut + EPS ? 1 : x < cut - EPS ? 0 : x))
  for (let k = 1; k <= 6; k++)
    grow((x) => {
      const t = (k + 1) * x
      return Math.abs(t - Math.round(t)) < 1e-9 ? x : Math.floor(t) / k
    })
  // Half the bin and no more: two wider items never lie side by side.
  grow((x) => (x > 0.5 + EPS ? 1 : 0))
  return Math.max(best, longest, 0)
}
