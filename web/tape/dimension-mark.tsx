'use client'

import type { TapeQuestion } from '@/core/stages/tape/tape-answer'
import type { PanelMarks } from '@/web/charts/panel-marks'

/** Of these the drawing has the line already. */
const DRAWN: readonly TapeQuestion['ask'][] = ['edge', 'body_line', 'recess_depth', 'gap', 'seal']

/**
 * One measure on a panel's drawing: its line, the leads to it and its figure. `unit`: the drawing's own letter height.
 * `alone`: it is what is asked for, and its line stands out.
 */
export function DimensionMark({
  dimension: d,
  unit,
  label,
  alone = false,
}: {
  dimension: PanelMarks['dimensions'][number]
  unit: number
  label: string
  alone?: boolean
}) {
  const q = d.question
  return (
    <g className="dimension" data-assumed={q.assumed} aria-hidden>
      {d.leads.map(([a, b], i) => (
        <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--soft)" strokeWidth={unit / 20} />
      ))}
      {(alone || !DRAWN.includes(q.ask)) && (
        <line
          x1={d.from.x}
          y1={d.from.y}
          x2={d.to.x}
          y2={d.to.y}
          stroke={alone ? 'var(--brass)' : 'var(--ink)'}
          strokeWidth={unit / (!alone ? 16 : DRAWN.includes(q.ask) ? 2.5 : 7)}
          strokeDasharray={q.ask === 'crown' || q.ask === 'crown_down' ? `${unit / 5} ${unit / 5}` : undefined}
        />
      )}
      <text
        transform={`translate(${d.at.x} ${d.at.y}) rotate(${d.turnDeg})`}
        textAnchor="middle"
        fontSize={alone ? unit * 1.5 : q.ask === 'width' || q.ask === 'height' ? unit * 1.05 : unit * 0.8}
        fontWeight={q.ask === 'width' || q.ask === 'height' ? 680 : 560}
      >
        {label}
      </text>
    </g>
  )
}
