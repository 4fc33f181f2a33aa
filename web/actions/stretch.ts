'use server'

import { z } from 'zod'
import { ok } from '@/core/kit/result'
import { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { keepSolved } from '@/db/queries/stretch'
import { answer, type Answer } from './answer'

const Rows = z.strictObject({
  rows: z
    .array(z.strictObject({ key: z.string().regex(/^[0-9a-f]{16}$/), value: SolvedStretch }))
    .min(1)
    .max(500),
})

/** Stretches that were solved on this member's machine, kept for the shop by what they hang on. */
export async function keepStretch(raw: unknown): Promise<Answer<{ kept: number }>> {
  return answer('solve', Rows, raw, async (who, { rows }) => {
    await keepSolved(who, rows)
    return ok({ kept: rows.length })
  })
}
