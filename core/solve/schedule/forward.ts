import { NEVER } from './calendar'
import { Capacity } from './bounds'
import type { Links } from './earliest'
import { allAlike, beginForEnd, earliestBegin, endOf, planOf, type Plan, type Problem } from './model'

/** A schedule that is made from the start on: what was begun so far, and who is free when. */
interface State {
  /** Everything before is decided. */
  now: number
  begins: Int32Array
  /** The earliest begin that is known; NONE while something before it is not begun. */
  ready: Int32Array
  left: Int16Array
  deadline: Int32Array
  /** By person, free from. */
  free: Int32Array
  /** By group: tasks left, last end so far; -1 begun not. */
  groupLeft: Int16Array
  groupEnd: Int32Array
  /** Tasks begun at this very moment come in this order, so that no set of them is made twice. */
  lastRank: number
  begun: number
  attendedLeft: number
  workLeft: number
  late: number
  finish: number
  score: number
  tie: number
}

const NONE = -1
const FAR = 2_000_000_000

export interface ForwardOptions {
  width: number
  /** Of the ways to go on from each state, how many are followed. */
  branches: number
  /** How many moments may be let pass with somebody idle. */
  skips: number
  random: () => number
  noise: number
  /** Windows that close hurry what they wait for, and kill nothing. */
  soft?: boolean
  /** What makes a task go first: what comes after it, and what it takes. */
  bulk: number
}

/**
 * Makes schedules from the start on, many at once: at each moment each state begins one of the tasks that can begin, or
 * lets the moment pass; the states that promise the earliest finish go on (a beam). What a state promises is a bound:
 * work that is left over the people's time, and the longest chain.
 */
export class ForwardSearch {
  private readonly alike: boolean
  private readonly capacity: Capacity
  private readonly attended: number[]
  /** Tasks with a window after them that closes: hours decide when they may begin. */
  private readonly opensWindow: boolean[]
  private readonly pinned: number[]
  private soft = false
  /** By group: groups that have to be begun before it, or it would hold a slot and wait for what cannot begin. */
  private readonly groupNeeds: { first: number[]; together: number[] }[]
  constructor(
    private readonly p: Problem,
    private readonly links: Links,
    private readonly heads: readonly number[],
    private readonly after: readonly number[],
  ) {
    this.alike = allAlike(p)
    this.capacity = new Capacity(p)
    this.attended = p.tasks.map((_, i) => i).filter((i) => p.tasks[i].crew > 0)
    this.pinned = this.attended.filter((i) => p.tasks[i].pinned !== null)
    this.groupNeeds = needsOfGroups(p)
    this.opensWindow = links.next.map((list) => list.some((l) => l.most < NEVER))
  }

  /** The best plan that is found; null where every way ran into a window that closes. */
  search(options: ForwardOptions, known: Plan | null, stop: () => boolean): Plan | null {
    const rank = this.ranks(options)
    this.soft = options.soft ?? false
    let best: Plan | null = null
    const worst = (): { late: number; finish: number } => best ?? known ?? { late: FAR, finish: FAR }
    let beam = [this.first()].filter((s): s is State => s !== null)
    const accept = (s: State): void => {
      const limit = worst()
      if (s.late < limit.late || (s.late === limit.late && s.finish < limit.finish))
        best = planOf(this.p, Array.from(s.begins))
    }
    for (const s of beam) if (s.begun === this.p.tasks.length) accept(s)
    beam = beam.filter((s) => s.begun < this.p.tasks.length)
    while (beam.length > 0 && !stop()) {
      const next: State[] = []
      const seen = new Set<number>()
      for (const state of beam)
        for (const child of this.children(state, rank, options)) {
          if (child.begun === this.p.tasks.length) {
            accept(child)
            continue
          }
          const limit = worst()
          if (child.late > limit.late || (child.late === limit.late && child.score >= limit.finish)) continue
          const print = fingerprint(child)
          if (seen.has(print)) continue
          seen.add(print)
          next.push(child)
        }
      next.sort((a, b) => a.late - b.late || a.score - b.score || a.tie - b.tie)
      beam = next.slice(0, options.width)
    }
    return best
  }

  private ranks({ random, noise, bulk }: ForwardOptions): Float64Array {
    const { tasks } = this.p
    const scale = Math.max(1, ...this.after)
    return Float64Array.from(tasks, (t, i) => {
      const volume = (t.minutes * t.crew) / scale
      const due = Math.min(t.due, t.finishBy)
      const urgent = due < NEVER ? 1e4 / Math.max(60, due - this.p.start) : 0
      return -(this.after[i] / scale + bulk * volume + urgent + noise * random())
    })
  }

  private first(): State | null {
    const { p } = this
    const n = p.tasks.length
    const groupLeft = new Int16Array(p.groups)
    for (const t of p.tasks) if (t.group >= 0) groupLeft[t.group]++
    const state: State = {
      now: p.start,
      begins: new Int32Array(n).fill(NONE),
      ready: Int32Array.from(p.tasks, (t, i) => (t.after.length === 0 ? this.inWindow(i, this.heads[i]) : NONE)),
      left: Int16Array.from(p.tasks, (t) => t.after.length),
      deadline: Int32Array.from(p.tasks, (t) => (t.pinned === null ? FAR : t.pinned)),
      free: new Int32Array(p.people.length).fill(p.start),
      groupLeft,
      groupEnd: new Int32Array(p.groups).fill(-1),
      lastRank: -Infinity,
      begun: 0,
      attendedLeft: this.attended.length,
      workLeft: this.attended.reduce((sum, i) => sum + p.tasks[i].crew * p.tasks[i].minutes, 0),
      late: 0,
      finish: p.start,
      score: 0,
      tie: 0,
    }
    return this.settleInPlace(state) ? state : null
  }

  /** The earliest begin at `t` or later with which windows after it can be met, by hours alone. */
  private inWindow(i: number, t: number): number {
    const { p } = this
    const task = p.tasks[i]
    let begin = earliestBegin(p, task, t)
    const windows = this.links.next[i].filter((l) => l.most < NEVER)
    for (let round = 0; round < MOST_SHIFTS && begin < FAR; round++) {
      const end = endOf(p, task, begin)
      let wanted = begin
      for (const l of windows) {
        const next = this.inWindow(l.task, end + l.least)
        if (next - end > l.most) wanted = Math.max(wanted, beginForEnd(p, task, next - l.most), begin + 1)
      }
      if (wanted === begin) return Math.min(begin, FAR)
      begin = earliestBegin(p, task, wanted)
    }
    return FAR
  }

  /** Begins all that takes nobody and opens no group as soon as it can; false where a window has closed. */
  private settleInPlace(s: State): boolean {
    const { p } = this
    for (let again = true; again;) {
      again = false
      for (let i = 0; i < p.tasks.length; i++) {
        const task = p.tasks[i]
        if (task.crew > 0 || s.begins[i] !== NONE || s.ready[i] === NONE) continue
        const mayOpen = task.group < 0 || s.groupEnd[task.group] >= 0 || p.groups <= p.slots
        if (!mayOpen) continue
        // A group that was begun just now has tasks that were ready long before.
        const at = s.ready[i] >= s.now ? s.ready[i] : this.inWindow(i, s.now)
        if (!this.beginInPlace(s, i, at)) return false
        again = true
      }
    }
    return true
  }

  /** Notes that a task begins; false where its window is over. */
  private beginInPlace(s: State, i: number, at: number): boolean {
    const { p, links } = this
    const task = p.tasks[i]
    if (at >= FAR || (at > s.deadline[i] && !this.forgives(i))) return false
    const end = endOf(p, task, at)
    if (end > task.finishBy || end >= FAR) return false
    s.begins[i] = at
    s.begun++
    if (end > task.due) s.late++
    s.finish = Math.max(s.finish, end)
    if (task.group >= 0) {
      s.groupLeft[task.group]--
      s.groupEnd[task.group] = Math.max(s.groupEnd[task.group], end)
    }
    if (task.crew > 0) {
      s.attendedLeft--
      s.workLeft -= task.crew * task.minutes
    }
    for (const l of links.next[i]) {
      const j = l.task
      s.left[j]--
      if (l.most < NEVER) s.deadline[j] = Math.min(s.deadline[j], end + l.most)
      if (s.left[j] > 0) continue
      let ready = this.heads[j]
      for (const before of p.tasks[j].after)
        ready = Math.max(ready, endOf(p, p.tasks[before.task], s.begins[before.task]) + before.least)
      s.ready[j] = this.inWindow(j, ready)
      if (s.ready[j] > s.deadline[j] && !this.forgives(j)) return false
    }
    return true
  }

  private forgives(i: number): boolean {
    return this.soft && this.p.tasks[i].pinned === null
  }

  private slotFree(s: State, task: { group: number }, at: number): boolean {
    const { p } = this
    if (task.group < 0 || p.groups <= p.slots || s.groupEnd[task.group] >= 0) return true
    const { first, together } = this.groupNeeds[task.group]
    if (first.some((g) => s.groupEnd[g] < 0)) return false
    let taken = 0
    const toCome = new Set(together.filter((g) => s.groupEnd[g] < 0))
    for (let g = 0; g < p.groups; g++) {
      if (s.groupEnd[g] < 0 || (s.groupLeft[g] === 0 && s.groupEnd[g] <= at)) continue
      taken++
      for (const h of this.groupNeeds[g].together) if (s.groupEnd[h] < 0) toCome.add(h)
    }
    toCome.delete(task.group)
    // Groups that need each other are there together: there has to be a slot for each of them.
    return taken + toCome.size < p.slots
  }

  /** Those who would do a task begun at `at`; null where too few are free. */
  private team(s: State, i: number, at: number): number[] | null {
    const { p } = this
    const task = p.tasks[i]
    if (task.crew === 0) return []
    const end = endOf(p, task, at)
    const able: number[] = []
    for (let q = 0; q < p.people.length; q++) {
      if (s.free[q] > at) continue
      if (!this.alike && !isThere(p, q, at, end)) continue
      able.push(q)
    }
    let kept = 0
    for (const j of this.pinned) {
      if (j === i || s.begins[j] !== NONE) continue
      const from = p.tasks[j].pinned ?? 0
      if (from < end && endOf(p, p.tasks[j], from) > at) kept += p.tasks[j].crew
    }
    if (able.length - kept < task.crew) return null
    return this.alike && task.needs === 0 ? able.slice(0, task.crew) : choose(p, able, task)
  }

  private *children(state: State, rank: Float64Array, options: ForwardOptions): Generator<State> {
    let s: State | null = state
    for (let skip = 0; s && skip <= options.skips;) {
      const ways = this.startable(s, rank)
      const fresh = ways.filter((w) => rank[w.i] > (s as State).lastRank)
      if (fresh.length > 0) {
        // The most wanted first; what has to begin now or never comes before all.
        const deadline = s.deadline
        fresh.sort((a, b) => deadline[a.i] - deadline[b.i] || rank[a.i] - rank[b.i])
        for (const way of fresh.slice(0, options.branches)) {
          const child = copy(s)
          child.lastRank = rank[way.i]
          for (const q of way.team) child.free[q] = endOf(this.p, this.p.tasks[way.i], s.now)
          if (this.beginInPlace(child, way.i, s.now) && this.settleInPlace(child) && this.promise(child)) yield child
        }
        skip++
      }
      if (skip > options.skips) break
      const later = copy(s)
      s = this.letPass(later) ? later : null
    }
  }

  private startable(s: State, rank: Float64Array): { i: number; team: number[] }[] {
    const { p } = this
    const out: { i: number; team: number[] }[] = []
    const rest = p.hours.closes(s.now) - s.now
    let idle = 0
    for (const f of s.free) if (f <= s.now) idle++
    for (let i = 0; i < p.tasks.length; i++) {
      if (s.begins[i] !== NONE || s.ready[i] === NONE || s.ready[i] > s.now || rank[i] <= s.lastRank) continue
      const task = p.tasks[i]
      if (task.crew > idle) continue
      if (task.kind === 'fixed' ? task.minutes > rest : task.kind === 'paused' && rest === 0) continue
      if (task.pinned !== null && task.pinned !== s.now) continue
      if ((this.opensWindow[i] && this.inWindow(i, s.now) !== s.now) || !this.slotFree(s, task, s.now)) continue
      const team = this.team(s, i, s.now)
      if (team) out.push({ i, team })
    }
    return out
  }

  /** On to the next moment at which anything changes; false where there is none, or a window closes before. */
  private letPass(s: State): boolean {
    const { p } = this
    let next = FAR
    const may = (t: number) => {
      if (t > s.now && t < next) next = t
    }
    for (const t of s.free) may(t)
    for (const person of this.alike ? p.people.slice(0, 1) : p.people) may(person.hours.opensAfter(s.now))
    may(p.hours.opensAfter(s.now))
    for (let g = 0; g < p.groups; g++) may(s.groupEnd[g])
    for (let i = 0; i < p.tasks.length; i++) {
      if (s.begins[i] !== NONE || s.ready[i] === NONE) continue
      may(s.ready[i])
      // Hours alone may keep it from beginning now: the moment at which they let it.
      if (s.ready[i] <= s.now && this.opensWindow[i]) may(this.inWindow(i, s.now + 1))
    }
    if (next >= FAR) return false
    s.now = next
    s.lastRank = -Infinity
    for (let i = 0; i < p.tasks.length; i++)
      if (s.begins[i] === NONE && s.deadline[i] < next && !this.forgives(i)) return false
    return true
  }

  /** What a state promises: no plan that begins like it ends before. */
  private promise(s: State): boolean {
    const { p } = this
    let score = s.finish
    let longest = 0
    for (let i = 0; i < p.tasks.length; i++) {
      if (s.begins[i] !== NONE) continue
      const from = Math.max(s.now, s.ready[i] === NONE ? this.heads[i] : s.ready[i])
      if (from + this.after[i] > score) score = from + this.after[i]
      if (s.deadline[i] < s.now && !this.forgives(i)) return false
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

  /**
   * Depth first, as far as a plan can still end by `target`; states that were seen to lead nowhere are not entered again.
   * Null: none found within `nodes` states.
   */
  dive(target: number, options: ForwardOptions, nodes: number, stop: () => boolean): Plan | null {
    const rank = this.ranks(options)
    this.soft = false
    const dead = new Set<number>()
    let left = nodes
    const enter = (s: State): Plan | null => {
      if (s.begun === this.p.tasks.length) return planOf(this.p, Array.from(s.begins))
      if (left-- <= 0 || stop()) return null
      const print = fingerprint(s)
      if (dead.has(print)) return null
      dead.add(print)
      const children = [...this.children(s, rank, options)].filter((c) => c.score <= target && c.late === 0)
      children.sort((a, b) => a.score - b.score || a.lastRank - b.lastRank)
      for (const child of children) {
        const plan = enter(child)
        if (plan || left <= 0) return plan
      }
      return null
    }
    const first = this.first()
    return first ? enter(first) : null
  }
}

const LONGEST_FILLED = 1500
const MOST_SHIFTS = 60

/** The groups whose tasks come before those of each group, unless they need each other. */
function needsOfGroups(p: Problem): { first: number[]; together: number[] }[] {
  const before = p.tasks.map(() => new Set<number>())
  // As often as chains are long: what comes before what comes before.
  for (let again = true; again;) {
    again = false
    p.tasks.forEach((task, i) => {
      const size = before[i].size
      for (const l of task.after) {
        if (p.tasks[l.task].group >= 0) before[i].add(p.tasks[l.task].group)
        for (const g of before[l.task]) before[i].add(g)
      }
      if (before[i].size > size) again = true
    })
  }
  const needs = Array.from({ length: p.groups }, () => new Set<number>())
  p.tasks.forEach((task, i) => {
    if (task.group >= 0) for (const g of before[i]) if (g !== task.group) needs[task.group].add(g)
  })
  return needs.map((set, g) => ({
    first: [...set].filter((h) => !needs[h].has(g)),
    together: [...set].filter((h) => needs[h].has(g)),
  }))
}

const isThere = (p: Problem, q: number, from: number, to: number): boolean => {
  const { hours } = p.people[q]
  return (
    hours.openUntil(to) - hours.openUntil(from) === p.hours.openUntil(to) - p.hours.openUntil(from) &&
    hours.nextOpen(from) === from
  )
}

const bits = (n: number): number => {
  let count = 0
  for (let x = n; x !== 0; x &= x - 1) count++
  return count
}

/** A team whose skills cover the task, out of those who can do least else; null where they do not. */
function choose(p: Problem, able: readonly number[], task: { crew: number; needs: number }): number[] | null {
  const sorted = [...able].sort((a, b) => bits(p.people[a].skills) - bits(p.people[b].skills))
  const team: number[] = []
  let open = task.needs
  while (open !== 0) {
    const helps = sorted.filter((q) => !team.includes(q) && (p.people[q].skills & open) !== 0)
    if (helps.length === 0 || team.length === task.crew) return null
    const most = Math.max(...helps.map((q) => bits(p.people[q].skills & open)))
    const next = helps.find((q) => bits(p.people[q].skills & open) === most) ?? helps[0]
    team.push(next)
    open &= ~p.people[next].skills
  }
  for (const q of sorted) if (team.length < task.crew && !team.includes(q)) team.push(q)
  return team.length === task.crew ? team : null
}

const copy = (s: State): State => ({
  ...s,
  begins: s.begins.slice(),
  ready: s.ready.slice(),
  left: s.left.slice(),
  deadline: s.deadline.slice(),
  free: s.free.slice(),
  groupLeft: s.groupLeft.slice(),
  groupEnd: s.groupEnd.slice(),
})

/** States with the same begun tasks and the same free people at the same moment go on alike. */
function fingerprint(s: State): number {
  let hash = s.now | 0
  const mix = (v: number): void => {
    hash = Math.imul(hash ^ v, 0x01000193)
    hash ^= hash >>> 13
  }
  for (let i = 0; i < s.begins.length; i++) mix(s.begins[i] === NONE ? 0 : 1)
  for (const r of s.ready) mix(r)
  for (const f of [...s.free].sort((a, b) => a - b)) mix(f > s.now ? f : 0)
  return hash
}
