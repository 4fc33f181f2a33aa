'use server'

import { z } from 'zod'
import { BLOCKS } from '@/core/engines/schedule/job-outline'
import { WallTime } from '@/core/model/values/values'
import { setPin } from '@/db/queries/jobs'
import { answer, refuse, type Answer } from './answer'

const Pin = z.strictObject({ jobId: z.uuid(), code: z.enum(BLOCKS), at: WallTime.nullable() })

/** Work of a job begins at a moment, or when it comes to it: the shop's word on the board. */
export async function pinWork(raw: unknown): Promise<Answer<null>> {
  return answer('plan', Pin, raw, async (who, { jobId, code, at }) =>
    (await setPin(who, jobId, { code, at })) ? { ok: true, value: null } : refuse('not_found'),
  )
}
