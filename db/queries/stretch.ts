import { and, eq, sql } from 'drizzle-orm'
import { scanMark } from '@/core/model/catalogue/stretch-key'
import { guarded, type Tx, type Who } from '../client'
import { tell } from '../live'
import { QUOTAS } from '../quotas'
import { job, panelScan } from '../schema'
import { nextChange, ownJob, planIn, type InShop } from './job-rows'
import { requestSettle } from './solutions'

export interface ScanHead {
  panelId: string
  name: string
  triangles: number
  by: string
  at: string
}
const ownScan = (who: InShop, jobId: string, panelId: string) =>
  and(eq(panelScan.shopId, who.shopId), eq(panelScan.jobId, jobId), eq(panelScan.panelId, panelId))

/** Marks of the scans kept with a job, by panel. */
export async function scanMarksIn(tx: Tx, who: InShop, jobId: string): Promise<Record<string, string>> {
  const { panelId, triangles, at } = panelScan
  const rows = await tx
    .select({ panelId, triangles, at })
    .from(panelScan)
    .where(and(eq(panelScan.shopId, who.shopId), eq(panelScan.jobId, jobId)))
  return Object.fromEntries(rows.map((r) => [r.panelId, scanMark({ ...r, at: r.at.toISOString() })]))
}
/** Null where there is no such job. */
export const scansOf = (who: Who, jobId: string): Promise<ScanHead[] | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(eq(job.shopId, who.shopId), eq(job.id, jobId)))
    if (!row) return null
    const { panelId, name, triangles, by, at } = panelScan
    const rows = await tx
      .select({ panelId, name, triangles, by, at })
      .from(panelScan)
      .where(and(eq(panelScan.shopId, who.shopId), eq(panelScan.jobId, jobId)))
    return rows.map((r) => ({ ...r, at: r.at.toISOString() }))
  })
export const scanBytes = (who: Who, jobId: string, panelId: string): Promise<Buffer | null> =>
  guarded(who, 'read', (tx) => scanBytesIn(tx, who, jobId, panelId))
export async function scanBytesIn(tx: Tx, who: InShop, jobId: string, panelId: string): Promise<Buffer | null> {
  const [row] = await tx
    .select({ bytes: panelScan.bytes })
    .from(panelScan)
    .where(ownScan(who, jobId, panelId))
  return row?.bytes ?? null
}
/** One scan a panel: a new one takes the place of the old. */
export const keepScan = (
  who: Who,
  scan: { jobId: string; panelId: string; name: string; triangles: number; bytes: Buffer },
): Promise<'done' | 'not_found' | 'no_such_panel' | 'scan_quota'> =>
  guarded(who, 'scan', async (tx) => {
    const [row] = await tx
      .select({ head: job.head })
      .from(job)
      .where(and(eq(job.shopId, who.shopId), eq(job.id, scan.jobId)))
    const plan = row ? await planIn(tx, who, scan.jobId, row.head) : null
    if (!row || !plan) return 'not_found'
    if (!plan.panels.some((panel) => panel.id === scan.panelId)) return 'no_such_panel'
    const { name, triangles, bytes } = scan
    const [kept] = await tx
      .select({ bytes: sql<string>`coalesce(sum(octet_length(${panelScan.bytes})), 0)` })
      .from(panelScan)
      .where(and(eq(panelScan.shopId, who.shopId), sql`not (${ownScan(who, scan.jobId, scan.panelId)})`))
    if (Number(kept?.bytes ?? 0) + bytes.byteLength > QUOTAS.scanBytes) return 'scan_quota'
    await tx
      .insert(panelScan)
      .values({ ...scan, shopId: who.shopId, by: who.name })
      .onConflictDoUpdate({
        target: [panelScan.shopId, panelScan.jobId, panelScan.panelId],
        set: { name, triangles, bytes, by: who.name, at: sql`now()` },
      })
    await scansChanged(tx, who, scan.jobId)
    return 'done'
  })
export const dropScan = (who: Who, jobId: string, panelId: string): Promise<void> =>
  guarded(who, 'scan', async (tx) => {
    const rows = await tx
      .delete(panelScan)
      .where(ownScan(who, jobId, panelId))
      .returning({ panelId: panelScan.panelId })
    if (rows.length > 0) await scansChanged(tx, who, jobId)
  })

/** The stretch of a panel hangs on its scan: what the job lacks is solved, and its pages hear of it. */
async function scansChanged(tx: Tx, who: Who, jobId: string): Promise<void> {
  const head = await nextChange(tx, who)
  await tx.update(job).set({ changes: head }).where(ownJob(who, jobId))
  await tell(tx, { shop: who.shopId, job: jobId, head, kind: 'scan' })
  await requestSettle(tx, who, jobId)
}
