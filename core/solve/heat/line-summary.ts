import { cubicWeights, type Side } from './waves'

/** The hottest that each place of an edge became, summed up; mm from its begin. */
export interface LineSummary {
  minPeakC: number
  minAtMm: number
  maxPeakC: number
  maxAtMm: number
  inWindowFraction: number | null
}

/** Places looked at for each cell. */
const PLACES = 8

export function lineSummary(side: Side, peaks: Float64Array, window: readonly [number, number] | null): LineSummary {
  const count = side.cells * PLACES
  const out = { minPeakC: Infinity, minAtMm: 0, maxPeakC: -Infinity, maxAtMm: 0 }
  let inside = 0
  let before = NaN
  for (let i = 0; i <= count; i++) {
    const atM = (side.lengthM * i) / count
    const c = peakAt(side, peaks, atM)
    if (c < out.minPeakC) [out.minPeakC, out.minAtMm] = [c, atM * 1000]
    if (c > out.maxPeakC) [out.maxPeakC, out.maxAtMm] = [c, atM * 1000]
    if (window && i > 0) inside += shareWithin(before, c, window) / count
    before = c
  }
  return { ...out, inWindowFraction: window ? Math.min(1, inside) : null }
}

export function peakAt(side: Side, peaks: Float64Array, atM: number): number {
  return cubicWeights(side, atM).reduce((sum, { node, weight }) => sum + weight * peaks[node], 0)
}

/** The share of a straight line from a to b that lies within. */
function shareWithin(a: number, b: number, [low, high]: readonly [number, number]): number {
  if (a === b) return a >= low && a <= high ? 1 : 0
  const [from, to] = [Math.min(a, b), Math.max(a, b)]
  return Math.max(0, Math.min(to, high) - Math.max(from, low)) / (to - from)
}
