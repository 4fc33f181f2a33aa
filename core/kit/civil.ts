/**
 * Local wall time without a zone (`YYYY-MM-DDTHH:MM`), counted in minutes from 1970-01-01T00:00.
 * The day count is the usual proleptic Gregorian arithmetic on 400-year eras.
 */
export function civilToMinutes(text: string): number | null {
  const m = /^(\d{4})-(\d{2})-(\d{2})(?:T(\d{2}):(\d{2})(?::\d{2}(?:\.\d+)?Z?)?)?$/.exec(text)
  if (!m) return null
  const [year, month, day, hour, minute] = [m[1], m[2], m[3], m[4] ?? '0', m[5] ?? '0'].map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ]
  if (month < 1 || month > 12 || day < 1 || day > daysInMonth(year, month) || hour > 23 || minute > 59) return null
  const y = month <= 2 ? year - 1 : year
  const era = Math.floor(y / 400)
  const yearOfEra = y - era * 400
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return (era * 146097 + dayOfEra - 719468) * 1440 + hour * 60 + minute
}

export function minutesToCivil(minutes: number): string {
  const days = Math.floor(minutes / 1440)
  const rest = Math.round(minutes - days * 1440)
  const z = days + 719468
  const era = Math.floor(z / 146097)
  const dayOfEra = z - era * 146097
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) / 365,
  )
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const mp = Math.floor((5 * dayOfYear + 2) / 153)
  const day = dayOfYear - Math.floor((153 * mp + 2) / 5) + 1
  const month = mp < 10 ? mp + 3 : mp - 9
  const year = yearOfEra + era * 400 + (month <= 2 ? 1 : 0)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${year}-${two(month)}-${two(day)}T${two(Math.floor(rest / 60))}:${two(rest % 60)}`
}

export function daysInMonth(year: number, month: number): number {
  if (month === 2) return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 29 : 28
  return [4, 6, 9, 11].includes(month) ? 30 : 31
}

/** 0 = Monday … 6 = Sunday. 1970-01-01 was a Thursday. */
export const weekday = (minutes: number): number => (((Math.floor(minutes / 1440) + 3) % 7) + 7) % 7

/** One stretch of a weekday on which work is done; 0 = Monday. Minutes after midnight. */
export interface OpenStretch {
  day: number
  fromMinute: number
  toMinute: number
}
export interface OpenHours {
  week: readonly OpenStretch[]
  /** Dates on which nobody comes, `YYYY-MM-DD`. */
  closed: readonly string[]
}

/** No shop is closed for longer than this, days; one that is never open is taken as it comes. */
const LONGEST_CLOSED_DAYS = 400

/** The stretch of open time in which a minute lies, or the next one after it; null where there is none. */
function openFrom(minutes: number, { week, closed }: OpenHours): { from: number; to: number } | null {
  if (week.length === 0) return null
  for (let i = 0; i <= LONGEST_CLOSED_DAYS; i++) {
    const dayStart = (Math.floor(minutes / 1440) + i) * 1440
    const day = weekday(dayStart)
    let best: { from: number; to: number } | null = null
    for (const s of week) {
      if (s.day !== day || dayStart + s.toMinute <= minutes) continue
      const from = Math.max(minutes, dayStart + s.fromMinute)
      if (!best || from < best.from) best = { from, to: dayStart + s.toMinute }
    }
    if (best && !closed.includes(minutesToCivil(dayStart).slice(0, 10))) return best
  }
  return null
}

/** First open minute at or after `minutes`. */
export const nextOpen = (minutes: number, hours: OpenHours): number => openFrom(minutes, hours)?.from ?? minutes

/** End of `work` minutes of attended work begun at `start`, carried over closed hours. */
export function addOpenMinutes(start: number, work: number, hours: OpenHours): number {
  let t = start
  let left = work
  for (let i = 0; i < 10000 && left > 0; i++) {
    const open = openFrom(t, hours)
    if (!open) return t + left
    const use = Math.min(left, open.to - open.from)
    t = open.from + use
    left -= use
  }
  return t
}

/** When a day begins and ends, and how long a week is open, minutes: what a working names. */
export function hoursInShort({ week }: OpenHours): { opens: number; closes: number; week: number } {
  return {
    opens: week.reduce((m, s) => Math.min(m, s.fromMinute), 1440),
    closes: week.reduce((m, s) => Math.max(m, s.toMinute), 0),
    week: week.reduce((sum, s) => sum + s.toMinute - s.fromMinute, 0),
  }
}

export function daysBetween(from: string, to: string): number | null {
  const [a, b] = [civilToMinutes(from), civilToMinutes(to)]
  return a === null || b === null ? null : Math.floor((b - a) / 1440)
}
