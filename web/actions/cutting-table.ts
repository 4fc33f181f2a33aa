'use server'

import { z } from 'zod'
import { openJob } from '@/db/queries/jobs'
import { cuttingTable, type TableReport } from '@/outside/cutting-table'
import { answer, no, type Answer } from './answer'
import { threads } from './threads'

const ref = z.string().regex(/^[a-zA-Z0-9-]{1,60}$/)
const Ask = z.strictObject({ jobId: z.uuid(), filmId: ref, rollId: ref, as: z.enum(['svg', 'dxf']) })

/** One roll of a kept layout to the shop's own cutting table, in true size. */
export async function sendToTable(raw: unknown): Promise<Answer<{ file: string }>> {
  return answer('table', Ask, raw, async (who, { jobId, filmId, rollId, as }) => {
    const table = cuttingTable(who.shopId)
    if (!table) return no('no_cutting_table')
    const job = await openJob(who, jobId, new Date())
    if (!job) return no('not_found')
    const { plan, catalogue, ledger } = job
    const made = await threads().run('drawing', { plan, catalogue, ledger, filmId, rollId, as })
    if (made.kind === 'refused') return no(made.code)
    const file = `${jobId}_${filmId}_${rollId}_${made.mark}.${as}`
    await table.send(file, made.text)
    return { ok: true, value: { file } }
  })
}

/** What the table says of this job's drawings; null where no table is set up. */
export async function tableReports(raw: unknown): Promise<Answer<TableReport[] | null>> {
  return answer('read', z.strictObject({ jobId: z.uuid() }), raw, async (who, { jobId }) => {
    const table = cuttingTable(who.shopId)
    if (!table) return { ok: true, value: null }
    if (!(await openJob(who, jobId, new Date()))) return no('not_found')
    return { ok: true, value: await table.reports(`${jobId}_`) }
  })
}
