'use server'

import { z } from 'zod'
import { openJob } from '@/db/queries/jobs'
import { cuttingTable } from '@/outside/cutting-table'
import { answer, refuse, type Answer } from './answer'
import { threads } from './threads'

const ref = z.string().regex(/^[a-zA-Z0-9-]{1,60}$/)
const Ask = z.strictObject({ jobId: z.uuid(), filmId: ref, rollId: ref, as: z.enum(['svg', 'dxf']) })

/** One roll of a kept layout to the shop's own cutting table, in true size. */
export async function sendToTable(raw: unknown): Promise<Answer<{ file: string }>> {
  return answer('table', Ask, raw, async (who, { jobId, filmId, rollId, as }) => {
    const table = cuttingTable(who.shopId)
    if (!table) return refuse('no_cutting_table')
    const job = await openJob(who, jobId, new Date())
    if (!job) return refuse('not_found')
    const { plan, catalogue, ledger } = job
    const made = await threads().run('drawing', { plan, catalogue, ledger, filmId, rollId, as })
    if (made.kind === 'refused') return refuse(made.code)
    const file = `${jobId}_${filmId}_${rollId}_${made.mark}.${as}`
    await table.send(file, made.text)
    return { ok: true, value: { file } }
  })
}
