import type { Problem } from './model'

/** Whether a person is there whenever the place is open between two moments. */
export const isThere = (p: Problem, q: number, from: number, to: number): boolean => {
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
export function choose(p: Problem, able: readonly number[], task: { crew: number; needs: number }): number[] | null {
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
