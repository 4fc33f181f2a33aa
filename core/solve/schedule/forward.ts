import { beforePins, type BeforePins } from './before-pins'
import { NEVER } from './calendar'
import type { Links } from './earliest'
import { ForwardMoves } from './forward-moves'
import { copy, FAR, fingerprint, type State } from './forward-state'
import { endOf, planOf, type Plan, type Problem } from './model'
import { Prospects } from './prospects'

export interface ForwardOptions {
  width: number
  /** Of the branches from each state, how many are followed. */
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
  private readonly moves: ForwardMoves
  private readonly prospects: Prospects
  private readonly pins: BeforePins | null
  constructor(
    private readonly p: Problem,
    links: Links,
    heads: readonly number[],
    private readonly after: readonly number[],
  ) {
    const attended = p.tasks.map((_, i) => i).filter((i) => p.tasks[i].crew > 0)
    this.pins = beforePins(p, links, heads)
    this.moves = new ForwardMoves(p, links, heads, { attended, pins: this.pins })
    this.prospects = new Prospects(p, heads, after, attended)
  }

  /** The best plan that is found; null where every branch ran into a window that closes. */
  search(options: ForwardOptions, known: Plan | null, stop: () => boolean): Plan | null {
    const rank = this.ranks(options)
    this.moves.soft = options.soft ?? false
    let best: Plan | null = null
    const worst = (): { late: number; finish: number } => best ?? known ?? { late: FAR, finish: FAR }
    let beam = [this.moves.first()].filter((s): s is State => s !== null)
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
      const due = Math.min(t.due, t.finishBy, this.pins?.endBy[i] ?? NEVER)
      const urgent = due < NEVER ? 1e4 / Math.max(60, due - this.p.start) : 0
      return -(this.after[i] / scale + bulk * volume + urgent + noise * random())
    })
  }

  private *children(state: State, rank: Float64Array, options: ForwardOptions): Generator<State> {
    let s: State | null = state
    for (let skip = 0; s && skip <= options.skips;) {
      const fresh = this.moves.startable(s, rank)
      if (fresh.length > 0) {
        // The most wanted first; what has to begin now or never comes before all.
        const deadline = s.deadline
        fresh.sort((a, b) => deadline[a.i] - deadline[b.i] || rank[a.i] - rank[b.i])
        for (const begun of fresh.slice(0, options.branches)) {
          const child = copy(s)
          child.lastRank = rank[begun.i]
          for (const q of begun.team) child.free[q] = endOf(this.p, this.p.tasks[begun.i], s.now)
          if (
            this.moves.beginInPlace(child, begun.i, s.now) &&
            this.moves.settleInPlace(child) &&
            this.prospects.weigh(child, (i) => this.moves.forgives(i))
          )
            yield child
        }
        skip++
      }
      if (skip > options.skips) break
      const later = copy(s)
      s = this.moves.letPass(later) ? later : null
    }
  }

  /**
   * Depth first, as far as a plan can still end by `target`; states that were seen to lead nowhere are not entered again.
   * Null: none found within `nodes` states.
   */
  dive(target: number, options: ForwardOptions, nodes: number, stop: () => boolean): Plan | null {
    const rank = this.ranks(options)
    this.moves.soft = false
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
    const first = this.moves.first()
    return first ? enter(first) : null
  }
}
