'use client'

import Button from 'react-bootstrap/Button'
import { LockFill as Lock, Unlock } from 'react-bootstrap-icons'
import type { Step } from '@/core/engines/run-sheet/step'
import { useJob } from '@/web/job/job-state'
import { DateField } from '@/web/kit/date-field'
import { stepTitle } from '@/web/words/steps'

/** A step held to the moment at which it stands, or to one that is typed; everything else is laid out round it. */
export function StepLock({ step }: { step: Step }) {
  const { plan, edit, mayPlan, fmt, reckoning } = useJob('plan', 'edit', 'mayPlan', 'fmt', 'reckoning')
  const lockedAt = plan.runSheet.locks[step.id] ?? null
  const stands = reckoning.schedule?.times.get(step.id)?.from ?? null
  const isBroken = reckoning.schedule?.brokenLocks.includes(step.id) ?? false
  // Its moment went by before anybody began: it holds nothing any more.
  const isPast = !isBroken && lockedAt !== null && stands !== null && lockedAt < stands
  const set = (at: string | null) =>
    edit((p) => {
      const { [step.id]: _, ...others } = p.runSheet.locks
      return { ...p, runSheet: { ...p.runSheet, locks: at === null ? others : { ...others, [step.id]: at } } }
    })
  if (step.state !== 'to_do') return null
  if (lockedAt === null)
    return (
      mayPlan &&
      stands !== null && (
        <Button
          size="sm"
          variant="link"
          className="d-print-none p-0 ms-2"
          title="Lock it to this moment"
          aria-label={`Lock ${stepTitle(step)} to ${fmt.text(fmt.wallTime(stands))}`}
          onClick={() => set(stands)}
        >
          <Unlock aria-hidden />
        </Button>
      )
    )
  return (
    <span className="d-block">
      <span className={isBroken || isPast ? 'text-danger' : 'label'}>
        <Lock aria-hidden /> {isBroken ? 'cannot be held to ' : isPast ? 'was locked to ' : 'locked to '}
        {fmt.text(fmt.wallTime(lockedAt))}
        {isPast && ', which is past'}
      </span>
      {mayPlan && (
        <span className="d-print-none step-lock">
          <DateField
            label={`Begin of ${stepTitle(step)}`}
            size="sm"
            withTime
            value={lockedAt}
            onValue={set}
            locale={fmt.units.locale}
            {...(fmt.units.timeZone ? { timeZone: fmt.units.timeZone } : {})}
          />
        </span>
      )}
    </span>
  )
}
