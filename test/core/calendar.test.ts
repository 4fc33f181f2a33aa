import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { calendarOf } from '@/core/engines/schedule/calendar-of'
import {
  addOpenMinutes,
  civilToMinutes,
  daysInMonth,
  minutesToCivil,
  nextOpen,
  weekday,
  type OpenHours,
} from '@/core/kit/civil'
import { Calendar, NEVER } from '@/core/solve/schedule'

const LENGTH = 400
const Stretches = fc.array(
  fc
    .tuple(fc.integer({ min: 0, max: LENGTH - 1 }), fc.integer({ min: 1, max: 60 }))
    .map(([from, long]): [number, number] => [from, Math.min(LENGTH, from + long)]),
  { minLength: 1, maxLength: 9 },
)
/** Minute by minute: whether it is open. */
const minutesOf = (stretches: readonly (readonly [number, number])[]): boolean[] =>
  Array.from({ length: LENGTH }, (_, m) => stretches.some(([from, to]) => m >= from && m < to))

describe('open stretches of time, held against a count minute by minute', () => {
  it('minutes open until a moment, and the moment by which so many were', () => {
    fc.assert(
      fc.property(Stretches, fc.integer({ min: 0, max: LENGTH }), (stretches, at) => {
        const [calendar, open] = [Calendar.of(stretches), minutesOf(stretches)]
        const until = open.slice(0, at).filter(Boolean).length
        expect(calendar.openUntil(at)).toBe(until)
        const all = open.filter(Boolean).length
        if (until > 0) {
          const moment = calendar.momentOf(until)
          expect(open.slice(0, moment).filter(Boolean).length).toBe(until)
          expect(open[moment - 1]).toBe(true)
        }
        expect(calendar.momentOf(all + 1)).toBe(NEVER)
      }),
    )
  })
  it('the earliest begin that fits within one stretch, and the next open minute', () => {
    fc.assert(
      fc.property(
        Stretches,
        fc.integer({ min: 0, max: LENGTH - 1 }),
        fc.integer({ min: 1, max: 70 }),
        (stretches, from, long) => {
          const [calendar, open] = [Calendar.of(stretches), minutesOf(stretches)]
          const fits = (begin: number, minutes: number) =>
            begin + minutes <= LENGTH && open.slice(begin, begin + minutes).every(Boolean)
          const earliest = (minutes: number) => {
            for (let begin = from; begin < LENGTH; begin++) if (fits(begin, minutes)) return begin
            return NEVER
          }
          expect(calendar.fit(from, long)).toBe(earliest(long))
          expect(calendar.nextOpen(from)).toBe(earliest(1))
          expect(calendar.longest).toBeGreaterThanOrEqual(earliest(long) === NEVER ? 0 : long)
        },
      ),
    )
  })
  it('work that pauses while it is closed ends where a count of its minutes does', () => {
    fc.assert(
      fc.property(
        Stretches,
        fc.integer({ min: 0, max: LENGTH - 1 }),
        fc.integer({ min: 1, max: 80 }),
        (stretches, from, work) => {
          const [calendar, open] = [Calendar.of(stretches), minutesOf(stretches)]
          const begin = open.findIndex((is, m) => is && m >= from)
          fc.pre(begin >= 0)
          let [left, at] = [work, begin]
          for (; left > 0 && at < LENGTH; at++) if (open[at]) left--
          expect(calendar.endOf(begin, work)).toBe(left > 0 ? NEVER : at)
        },
      ),
    )
  })
  it('when it closes and opens again', () => {
    fc.assert(
      fc.property(Stretches, fc.integer({ min: 0, max: LENGTH - 1 }), (stretches, at) => {
        const [calendar, open] = [Calendar.of(stretches), minutesOf(stretches)]
        let close = at
        while (open[close]) close++
        expect(calendar.closes(at)).toBe(close)
        const again = open.findIndex((is, m) => m > at && is && !open[m - 1])
        expect(calendar.opensAfter(at)).toBe(again < 0 ? NEVER : again)
      }),
    )
  })
})

describe('a shop’s hours as the solver takes them', () => {
  const Hours = fc.record({
    week: fc.uniqueArray(
      fc.record({
        day: fc.integer({ min: 0, max: 6 }),
        fromMinute: fc.integer({ min: 300, max: 700 }),
        toMinute: fc.integer({ min: 701, max: 1200 }),
      }),
      { minLength: 1, maxLength: 6, selector: (s) => s.day },
    ),
    closed: fc.uniqueArray(
      fc.integer({ min: 0, max: 13 }).map((d) => minutesToCivil((20_800 + d) * 1440).slice(0, 10)),
      { maxLength: 4 },
    ),
  })
  it('open where the hours are, and work ends at the same minute, or never where it takes more than 400 days', () => {
    fc.assert(
      fc.property(
        Hours,
        fc.integer({ min: 0, max: 7 * 1440 }),
        fc.integer({ min: 1, max: 2000 }),
        (hours: OpenHours, ahead, work) => {
          const start = 20_800 * 1440 + ahead
          const calendar = calendarOf(hours, start)
          const begin = nextOpen(start, hours)
          expect(calendar.nextOpen(start)).toBe(begin)
          const end = addOpenMinutes(start, work, hours)
          const laidOut = (Math.floor(start / 1440) + 400) * 1440
          expect(calendar.endOf(begin, work)).toBe(end <= laidOut ? end : NEVER)
        },
      ),
    )
  })
})

describe('wall time, held against the platform’s own calendar', () => {
  const Moment = fc.integer({ min: Date.UTC(1601, 0, 1) / 60_000, max: Date.UTC(2399, 11, 31) / 60_000 })
  it('minutes to text and back, and the day of the week', () => {
    fc.assert(
      fc.property(Moment, (minutes) => {
        const date = new Date(minutes * 60_000)
        const text = date.toISOString().slice(0, 16)
        expect(minutesToCivil(minutes)).toBe(text)
        expect(civilToMinutes(text)).toBe(minutes)
        expect(weekday(minutes)).toBe((date.getUTCDay() + 6) % 7)
      }),
    )
  })
  it('days of a month, and dates that are none', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1601, max: 2399 }), fc.integer({ min: 1, max: 12 }), (year, month) => {
        const last = new Date(Date.UTC(year, month, 0)).getUTCDate()
        expect(daysInMonth(year, month)).toBe(last)
        const two = (n: number) => String(n).padStart(2, '0')
        expect(civilToMinutes(`${year}-${two(month)}-${two(last)}`)).not.toBe(null)
        expect(civilToMinutes(`${year}-${two(month)}-${two(last + 1)}`)).toBe(null)
      }),
    )
    for (const text of ['', '2026-13-01', '2026-00-10', '2026-1-1', '2026-01-01T24:00', '2026-01-01T10:60', 'soon'])
      expect(civilToMinutes(text)).toBe(null)
  })
})
