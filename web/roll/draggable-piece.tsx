import { useState, type KeyboardEvent } from 'react'
import type { PieceMark } from '@/web/charts/roll-marks'
import { useDrag, type Dragged } from '@/web/kit/use-drag'
import { Piece } from './roll-piece'

/** A piece on the roll: picked by a press or by Tab, dragged where it may be moved. */
export function DraggablePiece({
  mark,
  hex,
  says,
  picked,
  movable,
  onPick,
  onDrop,
  onKey,
}: {
  mark: PieceMark
  /** Colour of the film. */
  hex: string
  says: string
  picked: boolean
  movable: boolean
  /** Absent where pieces are only looked at. */
  onPick?: (() => void) | undefined
  /** Let go somewhere else: how far from where it lay, in units of the drawing. */
  onDrop: (by: Dragged) => void
  onKey: (event: KeyboardEvent) => void
}) {
  const [moved, setMoved] = useState<Dragged | null>(null)
  const ref = useDrag<SVGGElement>({
    enabled: movable,
    onStart: () => onPick?.(),
    onMove: setMoved,
    onEnd: (by) => {
      setMoved(null)
      if (by) onDrop(by)
    },
  })
  return (
    <g
      ref={ref}
      className="roll-piece"
      data-picked={picked || undefined}
      tabIndex={onPick ? 0 : undefined}
      role={onPick ? 'button' : 'img'}
      aria-pressed={onPick ? picked : undefined}
      aria-label={says}
      transform={moved ? `translate(${moved.dx} ${moved.dy})` : undefined}
      onClick={() => onPick?.()}
      onFocus={() => onPick?.()}
      onKeyDown={onKey}
      style={{
        cursor: movable ? 'grab' : 'default',
        opacity: moved ? 0.7 : 1,
        touchAction: movable ? 'none' : undefined,
      }}
    >
      <Piece p={mark} hex={hex} picked={picked} />
    </g>
  )
}
