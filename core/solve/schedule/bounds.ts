import { allAlike, type Problem } from './model'

/** Minutes of work that all people can give up to a moment, and the moment by which so many were given. */
export class Capacity {
  private readonly alike: boolean
  constructor(private readonly p: Problem) {
    this.alike = allAlike(p)
  }
  until(t: number): number {
    const { people } = this.p
    if (this.alike) return people.length === 0 ? 0 : people.length * people[0].hours.openUntil(t)
    return people.reduce((sum, q) => sum + q.hours.openUntil(t), 0)
  }
  /** The earliest moment up to which `work` minutes lie from `from` on. */
  moment(from: number, work: number): number {
    const { people } = this.p
    if (this.alike && people.length > 0) {
      const { hours } = people[0]
      return Math.max(from, hours.momentOf(hours.openUntil(from) + Math.ceil(work / people.length)))
    }
    const base = this.until(from)
    let [low, high] = [from, from + 1]
    while (this.until(high) - base < work && high < LATEST) high = from + (high - from) * 2
    while (low < high) {
      const middle = Math.floor((low + high) / 2)
      if (this.until(middle) - base >= work) high = middle
      else low = middle + 1
    }
    return low
  }
}
const LATEST = 1e10

/**
 * A finish that nothing can beat: the longest chain; and for every set of tasks that begin late and have much after
 * them, the time in which the people can do it (energy). Work that comes in half hours ends at a whole minute.
 */
export function lowerBound(
  p: Problem,
  heads: readonly number[],
  after: readonly number[],
  ends: readonly number[],
): number {
  const capacity = new Capacity(p)
  let bound = ends.reduce((a, b) => Math.max(a, b), p.start)
  const work = p.tasks.map((t, i) => ({ head: heads[i], tail: after[i] - t.minutes, work: t.crew * t.minutes }))
  const busy = work.filter((w) => w.work > 0).sort((a, b) => b.head - a.head)
  const tailSteps = [...new Set(busy.map((w) => w.tail))].sort((a, b) => a - b)
  const kept = tailSteps.filter((_, i) => i % Math.ceil(tailSteps.length / MOST_TAILS) === 0)
  for (const tail of kept) {
    let sum = 0
    for (let i = 0; i < busy.length; i++) {
      if (busy[i].tail >= tail) sum += busy[i].work
      if (i + 1 < busy.length && busy[i + 1].head === busy[i].head) continue
      if (sum > 0) bound = Math.max(bound, capacity.moment(busy[i].head, sum) + tail)
    }
  }
  return Math.max(bound, slotBound(p, heads))
}
const MOST_TAILS = 24

/** With fewer slots than groups: what groups need of the people's or the place's time, shared among the slots. */
function slotBound(p: Problem, heads: readonly number[]): number {
  if (p.groups <= p.slots) return p.start
  const spans = Array.from({ length: p.groups }, (_, g) => {
    const own = p.tasks.map((_, i) => i).filter((i) => p.tasks[i].group === g)
    const open = new Map<number, number>()
    const plain = new Map<number, number>()
    // Chains within the group, in minutes of open hours and in minutes of any kind.
    const chain = (i: number, known: Map<number, number>, minutes: (i: number) => number, least: boolean): number => {
      const got = known.get(i)
      if (got !== undefined) return got
      const before = p.tasks[i].after.filter((l) => own.includes(l.task))
      const value =
        minutes(i) +
        before.reduce((m, l) => Math.max(m, chain(l.task, known, minutes, least) + (least ? l.least : 0)), 0)
      known.set(i, value)
      return value
    }
    const attended = (i: number) => (p.tasks[i].kind === 'free' ? 0 : p.tasks[i].minutes)
    return {
      open: own.reduce((m, i) => Math.max(m, chain(i, open, attended, false)), 0),
      plain: own.reduce(
        (m, i) =>
          Math.max(
            m,
            chain(i, plain, (k) => p.tasks[k].minutes, true),
          ),
        0,
      ),
      head: own.reduce((m, i) => Math.min(m, heads[i]), Infinity),
    }
  })
  const first = spans.reduce((m, s) => Math.min(m, s.head), Infinity)
  const sum = (key: 'open' | 'plain') => Math.ceil(spans.reduce((s, x) => s + x[key], 0) / p.slots)
  return Math.max(first + sum('plain'), p.hours.momentOf(p.hours.openUntil(first) + sum('open')))
}
