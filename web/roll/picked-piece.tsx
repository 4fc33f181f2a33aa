'use client'

import Button from 'react-bootstrap/Button'
import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { RollPlan, turnsOf } from '@/core/engines/roll/roll-plan'
import { type Spot } from '@/core/engines/roll/arrange'
import { useJob } from '@/web/job/job-state'
import { nameOf } from './roll-name'
import { SearchHarder } from './search-harder'
import { Piece } from '@/core/engines/pieces/pieces'

/** What may be done with the piece that is picked. */
export function PickedPiece({
  layout,
  piece,
  spot,
  roll,
  isCut,
  turn,
  lock,
  moveTo,
}: {
  layout: FilmLayout
  piece: Piece | undefined
  spot: Spot | undefined
  roll: RollPlan | undefined
  isCut: boolean
  turn: () => void
  lock: (pieceId: string) => void
  moveTo: (rollId: string) => void
}) {
  const { fmt, mayPlan, undo } = useJob('fmt', 'mayPlan', 'undo')
  return (
    <div className="d-flex flex-wrap gap-1 column-gap-2 align-items-center" aria-label="Piece picked">
      <SearchHarder layout={layout} />
      <span className="flex-fill" />
      {piece && spot && roll ? (
        <>
          <b>{piece.name}</b>
          <span className="label">
            {fmt.text(fmt.length(spot.widthMm))} across × {fmt.text(fmt.length(spot.lengthMm))} along
            {turnsOf(piece).length === 1
              ? ', lies one way only'
              : turnsOf(piece).length === 2
                ? ', may lie upside down'
                : ', may lie any way'}
          </span>
          <fieldset disabled={!mayPlan || isCut} className="d-flex gap-1">
            <Button
              variant="outline-primary"
              size="sm"
              disabled={spot.locked || turnsOf(piece).length < 2}
              onClick={turn}
            >
              Turn
            </Button>
            <Button variant="outline-primary" size="sm" aria-pressed={spot.locked} onClick={() => lock(piece.id)}>
              {spot.locked ? 'Unlock' : 'Lock'}
            </Button>
            {layout.rolls
              .filter((r) => r.id !== roll.id)
              .map((r) => (
                <Button
                  variant="outline-primary"
                  size="sm"
                  key={r.id}
                  disabled={spot.locked}
                  onClick={() => moveTo(r.id)}
                >
                  Move to {nameOf(layout, r.id)}
                </Button>
              ))}
          </fieldset>
        </>
      ) : (
        <span className="label">Drag a piece, or pick it and use the arrow keys; T turns, L locks.</span>
      )}
      <Button variant="link" size="sm" disabled={!mayPlan} onClick={() => void undo()}>
        Undo
      </Button>
    </div>
  )
}
