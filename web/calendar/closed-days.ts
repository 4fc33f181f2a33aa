import ICAL from 'ical.js'
import { err, ok, type Result } from '@/core/kit/result'

export interface ClosedDay {
  /** YYYY-MM-DD */
  date: string
  name: string
}
export interface ReadDays {
  /** Each day once, in their order. */
  days: ClosedDay[]
  /** Entries with a time of day: an appointment closes no shop. */
  withTime: number
}

/** A calendar of public holidays has a few hundred lines; a larger file is another one. Assumed. [characters] */
const MOST_TEXT = 2_000_000
/** A day that comes again is taken for so many years. Assumed. */
const YEARS = 2
/** Of one entry: a year of closed days is the longest. */
const MOST_DAYS = 366

/**
 * Whole days of an iCalendar file (RFC 5545), from a day on: each of an entry of several days, and those that come again
 * for two years. Errors: bad_calendar, no_closed_days.
 */
export function readClosedDays(text: string, from: string): Result<ReadDays> {
  if (text.length > MOST_TEXT) return err({ code: 'bad_calendar' })
  const until = `${Number(from.slice(0, 4)) + YEARS}${from.slice(4)}`
  const found = new Map<string, ClosedDay>()
  let withTime = 0
  try {
    for (const part of new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')) {
      const event = new ICAL.Event(part)
      if (event.startDate.isDate) {
        for (const date of datesOf(event, until))
          if (date >= from && date < until && !found.has(date))
            found.set(date, { date, name: (event.summary ?? '').replace(/\s+/g, ' ').trim().slice(0, 120) })
      } else withTime += 1
    }
  } catch {
    // The parser throws on whatever is no calendar; what exactly it stumbled over helps nobody.
    return err({ code: 'bad_calendar' })
  }
  const days = [...found.values()].sort((a, b) => a.date.localeCompare(b.date))
  return days.length > 0 ? ok({ days, withTime }) : err({ code: 'no_closed_days' })
}

function datesOf(event: ICAL.Event, until: string): string[] {
  const lasts = Math.min(MOST_DAYS, Math.max(1, event.duration.weeks * 7 + event.duration.days))
  const out: string[] = []
  const daysFrom = (start: ICAL.Time): void => {
    for (let i = 0; i < lasts; i++) {
      const day = start.clone()
      day.adjust(i, 0, 0, 0)
      out.push(day.toString())
    }
  }
  if (!event.isRecurring()) daysFrom(event.startDate)
  else {
    const times = event.iterator()
    // A rule without an end goes on for ever: it is left at the last day that counts.
    for (let time = times.next(); time && time.toString() < until; time = times.next()) daysFrom(time)
  }
  return out
}

/** Typed lines of closed days (`2026-12-25 Christmas`) with more days among them; a day that is there keeps its name. */
export function withClosedDays(lines: string, days: readonly ClosedDay[]): { text: string; added: number } {
  const typed = lines.split('\n').filter((line) => line.trim() !== '')
  const known = new Set(typed.map((line) => line.trim().slice(0, 10)))
  const fresh = days.filter((d) => !known.has(d.date)).map((d) => `${d.date} ${d.name}`.trim())
  return { text: [...typed, ...fresh].sort((a, b) => a.trim().localeCompare(b.trim())).join('\n'), added: fresh.length }
}
