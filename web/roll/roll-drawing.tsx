'use client'

import { useMemo, type KeyboardEvent } from 'react'
import { dropAt, nudge, turnOn, type Spot, type Refusal } from '@/core/engines/roll/arrange'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { rollMarks, type PieceMark } from '@/web/charts/roll-marks'
import { useJob } from '@/web/job/job-state'
import { hatch } from './hatch'
import type { Dragged } from '@/web/kit/use-drag'
import { CutNumber } from '@/web/roll/roll-piece'
import { DraggablePiece } from './draggable-piece'
import { FilmUnrolled } from './film-unrolled'

const PX_PER_MM = 0.2
const DIRECTIONS = { ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' } as const
interface Props {
  layout: FilmLayout
  roll: RollPlan
  label: string
  picked?: string | null
  onPick?: (pieceId: string | null) => void
  /** A piece put elsewhere on this roll; absent where nothing may be moved. */
  onPlace?: ((spot: Spot) => void) | undefined
  /** Why a piece could not go where it was put. */
  onRefuse?: (fault: Refusal) => void
  onLock?: (pieceId: string) => void
  scale?: number
}

/**
 * The roll unrolled, true to scale over its 100 mm liner grid: pieces with arrows and names, cuts in cutting order,
 * what is left over hatched. Pieces are dragged, or moved by arrow keys from edge to edge.
 */
export function RollDrawing({
  layout,
  roll,
  label,
  picked,
  onPick,
  onPlace,
  onRefuse,
  onLock,
  scale = PX_PER_MM,
}: Props) {
  const { fmt, plan } = useJob('fmt', 'plan')
  const m = useMemo(() => rollMarks(layout, roll, scale), [layout, roll, scale])
  const top = 26
  const spotOf = (id: string) => roll.placements.find((p) => p.pieceId === id)
  const may = (p: PieceMark) => onPlace !== undefined && !p.cut
  const drop = (id: string, { dx, dy }: Dragged) => {
    const spot = spotOf(id)
    if (!spot || !onPlace) return
    const out = dropAt(layout, plan, roll.id, { ...spot, yMm: spot.yMm + dx / scale, xMm: spot.xMm + dy / scale })
    if (out.ok) onPlace(out.value)
    else onRefuse?.(out.error)
  }
  const key = (e: KeyboardEvent, p: PieceMark) => {
    const spot = spotOf(p.id)
    if (!spot) return
    if (e.key === 'l' && may(p)) return onLock?.(p.id)
    const direction = DIRECTIONS[e.key as keyof typeof DIRECTIONS]
    if (!direction && e.key !== 't') return
    e.preventDefault()
    if (!may(p) || !onPlace) return
    if (p.locked) return onRefuse?.({ code: 'is_locked', facts: { piece: p.name } })
    const out = direction ? nudge(layout, plan, roll.id, spot, direction) : turnOn(layout, plan, roll.id, spot)
    if (out.ok) onPlace(out.value)
    else onRefuse?.(out.error)
  }
  return (
    <div
      className="scroll-x"
      role="region"
      tabIndex={onPlace ? undefined : 0}
      aria-label={`${label}, ${fmt.text(fmt.longLength(roll.usedMm))} of ${fmt.text(fmt.length(roll.widthMm))} wide film`}
    >
      <svg
        className="daylight"
        width={m.width + 8}
        height={m.height + top + 20}
        role="group"
        aria-label={`${roll.placements.length} pieces on ${label}`}
      >
        {hatch(`rest-${roll.id}`, 'var(--soft)', 7)}
        {hatch(`reserve-${roll.id}`, 'var(--brass)', 5)}
        {hatch(`damage-${roll.id}`, 'var(--stop)', 4)}
        <g transform={`translate(4 ${top})`}>
          <FilmUnrolled m={m} roll={roll} layout={layout} />
          {m.cuts.map((c) =>
            c.stage === 1 ? null : (
              <line
                key={`c${c.number}`}
                x1={c.x1}
                y1={c.y1}
                x2={c.x2}
                y2={c.y2}
                stroke="var(--stop)"
                strokeWidth={1}
                strokeDasharray="2 3"
                opacity={0.75}
              />
            ),
          )}
          {m.pieces.map((p) => (
            <DraggablePiece
              key={p.id}
              mark={p}
              hex={layout.film.colour.hex}
              says={
                `${p.name}, ${fmt.text(fmt.longLength(p.x / scale))} from the ` +
                `end${p.locked ? ', locked' : ''}${p.cut ? ', cut' : ''}`
              }
              picked={picked === p.id}
              movable={may(p) && !p.locked}
              onPick={onPick && (() => onPick(p.id))}
              onDrop={(by) => drop(p.id, by)}
              onKey={(e) => key(e, p)}
            />
          ))}
          {m.cuts.map((c) =>
            c.stage === 1 ? (
              <g key={c.number}>
                <line
                  x1={c.x1}
                  x2={c.x2}
                  y1={-6}
                  y2={m.height}
                  stroke="var(--stop)"
                  strokeWidth={1.5}
                  strokeDasharray="5 3"
                  pointerEvents="none"
                />
                <text x={c.x1} y={-10} textAnchor="middle" fontSize={11.5} fontWeight={680} fill="var(--stop)">
                  {c.number}
                </text>
              </g>
            ) : (
              <CutNumber key={c.number} c={c} />
            ),
          )}
        </g>
      </svg>
    </div>
  )
}
