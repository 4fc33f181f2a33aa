'use client'

import type { LayoutInput, LayoutPlan } from '@/core/engines/roll/contract'

import { type Formatter } from '@/web/words/format'

/** One roll of a fleet's layout, true to scale, with every piece on it. */
export function FleetRoll({
  s,
  stock,
  fmt,
  sizes,
  wanted,
}: {
  s: LayoutPlan['stock'][number]
  stock: LayoutInput['stock'][number]
  fmt: Formatter
  sizes: ReadonlyMap<string, LayoutInput['pieces'][number]>
  wanted: string
}) {
  return (
    <div className="mb-2">
      <b>{s.id}</b>{' '}
      <span className="label">
        {stock.lot ? `lot ${stock.lot}, ` : ''}
        {fmt.text(fmt.longLength(s.used_mm))} of {fmt.text(fmt.longLength(stock.length_mm))}, {s.placements.length}{' '}
        pieces
      </span>
      <div className="scroll-x" role="region" tabIndex={0} aria-label={`Pieces on ${s.id}`}>
        <svg
          className="daylight"
          width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM + 4}
          height={stock.width_mm * PX_PER_MM + 4}
          role="img"
          aria-label={`${s.placements.length} pieces on ${s.id}`}
        >
          <rect
            x={1}
            y={1}
            width={Math.min(stock.length_mm, s.used_mm + 300) * PX_PER_MM}
            height={stock.width_mm * PX_PER_MM}
            fill="#fbf8ef"
            stroke="var(--ink)"
          />
          {s.placements.map((p) => {
            const size = sizes.get(p.piece)
            if (!size) return null
            const [w, l] = p.turn_deg === 90 ? [size.height_mm, size.width_mm] : [size.width_mm, size.height_mm]
            const hit = wanted !== '' && p.piece.toLowerCase().includes(wanted)
            return (
              <g key={`${p.piece}#${p.copy}`}>
                <rect
                  x={1 + p.y_mm * PX_PER_MM}
                  y={1 + p.x_mm * PX_PER_MM}
                  width={l * PX_PER_MM}
                  height={w * PX_PER_MM}
                  fill={hit ? 'var(--brass)' : 'var(--soft)'}
                  fillOpacity={hit ? 0.75 : 0.18}
                  stroke="var(--ink)"
                  strokeWidth={0.7}
                >
                  <title>{`${p.piece}, ${fmt.text(fmt.longLength(p.y_mm))} from the end`}</title>
                </rect>
                <Name
                  text={p.piece}
                  x={1 + p.y_mm * PX_PER_MM}
                  y={1 + p.x_mm * PX_PER_MM}
                  width={l * PX_PER_MM}
                  height={w * PX_PER_MM}
                />
              </g>
            )
          })}
        </svg>
      </div>
    </div>
  )
}

const PX_PER_MM = 0.075

/** The vehicle's number and the piece, as far as they fit. */
function Name({ text, x, y, width, height }: { text: string; x: number; y: number; width: number; height: number }) {
  const [car = '', piece = ''] = text.split(' / ')
  const number = /^\d+/.exec(car)?.[0] ?? ''
  const label = piece ? `${number} ${piece}` : text
  const room = Math.floor((width - 6) / 5)
  if (height < 11 || room < 3) return null
  return (
    <text x={x + 3} y={y + 10} fontSize={9} style={{ fontStretch: '78%' }} fill="var(--ink)" pointerEvents="none">
      {label.length > room ? `${label.slice(0, room - 1)}…` : label}
    </text>
  )
}
