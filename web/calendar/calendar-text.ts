import ical, { ICalCalendarMethod } from 'ical-generator'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { shopSchedule, type BoardJob } from '@/core/engines/schedule/shop-schedule'
import { boardFrom, type SettledBoard } from '@/core/engines/schedule/settled-board'
import { momentAt } from '@/core/kit/time-zone'
import type { ShopSettings } from '@/core/model/shop/shop'
import type { Reckoning } from '@/core/reckon/reckon'
import { word } from '@/web/words/names'
import { stepTitle } from '@/web/words/steps'

/** One stretch of work: local wall times of the shop. */
export interface CalendarEntry {
  id: string
  from: string
  to: string
  summary: string
  description: string
  location: string
  url: string
}

/** Entries as a calendar by RFC 5545, in UTC; closed days of the shop as whole days. */
export function calendarText(
  name: string,
  entries: readonly CalendarEntry[],
  { timeZone, closed }: Pick<ShopSettings, 'timeZone' | 'closed'>,
): string {
  const calendar = ical({ name, method: ICalCalendarMethod.PUBLISH, prodId: { company: 'cuirass', product: 'shop' } })
  for (const e of entries) {
    const [start, end] = [momentAt(e.from, timeZone), momentAt(e.to, timeZone)]
    if (start === null || end === null) continue
    calendar.createEvent({
      id: e.id,
      start: new Date(start),
      end: new Date(Math.max(end, start + 60_000)),
      stamp: new Date(start),
      summary: e.summary,
      description: e.description,
      location: e.location,
      ...(e.url ? { url: e.url } : {}),
    })
  }
  for (const day of closed)
    calendar.createEvent({
      id: `closed-${day.date}@cuirass`,
      start: new Date(`${day.date}T00:00:00Z`),
      end: new Date(Date.parse(`${day.date}T00:00:00Z`) + 86_400_000),
      stamp: new Date(`${day.date}T00:00:00Z`),
      allDay: true,
      summary: `Closed: ${day.name}`,
    })
  return calendar.toString()
}

/** The steps of a job that have a time. */
export function jobCalendar(r: Reckoning, of: { jobId: string; appUrl: string; timeZone: string }): string {
  const { plan, shop } = r.parts
  const entries = plannedSteps(r.steps).flatMap((s): CalendarEntry[] => {
    const time = r.schedule?.times.get(s.id)
    if (!time || s.minutes === 0) return []
    return [
      {
        id: `${of.jobId}/${s.id}@cuirass`,
        ...time,
        summary: `${plan.vehicle.name}: ${stepTitle(s)}`,
        description: `${s.people} ${s.people === 1 ? 'person' : 'people'}, ${s.minutes} min`,
        location: '',
        url: of.appUrl ? `${of.appUrl}/jobs/${of.jobId}/bay` : '',
      },
    ]
  })
  return calendarText(plan.name, entries, { timeZone: of.timeZone, closed: shop.closed })
}

/** What the board gives one person to do; all of it where the shop does not name them. */
export function memberCalendarText(of: {
  jobs: readonly (BoardJob & { name: string })[]
  shop: ShopSettings
  now: string
  person: string
  appUrl: string
  /** The board as it was settled; where it was not, it is laid out quickly. */
  settled: SettledBoard | null
}): string {
  const board = of.settled ? boardFrom(of.settled) : shopSchedule(of.jobs, of.shop, of.now)
  const bars = 'code' in board ? [] : board.bars
  const named = of.shop.people.some((p) => p.name === of.person)
  const bayOf = new Map('code' in board ? [] : board.stays.map((s) => [s.jobId, of.shop.bays[s.bay]?.name ?? '']))
  const entries = bars
    .filter((b) => !named || b.people.includes(of.person))
    .map((b): CalendarEntry => ({
      id: `${b.jobId}/${b.code}/${b.from}@cuirass`,
      from: b.from,
      to: b.to,
      summary: `${of.jobs.find((j) => j.id === b.jobId)?.name ?? ''}: ${word('block', b.code)}`,
      description: b.people.join(', '),
      location: bayOf.get(b.jobId) ?? '',
      url: of.appUrl ? `${of.appUrl}/jobs/${b.jobId}/bay` : '',
    }))
  return calendarText(`Cuirass: ${of.person}`, entries, of.shop)
}
