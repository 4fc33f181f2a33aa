'use client'

import Button from 'react-bootstrap/Button'
import { useJob } from '@/web/job/job-state'

/** Asks for the ways out, shows how far they are, and stops them. */
export function WaysHead({
  progress,
  stale,
  look,
  onStop,
}: {
  /** How far they are solved; null while they were not asked for. */
  progress: { share: number; done: boolean } | null
  stale: boolean
  look: () => void
  onStop: () => void
}) {
  const { mayPlan, undo } = useJob('mayPlan', 'undo')
  return (
    <div className="d-flex gap-2 align-items-baseline flex-wrap">
      <h3 className="mb-0">Ways out</h3>
      {(!progress || stale) && (
        <Button variant="outline-primary" size="sm" onClick={look}>
          {stale ? 'Solve them again' : 'Solve the ways out'}
        </Button>
      )}
      {progress && !progress.done && !stale && (
        <>
          <progress value={progress.share} max={1} aria-label="Ways solved" style={{ width: 100 }} />
          <Button variant="link" size="sm" onClick={onStop}>
            Stop
          </Button>
        </>
      )}
      {stale && <span className="label">the plan has changed since</span>}
      {stale && mayPlan && (
        <Button variant="link" size="sm" onClick={() => void undo()}>
          Undo the last change
        </Button>
      )}
    </div>
  )
}
