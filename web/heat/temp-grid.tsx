import type { ScaleLinear } from 'd3'
import type { Formatter } from '@/web/words/format'

/** Lines of even temperatures across a chart, each with its figure at the left. px */
export function TempGrid({
  y,
  left,
  right,
  count,
  fmt,
}: {
  y: ScaleLinear<number, number>
  left: number
  right: number
  count: number
  fmt: Formatter
}) {
  return y.ticks(count).map((t) => (
    <g key={t} className="tick">
      <line x1={left} x2={right} y1={y(t)} y2={y(t)} />
      <text x={left - 6} y={y(t) + 4} textAnchor="end">
        {fmt.temp(t).text}
      </text>
    </g>
  ))
}
