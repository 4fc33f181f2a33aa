import { line, scaleLinear, scaleTime } from 'd3'
import { dewPointC } from '@/core/engines/conditions/air'
import type { ClimateReading } from '@/core/model/catalogue/catalogue'

export interface ClimateMarks {
  width: number
  height: number
  lines: {
    key: 'air' | 'surface' | 'dew'
    d: string
    dash: string
    points: { x: number; y: number; c: number; at: string }[]
  }[]
  ticks: { y: number; c: number }[]
  days: { x: number; at: string }[]
  band: { y: number; height: number } | null
}

const [WIDTH, HEIGHT, LEFT, FOOT] = [640, 190, 44, 22]

/** Air, surface and dew point over time, with the film's range as a band. */
export function climateMarks(
  readings: readonly ClimateReading[],
  range: { min: number; max: number } | null,
): ClimateMarks {
  const times = readings.map((r) => new Date(r.at))
  const dew = (r: ClimateReading): number | null => (r.humidity === null ? null : dewPointC(r.airC, r.humidity))
  const all = [...readings.flatMap((r) => [r.airC, r.surfaceC, dew(r)]), range?.min ?? null, range?.max ?? null].filter(
    (v) => v !== null,
  )
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const [from, to] = [times[0] ?? new Date(0), times.at(-1) ?? new Date(1)]
  const pad = from.getTime() === to.getTime() ? 3_600_000 : 0
  const x = scaleTime()
    .domain([new Date(from.getTime() - pad), new Date(to.getTime() + pad)])
    .range([LEFT, WIDTH - 10])
  const y = scaleLinear()
    .domain([low - 1, high + 1])
    .nice()
    .range([HEIGHT - FOOT, 8])
  const series = (
    key: ClimateMarks['lines'][number]['key'],
    dash: string,
    get: (r: ClimateReading) => number | null,
  ) => {
    const points = readings.flatMap((r, i) => {
      const c = get(r)
      return c === null ? [] : [{ x: x(times[i] as Date), y: y(c), c, at: r.at }]
    })
    return {
      key,
      dash,
      points,
      d:
        line<{ x: number; y: number }>(
          (p) => p.x,
          (p) => p.y,
        )(points) ?? '',
    }
  }
  return {
    width: WIDTH,
    height: HEIGHT,
    lines: [series('air', '', (r) => r.airC), series('surface', '7 4', (r) => r.surfaceC), series('dew', '2 4', dew)],
    ticks: y.ticks(5).map((c) => ({ y: y(c), c })),
    days: x.ticks(5).map((d) => ({ x: x(d), at: d.toISOString() })),
    band: range ? { y: y(range.max), height: y(range.min) - y(range.max) } : null,
  }
}
