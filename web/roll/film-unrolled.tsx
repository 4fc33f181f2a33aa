'use client'

import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { RollMarks } from '@/web/charts/roll-marks'
import { useJob } from '@/web/job/job-state'

/** The film itself: its liner's grid, damage, reserve, what is left over, and where it ends. */
export function FilmUnrolled({ m, roll, layout }: { m: RollMarks; roll: RollPlan; layout: FilmLayout }) {
  const { fmt } = useJob('fmt')
  return (
    <>
      <rect width={m.width} height={m.height} fill="#fbf8ef" stroke="var(--ink)" />
      {m.grid.x.map((x, i) => (
        <line key={x} x1={x} x2={x} y2={m.height} stroke="var(--rule)" strokeWidth={i % 10 === 0 ? 1.4 : 0.6} />
      ))}
      {m.grid.y.map((y) => (
        <line key={y} y1={y} y2={y} x2={m.width} stroke="var(--rule)" strokeWidth={0.6} />
      ))}
      {m.grid.x.map((x, i) =>
        i % 10 === 0 ? (
          <text className="scale-tick" key={`t${x}`} x={x + 3} y={m.height + 14} fontSize={11} fill="var(--soft)">
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
    </>
  )
}
