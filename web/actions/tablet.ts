import type { FaultCode } from '@/core/kit/fault-code'
import { z } from 'zod'
import { auth, sessionUser } from '@/db/auth'
import { environment } from '@/db/environment'
import { forgetPinAt, newTablet, peopleAt, setPinAt, tryPinAt } from '@/db/tablet-pins'
import { bodyWithin } from './body'
import { broken, httpStatus, refuse } from './answer'
import { fromOutside } from './origin'

const COOKIE = 'cuirass.tablet'
const YEAR_S = 365 * 24 * 3600
const MAX_BODY_BYTES = 1000
const Pin = z.string().regex(/^\d{4}$/)
const SetPin = z.strictObject({ pin: Pin })
const ChangeIn = z.strictObject({ memberId: z.uuid(), pin: Pin })

/** The secret that this tablet is known by; null where nobody set a PIN on it. */
function tabletOf(request: Request): string | null {
  const found = (request.headers.get('cookie') ?? '')
    .split(';')
    .map((part) => part.trim())
    .find((part) => part.startsWith(`${COOKIE}=`))
  const value = found?.slice(COOKIE.length + 1) ?? ''
  return /^[\w-]{20,100}$/.test(value) ? value : null
}

const refused = (code: FaultCode, facts: Record<string, number> = {}) =>
  Response.json(refuse(code, facts), { status: httpStatus(code) })

async function answered(request: Request, work: () => Promise<Response>): Promise<Response> {
  if (fromOutside(request)) return refused('not_allowed')
  try {
    return await work()
  } catch (error) {
    const answer = broken(error)
    return Response.json(answer, { status: httpStatus(answer.error.code) })
  }
}

async function bodyOf<T>(request: Request, schema: z.ZodType<T>): Promise<T | null> {
  try {
    const read = schema.safeParse(JSON.parse((await bodyWithin(request, MAX_BODY_BYTES))?.toString('utf8') ?? ''))
    return read.success ? read.data : null
  } catch {
    return null // no JSON is no PIN
  }
}

/** Who can change in here by a PIN. */
export async function tabletPeople(request: Request): Promise<Response> {
  const tablet = tabletOf(request)
  try {
    return Response.json({ people: tablet ? await peopleAt(tablet) : [] }, { headers: { 'cache-control': 'no-store' } })
  } catch (error) {
    const answer = broken(error)
    return Response.json(answer, { status: httpStatus(answer.error.code) })
  }
}

/** The signed-in member's PIN on this tablet; the tablet becomes known by a cookie of its own. */
export const setTabletPin = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const userId = await sessionUser(request.headers)
    if (!userId) return refused('signed_out')
    const body = await bodyOf(request, SetPin)
    if (!body) return refused('no_pin')
    const tablet = tabletOf(request) ?? newTablet()
    await setPinAt(tablet, userId, body.pin)
    const secure = environment().APP_URL?.startsWith('https:') ? '; Secure' : ''
    const cookie = `${COOKIE}=${tablet}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${YEAR_S}${secure}`
    return Response.json({ ok: true }, { headers: { 'set-cookie': cookie } })
  })

export const forgetTabletPin = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const userId = await sessionUser(request.headers)
    const tablet = tabletOf(request)
    if (!userId) return refused('signed_out')
    if (tablet) await forgetPinAt(tablet, userId)
    return Response.json({ ok: true })
  })

/** Another person at this tablet, by a PIN: the session before is ended, theirs begins. */
export const changeInAtTablet = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const tablet = tabletOf(request)
    if (!tablet) return refused('full_sign_in')
    const body = await bodyOf(request, ChangeIn)
    if (!body) return refused('no_pin')
    const tried = await tryPinAt(tablet, body.memberId, body.pin)
    if (tried.kind === 'wrong') return refused('wrong_pin', { left: tried.left })
    if (tried.kind === 'full_sign_in') return refused('full_sign_in')
    return auth().api.changeInAtTablet({ body: { userId: tried.userId }, headers: request.headers, asResponse: true })
  })
