import type { Problem } from './model'

export interface GroupNeeds {
  /** Groups that have to be begun before. */
  first: number[]
  /** Groups that need it and that it needs. */
  together: number[]
}

/** The groups whose tasks come before those of each group, unless they need each other. */
export function needsOfGroups(p: Problem): GroupNeeds[] {
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
