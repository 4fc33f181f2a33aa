import { scaleLinear } from 'd3'
import type { Bar, Board } from '@/core/engines/schedule/shop-schedule'
import { civilToMinutes, minutesToCivil, weekday, type OpenHours } from '@/core/kit/civil'

const DAY_MIN = 1440
/** Hours of a day that a board shows: nobody wraps at four in the morning. */
const SHOWN = { from: 6 * 60, to: 20 * 60 }
const QUARTER_MIN = 15

export interface BoardMarks {
  days: { date: string; x: number; width: number; open: { x: number; width: number }[]; closed: boolean }[]
  rows: { key: string; kind: 'bay' | 'person' | 'beside'; index: number; y: number }[]
  bars: { key: string; bar: Bar; x: number; width: number; row: number; slot: number }[]
  stays: { jobId: string; x: number; width: number; row: number }[]
  now: number | null
  width: number
  height: number
  /** The moment that a place on the board stands for, to the quarter of an hour. */
  momentAt: (x: number) => string
}

export const ROW = 58

interface Asked {
  board: Board
  hours: OpenHours
  /** The first day shown, and how many. */
  from: string
  days: number
  width: number
  by: 'bay' | 'person'
  bays: number
  people: readonly string[]
  now: string
}

/** Days side by side, each with the hours that are shown of it: where a moment stands, and which stands at a place. */
function daysAcross(from: string, days: number, width: number) {
  const start = civilToMinutes(`${from.slice(0, 10)}T00:00`) ?? 0
  const dayWidth = width / days
  const inDay = scaleLinear()
    .domain([SHOWN.from, SHOWN.to])
    .range([2, dayWidth - 2])
    .clamp(true)
  const xOf = (text: string): number => {
    const t = civilToMinutes(text) ?? start
    const day = Math.floor((t - start) / DAY_MIN)
    if (day < 0) return 0
    if (day >= days) return width
    return day * dayWidth + inDay(t - start - day * DAY_MIN)
  }
  const momentAt = (x: number): string => {
    const day = Math.max(0, Math.min(days - 1, Math.floor(x / dayWidth)))
    const minutes = Math.round(inDay.invert(x - day * dayWidth) / QUARTER_MIN) * QUARTER_MIN
    return minutesToCivil(start + day * DAY_MIN + minutes)
  }
  return { start, dayWidth, inDay, xOf, momentAt }
}

/** The board as it is drawn: a column for each day, a row for each bay or person, bars for the work. px */
export function boardMarks({ board, hours, from, days, width, by, bays, people, now }: Asked): BoardMarks {
  const { start, dayWidth, inDay, xOf, momentAt } = daysAcross(from, days, width)
  const rowCount = by === 'bay' ? Math.max(bays, ...board.stays.map((s) => s.bay + 1)) : people.length
  const rows: BoardMarks['rows'] = Array.from({ length: rowCount }, (_, index) => ({
    key: `${by}-${index}`,
    kind: by,
    index,
    y: index * ROW,
  }))
  if (by === 'bay') rows.push({ key: 'beside', kind: 'beside', index: rowCount, y: rowCount * ROW })
  const bayOf = new Map(board.stays.map((s) => [s.jobId, s.bay]))
  const seen = (a: string, b: string): boolean => xOf(b) > 0 && xOf(a) < width
  const bars = board.bars.flatMap((bar, i): BoardMarks['bars'] => {
    if (!seen(bar.from, bar.to)) return []
    const places = { x: xOf(bar.from), width: Math.max(3, xOf(bar.to) - xOf(bar.from)), bar, slot: 0 }
    if (by === 'person')
      return bar.people.flatMap((name) => {
        const row = people.indexOf(name)
        return row < 0 ? [] : [{ ...places, key: `${i}-${name}`, row }]
      })
    const beside = bar.code === 'cut' || bar.code === 'print'
    return [{ ...places, key: String(i), row: beside ? rowCount : (bayOf.get(bar.jobId) ?? 0) }]
  })
  return {
    days: Array.from({ length: days }, (_, i) => {
      const day = start + i * DAY_MIN
      const date = minutesToCivil(day).slice(0, 10)
      const open = hours.closed.includes(date) ? [] : hours.week.filter((s) => s.day === weekday(day))
      const left = i * dayWidth
      return {
        date,
        x: left,
        width: dayWidth,
        open: open.map((s) => ({ x: left + inDay(s.fromMinute), width: inDay(s.toMinute) - inDay(s.fromMinute) })),
        closed: open.length === 0,
      }
    }),
    rows,
    bars,
    stays:
      by === 'person'
        ? []
        : board.stays
            .filter((s) => seen(s.from, s.to))
            .map((s) => ({ jobId: s.jobId, x: xOf(s.from), width: Math.max(3, xOf(s.to) - xOf(s.from)), row: s.bay })),
    now: xOf(now) > 0 && xOf(now) < width ? xOf(now) : null,
    width,
    height: rows.length * ROW,
    momentAt,
  }
}
