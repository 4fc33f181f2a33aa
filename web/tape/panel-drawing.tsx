'use client'

import type { Panel } from '@/core/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'

const GRID_MM = 100

/** The panel's rectangle true to scale over the 100 mm grid, with its measures; recesses by their mouths. */
export function PanelDrawing({ panel }: { panel: Panel }) {
  const { fmt } = useJob()
  const pad = Math.max(panel.widthMm, panel.heightMm) * 0.12 + 40
  const [w, h] = [panel.widthMm, panel.heightMm]
  const size = Math.max(w, h) / 19
  const name = (mm: number) => fmt.text(fmt.length(mm))
  const edgeText = (at: string) => panel.edges.filter((e) => e.at === at).map((e) => word('edge', e.meets).replace(', under', '')).join(', ') // prettier-ignore
  const corner = Math.min(panel.cornerRadiusMm ?? 0, w / 2, h / 2)
  const half = panel.recesses.reduce((sum, r) => sum + r.mouthWidthMm, 0) / 2
  const mouths = panel.recesses.map((r, i) => {
    const before = panel.recesses.slice(0, i).reduce((sum, x) => sum + x.mouthWidthMm, 0)
    return { r, x: Math.max(0, Math.min(w / 2 - half + before, w - r.mouthWidthMm)) }
  })
  return (
    <svg
      viewBox={`${-pad} ${-pad} ${w + 2 * pad} ${h + 2 * pad}`}
      width="100%"
      style={{ maxHeight: 300 }}
      role="img"
      aria-label={`${panel.name}, ${name(w)} wide, ${name(h)} high`}
    >
      <defs>
        <pattern id={`g-${panel.id}`} width={GRID_MM} height={GRID_MM} patternUnits="userSpaceOnUse">
          <path d={`M ${GRID_MM} 0 L 0 0 0 ${GRID_MM}`} fill="none" stroke="var(--rule)" strokeWidth={size / 18} />
        </pattern>
      </defs>
      <rect x={-pad} y={-pad} width={w + 2 * pad} height={h + 2 * pad} fill={`url(#g-${panel.id})`} opacity={0.6} />
      <rect
        width={w}
        height={h}
        rx={corner}
        fill="var(--piece)"
        stroke="var(--ink)"
        strokeWidth={size / 7}
        strokeDasharray={panel.assumed.length > 0 ? `${size / 2} ${size / 3}` : undefined}
      />
      {mouths.map(({ r, x: at }) => (
        <g key={r.id}>
          <rect
            x={at}
            y={(h - r.mouthHeightMm) / 2}
            width={r.mouthWidthMm}
            height={r.mouthHeightMm}
            rx={size / 3}
            fill="var(--rule)"
            stroke="var(--ink)"
            strokeWidth={size / 12}
          />
        </g>
      ))}
      <g fontSize={size} fill="var(--ink)" textAnchor="middle" style={{ fontStretch: '80%' }}>
        <text x={w / 2} y={-size * 1.5} fontWeight={650}>
          {name(w)}
        </text>
        <text x={w / 2} y={-size * 0.4} fill="var(--soft)" fontSize={size * 0.8}>
          {edgeText('top')}
        </text>
        <text x={w / 2} y={h + size * 1.1} fill="var(--soft)" fontSize={size * 0.8}>
          {edgeText('bottom')}
        </text>
        <text transform={`translate(${-size * 1.5} ${h / 2}) rotate(-90)`} fontWeight={650}>
          {name(h)}
        </text>
        <text transform={`translate(${-size * 0.4} ${h / 2}) rotate(-90)`} fill="var(--soft)" fontSize={size * 0.8}>
          {edgeText('left')}
        </text>
        <text transform={`translate(${w + size * 0.9} ${h / 2}) rotate(-90)`} fill="var(--soft)" fontSize={size * 0.8}>
          {edgeText('right')}
        </text>
        {panel.crownMm > 0 && (
          <text x={w / 2} y={h - size * 0.6} fontSize={size * 0.85}>
            crown {name(panel.crownMm)} under {name(panel.crownOverMm)}
          </text>
        )}
      </g>
    </svg>
  )
}
