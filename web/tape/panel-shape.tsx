'use client'

import { type PanelMarks } from '@/web/charts/panel-marks'

/** A panel drawn to scale: outline, nose, body lines, recesses and what stands on it. */
export function PanelShape({ m, u }: { m: PanelMarks; u: number }) {
  return (
    <>
      <path d={m.d} fill="var(--piece)" stroke="var(--ink)" strokeWidth={u / 7} />
      {m.nose && (
        <line
          x1={m.nose.from.x}
          y1={m.nose.from.y}
          x2={m.nose.to.x}
          y2={m.nose.to.y}
          stroke="var(--ink)"
          strokeWidth={u / 2.4}
          opacity={0.35}
        />
      )}
      {m.lines.map((l) => (
        <line
          key={l.id}
          x1={l.from.x}
          y1={l.from.y}
          x2={l.to.x}
          y2={l.to.y}
          stroke="var(--brass)"
          strokeWidth={u / 9}
          strokeDasharray={l.seam ? undefined : `${u / 2} ${u / 2}`}
        />
      ))}
      {m.recesses.map((r) => (
        <g key={r.id}>
          <rect
            x={r.x}
            y={r.y}
            width={r.w}
            height={r.h}
            rx={u / 3}
            fill="var(--rule)"
            stroke="var(--ink)"
            strokeWidth={u / 11}
          />
          {r.open && <path d={openSide(r)} stroke="var(--plate)" strokeWidth={u / 4} />}
        </g>
      ))}
      {m.parts.map((x) => (
        <g key={x.id}>
          <rect
            x={x.x}
            y={x.y}
            width={x.w}
            height={x.h}
            rx={u / 4}
            fill={x.kind === 'hole' ? 'var(--paper)' : 'none'}
            stroke="var(--ink)"
            strokeWidth={u / 12}
            strokeDasharray={x.kind === 'raised' || x.kind === 'hole' ? undefined : `${u / 3} ${u / 4}`}
          />
          <title>{x.name}</title>
        </g>
      ))}
    </>
  )
}

function openSide(r: { x: number; y: number; w: number; h: number; open: string | null }): string {
  const [x2, y2] = [r.x + r.w, r.y + r.h]
  return (
    {
      top: `M${r.x} ${r.y}H${x2}`,
      bottom: `M${r.x} ${y2}H${x2}`,
      left: `M${r.x} ${r.y}V${y2}`,
      right: `M${x2} ${r.y}V${y2}`,
    }[r.open ?? 'top'] ?? ''
  )
}
