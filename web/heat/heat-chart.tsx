import { extent, scaleLinear, scaleUtc } from 'd3'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import type { Formatter } from '@/web/words/format'
import { TempGrid } from './temp-grid'
import { pointName } from '@/web/handover/point-name'
import './heat-chart.scss'

const SIZE = { w: 820, h: 220, left: 46, right: 12, top: 10, bottom: 26 }

/** Readings against time, over the band that the film wants and under the limit that it bears. */
export function HeatChart({ points, fmt }: { points: readonly HeatPoint[]; fmt: Formatter }) {
  const read = points.flatMap((p) => p.readings.map((r) => ({ ...r, point: p, ms: Date.parse(r.at) })))
  const [first] = points
  const [from, to] = extent(read, (r) => r.ms)
  if (!first || from === undefined || to === undefined) return null
  const { range, limitC } = first
  const x = scaleUtc()
    .domain([from - 300_000, to + 300_000])
    .range([SIZE.left, SIZE.w - SIZE.right])
  const temps = read.map((r) => r.tempC)
  const y = scaleLinear()
    .domain([Math.min(range.min - 25, ...temps), Math.max(limitC + 5, ...temps)])
    .nice()
    .range([SIZE.h - SIZE.bottom, SIZE.top])
  const temp = (c: number) => fmt.text(fmt.temp(c))
  return (
    <svg
      className="heat-chart"
      viewBox={`0 0 ${SIZE.w} ${SIZE.h}`}
      role="img"
      aria-label={`${read.length} readings; wanted ${temp(range.min)} to ${temp(range.max)}, never over ${temp(limitC)}`}
    >
      <rect
        className="band"
        x={SIZE.left}
        width={SIZE.w - SIZE.left - SIZE.right}
        y={y(range.max)}
        height={y(range.min) - y(range.max)}
      />
      <line className="limit" x1={SIZE.left} x2={SIZE.w - SIZE.right} y1={y(limitC)} y2={y(limitC)} />
      <TempGrid y={y} left={SIZE.left} right={SIZE.w - SIZE.right} count={5} fmt={fmt} />
      {x.ticks(6).map((t) => (
        <text key={t.toISOString()} className="time" x={x(t)} y={SIZE.h - 8} textAnchor="middle">
          {fmt.clock(t.toISOString())}
        </text>
      ))}
      {read.map((r) => (
        <circle key={`${r.point.id} ${r.at}`} data-verdict={r.verdict} cx={x(r.ms)} cy={y(r.tempC)} r={4}>
          <title>{`${pointName(r.point)}: ${temp(r.tempC)}, ${fmt.clock(r.at)}, ${r.by}`}</title>
        </circle>
      ))}
    </svg>
  )
}
