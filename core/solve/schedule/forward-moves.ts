import type { BeforePins } from './before-pins'
import { NEVER } from './calendar'
import type { Links } from './earliest'
import { FAR, NONE, type State } from './forward-state'
import { needsOfGroups, type GroupNeeds } from './group-needs'
import { allAlike, beginForEnd, earliestBegin, endOf, type Problem } from './model'
import { choose, isThere } from './teams'

/** What can be done with a state: begin a task, let a moment pass. Places are changed in place; callers copy. */
export class ForwardMoves {
  /** Windows that close hurry what they wait for, and kill nothing. */
  soft = false
  private readonly alike: boolean
  /** Tasks with a window after them that closes: hours decide when they may begin. */
  private readonly opensWindow: boolean[]
  private readonly pinned: number[]
  private readonly attended: readonly number[]
  private readonly pins: BeforePins | null
  /** By group: groups that have to be begun before it, or it would hold a slot and wait for what cannot begin. */
  private readonly groupNeeds: readonly GroupNeeds[]
  constructor(
    private readonly p: Problem,
    private readonly links: Links,
    private readonly heads: readonly number[],
    about: { attended: readonly number[]; pins: BeforePins | null },
  ) {
    this.attended = about.attended
    this.pins = about.pins
    this.alike = allAlike(p)
    this.pinned = about.attended.filter((i) => p.tasks[i].pinned !== null)
    this.groupNeeds = needsOfGroups(p)
    this.opensWindow = links.next.map((list) => list.some((l) => l.most < NEVER))
  }

  /** Nothing begun but what takes nobody; null where a window has closed already. */
  first(): State | null {
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
      workLeft: this.attended.reduce((sum, i) => sum + p.tasks[i].crew * p.tasks[i].minutes, 0),
      late: 0,
      finish: p.start,
      score: 0,
      tie: 0,
    }
    return this.settleInPlace(state) ? state : null
  }

  /** The earliest begin at `t` or later with which windows after it can be met, by hours alone. */
  private inWindow(i: number, t: number, depth = 0): number {
    const { p } = this
    const task = p.tasks[i]
    let begin = earliestBegin(p, task, t)
    if (depth === DEEPEST) return Math.min(begin, FAR)
    const windows = this.links.next[i].filter((l) => l.most < NEVER)
    for (let round = 0; round < MOST_SHIFTS && begin < FAR; round++) {
      const end = endOf(p, task, begin)
      let wanted = begin
      for (const l of windows) {
        const next = this.inWindow(l.task, end + l.least, depth + 1)
        if (next - end > l.most) wanted = Math.max(wanted, beginForEnd(p, task, next - l.most), begin + 1)
      }
      if (wanted === begin) return Math.min(begin, FAR)
      begin = earliestBegin(p, task, wanted)
    }
    return FAR
  }

  /** Begins all that takes nobody and opens no group as soon as it can; false where a window has closed. */
  settleInPlace(s: State): boolean {
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
  beginInPlace(s: State, i: number, at: number): boolean {
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
    s.workLeft -= task.crew * task.minutes
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

  forgives(i: number): boolean {
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
    if (this.pins) this.addPinned(s, task.group, at, toCome)
    toCome.delete(task.group)
    // Groups that need each other are there together: there has to be a slot for each of them.
    return taken + toCome.size < p.slots
  }

  /** Groups that have to be there for a pinned task before this one would be gone again: a slot is left for them. */
  private addPinned(s: State, group: number, at: number, toCome: Set<number>): void {
    const { slotBy = [], stay = [] } = this.pins ?? {}
    const until = at + stay[group]
    for (let g = 0; g < this.p.groups; g++)
      if (s.groupEnd[g] < 0 && slotBy[g] < NEVER && until > slotBy[g] && slotBy[group] > slotBy[g]) toCome.add(g)
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

  /** What can begin at this moment, and by whom. */
  startable(s: State, rank: Float64Array): { i: number; team: number[] }[] {
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
  letPass(s: State): boolean {
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
}

const MOST_SHIFTS = 60
/** Windows behind windows are looked at so far: further on there are too many branches, and deadlines hold anyway. */
const DEEPEST = 4
