import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { momentAt } from '@/core/kit/time-zone'
import { Plan } from '@/core/model/plan/schema'
import { hoursOf } from '@/core/model/shop/default-shop'
import { reckon } from '@/core/reckon/reckon'
import { jobOutline } from '@/core/engines/schedule/job-outline'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { calendarText, jobCalendar, memberCalendarText } from '@/web/calendar/calendar-text'
import { readClosedDays, withClosedDays } from '@/web/calendar/closed-days'
import { calendarToken, readCalendarToken } from '@/web/actions/calendar'
import { catalogue } from '../fixtures/plans'

const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const shop = { ...DEMO_SETTINGS, closed: [{ date: '2031-04-18', name: 'Good Friday' }] }
const CATALOGUE = { ...catalogue, shop, hours: hoursOf(shop) }
const at = (startAt: string) => reckon({ ...hatch, runSheet: { ...hatch.runSheet, startAt } }, CATALOGUE, [])
/** Events as an independent parser reads them: ical.js. */
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((v) => new ICAL.Event(v))

describe('a calendar file, read back by another parser', () => {
  it('gives every step its moment, over the change to summer time', () => {
    // Ireland puts its clocks forward on Sunday, 30 March 2031.
    const r = at('2031-03-28T08:00')
    const events = read(jobCalendar(r, { jobId: 'j', appUrl: 'https://wrap.example', timeZone: 'Europe/Dublin' }))
    const byId = new Map(events.map((e) => [e.uid, e]))
    const steps = r.steps.filter((s) => s.minutes > 0 && r.schedule?.times.has(s.id))
    expect(steps.length).toBeGreaterThan(40)
    for (const s of steps) {
      const event = byId.get(`j/${s.id}@cuirass`)
      const time = r.schedule?.times.get(s.id)
      const wall = (date: Date) =>
        date.toLocaleString('sv-SE', { timeZone: 'Europe/Dublin' }).slice(0, 16).replace(' ', 'T')
      expect(event && wall(event.startDate.toJSDate())).toBe(time?.from)
      expect(event && wall(event.endDate.toJSDate())).toBe(time?.to)
    }
    const days = new Set(steps.map((s) => r.schedule?.times.get(s.id)?.from.slice(0, 10)))
    expect(days.has('2031-03-28') && days.has('2031-03-31')).toBe(true)
  })

  it('closed days are whole days; ids stay the same when it is made again; odd text survives', () => {
    const entry = {
      id: 'a@cuirass',
      from: '2031-04-17T08:00',
      to: '2031-04-17T09:30',
      summary: 'Film; cut, "twice"\nand more',
      description: 'ä'.repeat(200),
      location: 'Long bay',
      url: '',
    }
    const text = calendarText('Shop', [entry], shop)
    const [event, closed] = read(text)
    expect([event?.summary, event?.description]).toEqual([entry.summary, entry.description])
    expect(closed?.startDate.isDate).toBe(true)
    expect(closed?.startDate.toString()).toBe('2031-04-18')
    expect(calendarText('Shop', [entry], shop)).toBe(text)
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
  })

  it('a member’s feed has what the board gives that person, and nobody else’s work', () => {
    const r = at('2031-03-03T08:00')
    const jobs = [{ id: 'j', name: 'Hatch', outline: jobOutline(r.parts.plan, r.steps, 'recheck') }]
    const of = (person: string) =>
      read(memberCalendarText({ settled: null, jobs, shop, now: '2031-03-03T07:00', person, appUrl: '' })).filter((e) =>
        e.summary.startsWith('Hatch'),
      )
    const [imre, stranger] = [of('Imre Saltwell'), of('Nell Averidge')]
    expect(imre.length).toBeGreaterThan(2)
    expect(imre.every((e) => e.description.includes('Imre Saltwell'))).toBe(true)
    // Who is not among the shop's hands sees all of it.
    expect(stranger.length).toBeGreaterThanOrEqual(imre.length)
  })
})

describe('a link', () => {
  const id = '5a170000-0000-4000-8000-000000000901'
  it('is read as it was made, and not when anything of it was changed', () => {
    const token = calendarToken(id, 3)
    expect(readCalendarToken(token)).toEqual({ memberId: id, number: 3 })
    expect(readCalendarToken(`${token}.ics`)).toEqual({ memberId: id, number: 3 })
    for (const forged of [token.replace('.3.', '.4.'), token.replace('901', '902'), token.slice(0, -2), '', 'x.y.z'])
      expect(readCalendarToken(forged)).toBeNull()
  })
  it('wall times of the night that has an hour less, and an hour more', () => {
    const utc = (wall: string) => new Date(momentAt(wall, 'Europe/Dublin') ?? NaN).toISOString()
    expect(utc('2031-03-30T00:30')).toBe('2031-03-30T00:30:00.000Z')
    expect(utc('2031-03-30T02:30')).toBe('2031-03-30T01:30:00.000Z')
    expect(utc('2031-10-26T00:30')).toBe('2031-10-25T23:30:00.000Z')
    expect(utc('2031-10-26T01:30')).toBe('2031-10-26T00:30:00.000Z')
    expect(utc('2031-10-26T02:30')).toBe('2031-10-26T02:30:00.000Z')
  })
})

describe('closed days out of a calendar file', () => {
  const file = (...events: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//y//EN', ...events, 'END:VCALENDAR'].join('\r\n')
  const day = (lines: string, name: string) =>
    ['BEGIN:VEVENT', `UID:${name}`, 'DTSTAMP:20260101T000000Z', lines, `SUMMARY:${name}`, 'END:VEVENT'].join('\r\n')
  const daysOf = (text: string, from = '2026-11-30') => {
    const read = readClosedDays(text, from)
    return read.ok ? read.value.days.map((d) => `${d.date} ${d.name}`) : read.error.code
  }

  it('takes whole days to come, each once and in order, and leaves out appointments', () => {
    const text = file(
      day('DTSTART;VALUE=DATE:20261226', 'St Stephen’s Day'),
      day('DTSTART;VALUE=DATE:20261225\r\nDTEND;VALUE=DATE:20261226', 'Christmas Day'),
      day('DTSTART;VALUE=DATE:20261225', 'Christmas again'),
      day('DTSTART;VALUE=DATE:20260317', 'St Patrick’s Day, over'),
      day('DTSTART:20261201T090000Z\r\nDTEND:20261201T100000Z', 'Dentist'),
    )
    const read = readClosedDays(text, '2026-11-30')
    expect(read).toEqual({
      ok: true,
      value: {
        days: [
          { date: '2026-12-25', name: 'Christmas Day' },
          { date: '2026-12-26', name: 'St Stephen’s Day' },
        ],
        withTime: 1,
      },
    })
  })
  it('an end is the day after (RFC 5545, 3.6.1), a duration counts days, weeks are seven', () => {
    const over = day('DTSTART;VALUE=DATE:20261230\r\nDTEND;VALUE=DATE:20270103', 'Between the years')
    expect(daysOf(file(over))).toEqual(
      ['2026-12-30', '2026-12-31', '2027-01-01', '2027-01-02'].map((d) => `${d} Between the years`),
    )
    expect(daysOf(file(day('DTSTART;VALUE=DATE:20270301\r\nDURATION:P1W', 'Works holiday')))).toHaveLength(7)
  })
  it('what comes again each year is taken for two years, a rule without end among them; a day taken out stays out', () => {
    const yearly = day('DTSTART;VALUE=DATE:20200106\r\nRRULE:FREQ=YEARLY', 'Epiphany')
    expect(daysOf(file(yearly))).toEqual(['2027-01-06 Epiphany', '2028-01-06 Epiphany'])
    const but = day('DTSTART;VALUE=DATE:20200106\r\nRRULE:FREQ=YEARLY\r\nEXDATE;VALUE=DATE:20270106', 'Epiphany')
    expect(daysOf(file(but))).toEqual(['2028-01-06 Epiphany'])
  })
  it('what the shop’s own calendar says closed is read back', () =>
    expect(daysOf(calendarText('Shop', [], shop), '2031-01-01')).toEqual(['2031-04-18 Closed: Good Friday']))
  it.each([
    ['no calendar', 'Date;Name\n2026-12-25;Christmas', 'bad_calendar'],
    ['cut off in the middle', file(day('DTSTART;VALUE=DATE:20261225', 'C')).slice(0, 90), 'bad_calendar'],
    ['nothing', '', 'bad_calendar'],
    ['no day to come', file(day('DTSTART;VALUE=DATE:20200101', 'New Year')), 'no_closed_days'],
    ['only appointments', file(day('DTSTART:20261201T090000Z', 'Dentist')), 'no_closed_days'],
    ['far too long', 'x'.repeat(2_000_001), 'bad_calendar'],
  ])('%s: a clear answer', (_, text, code) => expect(daysOf(text)).toBe(code))
  it('goes among the typed lines: a day that is there keeps its name, nothing is lost', () => {
    const days = [
      { date: '2026-12-25', name: 'Christmas Day' },
      { date: '2026-12-24', name: '' },
    ]
    expect(withClosedDays('2027-01-01 New Year\n\n2026-12-25 Christmas, all of us', days)).toEqual({
      text: '2026-12-24\n2026-12-25 Christmas, all of us\n2027-01-01 New Year',
      added: 1,
    })
    expect(withClosedDays('', [])).toEqual({ text: '', added: 0 })
  })
})
