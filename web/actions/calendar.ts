import { createHmac, timingSafeEqual } from 'node:crypto'
import { boardNow } from '@/core/engines/schedule/settled-board'
import { settledBoard } from '@/db/queries/board'
import { jobs, openJob } from '@/db/queries/jobs'
import { byCalendar, whoIs } from '@/db/queries/people'
import { shopOf } from '@/db/queries/shop'
import { fileResponse, gives, isUuid } from './routes'
import { threads } from './threads'

const TYPE = 'text/calendar; charset=utf-8'
/** Whoever asks with a link that does not hold is told no more than that. */
const GONE = () => new Response('This calendar link does not hold any more.', { status: 404 })

const signed = (text: string): string =>
  createHmac('sha256', `calendar ${process.env.AUTH_SECRET ?? ''}`)
    .update(text)
    .digest('base64url')

/** What stands in a member's calendar link: who, which of their links, and the server's mark under both. */
export const calendarToken = (memberId: string, number: number): string => {
  const text = `${memberId}.${number}`
  return `${text}.${signed(text)}`
}

/** Whose link it is, where the server made it; null otherwise. */
export function readCalendarToken(token: string): { memberId: string; number: number } | null {
  const [memberId = '', number = '', mark = ''] = token.replace(/\.ics$/, '').split('.')
  if (!isUuid(memberId) || !/^\d{1,9}$/.test(number)) return null
  const [a, b] = [Buffer.from(signed(`${memberId}.${number}`)), Buffer.from(mark)]
  return a.length === b.length && timingSafeEqual(a, b) ? { memberId, number: Number(number) } : null
}

/** The schedule of one job as a calendar file. */
export const jobCalendarFile = (jobId: string): Promise<Response> =>
  gives(async ({ who, shop }) => {
    const file = isUuid(jobId) ? await openJob(who, jobId, new Date()) : null
    if (!file) return null
    const { plan, catalogue, ledger } = file
    const appUrl = process.env.APP_URL ?? ''
    const timeZone = catalogue.shop?.timeZone ?? shop.timeZone
    const text = await threads().run('jobCalendar', { plan, catalogue, ledger, jobId, appUrl, timeZone })
    return fileResponse(text, { type: TYPE, name: `schedule-${jobId.slice(0, 8)}.ics` })
  })

/** A member's own feed: what the board gives them to do, by a secret link and without a sign-in. */
export async function memberCalendar(token: string): Promise<Response> {
  const link = readCalendarToken(token)
  const userId = link && (await byCalendar(link.memberId, link.number))
  const member = userId ? await whoIs(userId) : null
  if (!member) return GONE()
  const { settings } = await shopOf(member.who)
  const heads = await jobs(member.who)
  const now = new Date()
  const settled = await settledBoard(member.who, now)
  const text = await threads().run('memberCalendar', {
    jobs: heads.flatMap(({ id, name, outline, pins }) => (outline ? [{ id, name, outline, pins }] : [])),
    shop: settings,
    now: boardNow(now.toISOString(), settings.timeZone),
    settled: settled?.board ?? null,
    person: member.who.name,
    appUrl: process.env.APP_URL ?? '',
  })
  return fileResponse(text, { type: TYPE, name: 'cuirass.ics', inline: true })
}
