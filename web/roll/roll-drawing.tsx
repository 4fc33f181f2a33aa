'use client'

import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { dropAt, nudge, turnOn, type Spot } from '@/core/engines/roll/arrange'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { rollMarks, type PieceMark } from '@/web/charts/roll-marks'
import { useJob } from '@/web/job/job-state'
import { hatch } from './hatch'
import { CutNumber, Piece } from '@/web/roll/roll-piece'

const PX_PER_MM = 0.2
const WAYS = { ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' } as const
interface Props {
  layout: FilmLayout
  roll: RollPlan
  label: string
  picked?: string | null
  onPick?: (pieceId: string | null) => void
  /** A piece put elsewhere on this roll; absent where nothing may be moved. */
  onPlace?: ((spot: Spot) => void) | undefined
  /** Why a piece could not go where it was put. */
  onRefuse?: (fault: { code: string; facts?: Record<string, string | number> }) => void
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
  const { fmt, plan } = useJob()
  const m = useMemo(() => rollMarks(layout, roll, scale), [layout, roll, scale])
  const [drag, setDrag] = useState<{ id: string; dx: number; dy: number } | null>(null)
  const from = useRef<{ id: string; x: number; y: number } | null>(null)
  const top = 26
  const spotOf = (id: string) => roll.placements.find((p) => p.pieceId === id)
  const may = (p: PieceMark) => onPlace !== undefined && !p.cut
  const down = (e: PointerEvent, p: PieceMark) => {
    onPick?.(p.id)
    if (!may(p) || p.locked) return
    from.current = { id: p.id, x: e.clientX, y: e.clientY }
    e.currentTarget.setPointerCapture?.(e.pointerId)
  }
  const move = (e: PointerEvent) => {
    const f = from.current
    if (!f) return
    const [dx, dy] = [e.clientX - f.x, e.clientY - f.y]
    if (Math.hypot(dx, dy) > 4 || drag) setDrag({ id: f.id, dx, dy })
  }
  const up = () => {
    const f = from.current
    from.current = null
    const d = drag
    setDrag(null)
    const spot = f && d ? spotOf(f.id) : undefined
    if (!spot || !d || !onPlace) return
    const out = dropAt(layout, plan, roll.id, { ...spot, yMm: spot.yMm + d.dx / scale, xMm: spot.xMm + d.dy / scale })
    if (out.ok) onPlace(out.value)
    else onRefuse?.(out.error)
  }
  const key = (e: KeyboardEvent, p: PieceMark) => {
    const spot = spotOf(p.id)
    if (!spot) return
    if (e.key === 'l' && may(p)) return onLock?.(p.id)
    const way = WAYS[e.key as keyof typeof WAYS]
    if (!way && e.key !== 't') return
    e.preventDefault()
    if (!may(p) || !onPlace) return
    if (p.locked) return onRefuse?.({ code: 'is_locked', facts: { piece: p.name } })
    const out = way ? nudge(layout, plan, roll.id, spot, way) : turnOn(layout, plan, roll.id, spot)
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
          <rect width={m.width} height={m.height} fill="#fbf8ef" stroke="var(--ink)" />
          {m.grid.x.map((x, i) => (
            <line key={x} x1={x} x2={x} y2={m.height} stroke="var(--rule)" strokeWidth={i % 10 === 0 ? 1.4 : 0.6} />
          ))}
          {m.grid.y.map((y) => (
            <line key={y} y1={y} y2={y} x2={m.width} stroke="var(--rule)" strokeWidth={0.6} />
          ))}
          {m.grid.x.map((x, i) =>
            i % 10 === 0 ? (
              <text key={`t${x}`} x={x + 3} y={m.height + 14} fontSize={11} fill="var(--soft)">
                {fmt.text(fmt.longLength(i * 100))}
              </text>
            ) : null,
          )}
          {m.offcuts.map((o, i) => (
            <rect key={`o${i}`} {...o} fill={`url(#rest-${roll.id})`} opacity={0.5} />
          ))}
          {m.damage.map((d) => (
            <g key={`d${d.x}`}>
              <rect x={d.x} width={d.width} height={m.height} fill={`url(#damage-${roll.id})`} stroke="var(--stop)" />
              <text x={d.x + d.width / 2} y={-10} textAnchor="middle" fontSize={11} fill="var(--stop)">
                damaged
              </text>
            </g>
          ))}
          {m.reserve && (
            <g>
              <rect
                x={m.reserve.x}
                width={m.reserve.width}
                height={m.height}
                fill={`url(#reserve-${roll.id})`}
                stroke="var(--brass)"
                strokeDasharray="6 4"
              />
              <text
                transform={`translate(${m.reserve.x + m.reserve.width / 2} ${m.height / 2}) rotate(-90)`}
                textAnchor="middle"
                fontSize={12}
                fontWeight={600}
                fill="var(--ink)"
                stroke="#fbf8ef"
                strokeWidth={4}
                paintOrder="stroke"
              >
                reserve {fmt.text(fmt.longLength(layout.reserveMm))}
              </text>
            </g>
          )}
          {m.end !== null && (
            <g>
              <line x1={m.end} x2={m.end} y1={-8} y2={m.height + 4} stroke="var(--ink)" strokeWidth={2.5} />
              <text x={m.end - 4} y={-12} textAnchor="end" fontSize={11} fill="var(--ink)">
                end of {roll.stock?.label ?? 'roll'}
              </text>
            </g>
          )}
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
          {m.pieces.map((p) => {
            const moved = drag?.id === p.id ? drag : null
            return (
              <g
                key={p.id}
                className="roll-piece"
                data-picked={picked === p.id || undefined}
                tabIndex={onPick ? 0 : undefined}
                role={onPick ? 'button' : 'img'}
                aria-pressed={onPick ? picked === p.id : undefined}
                aria-label={
                  `${p.name}, ${fmt.text(fmt.longLength(p.x / scale))} from the ` +
                  `end${p.locked ? ', locked' : ''}${p.cut ? ', cut' : ''}`
                }
                transform={moved ? `translate(${moved.dx} ${moved.dy})` : undefined}
                onPointerDown={(e) => down(e, p)}
                onPointerMove={move}
                onPointerUp={up}
                onPointerCancel={() => {
                  from.current = null
                  setDrag(null)
                }}
                onFocus={() => onPick?.(p.id)}
                onKeyDown={(e) => key(e, p)}
                style={{ cursor: may(p) && !p.locked ? 'grab' : 'default', opacity: moved ? 0.7 : 1 }}
              >
                <Piece p={p} hex={layout.film.colour.hex} picked={picked === p.id} />
              </g>
            )
          })}
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
