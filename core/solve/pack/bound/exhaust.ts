import type { Band } from '../model/band'
import { Blocks, CHECK_EVERY } from './blocks'
import type { Counting } from './blocks-ask'
import { MADE, PLACES, SHARES } from './ordered'
import { CodeTable, longer } from '../model/code-table'
import { coverLp } from './cover-lp'
import { laidOut, type Exhausted, type WithRooms } from './laid-out'
import { commonStep, type Kind } from '../model/kinds'
import { PACK_TOLERANCE } from '../model/types'

/** Steps across the strip, and beginnings of plans at most. */
const LARGEST_GRID = 16_000
const MOST_PLANS = 1_000_000
/** The step where sizes have none in common. */
const FINE = 0.1
const BITS = 31
/** Steps of a linear program over bands; a gain too small to count, of a step of the sizes. */
const ROUNDS = 2_000
const SMALL = 1e-6
const ROUNDING = 1e-3

interface Sized {
  w: number
  l: number
  turn: boolean
  count: number
  price: number
}

/** Kinds of the items of bands one after another; where each band's begin. */
interface Held {
  first: Int32Array
  kinds: Int32Array
}

/**
 * All plans by straight cuts of a few kinds of items that are shorter than a given length, or the proof that there is
 * none. Every plan falls into blocks, each of two blocks side by side or one behind the other. At every line across the
 * strip what is crossed is worth 1 at most (prices of the bar relaxation), and beside a block of width w it is worth
 * u(W − w) at most; so a plan is longer than all items are worth by at least length·(1 − u(W − w)) less what the block
 * is worth. A block that loses more so than the plan may is in no such plan. What is left is put together by number of
 * items, for each selection of items only the least rectangles; then bands that lie behind one another.
 * Sizes are rounded down to a common step, which leaves the proof true.
 */
export class Exhaust implements Counting {
  private readonly step: number
  private readonly width: number
  private readonly sized: Sized[] = []
  /** Most that is worth lying side by side in each width, 1 at the whole. */
  private readonly u: Float64Array
  private readonly narrowest: number
  readonly bound: number
  /** False where the kinds have too many items to be written as two numbers. */
  readonly usable: boolean
  // Counts of kinds as bits of two numbers, with a bit above each that a sum too large sets.
  private readonly word: number[] = []
  private readonly unit: number[] = []
  private readonly shift: number[] = []
  private readonly bits: number[] = []
  readonly bias: [number, number] = [0, 0]
  readonly guard: [number, number] = [0, 0]
  private readonly items: number

  /** `width`: of the strip. `price`: worth of one item of each kind, at most 1 over any crossing (made so here). */
  constructor(
    private readonly kinds: readonly Kind[],
    private readonly stripWidth: number,
    price: ArrayLike<number>,
  ) {
    const common = commonStep([...kinds.flatMap((k) => [k.w, k.l]), stripWidth])
    this.step = Math.max(common || FINE, stripWidth / LARGEST_GRID)
    const steps = (mm: number) => Math.floor(mm / this.step + 1e-7)
    const width = steps(stripWidth)
    this.width = width
    kinds.forEach((k, i) => {
      const turn = k.turn && k.l <= stripWidth + PACK_TOLERANCE
      this.sized.push({ w: steps(k.w), l: steps(k.l), turn, count: k.items.length, price: price[i] })
    })
    this.items = this.sized.reduce((n, s) => n + s.count, 0)
    const u = this.crossings()
    const most = Math.max(1e-12, u[width]) * (1 + 1e-12)
    this.u = u.map((x) => x / most)
    for (const s of this.sized) s.price /= most
    this.narrowest = this.sized.reduce((n, s) => Math.min(n, s.w, s.turn ? s.l : Infinity), Infinity)
    this.bound = this.step * this.sized.reduce((t, s) => t + s.price * s.count, 0)
    this.usable = this.coded()
  }
  /** Most that is worth lying side by side in each width. */
  private crossings(): Float64Array {
    const u = new Float64Array(this.width + 1)
    for (const { w, l, turn, count, price } of this.sized)
      for (let c = 0; c < count; c++)
        for (let x = this.width; x >= 0; x--) {
          let best = u[x]
          if (x >= w) best = Math.max(best, u[x - w] + price / l)
          if (turn && x >= l) best = Math.max(best, u[x - l] + price / w)
          u[x] = best
        }
    return u
  }
  private coded(): boolean {
    const used = [0, 0]
    for (const { count, w, l } of this.sized) {
      if (w < 1 || l < 1) return false
      const bits = 33 - Math.clz32(count)
      const word = used[0] + bits <= BITS ? 0 : 1
      const at = used[word]
      if (at + bits > BITS) return false
      this.word.push(word)
      this.shift.push(at)
      this.bits.push(bits - 1)
      this.unit.push(1 << at)
      this.bias[word] += ((1 << (bits - 1)) - 1 - count) << at
      this.guard[word] |= 1 << (at + bits - 1)
      used[word] = at + bits
    }
    return true
  }
  private count(low: number, high: number, kind: number): number {
    return ((this.word[kind] === 0 ? low : high) >>> this.shift[kind]) & ((1 << this.bits[kind]) - 1)
  }

  /** All plans shorter than `cap`, as long as `work` and time last. */
  run(cap: number, work: number, spent: () => boolean): Exhausted {
    const capSteps = Math.ceil(cap / this.step - 1e-6)
    const blocks = new Blocks({
      width: this.width,
      narrowest: this.narrowest,
      u: this.u,
      slack: capSteps - 1 - this.bound / this.step + ROUNDING,
      length: capSteps,
      counting: this,
      over: (): boolean => over(),
    })
    const none = (): Exhausted => ({ least: null, plan: null, whole: false, work: blocks.work })
    if (!this.usable) return none()
    const over = (): boolean => blocks.work > work || blocks.full || spent()
    this.sized.forEach(({ w, l, turn, price }, i) => {
      const [low, high] = this.word[i] === 0 ? [this.unit[i], 0] : [0, this.unit[i]]
      blocks.add({ low, high, value: price, w, h: l, made: MADE.comes, a: i, b: 0 })
      if (turn) blocks.add({ low, high, value: price, w: l, h: w, made: MADE.turned, a: i, b: 0 })
    })
    blocks.close()
    for (let n = 2; n <= this.items; n++) {
      for (let few = 1; 2 * few <= n; few++) if (!blocks.pair(few, n - few)) return none()
      blocks.close()
    }
    return this.plans(blocks, over) ?? none()
  }

  /**
   * Bands behind one another: what is laid so far by the number of its items, what comes next holds the first kind
   * still missing.
   */
  private plans(blocks: Blocks, over: () => boolean): Exhausted | null {
    if (over()) return null
    const { bands } = blocks
    const held = this.contents(bands)
    const { loss, left } = this.reduced(blocks, held, over)
    if (over()) return null
    if (left < 0) return { least: null, plan: null, whole: true, work: blocks.work }
    const holding: number[][] = this.sized.map(() => [])
    // Least loss first, but for a share of a step.
    const order = Float64Array.from(loss.keys()).filter((b) => loss[b] <= left)
    for (const key of order.map((b) => Math.floor((loss[b] + 1) * SHARES) * PLACES + b).sort()) {
      const b = key % PLACES
      for (let i = held.first[b], last = -1; i < held.first[b + 1]; i++) {
        const k = held.kinds[i]
        if (k !== last) holding[k].push(b)
        last = k
      }
    }
    const rarest = [...holding.keys()].sort((a, b) => holding[a].length - holding[b].length)
    const laid = new CodeTable()
    let lost = new Float64Array(1024)
    let last = new Int32Array(1024)
    let from = new Int32Array(1024)
    const byItems: number[][] = Array.from({ length: this.items + 1 }, () => [])
    laid.put(0, 0)
    byItems[0] = [0]
    const [bias0, bias1] = this.bias
    const [guard0, guard1] = this.guard
    for (let n = 0; n < this.items; n++)
      for (const s of byItems[n]) {
        const [low, high, before] = [laid.low[s], laid.high[s], lost[s]]
        const kind = rarest.find((k) => this.count(low, high, k) < this.sized[k].count) as number
        for (const b of holding[kind]) {
          if ((++blocks.work & (CHECK_EVERY - 1)) === 0 && over()) return null
          const now = before + loss[b]
          if (now > left + 1 / SHARES) break
          const l = low + bands.low[b]
          const h = high + bands.high[b]
          if (((l + bias0) & guard0) | ((h + bias1) & guard1)) continue
          const known = laid.size
          const at = laid.put(l, h)
          if (at === lost.length) [lost, last, from] = [longer(lost), longer(last), longer(from)]
          if (at === known) {
            if (known > MOST_PLANS) return null
            byItems[n + held.first[b + 1] - held.first[b]].push(at)
          } else if (now >= lost[at] - 1e-9) continue
          lost[at] = now
          last[at] = b
          from[at] = s
        }
      }
    const end = byItems[this.items][0]
    if (end === undefined) return { least: null, plan: null, whole: true, work: blocks.work }
    const plan: WithRooms[] = []
    let length = 0
    for (let s = end; s !== 0; s = from[s]) {
      const b = last[s]
      length += bands.length[b]
      plan.push(laidOut(this.kinds, this.stripWidth, blocks, b))
    }
    // What fits by sizes rounded down need not by the items' own.
    const wider = (b: Band) =>
      b.kinds.some((k, i) => b.x[i] + this.across(k, b.turned[i] === true) > this.stripWidth + PACK_TOLERANCE)
    if (plan.some((p) => wider(p.band)))
      return { least: length * this.step, plan: null, whole: true, work: blocks.work }
    return { least: length * this.step, plan, whole: true, work: blocks.work }
  }
  private across(kind: number, turned: boolean): number {
    const { w, l } = this.kinds[kind]
    return turned ? l : w
  }
  /** Kinds of the items of each band, one after another. */
  private contents(bands: CodeTable): Held {
    const first = new Int32Array(bands.size + 1)
    let kinds = new Int32Array(4096)
    let n = 0
    for (let b = 0; b < bands.size; b++) {
      for (let k = 0; k < this.sized.length; k++)
        for (let c = this.count(bands.low[b], bands.high[b], k); c > 0; c--) {
          if (n === kinds.length) kinds = longer(kinds)
          kinds[n++] = k
        }
      first[b + 1] = n
    }
    return { first, kinds }
  }
  /**
   * What bands lose once each kind bears its share of what can't be avoided, by a linear program over all bands; and
   * what a plan may lose beyond that: below 0 there is none.
   */
  private reduced(blocks: Blocks, { first, kinds }: Held, over: () => boolean): { loss: Float64Array; left: number } {
    const loss = Float64Array.from(blocks.bands.length.subarray(0, blocks.bands.size))
    const less = (share: (k: number) => number) => {
      let least = 0
      for (let b = 0; b < loss.length; b++) {
        for (let i = first[b]; i < first[b + 1]; i++) loss[b] = loss[b] - share(kinds[i])
        least = Math.min(least, loss[b])
      }
      return least
    }
    less((k) => this.sized[k].price)
    const demand = this.sized.map((s) => s.count)
    const start = demand.map(() => ({ value: 1, cost: 10 * blocks.slack + 10 }))
    const { price } = coverLp(
      demand,
      start,
      (u) => {
        if (over()) return null
        let most = SMALL
        let best = -1
        for (let b = 0; b < loss.length; b++) {
          let gain = -loss[b]
          for (let i = first[b]; i < first[b + 1]; i++) gain += u[kinds[i]]
          if (gain > most) [most, best] = [gain, b]
        }
        blocks.work += loss.length
        if (best < 0) return null
        const column = kinds.subarray(first[best], first[best + 1])
        const rows = [...new Set(column)]
        return {
          rows,
          values: rows.map((r) => column.reduce((n, k) => n + (k === r ? 1 : 0), 0)),
          cost: loss[best],
        }
      },
      ROUNDS,
    )
    let left = blocks.slack - price.reduce((t, u, k) => t + u * demand[k], 0)
    // Shares that a band does not bear are no proof: they were given up too soon.
    if (less((k) => price[k]) < -SMALL) {
      less((k) => -price[k])
      left = blocks.slack
    }
    return { loss, left: left + SMALL * this.items }
  }
}
