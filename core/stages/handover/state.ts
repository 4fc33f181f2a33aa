import type { Step } from '../../engines/run-sheet/step'
import type { StageVerdict } from '../../model/finding/stage'
import { HAND_OVER_STEP } from '../../model/log/handed-over'
import type { Recheck } from './recheck'

export function handoverState(steps: readonly Step[], recheck: Recheck | null): StageVerdict {
  if (steps.find((s) => s.code === HAND_OVER_STEP)?.state === 'done')
    return { state: 'settled', why: 'handed_over', facts: {} }
  if (!recheck || recheck.done) return { state: 'missing', why: 'not_ready', facts: {} }
  const facts = { due: recheck.dueAt }
  return { state: 'open', why: recheck.overdue ? 'recheck_overdue' : 'recheck_waits', facts }
}
