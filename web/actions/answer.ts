import type { z } from 'zod'
import { firstFault } from '@/core/plan/parse'
import type { Fault } from '@/core/kit/result'
import { Denied, type Who } from '@/db/client'
import { currentMember } from './session'

export type Answer<T> = { ok: true; value: T } | { ok: false; error: Fault }
export const no = (code: string, facts?: Fault['facts']): { ok: false; error: Fault } => ({
  ok: false,
  error: { code, ...(facts ? { facts } : {}) },
})

/**
 * The frame of every action: parse, know who asks, do it, answer. What a person may not do and what the database
 * refuses become codes; anything else is logged under a reference, and only the reference is shown.
 */
export async function answer<S extends z.ZodType, T>(
  schema: S,
  raw: unknown,
  work: (who: Who, input: z.infer<S>) => Promise<Answer<T>>,
): Promise<Answer<T>> {
  const member = await currentMember()
  if (!member) return no('signed_out')
  const parsed = schema.safeParse(raw)
  if (!parsed.success) return { ok: false, error: firstFault(parsed.error) }
  try {
    return await work(member.who, parsed.data)
  } catch (error) {
    return broken(error)
  }
}

export function broken(error: unknown): { ok: false; error: Fault } {
  if (error instanceof Denied) return no('not_allowed', { right: error.right })
  const reference = crypto.randomUUID().slice(0, 8)
  console.error(`[${reference}]`, error)
  return no('went_wrong', { reference })
}
