'use client'

import Button from 'react-bootstrap/Button'
import '@/web/kit/gloves.scss'

/** The end of a round of questions: go on with the rest, or leave. */
export function OnceRound({
  nothingAsked,
  most,
  more,
  onMore,
  onBack,
  onClose,
}: {
  nothingAsked: boolean
  /** Only what matters most was asked. */
  most: boolean
  /** Something is assumed still. */
  more: boolean
  onMore: () => void
  onBack: (() => void) | null
  onClose: () => void
}) {
  return (
    <section className="bay" aria-label="Guided tape">
      <h2>{nothingAsked ? 'Nothing is assumed any more' : 'Once round'}</h2>
      <p>
        {most && more
          ? 'What matters most is taped. The rest may stay assumed, or go on with every figure.'
          : 'Every figure has been asked for.'}
      </p>
      <div className="d-grid gap-2" style={{ maxWidth: 520 }}>
        {more && (
          <Button variant="plain" onClick={onMore}>
            Go on with every figure
          </Button>
        )}
        {onBack && (
          <Button variant="plain" onClick={onBack}>
            Back
          </Button>
        )}
        <Button variant="go" onClick={onClose}>
          Done
        </Button>
      </div>
    </section>
  )
}
