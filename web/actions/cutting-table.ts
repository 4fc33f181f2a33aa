'use server'

import { z } from 'zod'
import { layoutDrawing, layoutSvg } from '@/core/roll/drawing'
import { reckon } from '@/core/reckon/reckon'
import { MAY } from '@/db/client'
import { openJob } from '@/db/queries/jobs'
import { cuttingTable, type TableReport } from '@/outside/cutting-table'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { answer, no, type Answer } from './answer'

const ref = z.string().regex(/^[a-zA-Z0-9-]{1,60}$/)
const Ask = z.strictObject({ jobId: z.uuid(), filmId: ref, rollId: ref, as: z.enum(['svg', 'dxf']) })

const prefixOf = (shopId: string, jobId: string): string => `${shopId.slice(0, 8)}_${jobId}_`

/** One roll of a kept layout to the cutting table, in true size. */
export async function sendToTable(raw: unknown): Promise<Answer<{ file: string }>> {
  return answer(Ask, raw, async (who, { jobId, filmId, rollId, as }) => {
    if (!(MAY.log as readonly string[]).includes(who.role)) return no('not_allowed', { right: 'log' })
    const table = cuttingTable()
    if (!table) return no('no_cutting_table')
    const job = await openJob(who, jobId, new Date())
    if (!job) return no('not_found')
    const layout = reckon(job.plan, job.catalogue, job.ledger).layouts.find((l) => l.film.id === filmId)
    const roll = layout?.rolls.find((r) => r.id === rollId)
    if (!layout || !roll) return no('no_such_roll')
    if (layout.kept !== 'current') return no('layout_not_kept')
    const drawing = layoutDrawing({ ...layout, rolls: [roll] })
    const file = `${prefixOf(who.shopId, jobId)}${filmId}_${rollId}_${layout.mark}.${as}`
    await table.send(file, as === 'svg' ? layoutSvg(drawing) : layoutDxf(drawing))
    return { ok: true, value: { file } }
  })
}

/** What the table says of this job's drawings; null where no table is set up. */
export async function tableReports(raw: unknown): Promise<Answer<TableReport[] | null>> {
  return answer(z.strictObject({ jobId: z.uuid() }), raw, async (who, { jobId }) => {
    const table = cuttingTable()
    if (!table) return { ok: true, value: null }
    if (!(await openJob(who, jobId, new Date()))) return no('not_found')
    return { ok: true, value: await table.reports(prefixOf(who.shopId, jobId)) }
  })
}
