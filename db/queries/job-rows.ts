import { and, asc, eq, sql } from 'drizzle-orm'
import { inDeviceOrder } from '@/core/model/log/device-order'
import type { LogRow } from '@/core/model/log/schema'
import { parsePlan } from '@/core/model/plan/parse'
import type { Plan } from '@/core/model/plan/schema'
import type { Tx, Who } from '../client'
import { job, ledger, revision, shopChange } from '../schema'

export const ownJob = (who: Who, id: string) => and(eq(job.shopId, who.shopId), eq(job.id, id))
/** The next change number of the shop; whoever asks holds the row until the transaction ends. */
export async function nextChange(tx: Tx, who: Who): Promise<number> {
  const [row] = await tx
    .insert(shopChange)
    .values({ shopId: who.shopId, head: 1 })
    .onConflictDoUpdate({ target: shopChange.shopId, set: { head: sql`${shopChange.head} + 1` } })
    .returning({ head: shopChange.head })
  return row?.head ?? 1
}

/** The change number of the shop as it stands. */
export async function changeNow(tx: Tx, who: Who): Promise<number> {
  const [row] = await tx.select().from(shopChange).where(eq(shopChange.shopId, who.shopId))
  return row?.head ?? 0
}

export async function ledgerIn(tx: Tx, who: Who, jobId: string): Promise<LogRow[]> {
  const rows = await tx
    .select()
    .from(ledger)
    .where(and(eq(ledger.shopId, who.shopId), eq(ledger.jobId, jobId)))
    .orderBy(asc(ledger.seq))
  return inDeviceOrder(rows).map((r) => ({
    id: r.id,
    at: r.happenedAt.toISOString(),
    by: r.by,
    payload: r.payload,
    revision: r.planRevision,
    ...(r.skewSeconds === null ? {} : { skewSeconds: r.skewSeconds }),
  }))
}
export async function planIn(tx: Tx, who: Who, jobId: string, number: number): Promise<Plan | null> {
  const [row] = await tx
    .select({ plan: revision.plan })
    .from(revision)
    .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, number)))
  if (!row) return null
  const plan = parsePlan(row.plan)
  if (!plan.ok)
    throw new Error(`revision ${number} of job ${jobId} does not read: ${plan.error.code} ${plan.error.at ?? ''}`)
  return plan.value
}
