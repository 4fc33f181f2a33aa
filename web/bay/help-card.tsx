'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { Step } from '@/core/engines/run-sheet/step'
import { troubleOf, type DefectKind } from '@/core/model/log/trouble-data'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { CAUTIONS, stepHint, stepTitle } from '@/web/words/steps'
import { FIRST, NOT } from '@/web/words/trouble'

/** What is likely to go wrong at a step, the likeliest first. Common practice, no source. */
const AT_STEP: Record<string, readonly DefectKind[]> = {
  lay: ['bubble', 'wrinkle', 'fold', 'fingers', 'dirt', 'adhesive_line'],
  seam: ['cut_in_paint', 'short', 'adhesive_line'],
  trim: ['fingers', 'cut_in_paint', 'short'],
  post_heat: ['recess_lifts', 'lifted_edge', 'whitened'],
  check_round: ['bubble', 'lifted_edge', 'recess_lifts'],
  recheck: ['lifted_edge', 'recess_lifts', 'bubble'],
}

/** How a step is done in full, what to beware of, and what to do first about what is likely to go wrong in this film. */
export function HelpCard({ step }: { step: Step }) {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  const [open, setOpen] = useState(false)
  const panels = step.covers ?? [step.panelId]
  const piece = reckoning.laid.find((p) => (p.covers ?? [p.panelId]).some((id) => panels.includes(id)))
  const film = reckoning.parts.films.get(piece?.filmId ?? '')
  const troubles = AT_STEP[step.code] ?? []
  return (
    <>
      <Button variant="plain" className="ms-auto" aria-label={`Help: ${stepTitle(step)}`} onClick={() => setOpen(true)}>
        ?
      </Button>
      {open && (
        <div className="bay-dialog" role="dialog" aria-modal aria-label={stepTitle(step)}>
          <div className="plate">
            <h2>{stepTitle(step)}</h2>
            <p>{stepHint(step, fmt)}</p>
            {step.cautions.map((c) => (
              <p key={c} className="now-caution">
                {CAUTIONS[c]}
              </p>
            ))}
            {troubles.length > 0 && (
              <dl>
                {troubles.map((kind) => {
                  const { first, not, lead } = troubleOf(kind, film)
                  return (
                    <div key={kind}>
                      <dt>{word('defect', kind)}</dt>
                      <dd>
                        {FIRST[first]} {not && NOT[not]} {lead && 'Fetch the lead.'}
                      </dd>
                    </div>
                  )
                })}
              </dl>
            )}
            <p className="label">Common practice; the film’s sheet comes first.</p>
            <Button variant="go" className="btn-go w-100" autoFocus onClick={() => setOpen(false)}>
              Back to work
            </Button>
          </div>
        </div>
      )}
    </>
  )
}
