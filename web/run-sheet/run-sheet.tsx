'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import { cardsOf } from '@/core/engines/run-sheet/cards'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import type { Step } from '@/core/engines/run-sheet/step'
import { Fig } from '@/web/job/figure'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { CAUTIONS, stepTitle } from '@/web/words/steps'
import { CardRows } from './card-rows'
import { OwnStep } from './own-step'
import { RunSettings } from './run-settings'
import './run-sheet.scss'

/** The steps by day: when, how long, with how many hands, what waits; a panel's steps are one row that opens. */
export function RunSheet() {
  const { plan, reckoning, jobId, fmt } = useJob('plan', 'reckoning', 'jobId', 'fmt')
  const { schedule, steps } = reckoning
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const cards = cardsOf(plannedSteps(steps))
  const from = (parts: readonly Step[]) =>
    parts.reduce((min, s) => {
      const at = schedule?.times.get(s.id)?.from ?? ''
      return min === '' || (at !== '' && at < min) ? at : min
    }, '')
  const rows = cards.map((card) => ({ card, from: from(card.parts) }))
  if (schedule) rows.sort((a, b) => a.from.localeCompare(b.from))
  const days = [...new Set(rows.map((r) => r.from.slice(0, 10)))]
  const skipped = steps.filter((s) => s.state === 'skipped')
  const cautions = [...new Set(steps.flatMap((s) => s.cautions))].filter((c) => c in CAUTIONS)
  const toggle = (id: string) =>
    setOpen((was) => {
      const next = new Set(was)
      if (!next.delete(id)) next.add(id)
      return next
    })
  const panels = cards.filter((c) => c.parts.length > 1).map((c) => c.id)
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Run sheet</h1>
        <span className="label">
          {plannedSteps(steps).length} steps, crew time <Fig id="rail/crew_minutes" />
        </span>
        <span className="flex-fill" />
        <span className="d-print-none d-flex gap-2">
          <Button
            variant="outline-secondary"
            size="sm"
            onClick={() => setOpen(open.size > 0 ? new Set() : new Set(panels))}
          >
            {open.size > 0 ? 'Fold panels' : 'Open panels'}
          </Button>
          <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/cards.pdf`}>
            Laying cards (PDF)
          </a>
          <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/schedule.ics`} download>
            Calendar file
          </a>
          <Button variant="outline-secondary" size="sm" onClick={() => window.print()}>
            Print
          </Button>
        </span>
      </div>
      <PrintHead />
      <Findings stage="run-sheet" />
      <RunSettings />
      {schedule && (
        <p className="label">
          By the hours of the shop and a crew of {plan.runSheet.crew}. <span className="text-brass">◆</span> The{' '}
          {schedule.chain.length} steps that decide when the car is ready; the others have room.
        </p>
      )}
      {days.map((day) => (
        <section key={day || 'undated'} className="plate mb-3 scroll-x" aria-label={day ? fmt.day(day) : 'Steps'}>
          {day && <h2 className="h6 mb-1">{fmt.day(day)}</h2>}
          <CardRows
            rows={rows.filter((r) => r.from.slice(0, 10) === day).map((r) => r.card)}
            open={open}
            onToggle={toggle}
          />
        </section>
      ))}
      <OwnStep />
      {skipped.length > 0 && (
        <section className="plate mb-3" aria-label="Left out">
          <h2 className="h6 mb-1">Left out</h2>
          <Skipped steps={skipped} />
        </section>
      )}
      <div className="mt-3">
        <Cautions codes={cautions} />
      </div>
    </>
  )
}

/** Steps that somebody left out; each can be taken back. */
function Skipped({ steps }: { steps: readonly Step[] }) {
  const { edit, mayPlan } = useJob('edit', 'mayPlan')
  return (
    <ul className="list-unstyled mb-0">
      {steps.map((s) => (
        <li key={s.id}>
          {stepTitle(s)}{' '}
          <Button
            variant="link"
            size="sm"
            className="p-0 d-print-none"
            disabled={!mayPlan}
            onClick={() =>
              edit((p) => ({
                ...p,
                runSheet: { ...p.runSheet, skip: p.runSheet.skip.filter((id) => id !== s.id) },
              }))
            }
          >
            Do it after all
          </Button>
        </li>
      ))}
    </ul>
  )
}

/** What paper needs on top: which vehicle, whose, from when to when, who. */
function PrintHead() {
  const { plan, reckoning, fmt, catalogue } = useJob('plan', 'reckoning', 'fmt', 'catalogue')
  const { schedule } = reckoning
  const { startAt, promisedAt, crew } = plan.runSheet
  const people = catalogue.shop?.people.map((p) => p.name) ?? []
  return (
    <div className="d-none d-print-block mb-2">
      <b>
        {plan.vehicle.name}, {plan.customerRef || 'no reference'}
      </b>
      <br />
      {startAt ? `Start ${fmt.text(fmt.wallTime(startAt))}` : 'No start set'}
      {schedule && `, ready ${fmt.text(fmt.wallTime(schedule.readyAt))}`}
      {promisedAt && `, promised ${fmt.text(fmt.wallTime(promisedAt))}`}; crew of {crew}
      {people.length > 0 && ` (${people.join(', ')})`}
    </div>
  )
}
