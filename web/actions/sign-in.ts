import { z } from 'zod'
import { controlCharacterIn } from '@/core/kit/plain-text'
import { auth } from '@/db/auth'
import { environment } from '@/db/environment'
import { addressOf, beginTry, countSuccess } from '@/db/sign-in-tries'
import { bodyWithin } from './body'
import { broken, httpStatus, refuse } from './answer'
import { fromOutside } from './origin'

const Door = z.object({ email: z.email().max(200), password: z.string().min(1).max(128) })
const MAX_BODY_BYTES = 4000

/**
 * Signing in with address and password. A try is counted before the password is looked at, and comes off where it was
 * right.
 */
export async function signIn(request: Request): Promise<Response> {
  if (fromOutside(request)) return Response.json(refuse('not_allowed'), { status: 403 })
  try {
    const body = await bodyWithin(request, MAX_BODY_BYTES)
    const door = Door.safeParse(parsed(body))
    if (!door.success || controlCharacterIn(door.data) !== null)
      return Response.json(refuse('wrong_sign_in'), { status: 401 })
    const trier = {
      email: door.data.email.toLowerCase(),
      address: addressOf(request.headers.get('x-forwarded-for'), environment().TRUSTED_PROXIES),
    }
    const wait = await beginTry(trier, new Date())
    if (wait > 0)
      return Response.json(refuse('too_many_attempts', { seconds: wait }), {
        status: 429,
        headers: { 'retry-after': String(wait) },
      })
    const answer = await auth().api.signInEmail({ body: door.data, asResponse: true, headers: request.headers })
    if (answer.ok) await countSuccess(trier, new Date())
    return answer.ok || answer.status >= 500 ? answer : Response.json(refuse('wrong_sign_in'), { status: 401 })
  } catch (error) {
    const answer = broken(error)
    return Response.json(answer, { status: httpStatus(answer.error.code) })
  }
}

/** The session of this browser ends. */
export async function signOut(request: Request): Promise<Response> {
  if (fromOutside(request)) return Response.json(refuse('not_allowed'), { status: 403 })
  return auth().api.signOut({ headers: request.headers, asResponse: true })
}

function parsed(body: Buffer | null): unknown {
  try {
    return JSON.parse((body ?? Buffer.alloc(0)).toString('utf8'))
  } catch {
    return null // no JSON is no sign-in
  }
}
