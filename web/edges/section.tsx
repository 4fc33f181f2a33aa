import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { Point } from '@/core/kit/plane'
import { sectionMarks } from '@/web/charts/section-marks'
import { SectionMeasures, type MeasureId } from './section-measures'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

const path = (points: readonly Point[], close = true): string =>
  `M${points.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}${close ? 'Z' : ''}`
const NAMES = { panel: 'this panel', neighbour: 'neighbour', seal: 'seal' } as const

/** The section through an edge: panel, film, gap, neighbour, blade and tape, true to scale. */
export function Section({
  edge,
  fmt,
  onMeasure,
}: {
  edge: EdgeDecision
  fmt: Formatter
  /** Null where measures may not be changed. */
  onMeasure: ((id: MeasureId, mm: number | null) => void) | null
}) {
  const marks = sectionMarks(edge)
  const { view } = marks
  const mm = (v: number) => fmt.text(fmt.length(v))
  return (
    <div className="position-relative">
      <svg
        className="edge-section"
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        role="img"
        aria-label={`Section: ${word('cutSide', edge.cut)}, ${mm(edge.leaveMm)} left`}
      >
        <g className="scale-grid" aria-hidden>
          {Array.from({ length: Math.ceil(view.w / 10) }, (_, i) => (
            <line key={i} x1={view.x + i * 10} x2={view.x + i * 10} y1={view.y} y2={view.y + view.h} />
          ))}
        </g>
        {marks.bodies.map((b) => (
          <path key={b.id} className={`body ${b.id}`} d={path(b.points)}>
            <title>{NAMES[b.id]}</title>
          </path>
        ))}
        {marks.tape && <path className="tape" d={path(marks.tape, false)} />}
        <path className="film" d={path(marks.film, false)} />
        {marks.blade && <path className="blade" d={path(marks.blade, false)} />}
        {marks.measures.map((m) => (
          <g key={m.id} className="measure">
            {m.id === 'gap' ? (
              <line x1={m.from.x} x2={m.to.x} y1={m.from.y} y2={m.to.y} />
            ) : (
              <line x1={m.to.x} x2={m.label.x} y1={m.to.y} y2={m.label.y - 2} strokeDasharray="1 1" />
            )}
            {!onMeasure && (
              <text x={m.label.x} y={m.label.y} textAnchor="middle">
                {m.id === 'gap' && marks.broken ? `${mm(m.mm)}, drawn shorter` : mm(m.mm)}
              </text>
            )}
          </g>
        ))}
        {marks.bodies.map((b) => {
          const x = b.id === 'panel' ? view.x + 3 : b.id === 'seal' ? 1 : Math.max(...b.points.map((p) => p.x)) - 16
          return (
            <text key={b.id} className="name" x={x} y={b.id === 'seal' ? 9 : 6.5}>
              {NAMES[b.id]}
            </text>
          )
        })}
        <text className="name" x={view.x + 3} y={view.y + view.h - 3}>
          lines 10 mm apart
        </text>
      </svg>
      {onMeasure && <SectionMeasures key={edge.edgeId} marks={marks} fmt={fmt} onMeasure={onMeasure} />}
    </div>
  )
}
