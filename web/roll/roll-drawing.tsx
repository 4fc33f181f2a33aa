'use client'

import { useMemo } from 'react'
import type { FilmLayout, RollPlan } from '@/core/roll/lay-out'
import { rollMarks } from '@/web/charts/roll-marks'
import { useJob } from '@/web/job/job-state'

const PX_PER_MM = 0.2

/** The roll unrolled, true to scale over its 100 mm liner grid: pieces with arrows and names, cross-cuts in cutting order. */
export function RollDrawing({ layout, roll, label }: { layout: FilmLayout; roll: RollPlan; label: string }) {
  const { fmt } = useJob()
  const m = useMemo(() => rollMarks(layout, roll, PX_PER_MM), [layout, roll])
  const top = 26
  return (
    <div
      className="scroll-x"
      tabIndex={0}
      role="region"
      aria-label={`${label}, ${fmt.text(fmt.longLength(roll.usedMm))} of ${fmt.text(fmt.length(roll.widthMm))} wide film`}
    >
      <svg
        width={m.width + 8}
        height={m.height + top + 20}
        role="img"
        aria-label={`${roll.placements.length} pieces on ${label}`}
      >
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
          {m.pieces.map((p) => {
            const tall = p.height > p.width * 1.3
            const room = tall ? p.height : p.width
            const across = tall ? p.width : p.height
            const fits = room > 34 && across > 13
            const chars = Math.floor((room - 22) / 5.6)
            return (
              <g key={p.id}>
                <rect
                  x={p.x}
                  y={p.y}
                  width={p.width}
                  height={p.height}
                  fill={layout.film.colour.hex}
                  fillOpacity={0.22}
                  stroke="var(--ink)"
                  strokeWidth={1}
                >
                  <title>{p.name}</title>
                </rect>
                {/* the arrow: how the panel's top or front lies on the roll */}
                {across > 10 && room > 16 && (
                  <path
                    d={p.arrow === 'up' ? 'M0 5V-5M-3.4 -1.6L0 -5L3.4 -1.6' : 'M-5 0H5M1.6 -3.4L5 0L1.6 3.4'}
                    transform={`translate(${p.x + 9} ${p.y + 9})`}
                    fill="none"
                    stroke="var(--ink)"
                    strokeWidth={1.5}
                  />
                )}
                {fits && (
                  <text
                    transform={`translate(${p.x + p.width / 2} ${p.y + p.height / 2}) ${tall ? 'rotate(-90)' : ''}`}
                    textAnchor="middle"
                    dominantBaseline="central"
                    fontSize={11.5}
                    fontWeight={560}
                    style={{ fontStretch: '78%' }}
                    fill="var(--ink)"
                  >
                    {p.name.length > chars ? `${p.name.slice(0, Math.max(1, chars - 1))}…` : p.name}
                  </text>
                )}
              </g>
            )
          })}
          {m.cuts.map((c) => (
            <g key={c.number} transform={`translate(${c.x} 0)`}>
              <line y1={-6} y2={m.height} stroke="var(--stop)" strokeWidth={1.5} strokeDasharray="5 3" />
              <text y={-10} textAnchor="middle" fontSize={11.5} fontWeight={680} fill="var(--stop)">
                {c.number}
              </text>
            </g>
          ))}
        </g>
      </svg>
    </div>
  )
}
