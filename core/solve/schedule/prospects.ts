import { Capacity } from './bounds'
import { NONE, type State } from './forward-state'
import type { Problem } from './model'

/** Ends of stretches up to this are looked at for what can fill them, minutes. */
const LONGEST_FILLED = 1500

/** What states promise: a bound on every plan that begins like them, and how well they bode. */
export class Prospects {
  private readonly capacity: Capacity
  constructor(
    private readonly p: Problem,
    private readonly heads: readonly number[],
    private readonly after: readonly number[],
    private readonly attended: readonly number[],
  ) {
    this.capacity = new Capacity(p)
  }

  /** What a state promises: no plan that begins like it ends before. */
  weigh(s: State, forgives: (i: number) => boolean): boolean {
    const { p } = this
    let score = s.finish
    let longest = 0
    for (let i = 0; i < p.tasks.length; i++) {
      if (s.begins[i] !== NONE) continue
      const from = Math.max(s.now, s.ready[i] === NONE ? this.heads[i] : s.ready[i])
      if (from + this.after[i] > score) score = from + this.after[i]
      if (s.deadline[i] < s.now && !forgives(i)) return false
      longest = Math.max(longest, p.tasks[i].minutes)
    }
    // What is left over the time that is left: people are free from when they are free, and ends that nothing fills are lost.
    const lost = this.lost(s)
    if (s.workLeft > 0) score = Math.max(score, this.capacity.moment(s.now, s.workLeft + this.committed(s) + lost))
    s.score = score
    s.tie = lost + this.bulkLeft(s)
    return true
  }

  private committed(s: State): number {
    const { p } = this
    let sum = 0
    for (let q = 0; q < p.people.length; q++)
      if (s.free[q] > s.now) {
        const { hours } = p.people[q]
        sum += hours.openUntil(s.free[q]) - hours.openUntil(s.now)
      }
    return sum
  }

  /** Minutes up to the ends of open stretches that no set of the tasks left can fill. */
  private lost(s: State): number {
    const { p } = this
    const rests: number[] = []
    let longest = 0
    for (let q = 0; q < p.people.length; q++) {
      const { hours } = p.people[q]
      const from = Math.max(s.free[q], s.now)
      const rest = hours.closes(from) - from
      if (rest <= 0 || rest > LONGEST_FILLED) continue
      rests.push(rest)
      longest = Math.max(longest, rest)
    }
    if (rests.length === 0) return 0
    // Sums of minutes that can be made of what is left, as bits.
    const words = (longest >> 5) + 1
    const sums = this.sums
    sums.fill(0, 0, words)
    sums[0] = 1
    for (const i of this.attended) {
      if (s.begins[i] !== NONE) continue
      const { minutes, kind } = p.tasks[i]
      if (kind === 'paused') return 0
      if (minutes > longest) continue
      const [far, near] = [minutes >> 5, minutes & 31]
      for (let w = words - 1; w >= far; w--) {
        const low = sums[w - far] << near
        const high = near > 0 && w - far > 0 ? sums[w - far - 1] >>> (32 - near) : 0
        sums[w] |= low | high
      }
    }
    let lost = 0
    for (const rest of rests) {
      let most = rest
      while ((sums[most >> 5] & (1 << (most & 31))) === 0) most--
      lost += rest - most
    }
    return lost
  }
  private readonly sums = new Int32Array((LONGEST_FILLED >> 5) + 2)

  /** Big tasks that are still to come bode ill: small ones fill better. */
  private bulkLeft(s: State): number {
    let big = 0
    for (const i of this.attended)
      if (s.begins[i] === NONE) big += this.p.tasks[i].minutes * this.p.tasks[i].minutes * this.p.tasks[i].crew
    return big / 4000 + this.capacity.until(s.now) / 50
  }
}
