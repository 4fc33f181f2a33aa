'use client'

import Button from 'react-bootstrap/Button'
import { applyChange } from '@/core/model/plan/plan-change'
import type { PieceChoice } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'

/** Takes the solved outline to the roll, or goes back to the taped sizes. */
export function OutlineButtons({
  coarse,
  outline,
  turned,
  toRoll,
  choice,
  panel,
}: {
  coarse: boolean
  outline: boolean
  turned: boolean
  toRoll: () => void
  choice: PieceChoice
  panel: Panel
}) {
  const { edit } = useJob('edit')
  return (
    <div className="d-flex gap-2 flex-wrap my-2">
      <Button variant="outline-primary" size="sm" disabled={coarse || outline || turned} onClick={toRoll}>
        {outline ? 'On the roll as this outline' : 'Cut from the roll as this outline'}
      </Button>
      {choice.flat && (
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => edit((p) => applyChange(p, { kind: 'piece', panelId: panel.id, set: { flat: null } }))}
        >
          Back to the taped sizes
        </Button>
      )}
      {choice.slits.length > 0 && (
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => edit((p) => applyChange(p, { kind: 'piece', panelId: panel.id, set: { slits: [] } }))}
        >
          Leave out {choice.slits.length} relief cuts
        </Button>
      )}
    </div>
  )
}
