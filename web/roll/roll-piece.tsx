'use client'

import type { PieceMark } from '@/web/charts/roll-marks'

export function CutNumber({ c }: { c: { x1: number; y1: number; x2: number; y2: number; number: number } }) {
  const long = Math.hypot(c.x2 - c.x1, c.y2 - c.y1)
  if (long < 16) return null
  return (
    <text
      x={c.x1 === c.x2 ? c.x1 : c.x2 - 9}
      y={c.x1 === c.x2 ? c.y2 - 8 : c.y1}
      textAnchor="middle"
      dominantBaseline="central"
      fontSize={9.5}
      fontWeight={640}
      fill="var(--stop)"
      stroke="#fbf8ef"
      strokeWidth={3}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {c.number}
    </text>
  )
}

export function Piece({ p, hex, picked }: { p: PieceMark; hex: string; picked: boolean }) {
  const tall = p.height > p.width * 1.3
  const room = tall ? p.height : p.width
  const across = tall ? p.width : p.height
  const fits = room > 34 && across > 13
  const chars = Math.floor((room - 22) / 5.6)
  const small = across <= 26
  return (
    <>
      <path
        d={p.path ?? `M${p.x} ${p.y}h${p.width}v${p.height}h${-p.width}Z`}
        fill={hex}
        fillOpacity={p.cut ? 0.5 : 0.22}
        stroke={picked ? 'var(--brass)' : 'var(--ink)'}
        strokeWidth={picked ? 3 : 1}
      >
        <title>{p.name}</title>
      </path>
      {p.locked && (
        <path
          d="M-4 -1H4V5H-4ZM-2.6 -1V-3.4A2.6 2.6 0 0 1 2.6 -3.4V-1"
          transform={`translate(${p.x + p.width - 9} ${p.y + 9})`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {p.cut && (
        <path
          d="M-5 0L-1 4L6 -5"
          transform={`translate(${p.x + p.width - 11} ${p.y + p.height - 10})`}
          fill="none"
          stroke="var(--good, var(--ink))"
          strokeWidth={2.4}
        />
      )}
      {/* the arrow: how the panel's top or front lies on the roll */}
      {across > 10 && room > 16 && (
        <path
          d={ARROW[p.arrow]}
          transform={`translate(${p.x + 9} ${p.y + 9})`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {fits && (
        <text
          transform={
            `translate(${p.x + p.width / 2 + (small && !tall ? 6 : 0)} ` +
            `${p.y + p.height / 2 + (small && tall ? 6 : 0)}) ${tall ? 'rotate(-90)' : ''}`
          }
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
    </>
  )
}

export const ARROW = {
  up: 'M0 5V-5M-3.4 -1.6L0 -5L3.4 -1.6',
  down: 'M0 -5V5M-3.4 1.6L0 5L3.4 1.6',
  right: 'M-5 0H5M1.6 -3.4L5 0L1.6 3.4',
  left: 'M5 0H-5M-1.6 -3.4L-5 0L-1.6 3.4',
}
