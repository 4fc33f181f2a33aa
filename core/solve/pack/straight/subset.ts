import type { Band } from '../model/band'
import type { Kind } from '../model/kinds'
import { PACK_TOLERANCE } from '../model/types'
import { SubsetFront } from './subset-front'

/**
 * All cuts of a few items from bands, exactly: for every subset the rectangles (width, length) that hold it and
 * that no smaller one holds, built by putting two such rectangles side by side or one behind the other.
 * What wastes more area than the best plan known, or is longer, is left out; so the least length is exact below `cap`.
 */
export interface SubsetPlan {
  /** Least total length found below the cap, and its bands; null where there is none. */
  best: Band[] | null
  /** Every band worth keeping: one a subset, with what it holds. */
  each: (visit: (kinds: number[], length: number, make: () => Band) => void) => void
  /** False where time ran out before all subsets were done. */
  whole: boolean
}

const MOST_ENTRIES = 600_000

/** What the cuts of a few items hang on. */
interface SubsetProblem {
  kinds: readonly Kind[]
  /** Index into `kinds` of each item; alike ones stand side by side. */
  members: readonly number[]
  width: number
  cap: number
  cuts: number
  spent: () => boolean
}

/** How a rectangle came about: a single item, two side by side, two behind one another, or one of a level below. */
const SINGLE = 0
const BESIDE = 1
const BEHIND = 2
const AS_BELOW = 3

export function subsets(problem: SubsetProblem): SubsetPlan {
  const table = new SubsetTable(problem)
  const whole = table.fill()
  const totals = bandTotals(table, whole)
  return {
    best: bestBands(table, totals, whole, problem.cap),
    whole,
    each: (visit) => {
      if (!whole) return
      for (let mask = 1; mask < table.size; mask++)
        if (table.alias[mask] === mask && totals.firstBand[mask] === mask)
          visit(membersOf(problem.members, mask), totals.single[mask], () => table.band(mask, totals.single[mask]))
    },
  }
}

/**
 * Rectangles of every subset, level by level: entry `e` is W[e] wide and H[e] long and came about by D[e] from A[e] and
 * B[e]. With cuts enough for any plan there is one level.
 */
class SubsetTable {
  readonly size: number
  readonly levels: number
  private readonly anyCuts: boolean
  private readonly area: Float64Array
  /** Subsets of alike items share one list: that of the first of them. */
  readonly alias: Int32Array
  private readonly waste: number
  private readonly W: number[] = []
  readonly H: number[] = []
  private readonly A: number[] = []
  private readonly B: number[] = []
  private readonly D: number[] = []
  readonly start: Int32Array
  readonly count: Int32Array
  private readonly front = new SubsetFront()
  private kindOfSingle: Map<number, number> | null = null

  constructor(private readonly problem: SubsetProblem) {
    const { members, width, cap, cuts } = problem
    const n = members.length
    this.size = 1 << n
    this.anyCuts = cuts > 2 * n
    this.levels = this.anyCuts ? 1 : cuts - 1
    this.area = areasOf(problem, this.size)
    this.alias = aliasesOf(members, this.size)
    this.waste = width * cap - this.area[this.size - 1]
    this.start = new Int32Array((this.levels + 1) * this.size)
    this.count = new Int32Array((this.levels + 1) * this.size)
  }

  /** Where the lists of finished bands begin. */
  get top(): number {
    return this.anyCuts ? 0 : this.levels * this.size
  }

  /** Fills all subsets; false where time or room ran out first. */
  fill(): boolean {
    for (let mask = 1; mask < this.size; mask++) {
      if (this.front.overflown) return false
      if (this.alias[mask] !== mask) continue
      if ((mask & 15) === 0 && (this.problem.spent() || this.W.length > MOST_ENTRIES)) return false
      if (mask === (mask & -mask)) this.addSingle(mask)
      if (this.anyCuts) this.fillAnyCuts(mask)
      else this.fillLevels(mask)
    }
    return !this.front.overflown
  }

  private addSingle(mask: number): void {
    const { kinds, members, width } = this.problem
    const k = kinds[members[31 - Math.clz32(mask)]]
    if (k.w <= width + PACK_TOLERANCE) this.front.add(k.w, k.l, -1, 0, SINGLE)
    if (k.turn && k.l <= width + PACK_TOLERANCE) this.front.add(k.l, k.w, -1, 1, SINGLE)
  }

  private fillAnyCuts(mask: number): void {
    const low = mask & -mask
    for (let sub = (mask - 1) & mask; sub > 0; sub = (sub - 1) & mask) {
      if (!(sub & low)) continue
      this.combine(this.alias[sub], this.alias[mask ^ sub], { along: true, across: true, have: this.area[mask] })
    }
    this.keep(mask)
  }

  private fillLevels(mask: number): void {
    const { size, levels, alias } = this
    const low = mask & -mask
    this.keep(mask)
    for (let level = 1; level <= levels; level++) {
      const lower = (level - 1) * size
      const at = level * size
      for (let e = this.start[lower + mask], end = e + this.count[lower + mask]; e < end; e++)
        this.front.add(this.W[e], this.H[e], e, -1, AS_BELOW)
      const along = (levels - level) % 2 === 0
      const how = { along, across: !along, have: this.area[mask] }
      for (let sub = (mask - 1) & mask; sub > 0; sub = (sub - 1) & mask)
        if (sub & low) this.combine(at + alias[mask ^ sub], lower + alias[sub], how)
      this.keep(at + mask)
    }
  }

  /** Puts every rectangle of one list beside, or behind, every one of another. */
  private combine(left: number, right: number, how: { along: boolean; across: boolean; have: number }): void {
    const { W, H, front, waste } = this
    const { along, across, have } = how
    const { width, cap } = this.problem
    const [s1, e1] = [this.start[left], this.start[left] + this.count[left]]
    const [s2, e2] = [this.start[right], this.start[right] + this.count[right]]
    for (let a = s1; a < e1; a++) {
      const wa = W[a]
      const ha = H[a]
      for (let b = s2; b < e2; b++) {
        const wb = W[b]
        const hb = H[b]
        if (along) {
          const w = wa + wb
          const h = ha > hb ? ha : hb
          if (w <= width + PACK_TOLERANCE && w * h - have <= waste + PACK_TOLERANCE) front.add(w, h, a, b, BESIDE)
        }
        if (across) {
          const w = wa > wb ? wa : wb
          const h = ha + hb
          if (h <= cap + PACK_TOLERANCE && w * h - have <= waste + PACK_TOLERANCE) front.add(w, h, a, b, BEHIND)
        }
      }
    }
  }

  private keep(list: number): void {
    const { front } = this
    const order = Array.from({ length: front.size }, (_, i) => i).sort((i, j) => front.w[i] - front.w[j])
    this.start[list] = this.W.length
    for (const i of order) {
      this.W.push(front.w[i])
      this.H.push(front.h[i])
      this.A.push(front.a[i])
      this.B.push(front.b[i])
      this.D.push(front.d[i])
    }
    this.count[list] = front.size
    front.size = 0
  }

  /** The narrowest and longest rectangle of a subset as a band of the roll. */
  band(mask: number, length: number): Band {
    const list = this.top + this.alias[mask]
    const into: Band = { length, kinds: [], x: [], y: [], turned: [] }
    this.layInto(into, this.start[list] + this.count[list] - 1, 0, 0)
    return into
  }

  private layInto(into: Band, e: number, x: number, y: number): void {
    const d = this.D[e]
    const a = this.A[e]
    const b = this.B[e]
    if (d === AS_BELOW) this.layInto(into, a, x, y)
    else if (d === SINGLE) {
      into.kinds.push(this.singles().get(e) as number)
      into.x.push(x)
      into.y.push(y)
      into.turned.push(b === 1)
    } else {
      this.layInto(into, a, x, y)
      this.layInto(into, b, d === BESIDE ? x + this.W[a] : x, d === BEHIND ? y + this.H[a] : y)
    }
  }

  /** Which kind each entry of a single item is. */
  private singles(): Map<number, number> {
    if (this.kindOfSingle) return this.kindOfSingle
    const found = new Map<number, number>()
    this.problem.members.forEach((kind, i) => {
      const list = this.alias[1 << i]
      for (let e = this.start[list], end = e + this.count[list]; e < end; e++) found.set(e, kind)
    })
    return (this.kindOfSingle = found)
  }
}

function areasOf({ kinds, members }: SubsetProblem, size: number): Float64Array {
  const area = new Float64Array(size)
  for (let mask = 1; mask < size; mask++) {
    const k = kinds[members[31 - Math.clz32(mask & -mask)]]
    area[mask] = area[mask & (mask - 1)] + k.w * k.l
  }
  return area
}

/** Of subsets that hold the same kinds, the one that takes the first of each: all others read its list. */
function aliasesOf(members: readonly number[], size: number): Int32Array {
  const alias = new Int32Array(size)
  for (let mask = 1; mask < size; mask++) {
    let canonical = mask
    for (let i = 1; i < members.length; i++)
      if (members[i] === members[i - 1] && (canonical & (3 << (i - 1))) >> (i - 1) === 2) {
        canonical = (canonical & ~(1 << i)) | (1 << (i - 1))
        i = 0
      }
    alias[mask] = canonical
  }
  return alias
}

interface BandTotals {
  /** Length of each subset as one band. */
  single: Float64Array
  /** Least length of each subset as several bands behind one another, and the first of them. */
  total: Float64Array
  firstBand: Int32Array
}

function bandTotals(table: SubsetTable, whole: boolean): BandTotals {
  const { size, alias, start, count, H, top } = table
  const single = new Float64Array(size).fill(Infinity)
  const total = new Float64Array(size).fill(Infinity)
  const firstBand = new Int32Array(size)
  total[0] = 0
  for (let mask = 1; mask < size && whole; mask++) {
    const list = top + alias[mask]
    if (count[list] > 0) single[mask] = H[start[list] + count[list] - 1]
    const low = mask & -mask
    for (let sub = mask; sub > 0; sub = (sub - 1) & mask) {
      if (!(sub & low)) continue
      const sum = single[sub] + total[mask ^ sub]
      if (sum < total[mask] - PACK_TOLERANCE) {
        total[mask] = sum
        firstBand[mask] = sub
      }
    }
  }
  return { single, total, firstBand }
}

function bestBands(table: SubsetTable, totals: BandTotals, whole: boolean, cap: number): Band[] | null {
  const all = table.size - 1
  if (!whole || totals.total[all] >= cap - PACK_TOLERANCE) return null
  const best: Band[] = []
  for (let mask = all; mask > 0; mask ^= totals.firstBand[mask]) {
    const first = totals.firstBand[mask]
    best.push(table.band(first, totals.single[first]))
  }
  return best
}

function membersOf(members: readonly number[], mask: number): number[] {
  const out: number[] = []
  for (let i = 0; i < members.length; i++) if (mask & (1 << i)) out.push(members[i])
  return out
}
