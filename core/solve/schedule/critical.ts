import { NEVER } from './calendar'
import { earliestBegins, type Links } from './earliest'
import { groupsAt } from './exact'
import { allAlike, type Plan, type Problem } from './model'

/**
 * The tasks that the finish hangs on. Where neither people nor hours nor slots can bind: exactly those without float
 * (critical path method, with most waits). Else one chain back from a task that ends last, each link by what holds it:
 * a wait, the people, the slot, or the hours.
 */
export function criticalTasks(p: Problem, links: Links, plan: Plan): number[] {
  return nothingBinds(p) ? withoutFloat(p, links, plan) : chain(p, plan)
}

function nothingBinds(p: Problem): boolean {
  const attended = p.tasks.filter((t) => t.crew > 0)
  const always = (hours: { from: readonly number[]; to: readonly number[] }) =>
    hours.from.length === 1 && hours.from[0] <= p.start && hours.to[0] >= NEVER / 20
  const open = attended.length === 0 || (always(p.hours) && p.people.every((q) => always(q.hours)))
  const crew = attended.reduce((sum, t) => sum + t.crew, 0) <= p.people.length && attended.every((t) => t.needs === 0)
  return open && allAlike(p) && crew && p.groups <= p.slots
}

function withoutFloat(p: Problem, links: Links, plan: Plan): number[] {
  const begins = earliestBegins(
    p,
    links,
    p.tasks.map(() => p.start),
  )
  if ('impossible' in begins) return []
  // Latest begins: from the finish back, until nothing moves.
  const latest = p.tasks.map((t) => Math.min(plan.finish, t.finishBy) - t.minutes)
  p.tasks.forEach((t, i) => {
    if (t.pinned !== null) latest[i] = t.pinned
  })
  for (let again = true; again;) {
    again = false
    p.tasks.forEach((task, i) => {
      for (const l of task.after) {
        const before = latest[i] - l.least - p.tasks[l.task].minutes
        if (before < latest[l.task]) [latest[l.task], again] = [before, true]
        const within = latest[l.task] + p.tasks[l.task].minutes + l.most
        if (within < latest[i]) [latest[i], again] = [within, true]
      }
    })
  }
  return p.tasks.map((_, i) => i).filter((i) => latest[i] === begins[i])
}

function chain(p: Problem, plan: Plan): number[] {
  const out: number[] = []
  let at: number | undefined = p.tasks.map((_, i) => i).find((i) => plan.ends[i] === plan.finish)
  while (at !== undefined && !out.includes(at)) {
    out.push(at)
    at = holder(p, plan, at)
  }
  return out.reverse()
}

/** What a task waited for: the wait that ran out as it began; else whoever ended last before it. */
function holder(p: Problem, plan: Plan, i: number): number | undefined {
  const begin = plan.begins[i]
  const tight = p.tasks[i].after.find((l) => plan.ends[l.task] + l.least === begin)
  if (tight) return tight.task
  const { group } = p.tasks[i]
  const before = p.tasks
    .map((_, j) => j)
    .filter((j) => j !== i && plan.ends[j] <= begin && (p.tasks[j].crew > 0 || (group >= 0 && p.tasks[j].group >= 0)))
  const last = before.reduce((m, j) => Math.max(m, plan.ends[j]), -Infinity)
  const waited = p.tasks[i].after.reduce((m, l) => Math.max(m, plan.ends[l.task] + l.least), -Infinity)
  if (waited >= last && waited > -Infinity)
    return p.tasks[i].after.find((l) => plan.ends[l.task] + l.least === waited)?.task
  const slotsFull = groupsAt(p, plan, begin).length >= p.slots
  const holds = before.filter((j) => plan.ends[j] === last)
  return holds.find((j) => slotsFull && p.tasks[j].group >= 0 && p.tasks[j].group !== group) ?? holds[0]
}
