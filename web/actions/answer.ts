import type { FaultCode } from '@/core/kit/fault-code'
import { log } from '@/db/log'
import type { z } from 'zod'
import { controlCharacterIn } from '@/core/kit/plain-text'
import type { Fault } from '@/core/kit/result'
import { firstFault } from '@/core/model/plan/parse'
import { may, type Right } from '@/core/model/rights/rights'
import { Denied, type Who } from '@/db/client'
import { cleanDatabaseError, isBusy } from '@/db/errors'
import { ThreadFault } from '@/web/threads/pool'
import { currentMember } from './session'

export type Answer<T> = { ok: true; value: T } | { ok: false; error: Fault }
export const refuse = (code: FaultCode, facts?: Fault['facts']): { ok: false; error: Fault } => ({
  ok: false,
  error: { code, ...(facts ? { facts } : {}) },
})

/**
 * The frame of every action: know who asks and whether they may, parse, do it, answer. The right comes before the
 * parsing, so that nobody can keep the server busy with what they may not send. What a person may not do and what the
 * database refuses become codes; anything else is logged under a reference, and only the reference is shown.
 */
export async function answer<S extends z.ZodType, T>(
  right: Right,
  schema: S,
  raw: unknown,
  work: (who: Who, input: z.infer<S>) => Promise<Answer<T>>,
): Promise<Answer<T>> {
  try {
    const member = await currentMember()
    if (!member) return refuse('signed_out')
    if (!may(member.who.role, right)) return refuse('not_allowed', { right })
    const at = controlCharacterIn(raw)
    if (at !== null) return { ok: false, error: { code: 'control_character', at } }
    const parsed = schema.safeParse(raw)
    if (!parsed.success) return { ok: false, error: firstFault(parsed.error) }
    return await work(member.who, parsed.data)
  } catch (error) {
    return broken(error)
  }
}

export function broken(error: unknown): { ok: false; error: Fault } {
  if (error instanceof Denied) return refuse('not_allowed', { right: error.right })
  if (error instanceof ThreadFault) return refuse(error.code)
  if (isBusy(error)) return refuse('busy')
  const reference = crypto.randomUUID().slice(0, 8)
  log.error({ reference, err: cleanDatabaseError(error) }, 'a request went wrong')
  return refuse('went_wrong', { reference })
}

const STATUS: Partial<Record<FaultCode, number>> = {
  signed_out: 401,
  not_allowed: 403,
  another_member: 403,
  not_found: 404,
  busy: 503,
  too_much_at_once: 503,
  took_too_long: 503,
  went_wrong: 500,
}
/** The HTTP status that goes with a code; what was sent is at fault where nothing else is said. */
export const httpStatus = (code: FaultCode): number => STATUS[code] ?? 422
