'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { freeId, slug } from '@/core/kit/ids'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { stepTitle } from '@/web/words/steps'

/** A step that only this shop has, put after another one. */
export function OwnStep() {
  const { plan, reckoning, edit, mayPlan } = useJob('plan', 'reckoning', 'edit', 'mayPlan')
  const [name, setName] = useState('')
  const [minutes, setMinutes] = useState(15)
  const [after, setAfter] = useState('mask')
  const { own } = plan.runSheet
  const add = () => {
    const id = `own:${freeId(
      slug(name).slice(0, 40) || 'step',
      own.map((o) => o.id.slice(4)),
    )}`
    edit((p) => ({
      ...p,
      runSheet: { ...p.runSheet, own: [...p.runSheet.own, { id, name: name.trim(), minutes, people: 1, after }] },
    }))
    setName('')
  }
  return (
    <fieldset disabled={!mayPlan} className="plate mb-3 d-print-none" aria-label="Own step">
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <span className="flex-fill">
          <label className="form-label" htmlFor="own-name">
            Step of your own
          </label>
          <Form.Control id="own-name" maxLength={120} value={name} onChange={(e) => setName(e.target.value)} />
        </span>
        <span style={{ width: 90 }}>
          <label className="form-label" htmlFor="own-minutes">
            Minutes
          </label>
          <NumberInput
            id="own-minutes"
            className="form-control"
            aria-label="Minutes of your own step"
            value={minutes}
            min={0}
            max={6000}
            onValue={(v) => setMinutes(v ?? 15)}
          />
        </span>
        <span style={{ width: 240 }}>
          <label className="form-label" htmlFor="own-after">
            After
          </label>
          <Form.Select id="own-after" value={after} onChange={(e) => setAfter(e.target.value)}>
            {plannedSteps(reckoning.steps).map((s) => (
              <option key={s.id} value={s.id}>
                {stepTitle(s)}
              </option>
            ))}
          </Form.Select>
        </span>
        <Button variant="outline-primary" disabled={name.trim() === ''} onClick={add}>
          Add
        </Button>
      </div>
      {own.length > 0 && (
        <ul className="list-unstyled mt-2 mb-0">
          {own.map((o) => (
            <li key={o.id}>
              {o.name}, {o.minutes} min{' '}
              <Button
                variant="link"
                size="sm"
                className="p-0"
                onClick={() =>
                  edit((p) => ({
                    ...p,
                    runSheet: { ...p.runSheet, own: p.runSheet.own.filter((x) => x.id !== o.id) },
                  }))
                }
              >
                Take it out
              </Button>
            </li>
          ))}
        </ul>
      )}
    </fieldset>
  )
}
