import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readyAt } from '@/core/engines/run-sheet/steps'
import { stepOf, type Step } from '@/core/engines/run-sheet/step'
import {
  addOpenMinutes,
  civilToMinutes,
  daysBetween,
  minutesToCivil,
  nextOpen,
  weekday,
  type OpenHours,
} from '@/core/kit/civil'

/** Monday to Friday, 8 to 17. 2026-03-02 is a Monday. */
const weekOf = (days: readonly number[], ...stretches: [number, number][]): OpenHours => ({
  week: days.flatMap((day) => stretches.map(([fromMinute, toMinute]) => ({ day, fromMinute, toMinute }))),
  closed: [],
})
const SHOP = weekOf([0, 1, 2, 3, 4], [480, 1020])
const at = (text: string): number => {
  const minutes = civilToMinutes(text)
  if (minutes === null) throw new Error(text)
  return minutes
}
const step = (over: Partial<Step>): Step => ({ ...stepOf({ id: 's', code: 'lay', minutes: 60 }), ...over })
/** Minute by minute: slow, and plain to see. */
function slowEnd(start: number, work: number, hours: OpenHours): number {
  let t = start
  for (let left = work; left > 0; t++) {
    const inDay = ((t % 1440) + 1440) % 1440
    const date = minutesToCivil(t).slice(0, 10)
    const open = hours.week.some((s) => s.day === weekday(t) && inDay >= s.fromMinute && inDay < s.toMinute)
    if (open && !hours.closed.includes(date)) left--
  }
  return t
}

describe('work in open hours', () => {
  it('goes on the next morning where a day ends', () => {
    expect(minutesToCivil(addOpenMinutes(at('2026-03-02T16:00'), 120, SHOP))).toBe('2026-03-03T09:00')
  })
  it('pauses for the break, and leaves out a closed day', () => {
    const breaks = { ...weekOf([0, 1, 2, 3, 4], [480, 720], [780, 1020]), closed: ['2026-03-03'] }
    expect(minutesToCivil(addOpenMinutes(at('2026-03-02T11:30'), 60, breaks))).toBe('2026-03-02T13:30')
    expect(minutesToCivil(addOpenMinutes(at('2026-03-02T16:30'), 60, breaks))).toBe('2026-03-04T08:30')
    expect(minutesToCivil(nextOpen(at('2026-03-02T12:10'), breaks))).toBe('2026-03-02T13:00')
  })
  it('a shop that is never open keeps no work waiting for ever', () => {
    const never = { week: [], closed: [] }
    expect(addOpenMinutes(100, 30, never)).toBe(130)
    expect(nextOpen(100, never)).toBe(100)
  })
  it('goes over the weekend', () => {
    expect(minutesToCivil(addOpenMinutes(at('2026-03-06T16:30'), 60, SHOP))).toBe('2026-03-09T08:30')
  })
  it('begins when the shop opens, however early it was to begin', () => {
    expect(minutesToCivil(nextOpen(at('2026-03-02T05:10'), SHOP))).toBe('2026-03-02T08:00')
    expect(minutesToCivil(nextOpen(at('2026-03-02T17:00'), SHOP))).toBe('2026-03-03T08:00')
    expect(minutesToCivil(nextOpen(at('2026-03-07T12:00'), SHOP))).toBe('2026-03-09T08:00')
  })
  it('ends as a count minute by minute has it, for any start, work and days', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 14 * 1440 }),
        fc.integer({ min: 1, max: 3000 }),
        fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 7 }),
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: 30, max: 500 }),
        (offset, work, days, fromMinute, open) => {
          // A break in the middle, and one day on which nobody comes.
          const half = fromMinute + Math.floor(open / 3)
          const week = weekOf(days, [fromMinute, half], [half + 10, fromMinute + open + 20])
          const hours = { ...week, closed: ['2026-03-03'] }
          const start = at('2026-03-02T00:00') + offset
          expect(addOpenMinutes(start, work, hours)).toBe(slowEnd(start, work, hours))
        },
      ),
      { numRuns: 150 },
    )
  })
  it('never ends earlier with more work, nor begins later than it was ready', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000 }), fc.integer({ min: 1, max: 2000 }), (offset, work) => {
        const start = at('2026-03-02T00:00') + offset
        expect(addOpenMinutes(start, work + 1, SHOP)).toBeGreaterThan(addOpenMinutes(start, work, SHOP))
        expect(addOpenMinutes(start, work, SHOP)).toBeGreaterThanOrEqual(start + work)
      }),
    )
  })
})

describe('when a job is ready', () => {
  it('steps follow one another in open hours; a short wait stops nobody, a long one does', () => {
    const steps = [step({ minutes: 120, waitMin: 30 }), step({ minutes: 60 })]
    expect(readyAt(steps, '2026-03-02T08:00', SHOP)).toBe('2026-03-02T11:00')
    const long = [step({ minutes: 120, waitMin: 120 }), step({ minutes: 60 })]
    expect(readyAt(long, '2026-03-02T08:00', SHOP)).toBe('2026-03-02T13:00')
  })
  it('a wait runs through the night and the weekend while nobody is there', () => {
    const rest = [step({ minutes: 60, waitMin: 24 * 60 }), step({ minutes: 30 })]
    expect(readyAt(rest, '2026-03-02T15:00', SHOP)).toBe('2026-03-03T16:30')
    expect(readyAt(rest, '2026-03-06T15:00', SHOP)).toBe('2026-03-09T08:30')
  })
  it('what is skipped takes no time; a start that is no time gives no answer', () => {
    const steps = [step({ minutes: 300, state: 'skipped' }), step({ minutes: 60 })]
    expect(readyAt(steps, '2026-03-02T08:00', SHOP)).toBe('2026-03-02T09:00')
    expect(readyAt(steps, 'tomorrow', SHOP)).toBeNull()
  })
  it('a day more open makes no job later', () => {
    const steps = Array.from({ length: 9 }, (_, i) =>
      step({ id: `s${i}`, minutes: 210, waitMin: i % 3 === 0 ? 90 : 0 }),
    )
    const six = weekOf([0, 1, 2, 3, 4, 5], [480, 1020])
    const [five, more] = [SHOP, six].map((hours) => at(readyAt(steps, '2026-03-04T08:00', hours) ?? ''))
    expect(more).toBeLessThanOrEqual(five ?? 0)
  })
})

it('dates count as the calendar has them', () => {
  // 2000-02-29 existed; 1900 and 2100 are no leap years (Gregorian calendar).
  expect(daysBetween('2000-02-28', '2000-03-01')).toBe(2)
  expect(daysBetween('2100-02-28', '2100-03-01')).toBe(1)
  expect(daysBetween('2026-03-01', '2026-02-28')).toBe(-1)
  expect(daysBetween('2026-02-30', '2026-03-01')).toBeNull()
  expect(weekday(at('1970-01-01'))).toBe(3)
  expect(weekday(at('2026-11-29'))).toBe(6)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 80_000_000 }), (minutes) => {
      expect(civilToMinutes(minutesToCivil(minutes))).toBe(minutes)
      expect(new Date(minutes * 60_000).toISOString().slice(0, 16)).toBe(minutesToCivil(minutes))
    }),
  )
})
