'use client'

import Button from 'react-bootstrap/Button'
import { Panel } from '@/core/model/vehicle/schema'
import { TapeQuestion } from '@/core/stages/tape/tape-answer'
import type { Formatter } from '@/web/words/format'

/** Takes the figure, or says that it stands, is as on the other side, or is left for now. */
export function GuidedAnswers({
  good,
  enter,
  fmt,
  question,
  twin,
  next,
  at,
  back,
  onTwin,
}: {
  /** What is typed [mm]; null while it is no length. */
  good: number | null
  enter: (mm: number) => void
  fmt: Formatter
  question: TapeQuestion
  twin: Panel | undefined
  next: () => void
  at: number
  back: () => void
  /** Answers the whole panel as its other side was. */
  onTwin: () => void
}) {
  return (
    <div className="d-grid gap-2 mt-2">
      {!question.words && (
        <Button variant="go" disabled={good === null} onClick={() => good !== null && enter(good)}>
          {good !== null ? `Take ${fmt.text(fmt.length(good))}` : 'Type the figure'}
        </Button>
      )}
      <div className="guided-pair">
        {question.assumed && !question.words && (
          <Button variant="plain" onClick={() => enter(question.mm)}>
            It is {fmt.text(fmt.length(question.mm))}
          </Button>
        )}
        {twin && (
          <Button variant="plain" onClick={onTwin}>
            Same as other side
          </Button>
        )}
        <Button variant="plain" onClick={next}>
          Skip
        </Button>
        <Button variant="plain" disabled={at === 0} onClick={back}>
          Back
        </Button>
      </div>
    </div>
  )
}
