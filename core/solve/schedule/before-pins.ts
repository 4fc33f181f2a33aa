import { NEVER } from './calendar'
import { inOrder, type Links } from './earliest'
import type { Problem } from './model'

/** What pinned tasks ask of the tasks and groups before them. Minutes; closed hours are not looked at. */
export interface BeforePins {
  /** By task: when it has to end at the latest, so that a pinned one after it can begin; NEVER where none is. */
  endBy: readonly number[]
  /** By group: when its first task has to begin at the latest; NEVER where nothing of it is pinned. */
  slotBy: readonly number[]
  /** By group: how long it holds its slot if nothing but its own waits and the hours hold it up. */
  stay: readonly number[]
}

/** Null where nothing is pinned. `heads`: the earliest begin of each task. */
export function beforePins(p: Problem, links: Links, heads: readonly number[]): BeforePins | null {
  const sorted = inOrder(p, links)
  if ('cycle' in sorted || p.tasks.every((t) => t.pinned === null)) return null
  const endBy = p.tasks.map(() => NEVER)
  const beginBy = p.tasks.map(() => NEVER)
  // From the last tasks back: a chain may be thousands long.
  for (const i of [...sorted.order].reverse()) {
    const { pinned, minutes } = p.tasks[i]
    for (const l of links.next[i]) if (beginBy[l.task] < NEVER) endBy[i] = Math.min(endBy[i], beginBy[l.task] - l.least)
    beginBy[i] = pinned ?? (endBy[i] < NEVER ? endBy[i] - minutes : NEVER)
  }
  const slotBy = Array.from({ length: p.groups }, () => NEVER)
  const [first, last] = [slotBy.map(() => NEVER), slotBy.map(() => 0)]
  p.tasks.forEach(({ group, minutes }, i) => {
    if (group < 0) return
    slotBy[group] = Math.min(slotBy[group], beginBy[i])
    first[group] = Math.min(first[group], heads[i])
    last[group] = Math.max(last[group], heads[i] + minutes)
  })
  return { endBy, slotBy, stay: last.map((t, g) => t - first[g]) }
}
