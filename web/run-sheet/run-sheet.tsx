'use client'

import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { DateField } from '@/web/kit/date-field'
import Button from 'react-bootstrap/Button'
import Table from 'react-bootstrap/Table'
import Form from 'react-bootstrap/Form'
import { Fig } from '@/web/job/figure'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { CAUTIONS, stepHint, stepTitle } from '@/web/words/steps'

/** The steps in order, with people, minutes, waits and temperatures for this film and method. */
export function RunSheet() {
  const { plan, reckoning, fmt, edit, mayPlan } = useJob()
  const set = (part: Partial<typeof plan.runSheet>) => edit((p) => ({ ...p, runSheet: { ...p.runSheet, ...part } }))
  const skip = (id: string, off: boolean) =>
    edit((p) => ({
      ...p,
      runSheet: { ...p.runSheet, skip: off ? [...p.runSheet.skip, id] : p.runSheet.skip.filter((s) => s !== id) },
    }))
  const { schedule } = reckoning
  const when = (id: string) => {
    const time = schedule?.times.get(id)
    if (!time) return null
    const decides = schedule?.chain.includes(id) ?? false
    return (
      <>
        {decides && (
          <span className="decides" title="Decides when the car is ready">
            ◆<span className="visually-hidden"> decides when the car is ready: </span>
          </span>
        )}
        {fmt.text(fmt.wallTime(time.from))}–
        {time.to.slice(0, 10) === time.from.slice(0, 10) ? time.to.slice(11) : fmt.text(fmt.wallTime(time.to))}
      </>
    )
  }
  const cautions = [...new Set(reckoning.steps.flatMap((s) => s.cautions))].filter((c) => c in CAUTIONS)
  return (
    <>
      <div className="bench-head">
        <h1>Run sheet</h1>
        <span className="label">
          {plannedSteps(reckoning.steps).length} steps, crew time <Fig id="rail/crew_minutes" />
        </span>
        <span className="spacer" />
        <Button variant="outline-secondary" size="sm" className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <Findings stage="run-sheet" />
      <fieldset disabled={!mayPlan} className="plate mb-3 row gx-3 mx-0 no-print">
        <div className="col-sm-4">
          <label className="form-label" htmlFor="start-at">
            Start
          </label>
          <DateField
            id="start-at"
            withTime
            value={plan.runSheet.startAt}
            locale={fmt.units.locale}
            timeZone={fmt.units.timeZone}
            onValue={(startAt) => set({ startAt })}
          />
        </div>
        <div className="col-sm-2">
          <label className="form-label" htmlFor="crew">
            Crew
          </label>
          <NumberInput
            id="crew"
            className="form-control"
            aria-label="Crew"
            value={plan.runSheet.crew}
            min={1}
            max={12}
            onValue={(crew) => set({ crew: Math.round(crew ?? 2) })}
          />
        </div>
        <div className="col-sm-3">
          <label className="form-label" htmlFor="pace">
            Pace, 1 = experienced
          </label>
          <NumberInput
            id="pace"
            className="form-control"
            aria-label="Pace"
            digits={1}
            value={plan.runSheet.paceFactor}
            min={0.5}
            max={6}
            onValue={(v) => set({ paceFactor: v ?? 1 })}
          />
        </div>
        <div className="col-sm-3">
          <span className="form-label d-block">Ready at</span>
          <span className="fs-5">
            <Fig id="rail/ready_at" />
          </span>
        </div>
      </fieldset>
      {schedule && (
        <p className="label">
          By the hours of the shop and a crew of {plan.runSheet.crew}. <span className="decides">◆</span> The{' '}
          {schedule.chain.length} steps that decide when the car is ready; the others have room.
        </p>
      )}
      <div className="plate scroll-x">
        <Table bsPrefix="quiet-table">
          <thead>
            <tr>
              <th className="n">#</th>
              <th>Step</th>
              {schedule && <th>When</th>}
              <th className="n">People</th>
              <th className="n">Work</th>
              <th className="n">Then wait</th>
              <th>Surface</th>
              <th className="no-print">Do</th>
            </tr>
          </thead>
          <tbody>
            {reckoning.steps.map((s, i) => (
              <tr key={s.id} style={s.state === 'skipped' ? { textDecoration: 'line-through' } : undefined}>
                <td className="n">{i + 1}</td>
                <td>
                  <b>{stepTitle(s)}</b>
                  {s.state === 'done' && <span className="label"> done</span>}
                  {s.state === 'running' && <span className="label"> running</span>}
                  {s.code !== 'lay' && s.code !== 'trim' && <span className="label d-block">{stepHint(s, fmt)}</span>}
                </td>
                {schedule && <td className="text-nowrap">{when(s.id)}</td>}
                <td className="n">{s.people}</td>
                <td className="n text-nowrap">{fmt.text(fmt.minutes(s.minutes))}</td>
                <td className="n text-nowrap">{s.waitMin > 0 ? fmt.text(fmt.minutes(s.waitMin)) : ''}</td>
                <td className="text-nowrap">
                  {s.range ? `${fmt.temp(s.range.min).text}–${fmt.text(fmt.temp(s.range.max))}` : ''}
                </td>
                <td className="no-print">
                  <Form.Check.Input
                    type="checkbox"
                    aria-label={`Do step ${i + 1}, ${stepTitle(s)}`}
                    disabled={!mayPlan}
                    checked={s.state !== 'skipped'}
                    onChange={(e) => skip(s.id, !e.target.checked)}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <div className="mt-3">
        <Cautions codes={cautions} />
      </div>
    </>
  )
}
