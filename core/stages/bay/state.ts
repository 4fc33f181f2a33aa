import type { HeatPoint } from '../../engines/heat/heat-points'
import type { Step } from '../../engines/run-sheet/step'
import { plannedSteps } from '../../engines/run-sheet/steps'
import type { StageVerdict } from '../../model/finding/stage'
import type { LogRow } from '../../model/log/schema'

/** Steps after the work in the bay: they belong to the handover. */
const AFTER_THE_BAY: readonly string[] = ['recheck', 'hardware_on', 'hand_over', 'rest']

export function bayState(
  steps: readonly Step[],
  points: readonly HeatPoint[],
  ledger: readonly LogRow[],
): StageVerdict {
  if (ledger.length === 0) return { state: 'missing', why: 'not_begun', facts: {} }
  const planned = plannedSteps(steps)
  const isDone = (s: Step) => s.state === 'done'
  const due = points.filter((p) => p.state === 'due').length
  return planned.filter((s) => !AFTER_THE_BAY.includes(s.code)).every(isDone) && due === 0
    ? { state: 'settled', why: 'bay_done', facts: {} }
    : { state: 'open', why: 'in_bay', facts: { done: planned.filter(isDone).length, of: planned.length, due } }
}
