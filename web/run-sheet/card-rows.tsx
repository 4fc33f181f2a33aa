'use client'

import { Fragment } from 'react'
import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import type { Card } from '@/core/engines/run-sheet/cards'
import type { Step } from '@/core/engines/run-sheet/step'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { PlainButton } from '@/web/kit/plain-button'
import { StepLock } from './step-lock'
import { stepHint, stepShort, stepTitle } from '@/web/words/steps'

/** Cards as rows: those of a panel fold their steps away. */
export function CardRows({
  rows,
  open,
  onToggle,
}: {
  rows: readonly Card[]
  open: ReadonlySet<string>
  onToggle: (id: string) => void
}) {
  const { fmt, reckoning } = useJob('fmt', 'reckoning')
  return (
    <Table className="run-table">
      <thead>
        <tr>
          {reckoning.schedule && <th>When</th>}
          <th>Step</th>
          <th className="n">People</th>
          <th className="n">Work</th>
          <th className="n">Then wait</th>
          <th>Surface</th>
          <th className="d-print-none">Do</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((card) => {
          const [only, more] = card.parts
          if (!only) return null
          if (!more) return <StepRow key={card.id} step={only} title={stepTitle(only)} hint={stepHint(only, fmt)} />
          return (
            <Fragment key={card.id}>
              <PanelRow card={card} open={open.has(card.id)} onToggle={() => onToggle(card.id)} />
              {open.has(card.id) &&
                card.parts.map((s) => (
                  <StepRow key={s.id} step={s} title={stepShort(s)} hint={stepHint(s, fmt)} within />
                ))}
            </Fragment>
          )
        })}
      </tbody>
    </Table>
  )
}

/** When a step is done, marked where it decides when the car is ready. */
function When({ ids }: { ids: readonly string[] }) {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  const { schedule } = reckoning
  const times = ids.flatMap((id) => schedule?.times.get(id) ?? [])
  if (times.length === 0) return null
  const from = times.reduce((min, t) => (t.from < min ? t.from : min), times[0]?.from ?? '')
  const to = times.reduce((max, t) => (t.to > max ? t.to : max), '')
  const decides = ids.some((id) => schedule?.chain.includes(id))
  return (
    <>
      {decides && (
        <span className="text-brass me-1" title="Decides when the car is ready">
          ◆<span className="visually-hidden"> decides when the car is ready: </span>
        </span>
      )}
      {from.slice(11)}–{to.slice(0, 10) === from.slice(0, 10) ? to.slice(11) : fmt.text(fmt.wallTime(to))}
    </>
  )
}

function PanelRow({ card, open, onToggle }: { card: Card; open: boolean; onToggle: () => void }) {
  const { fmt, reckoning } = useJob('fmt', 'reckoning')
  const heat = card.parts.find((s) => s.range !== null)?.range
  const done = card.parts.filter((s) => s.state === 'done').length
  return (
    <tr className="panel-row">
      {reckoning.schedule && (
        <td className="text-nowrap">
          <When ids={card.parts.map((s) => s.id)} />
        </td>
      )}
      <td>
        <PlainButton className="row-pick" aria-expanded={open} onClick={onToggle}>
          {open ? '▾' : '▸'} {card.parts[0]?.name}
        </PlainButton>{' '}
        <span className="label">
          {card.parts.map(stepShort).join(', ')}
          {done > 0 && `; ${done} of ${card.parts.length} done`}
        </span>
      </td>
      <td className="n">{Math.max(...card.parts.map((s) => s.people))}</td>
      <td className="n text-nowrap">
        <Fig id={`panel/${card.id}/minutes`} />
      </td>
      <td className="n text-nowrap">
        {card.parts.some((s) => s.waitMin > 0) && fmt.text(fmt.minutes(Math.max(...card.parts.map((s) => s.waitMin))))}
      </td>
      <td className="text-nowrap">{heat ? `${fmt.temp(heat.min).text}–${fmt.text(fmt.temp(heat.max))}` : ''}</td>
      <td className="d-print-none" />
    </tr>
  )
}

function StepRow({
  step: s,
  title,
  hint,
  within = false,
}: {
  step: Step
  title: string
  hint: string
  within?: boolean
}) {
  const { fmt, reckoning, edit, mayPlan } = useJob('fmt', 'reckoning', 'edit', 'mayPlan')
  const set = (minutes: number | null) =>
    edit((p) => {
      const { [s.id]: _, ...others } = p.runSheet.minutes
      return {
        ...p,
        runSheet: { ...p.runSheet, minutes: minutes === null ? others : { ...others, [s.id]: minutes } },
      }
    })
  const skip = () => edit((p) => ({ ...p, runSheet: { ...p.runSheet, skip: [...p.runSheet.skip, s.id] } }))
  return (
    <tr className={within ? 'within' : undefined}>
      {reckoning.schedule && (
        <td className="text-nowrap">
          <When ids={[s.id]} />
          <StepLock step={s} />
        </td>
      )}
      <td>
        {within ? title : <b>{title}</b>}
        {s.state === 'done' && <span className="label"> done</span>}
        {s.state === 'running' && <span className="label"> running</span>}
        {hint && <span className="label d-block">{hint}</span>}
        {s.waits.some((w) => w.mostMin !== null) && (
          <span className="label d-block">
            Within {fmt.text(fmt.minutes(Math.min(...s.waits.flatMap((w) => w.mostMin ?? []))))} of its laying.
          </span>
        )}
      </td>
      <td className="n">
        {s.people}
        {s.aloneFactor !== null && <span className="label d-block">or one, longer</span>}
      </td>
      <td className="n text-nowrap">
        <span className="d-print-none d-inline-block minutes-field">
          <NumberInput
            className="form-control form-control-sm"
            aria-label={`Minutes, ${stepTitle(s)}`}
            value={s.minutes}
            optional
            disabled={!mayPlan}
            min={0}
            max={6000}
            onValue={set}
          />
        </span>
        <span className="d-none d-print-inline">{fmt.text(fmt.minutes(s.minutes))}</span>
        {s.minutesByRule !== null && <span className="label d-block">by the rules {s.minutesByRule} min</span>}
        {s.minutesByRule === null && s.learned && (
          <span className="label d-block">
            rules {s.learned.ruleMin} × {s.learned.factor}, by {s.learned.cases} cases here
          </span>
        )}
      </td>
      <td className="n text-nowrap">{s.waitMin > 0 ? fmt.text(fmt.minutes(s.waitMin)) : ''}</td>
      <td className="text-nowrap">
        {s.range ? `${fmt.temp(s.range.min).text}–${fmt.text(fmt.temp(s.range.max))}` : ''}
      </td>
      <td className="d-print-none">
        <Form.Check.Input
          type="checkbox"
          aria-label={`Do ${stepTitle(s)}`}
          disabled={!mayPlan}
          checked
          onChange={skip}
        />
      </td>
    </tr>
  )
}
