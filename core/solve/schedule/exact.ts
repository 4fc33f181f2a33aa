import type { Budget } from '../../kit/budget'
import { earliestBegins, earliestWith, type Arc, type ArcsOf, type Effort, type Links } from './earliest'
import { isBetter, planOf, type Plan, type Problem } from './model'

/**
 * Every order of what cannot be at once, depth first: where too many people or slots are asked for at one moment,
 * one of a smallest set that is too much has to end before another of it begins (De Reyck & Herroelen 1998, for least
 * and most waits). Each node is the earliest schedule of its arcs, which is a bound too. For people who are all alike.
 * `effort` ends it where windows push each other round and round.
 */
export function searchExactly(
  p: Problem,
  links: Links,
  { budget, known, bound, effort }: { budget: Budget; known: Plan | null; bound: number; effort: Effort },
): { plan: Plan | null; proven: boolean } {
  let best = known
  let nodes = 0
  let whole = true
  const done = (): boolean => best !== null && best.late === 0 && best.finish <= bound
  const visit = (begins: readonly number[], arcs: ArcsOf): void => {
    if (done()) return
    if (nodes++ >= budget.rounds || effort.left <= 0 || (nodes % 64 === 0 && budget.spent?.())) {
      whole = false
      return
    }
    const plan = planOf(p, begins)
    if (!isBetter(plan, best)) return
    const clash = firstClash(p, plan)
    if (!clash) {
      best = plan
      return
    }
    const branches = clash.map((fresh) => {
      const next = withArcs(arcs, fresh)
      const there = earliestWith(p, links, { settled: begins, arcs: next, fresh, effort })
      return { next, there, plan: 'impossible' in there ? null : planOf(p, there) }
    })
    branches.sort((a, b) => rankOf(a.plan) - rankOf(b.plan))
    for (const branch of branches)
      if (branch.plan && isBetter(branch.plan, best)) visit(branch.plan.begins, branch.next)
  }
  const first = earliestBegins(
    p,
    links,
    p.tasks.map(() => p.start),
  )
  if (!('impossible' in first)) visit(first, new Map())
  return { plan: best, proven: (whole && effort.left > 0) || done() }
}

function withArcs(arcs: ArcsOf, fresh: readonly Arc[]): ArcsOf {
  const out = new Map(arcs)
  for (const arc of fresh) out.set(arc.from, [...(out.get(arc.from) ?? []), arc])
  return out
}

const rankOf = (plan: Plan | null): number =>
  plan ? plan.late * 1e9 + plan.finish + plan.begins.reduce((a, b) => a + b, 0) / (1e6 * plan.begins.length) : Infinity

/** The branches that part what clashes first, or null where nothing does. */
function firstClash(p: Problem, plan: Plan): Arc[][] | null {
  const moments = plan.begins
    .map((at, i) => ({ at, i }))
    .filter(({ i }) => p.tasks[i].minutes > 0 || p.tasks[i].group >= 0)
    .sort((a, b) => a.at - b.at)
  for (const { at } of moments) {
    const active = p.tasks
      .map((_, i) => i)
      .filter((i) => p.tasks[i].crew > 0 && plan.begins[i] <= at && plan.ends[i] > at)
    const asked = active.reduce((sum, i) => sum + p.tasks[i].crew, 0)
    if (asked > p.people.length)
      return pairs(smallestTooMuch(p, active)).map(([a, b]) => [{ from: a, to: b, least: 0 }])
    const groups = groupsAt(p, plan, at)
    if (groups.length > p.slots)
      return pairs(groups.slice(0, p.slots + 1)).map(([a, b]) => {
        const of = (g: number) => p.tasks.map((_, i) => i).filter((i) => p.tasks[i].group === g)
        return of(a).flatMap((from) => of(b).map((to) => ({ from, to, least: 0 })))
      })
  }
  return null
}

function smallestTooMuch(p: Problem, active: readonly number[]): number[] {
  const sorted = [...active].sort((a, b) => p.tasks[b].crew - p.tasks[a].crew)
  const out: number[] = []
  for (let sum = 0; sum <= p.people.length;) {
    const i = sorted[out.length]
    out.push(i)
    sum += p.tasks[i].crew
  }
  return out
}

/** Groups that are there at a moment, from their first begin to their last end. */
export function groupsAt(p: Problem, plan: Plan, at: number): number[] {
  const out: number[] = []
  for (let g = 0; g < p.groups; g++) {
    let [from, to] = [Infinity, -Infinity]
    p.tasks.forEach((task, i) => {
      if (task.group !== g) return
      from = Math.min(from, plan.begins[i])
      to = Math.max(to, plan.ends[i])
    })
    if (from <= at && to > at) out.push(g)
  }
  return out
}

const pairs = (list: readonly number[]): [number, number][] =>
  list.flatMap((a) => list.filter((b) => b !== a).map((b): [number, number] => [a, b]))
