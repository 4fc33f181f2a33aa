import { line, max, scaleLinear } from 'd3'
import type { HeatPicture } from '@/core/engines/heat/heat-picture'
import { TempGrid } from '@/web/heat/temp-grid'
import type { Formatter } from '@/web/words/format'
import '@/web/heat/heat-chart.scss'

const SIZE = { w: 520, h: 230, left: 40, right: 10, top: 10, bottom: 30 }

interface Looked {
  name: string
  picture: HeatPicture
}

/** Shown until it may be lifted, and a little longer, s. */
const AFTER_S = 20
function shownS({ curve, coolS }: HeatPicture): number {
  const end = curve.tS.at(-1) ?? 0
  const top = curve.tS[curve.filmC.indexOf(Math.max(...curve.filmC))] ?? 0
  return coolS.lift === null ? end : Math.min(end, top + coolS.lift + AFTER_S)
}

/** Film temperature in the middle of the edge against time, over the film's range and under its limit. */
export function HeatCurve({
  looked,
  film,
  fmt,
}: {
  looked: readonly Looked[]
  film: { postHeatC: { min: number; max: number }; heatLimitC: number }
  fmt: Formatter
}) {
  const hottest = Math.max(film.heatLimitC, ...looked.map((l) => l.picture.peakC.max)) + 8
  const lastS = max(looked, (l) => shownS(l.picture)) ?? 1
  const x = scaleLinear()
    .domain([0, lastS])
    .range([SIZE.left, SIZE.w - SIZE.right])
  const coolest = Math.min(...looked.map((l) => Math.min(...l.picture.curve.filmC)))
  const y = scaleLinear()
    .domain([Math.min(10, coolest), hottest])
    .range([SIZE.h - SIZE.bottom, SIZE.top])
  const temp = (c: number) => fmt.text(fmt.temp(c))
  const drawn = (picture: HeatPicture, values: readonly number[]) =>
    line<number>()
      .defined((_, i) => (picture.curve.tS[i] ?? 0) <= lastS)
      .x((_, i) => x(picture.curve.tS[i] ?? 0))
      .y((c) => y(c))([...values]) ?? ''
  return (
    <svg
      className="heat-chart heat-curve"
      viewBox={`0 0 ${SIZE.w} ${SIZE.h}`}
      role="img"
      aria-label={looked
        .map((l) => `${l.name}: ${temp(l.picture.peakC.min)} to ${temp(l.picture.peakC.max)}`)
        .join('; ')}
    >
      <rect
        className="band"
        x={SIZE.left}
        width={SIZE.w - SIZE.left - SIZE.right}
        y={y(film.postHeatC.max)}
        height={y(film.postHeatC.min) - y(film.postHeatC.max)}
      />
      <line className="limit" x1={SIZE.left} x2={SIZE.w - SIZE.right} y1={y(film.heatLimitC)} y2={y(film.heatLimitC)} />
      <TempGrid y={y} left={SIZE.left} right={SIZE.w - SIZE.right} count={6} fmt={fmt} />
      {x.ticks(7).map((t) => (
        <text key={t} x={x(t)} y={SIZE.h - 12} textAnchor="middle">
          {t} s
        </text>
      ))}
      {looked.map((l, i) => (
        <g key={l.name} className="look" data-look={i}>
          <path className="film" d={drawn(l.picture, l.picture.curve.filmC)} />
          <path className="behind" d={drawn(l.picture, l.picture.curve.backC)} />
        </g>
      ))}
    </svg>
  )
}
