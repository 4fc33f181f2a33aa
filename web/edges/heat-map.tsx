import { contours, scaleLinear } from 'd3'
import type { HeatPicture } from '@/core/engines/heat/heat-picture'
import type { PanelHeat } from '@/core/engines/heat/panel-heat'
import type { Point } from '@/core/kit/plane'
import { heatMapMarks } from '@/web/charts/heat-map-marks'
import type { Formatter } from '@/web/words/format'

const STRIP_WIDTH = 520

/** What each band of temperature means, from the coolest up. */
export const BAND_WORDS = [
  'cooler: may be lifted',
  'warm, not set',
  'in the film’s range',
  'over the range, noted',
  'past the film’s limit',
] as const

/** The strip along an edge as hot as one sweep makes it: ordered bands, the gun's line, limits in words. */
export function HeatStrip({
  picture,
  limits,
  name,
}: {
  picture: HeatPicture
  limits: readonly number[]
  name: string
}) {
  const marks = heatMapMarks(picture, limits, STRIP_WIDTH)
  return (
    <svg
      className="heat-map"
      viewBox={`0 0 ${marks.width} ${marks.height}`}
      role="img"
      aria-label={`${name}: the hottest that each place of the strip becomes`}
    >
      <rect data-band={0} width={marks.width} height={marks.height} />
      {marks.bands.map((b, i) => (
        <path key={b.limitC} data-band={i + 1} d={b.d} />
      ))}
      <line x1={0} x2={marks.width} y1={marks.lineY} y2={marks.lineY} />
    </svg>
  )
}

/** The whole panel after the planned passes along its edges, in the same frame as its stretch map. */
export function PanelHeatMap({
  heat,
  path,
  limits,
  name,
}: {
  heat: PanelHeat
  path: readonly Point[]
  limits: readonly number[]
  name: string
}) {
  const { left, top, right, bottom } = heat.box
  const x = scaleLinear().domain([0, heat.columns]).range([left, right])
  const y = scaleLinear().domain([0, heat.rows]).range([top, bottom])
  const made = contours()
    .size([heat.columns, heat.rows])
    .thresholds([...limits])(heat.peakC)
  const outline = `M${path.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
  const clip = `panel-heat-${name.replace(/\W+/g, '-')}`
  return (
    <svg
      className="heat-map panel"
      viewBox={`${left - 6} ${top - 6} ${right - left + 12} ${bottom - top + 12}`}
      role="img"
      aria-label={`${name} after the planned passes along its edges`}
    >
      <clipPath id={clip}>
        <path d={outline} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <rect data-band={0} x={left} y={top} width={right - left} height={bottom - top} />
        {made.map((c, i) => (
          <path
            key={c.value}
            data-band={i + 1}
            d={c.coordinates
              .flatMap((polygon) =>
                polygon.map(
                  (ring) => `M${ring.map(([a = 0, b = 0]) => `${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join('L')}Z`,
                ),
              )
              .join('')}
          />
        ))}
      </g>
      <path className="outline" d={outline} />
    </svg>
  )
}

/** The bands with their limits. */
export function HeatLegend({ limits, fmt }: { limits: readonly number[]; fmt: Formatter }) {
  return (
    <ul className="heat-legend list-unstyled d-flex flex-wrap column-gap-3 mb-2">
      {BAND_WORDS.map((words, i) => (
        <li key={words}>
          <svg viewBox="0 0 18 12" aria-hidden className="heat-map">
            <rect data-band={i} width={18} height={12} />
          </svg>
          {i === 0 ? `under ${fmt.text(fmt.temp(limits[0] ?? 0))}` : `from ${fmt.text(fmt.temp(limits[i - 1] ?? 0))}`}:{' '}
          {words}
        </li>
      ))}
    </ul>
  )
}
