'use client'

import { DateField } from '@/web/kit/date-field'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'

/** Start, promise, crew and pace: what the times hang on. */
export function RunSettings() {
  const { plan, fmt, edit, mayPlan } = useJob('plan', 'fmt', 'edit', 'mayPlan')
  const { startAt, promisedAt, crew, paceFactor } = plan.runSheet
  const set = (part: Partial<typeof plan.runSheet>) => edit((p) => ({ ...p, runSheet: { ...p.runSheet, ...part } }))
  const date = { withTime: true, locale: fmt.units.locale, timeZone: fmt.units.timeZone } as const
  return (
    <fieldset disabled={!mayPlan} className="plate mb-3 run-settings d-print-none">
      <span>
        <label className="form-label" htmlFor="start-at">
          Start
        </label>
        <DateField id="start-at" {...date} value={startAt} onValue={(v) => set({ startAt: v })} />
      </span>
      <span>
        <label className="form-label" htmlFor="promised-at">
          Promised
        </label>
        <DateField id="promised-at" {...date} value={promisedAt} onValue={(v) => set({ promisedAt: v })} />
      </span>
      <span>
        <label className="form-label" htmlFor="crew">
          Crew
        </label>
        <NumberInput
          id="crew"
          className="form-control"
          aria-label="Crew"
          value={crew}
          min={1}
          max={12}
          onValue={(v) => set({ crew: Math.round(v ?? 2) })}
        />
      </span>
      <span>
        <label className="form-label" htmlFor="pace" title="1 = experienced; a beginner takes three to five times that">
          Pace
        </label>
        <NumberInput
          id="pace"
          className="form-control"
          aria-label="Pace"
          digits={1}
          value={paceFactor}
          min={0.5}
          max={6}
          onValue={(v) => set({ paceFactor: v ?? 1 })}
        />
      </span>
      <span>
        <span className="form-label d-block">Ready at</span>
        <span className="fs-5">
          <Fig id="rail/ready_at" />
        </span>
      </span>
    </fieldset>
  )
}
