import { outlineOf } from '@/core/model/vehicle/outline'
import { pointMarks } from '@/web/charts/point-marks'
import { useJob } from '@/web/job/job-state'
import { pointName } from '@/web/handover/point-name'
import type { StatedPoint } from './stated-point'

/** The panel with its places to heat, each by its state: pattern and number beside the colour. */
export function PointDrawing({
  panelId,
  points,
  chosen,
  onPick,
}: {
  panelId: string
  points: readonly StatedPoint[]
  chosen: readonly string[]
  onPick: (id: string) => void
}) {
  const { plan } = useJob('plan')
  const panel = plan.panels.find((p) => p.id === panelId)
  if (!panel) return null
  const outline = outlineOf(panel)
  const u = Math.max(outline.widthMm, outline.heightMm * 1.6) / 20
  const marks = pointMarks(
    panel,
    points.map((p) => p.point),
  )
  const path = `M${outline.path.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
  return (
    <svg
      className="point-drawing"
      viewBox={`${-1.5 * u} ${-1.5 * u} ${outline.widthMm + 3 * u} ${outline.heightMm + 3 * u}`}
      role="img"
      aria-label={`${panel.name}: ${points.map((p, i) => `${i + 1} ${pointName(p.point)}`).join(', ')}`}
    >
      <path className="sheet-outline" d={path} />
      {marks.map((m, i) => {
        const state = points[i]?.state ?? 'waiting'
        return (
          <g key={m.id} data-state={state} data-chosen={chosen.includes(m.id)} onClick={() => onPick(m.id)}>
            {m.rings.map((ring, k) => (
              <path
                key={k}
                className="heat-area"
                d={`M${ring.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`}
              />
            ))}
            {m.line.length > 1 && (
              <path
                className="heat-line"
                d={`M${m.line.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}`}
              />
            )}
            <circle className="heat-mark" cx={m.at.x} cy={m.at.y} r={u} />
            <text x={m.at.x} y={m.at.y} dy={u * 0.4} fontSize={u * 1.2} textAnchor="middle">
              {i + 1}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
