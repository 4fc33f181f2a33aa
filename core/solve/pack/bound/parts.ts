import { ofWhole } from '../model/band'
import { bars } from './bars'
import { dualFeasible } from './bound'
import { Exhaust } from './exhaust'
import type { Exhausted } from './laid-out'
import type { Kind } from '../model/kinds'
import { PACK_TOLERANCE } from '../model/types'

/**
 * Bounds by parts: what a part of the items takes at least the whole takes too. The kinds worth most against the bar
 * relaxation are searched to the end (see `Exhaust`) for plans below a length that rises step by step, with more and
 * more kinds: whatever is said to take the least work to raise the bound is done next.
 */
const PARTS = {
  /** The least part is worth this share of the bound. */
  least: 0.9,
  /** A step of the length, as a share of the bound; a step costs so many times the one before. */
  step: 0.0035,
  grows: 3,
  /**
   * The first and the shortest step against that; by so much one is longer after one that did not fail; one that
   * tells how the work grows.
   */
  first: 1 / 16,
  shortest: 1 / 40,
  longer: 2,
  telling: 0.2,
  /** Work of beginning a part, of an attempt at least, and of one against what is expected of it. */
  begin: 30_000,
  work: 20_000,
  over: 4,
  /** What is expected of one that was given up, against the work it had. */
  again: 2,
}

interface Part {
  kinds: Kind[]
  exhaust: Exhaust | null
  /** The last length tried, and the work it took or is said to take. */
  at: number
  cost: number
  whole: boolean
  /** What a step costs against the one before it. */
  grows: number
}

export class Parts {
  /** Proven. */
  bound: number
  /** By number of kinds; those behind which nothing is to be had are left out. */
  private parts: Part[] = []
  private failed = 0
  private step = PARTS.step * PARTS.first
  private readonly order: number[]

  /** `from`: bound and prices of the bar relaxation of all kinds. */
  constructor(
    kinds: readonly Kind[],
    private readonly width: number,
    from: { bound: number; price: Float64Array },
  ) {
    this.bound = from.bound
    const worth = (i: number) => from.price[i]
    this.order = [...kinds.keys()].sort((a, b) => worth(b) - worth(a) || a - b)
    let sum = 0
    const { order } = this
    order.forEach((i, n) => {
      sum += worth(i) * kinds[i].items.length
      if (sum < PARTS.least * from.bound && n + 1 < order.length) return
      this.parts.push({
        kinds: order.slice(0, n + 1).map((k) => kinds[k]),
        exhaust: null,
        at: from.bound,
        cost: 0,
        whole: false,
        grows: PARTS.grows,
      })
    })
  }
  /**
   * Goes on with the proof that no plan is shorter than `length`, for about so much work more. Answers the work done,
   * and a shorter plan of a part of the items where that was searched to the end and there is one: it may be the whole.
   */
  run(length: number, work: number, spent: () => boolean): { work: number; plan: Exhausted['plan'] } {
    let done = 0
    while (this.bound < length - PACK_TOLERANCE && this.parts.length > 0 && !spent()) {
      const step = this.step * this.bound
      // The last step is not a small one.
      const next = this.bound + step * 1.5 > length ? length : this.bound + step
      const expected = (p: Part) =>
        Math.max(PARTS.work, p.cost * p.grows ** ((next - p.at) / step)) + (p.exhaust ? 0 : PARTS.begin)
      const part = this.parts.reduce((a, b) => (expected(b) < expected(a) ? b : a))
      const most = expected(part)
      if (most > work - done) break
      const { work: took, whole, plan } = this.attempt(part, next, most * PARTS.over, spent)
      done += took
      if (whole) {
        this.failed = 0
        this.step = Math.min(PARTS.step, this.step * PARTS.longer)
      } else if (++this.failed >= this.parts.length) {
        this.failed = 0
        this.step /= 2
        // Where no part gets on by so little, as where small items are worth nothing, none will.
        if (this.step < PARTS.step * PARTS.shortest) this.parts = []
      }
      if (plan) return { work: done, plan }
    }
    return { work: done, plan: null }
  }
  private attempt(part: Part, cap: number, most: number, spent: () => boolean): Omit<Exhausted, 'least'> {
    const { kinds } = part
    const begin = part.exhaust ? 0 : PARTS.begin
    const price = () => bars(kinds, this.width, dualFeasible(kinds, this.width), spent).price
    part.exhaust ??= new Exhaust(kinds, this.width, price())
    const got = part.exhaust.run(cap, most, spent)
    const work = got.work + begin
    const steps = (cap - part.at) / (PARTS.step * this.bound)
    if (got.whole && part.whole && steps > PARTS.telling)
      part.grows = Math.min(PARTS.grows, Math.max(1, (got.work / part.cost) ** (1 / steps)))
    part.at = cap
    part.whole = got.whole
    part.cost = got.whole ? got.work : got.work * PARTS.again
    const leave = (which: (p: Part) => boolean) => (this.parts = this.parts.filter((p) => !which(p)))
    if (!got.whole) {
      // Given up for want of room: it will not be better later.
      if (got.work < most && !spent()) leave((p) => p === part)
    } else {
      this.bound = Math.max(this.bound, got.least ?? cap)
      // No smaller part takes more than this one.
      if (got.least !== null) leave((p) => p.kinds.length <= kinds.length)
    }
    const plan = got.plan?.map(({ band, rooms }) => ({ rooms, band: ofWhole([band], this.order)[0] }))
    return { whole: got.whole, work, plan: plan ?? null }
  }
}
