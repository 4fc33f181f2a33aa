import { coverLp } from './cover-lp'
import { type Kind, commonStep } from '../model/kinds'

/**
 * The bar relaxation: a line across the strip crosses items whose widths add up to no more than the strip's; every item
 * is crossed over its own length. Least length of strip = a linear program over all such crossings, solved by column
 * generation with an explicit inverse. Its prices u (length worth of each item) are kept for the search; the bound is
 * re-derived from them by an exact knapsack, so that no tolerance of the linear program can break it:
 * any u with Σ u/l ≤ V over every crossing proves length ≥ Σ u / V.
 * Source: docs/sources.md#scheithauer-1999.
 */
export interface Bars {
  /** Proven lower bound, gap included. */
  bound: number
  /** Worth of one item of each kind in length of strip; every crossing is worth at most 1. */
  price: Float64Array
  /** False where time ran out before the linear program was solved. */
  whole: boolean
}

const LARGEST_GRID = 16000
const MOST_ROWS = 260

interface Grid {
  cap: number
  /**
   * Widths in steps, rounded down: a relaxation, so that the bound stays true. Two turns a kind; −1 where it cannot
   * lie so.
   */
  widths: Int32Array
}

function gridOf(kinds: readonly Kind[], width: number): Grid {
  const sizes = kinds.flatMap((k) => (k.turn ? [k.w, k.l] : [k.w]))
  let step = commonStep(sizes)
  if (step === 0 || width / step > LARGEST_GRID) step = width / (kinds.length > 200 ? 4000 : 12000)
  const cap = Math.floor(width / step + 1e-7)
  const widths = new Int32Array(kinds.length * 2).fill(-1)
  kinds.forEach((k, i) => {
    widths[2 * i] = Math.floor(k.w / step + 1e-7)
    if (k.turn && k.l <= width + 1e-6) widths[2 * i + 1] = Math.floor(k.l / step + 1e-7)
  })
  return { cap, widths }
}

class Knapsack {
  readonly value: Float64Array
  private readonly took: Uint8Array[] = []
  private readonly stage: number[] = []
  constructor(
    private readonly kinds: readonly Kind[],
    private readonly grid: Grid,
  ) {
    this.value = new Float64Array(grid.cap + 1)
    kinds.forEach((kind, i) => {
      const [a, b] = [grid.widths[2 * i], grid.widths[2 * i + 1]]
      const least = Math.max(1, b >= 0 ? Math.min(a, b) : a)
      const most = Math.min(kind.items.length, Math.floor(grid.cap / least))
      for (let c = 0; c < most; c++) {
        this.stage.push(i)
        this.took.push(new Uint8Array(grid.cap + 1))
      }
    })
  }
  /** Largest Σ price/length over one crossing. */
  solve(price: Float64Array): number {
    const { value, grid, kinds, stage } = this
    value.fill(0)
    for (let s = 0; s < stage.length; s++) {
      const i = stage[s]
      const kind = kinds[i]
      const took = this.took[s]
      took.fill(0)
      const p = price[i]
      if (p <= 0) continue
      const a = grid.widths[2 * i]
      const b = grid.widths[2 * i + 1]
      const va = p / kind.l
      const vb = b >= 0 ? p / kind.w : 0
      if (b < 0) {
        for (let c = grid.cap; c >= a; c--) {
          const with1 = value[c - a] + va
          if (with1 > value[c] + 1e-13) {
            value[c] = with1
            took[c] = 1
          }
        }
      } else
        for (let c = grid.cap; c >= 0; c--) {
          let best = value[c]
          if (c >= a) {
            const with1 = value[c - a] + va
            if (with1 > best + 1e-13) {
              best = with1
              took[c] = 1
            }
          }
          if (c >= b) {
            const with2 = value[c - b] + vb
            if (with2 > best + 1e-13) {
              best = with2
              took[c] = 2
            }
          }
          value[c] = best
        }
    }
    return value[grid.cap]
  }
  /** The crossing found by the last `solve`: coefficient of each kind per unit of length. */
  pattern(): Map<number, number> {
    const pattern = new Map<number, number>()
    let c = this.grid.cap
    for (let s = this.stage.length - 1; s >= 0; s--) {
      const t = this.took[s][c]
      if (!t) continue
      const i = this.stage[s]
      const kind = this.kinds[i]
      pattern.set(i, (pattern.get(i) ?? 0) + 1 / (t === 1 ? kind.l : kind.w))
      c -= this.grid.widths[2 * i + (t - 1)]
    }
    return pattern
  }
}

/** `start`: prices already known to be sound (by `dualFeasible`); they stand where the program finds none better. */
export function bars(kinds: readonly Kind[], width: number, start: Bars, spent: () => boolean = () => false): Bars {
  return kinds.length === 0 || kinds.length > MOST_ROWS ? start : columnGeneration(kinds, width, start, spent)
}

const total = (kinds: readonly Kind[], price: Float64Array): number =>
  kinds.reduce((sum, k, i) => sum + price[i] * k.items.length, 0)

function columnGeneration(kinds: readonly Kind[], width: number, from: Bars, spent: () => boolean): Bars {
  const knapsack = new Knapsack(kinds, gridOf(kinds, width))
  const start = kinds.map((k) => {
    const turned = k.turn && Math.floor(width / k.l + 1e-9) * k.w > Math.floor(width / k.w + 1e-9) * k.l
    const [across, along] = turned ? [k.l, k.w] : [k.w, k.l]
    return { value: Math.max(1, Math.min(k.items.length, Math.floor(width / across + 1e-9))) / along, cost: 1 }
  })
  let best = from
  let stopped = false
  const demand = kinds.map((k) => k.items.length)
  const { optimal } = coverLp(
    demand,
    start,
    (u) => {
      if ((stopped = spent())) return null
      const most = knapsack.solve(u) * (1 + 1e-12)
      const bound = total(kinds, u) / most
      if (bound > best.bound) best = { bound, price: u.map((p) => Math.max(0, p) / most), whole: false }
      if (most <= 1 + 1e-9) return null
      const pattern = [...knapsack.pattern()]
      return { rows: pattern.map(([i]) => i), values: pattern.map(([, a]) => a), cost: 1 }
    },
    60 * kinds.length + 2000,
  )
  return { ...best, whole: optimal && !stopped }
}
