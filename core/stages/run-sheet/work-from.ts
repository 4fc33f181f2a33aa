import { readyAt } from '../../engines/run-sheet/steps'
import { type Step } from '../../engines/run-sheet/step'
import { civilToMinutes, minutesToCivil, nextOpen, type OpenHours } from '../../kit/civil'
import type { Plan } from '../../model/plan/schema'

/** When the run sheet comes to the first work inside: after the vehicle is washed, brought in and has stood. */
export function workFrom(plan: Plan, steps: readonly Step[], hours: OpenHours): string | null {
  const first = steps.findIndex((s) => s.code === 'bring_in') + 1
  const { startAt } = plan.runSheet
  const stood = startAt ? readyAt(steps.slice(0, first), startAt, hours) : null
  const minutes = stood ? civilToMinutes(stood) : null
  return minutes === null ? null : minutesToCivil(nextOpen(minutes, hours))
}
