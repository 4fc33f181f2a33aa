'use server'

import { z } from 'zod'
import { USED_KINDS } from '@/core/model/log/kinds'
import { moveSupply as move } from '@/db/queries/supplies'
import { answer, type Answer } from './answer'

const Movement = z.strictObject({
  id: z.uuid(),
  kind: z.enum(USED_KINDS),
  amount: z.number().min(0).max(100_000),
  reason: z.enum(['received', 'counted']),
})

/** Supplies that came in, or what was there when they were counted. */
export async function moveSupply(raw: unknown): Promise<Answer<null>> {
  return answer('stock', Movement, raw, async (who, movement) => {
    await move(who, movement)
    return { ok: true, value: null }
  })
}
