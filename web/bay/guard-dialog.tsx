'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import type { Guard } from '@/core/engines/run-sheet/guards'
import { useJob } from '@/web/job/job-state'
import { GUARD } from '@/web/words/trouble'

const REASONS = ['Lead says so', 'Done before it was logged', 'Film allows it', 'Customer waits'] as const
const IN_MINUTES: readonly Guard['guard'][] = ['inside_wait', 'early_recheck']

/** What is open, and the way on: back, or with a reason that stays in the record. */
export function GuardDialog({
  guards,
  onBack,
  onGoOn,
}: {
  guards: readonly Guard[]
  onBack: () => void
  onGoOn: (reason: string) => void
}) {
  const { fmt } = useJob('fmt')
  const [text, setText] = useState('')
  return (
    <div className="bay-dialog" role="alertdialog" aria-label="Something is open">
      <div className="plate">
        {guards.map((g) => (
          <p key={`${g.guard} ${g.stepId}`} className="fs-4 mb-2">
            {GUARD[g.guard](IN_MINUTES.includes(g.guard) ? fmt.text(fmt.minutes(g.count)) : String(g.count))}
          </p>
        ))}
        <Button variant="go" className="btn-go w-100 mb-3" autoFocus onClick={onBack}>
          Back
        </Button>
        <p className="label mb-1">Go on all the same, because:</p>
        <div className="bay-grid">
          {REASONS.map((r) => (
            <Button key={r} variant="plain" onClick={() => onGoOn(r)}>
              {r}
            </Button>
          ))}
        </div>
        <div className="d-flex gap-2 mt-2">
          <Form.Control
            aria-label="Another reason"
            placeholder="another reason"
            maxLength={500}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Button variant="plain" disabled={text.trim().length < 2} onClick={() => onGoOn(text.trim())}>
            Go on
          </Button>
        </div>
      </div>
    </div>
  )
}
