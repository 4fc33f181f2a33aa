import { NEVER } from './calendar'
import type { Links } from './earliest'
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
export function beforePins(p: Problem, { next }: Links, heads: readonly number[]): BeforePins | null {
  if (p.tasks.every((t) => t.pinned === null)) return null
  const endBy: (number | undefined)[] = p.tasks.map(() => undefined)
  const endOf = (i: number): number => {
    const known = endBy[i]
    if (known !== undefined) return known
    endBy[i] = NEVER
    const by = Math.min(NEVER, ...next[i].map((l) => beginOf(l.task) - l.least))
    endBy[i] = by
    return by
  }
  const beginOf = (i: number): number =>
    p.tasks[i].pinned ?? (endOf(i) === NEVER ? NEVER : endOf(i) - p.tasks[i].minutes)
  const groups = Array.from({ length: p.groups }, (_, g) =>
    p.tasks.map((_, i) => i).filter((i) => p.tasks[i].group === g),
  )
  return {
    endBy: p.tasks.map((_, i) => endOf(i)),
    slotBy: groups.map((own) => Math.min(NEVER, ...own.map(beginOf))),
    stay: groups.map(
      (own) =>
        Math.max(0, ...own.map((i) => heads[i] + p.tasks[i].minutes)) - Math.min(NEVER, ...own.map((i) => heads[i])),
    ),
  }
}
