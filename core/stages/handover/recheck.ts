import type { Step } from '../../engines/run-sheet/step'
import { civilToMinutes, minutesToCivil } from '../../kit/civil'
import { finding, type Finding } from '../../model/finding/finding'

/** When a vehicle is to be looked at again, UTC wall time. */
export interface Recheck {
  dueAt: string
  overdue: boolean
  done: boolean
}

/** The recheck falls due when the rest begun after the check has run (24 h by common practice). UTC wall time. */
export function recheckDueAt(steps: readonly Step[]): string | null {
  const rest = steps.find((s) => s.code === 'rest')
  const check = steps.find((s) => s.code === 'check_round')
  const begun = rest?.doneAt ?? check?.doneAt
  if (!rest || !begun) return null
  const t = civilToMinutes(begun)
  return t === null ? null : minutesToCivil(t + rest.waitMin)
}

/** The recheck of a job whose rest has begun; null before that. `now`: UTC wall time. */
export function recheckOf(steps: readonly Step[], now: string): Recheck | null {
  const dueAt = recheckDueAt(steps)
  const [due, at] = [dueAt ? civilToMinutes(dueAt) : null, civilToMinutes(now)]
  if (!dueAt || due === null || at === null) return null
  return { dueAt, overdue: at >= due, done: steps.find((s) => s.code === 'recheck')?.state === 'done' }
}

/** That a recheck waits or is overdue; nothing once it is done. */
export function recheckFindings(recheck: Recheck | null): Finding[] {
  if (!recheck || recheck.done) return []
  const facts = { due: recheck.dueAt }
  return [
    recheck.overdue
      ? finding('recheck_overdue', 'warn', 'handover', { facts })
      : finding('recheck_waits', 'note', 'handover', { facts }),
  ]
}
