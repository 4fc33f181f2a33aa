import type { Budget } from '../../kit/budget'
import { seeded } from '../../kit/random'
import { lowerBound } from './bounds'
import { NEVER } from './calendar'
import { criticalTasks } from './critical'
import { earliestBegins, inOrder, linksOf, tails, type Links } from './earliest'
import { searchExactly } from './exact'
import { ForwardSearch, type ForwardOptions } from './forward'
import { allAlike, earliestBegin, isBetter, type Plan, type Problem } from './model'
import { pacedForWindows } from './windows'

export { Calendar, NEVER } from './calendar'
export type { Link, Person, Plan, Problem, Task, TaskKind } from './model'

export type ScheduleFault =
  | { code: 'cycle'; tasks: number[] }
  | { code: 'crew_too_small'; tasks: number[] }
  | { code: 'never_fits'; tasks: number[] }
  | { code: 'window_impossible'; tasks: number[] }

export interface Schedule extends Plan {
  bound: number
  optimal: boolean
  critical: number[]
}

/** Up to so many tasks every branch is looked at. */
const EXACT_TASKS = 16
const EXACT_ROUNDS = 12_000
const RESCUE_ROUNDS = 600
/** Tasks looked at: windows that push each other round and round take most of them (a tenth of a second or so). */
const RESCUE_EFFORT = 3_000_000
/** A plan that keeps its windows is looked for within a week of the bound. */
const RESCUE_LATEST_MIN = 7 * 1440
const EXACT_EFFORT = 20_000_000
const RESCUE_TASKS = 60
const DIVES = 4
const DIVE_STATES = 1_500
/** A dive goes as deep as there are tasks. */
const DIVE_TASKS = 800

/**
 * Tasks in time: least and most waits, people with hours and skills, slots that a group holds, open hours. Fewest late,
 * then the earliest finish. Anytime (the budget), the same seed the same plan; the bound is proven.
 */
export function schedule(p: Problem, budget: Budget, seed = 1): Schedule | ScheduleFault {
  const links = linksOf(p)
  const sorted = inOrder(p, links)
  if ('cycle' in sorted) return { code: 'cycle', tasks: sorted.cycle }
  const fault = crewFault(p) ?? fitFault(p)
  if (fault) return fault
  const heads = earliestBegins(
    p,
    links,
    p.tasks.map(() => p.start),
  )
  if ('impossible' in heads) return { code: 'window_impossible', tasks: culprits(p, heads.impossible) }
  const after = tails(p, links, sorted.order)
  const ends = heads.map((h, i) => h + p.tasks[i].minutes)
  const bound = lowerBound(p, heads, after, ends)
  const found = search(p, links, { heads, after, bound, budget, seed })
  if (!found.plan) return { code: 'window_impossible', tasks: withWindows(p) }
  const optimal = found.proven || (found.plan.late === 0 && found.plan.finish <= bound)
  return {
    ...found.plan,
    bound: optimal ? found.plan.finish : Math.min(bound, found.plan.finish),
    optimal,
    critical: criticalTasks(p, links, found.plan),
  }
}

interface SearchInput {
  heads: readonly number[]
  after: readonly number[]
  bound: number
  budget: Budget
  seed: number
}

function search(p: Problem, links: Links, input: SearchInput): { plan: Plan | null; proven: boolean } {
  const { heads, after, bound, budget, seed } = input
  const isSpent = (): boolean => budget.spent?.() ?? false
  const forward = new ForwardSearch(p, links, heads, after)
  const random = seeded(seed)
  let best: Plan | null = null
  const isDone = (): boolean => best !== null && best.late === 0 && best.finish <= bound
  const better = (plan: Plan | null): void => {
    if (plan && isBetter(plan, best)) best = plan
  }
  better(forward.search(options(0, random), best, () => false))
  if (!isDone() && p.tasks.length <= EXACT_TASKS && allAlike(p)) {
    const exact = searchExactly(p, links, {
      budget: { ...budget, rounds: EXACT_ROUNDS },
      known: best,
      bound,
      effort: { left: EXACT_EFFORT, latest: NEVER },
    })
    if (exact.proven) return exact
    better(exact.plan)
  }
  // Windows that close kill schedules that begin everything as soon as they can: what they hang on is begun later.
  const paced = hasWindows(p) ? pacedForWindows(p, links, { after, heads, options: options(0, random) }) : null
  better(paced?.plan ?? null)
  const searches = paced ? [new ForwardSearch(p, links, paced.floors, after), forward] : [forward]
  for (let run = 1; run < budget.rounds && !isDone() && !isSpent(); run++) {
    const use = searches[run % searches.length] ?? forward
    better(use.search(options(run, random), best, isSpent))
    // Between beams, straight for the bound, again and again from another order.
    for (let k = 0; k < DIVES && p.tasks.length <= DIVE_TASKS && !isDone() && !isSpent(); k++)
      better(use.dive(bound, { ...options(k + 1, random), branches: 8, skips: k % 2 }, DIVE_STATES, isSpent))
  }
  if (best === null && allAlike(p) && p.tasks.length <= RESCUE_TASKS)
    better(
      searchExactly(p, links, {
        budget: { rounds: RESCUE_ROUNDS },
        known: null,
        bound,
        effort: { left: RESCUE_EFFORT, latest: bound + RESCUE_LATEST_MIN },
      }).plan,
    )
  return { plan: best, proven: false }
}

const hasWindows = (p: Problem): boolean => p.tasks.some((t) => t.after.some((l) => l.most < NEVER))

/** Wider and wider beams, by turns with more and less weight on what is big and on chance. */
function options(run: number, random: () => number): ForwardOptions {
  const wide = [1, 4, 12, 24, 40][Math.min(4, run)] ?? 40
  return {
    width: wide,
    branches: run === 0 ? 1 : 3 + (run % 3),
    skips: run % 2,
    random,
    noise: run < 2 ? 0 : 0.05 + 0.15 * (run % 4),
    bulk: [0.3, 1, 3, 0][run % 4] ?? 0.3,
  }
}

function crewFault(p: Problem): ScheduleFault | null {
  const short = p.tasks
    .map((_, i) => i)
    .filter((i) => {
      const { crew, needs } = p.tasks[i]
      if (crew > p.people.length) return true
      const together = p.people.reduce((all, q) => all | q.skills, 0)
      return (needs & ~together) !== 0
    })
  return short.length > 0 ? { code: 'crew_too_small', tasks: short } : null
}

function fitFault(p: Problem): ScheduleFault | null {
  const long = p.tasks
    .map((_, i) => i)
    .filter((i) => {
      const task = p.tasks[i]
      if (task.kind === 'free') return false
      const longest = p.people.map((q) => q.hours.longest).sort((a, b) => b - a)
      const enough = task.kind === 'paused' ? 1 : task.minutes
      if (p.hours.longest < enough || (longest[task.crew - 1] ?? 0) < enough) return true
      return !allAlike(p) && !isEverTogether(p, task.crew, enough, task.needs)
    })
  return long.length > 0 ? { code: 'never_fits', tasks: long } : null
}

/** Whether enough people who can do it are ever there at once for so long: seen from each begin of somebody's hours. */
function isEverTogether(p: Problem, crew: number, minutes: number, needs: number): boolean {
  const begins = new Set(p.people.flatMap((q) => q.hours.from.slice(0, BEGINS_SEEN)))
  for (const begin of begins) {
    const there = p.people.filter((q) => q.hours.fit(begin, minutes) === begin)
    const can = there.reduce((all, q) => all | q.skills, 0)
    if (there.length >= crew && (needs & ~can) === 0) return true
  }
  return false
}
/** Some months of a person's hours; weeks are alike. */
const BEGINS_SEEN = 200

/** The task whose window cannot be met, and those that hold it. */
function culprits(p: Problem, i: number): number[] {
  const bound = p.tasks[i].after.filter((l) => l.most < NEVER).map((l) => l.task)
  const pins = p.tasks[i].after
    .map((l) => l.task)
    .filter(
      (j) => p.tasks[j].pinned !== null || p.tasks[j].finishBy < NEVER || earliestBegin(p, p.tasks[j], 0) > p.start,
    )
  return [...new Set([...bound, ...pins, i])]
}
const withWindows = (p: Problem): number[] => {
  const out = new Set<number>()
  p.tasks.forEach((task, i) => {
    if (task.finishBy < NEVER || task.pinned !== null) out.add(i)
    for (const l of task.after)
      if (l.most < NEVER) {
        out.add(l.task)
        out.add(i)
      }
  })
  return [...out].sort((a, b) => a - b)
}
