import type { Step } from '../../engines/run-sheet/panel-steps'
import { finding, type Finding } from '../../model/finding/finding'
import type { Plan } from '../../model/plan/schema'

/** Steps that need more people than the crew has: told, not shortened. */
export function crewFindings(plan: Plan, steps: readonly Step[]): Finding[] {
  const { crew } = plan.runSheet
  const short = steps.filter((s) => s.state !== 'skipped' && s.people > crew)
  const [first] = short
  if (!first) return []
  const facts = { count: short.length, first: first.name, need: Math.max(...short.map((s) => s.people)), crew }
  return [finding('crew_short', 'warn', 'run-sheet', { facts })]
}
