import { defectsOf } from '@/core/engines/heat/defects'
import type { guardsBefore } from '@/core/engines/run-sheet/guards'
import { useJob } from '@/web/job/job-state'
import { serverNow } from '@/web/kit/clock'

/** What guards are judged by, as of the moment they are asked for. */
export function useGuards(): () => Parameters<typeof guardsBefore>[1] {
  const { reckoning, ledger } = useJob('reckoning', 'ledger')
  const { steps, points, recheckDueAt } = reckoning
  return () => ({
    steps,
    points,
    openDefects: defectsOf(ledger, points).filter((d) => !d.closed).length,
    recheckDueMs: recheckDueAt === null ? null : Date.parse(`${recheckDueAt}Z`),
    nowMs: serverNow(),
  })
}
