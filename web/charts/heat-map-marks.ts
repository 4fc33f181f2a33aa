import { contours, scaleLinear } from 'd3'
import type { HeatPicture } from '@/core/engines/heat/heat-picture'

/** Where one band of temperature ends and the next begins, °C, ascending; the first band lies under the first limit. */
export interface HeatBands {
  limits: number[]
}
export interface HeatMapMarks {
  /** One path for each limit: what became as hot or hotter. The band under the first is the ground. px */
  bands: { limitC: number; d: string }[]
  width: number
  height: number
  /** The line that the gun was moved along. */
  lineY: number
}

/** Safe to lift, to be post-heated, over the range, past what the film bears. */
export const heatLimits = (liftC: number, film: { postHeatC: { min: number; max: number }; heatLimitC: number }) =>
  [liftC, film.postHeatC.min, film.postHeatC.max, film.heatLimitC].sort((a, b) => a - b)

/** The strip along an edge, both sides of the gun's line, as bands with edges along interpolated lines. */
export function heatMapMarks(
  { grid }: Pick<HeatPicture, 'grid'>,
  limits: readonly number[],
  width: number,
): HeatMapMarks {
  const { xMm, yMm, peakC } = grid
  const columns = xMm.length
  // Both sides of the line are alike: the rows are laid out from far on one side to far on the other.
  const rows = [...yMm.keys()].reverse().concat([...yMm.keys()].slice(1))
  const values = rows.flatMap((r) => peakC.slice(r * columns, (r + 1) * columns))
  const lengthMm = xMm.at(-1) ?? 1
  const depthMm = 2 * (yMm.at(-1) ?? 1)
  const height = (width * depthMm) / lengthMm
  // A contour's cell i covers i to i + 1, its value in the middle.
  const x = scaleLinear()
    .domain([0.5, columns - 0.5])
    .range([0, width])
  const y = scaleLinear()
    .domain([0.5, rows.length - 0.5])
    .range([0, height])
  const made = contours()
    .size([columns, rows.length])
    .thresholds([...limits])(values)
  const round = (v: number) => v.toFixed(1)
  return {
    bands: made.map((c, i) => ({
      limitC: limits[i] ?? c.value,
      d: c.coordinates
        .flatMap((polygon) =>
          polygon.map((ring) => `M${ring.map(([a = 0, b = 0]) => `${round(x(a))} ${round(y(b))}`).join('L')}Z`),
        )
        .join(''),
    })),
    width,
    height,
    lineY: height / 2,
  }
}
