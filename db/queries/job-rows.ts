import { and, asc, eq, gt, inArray, isNotNull, sql } from 'drizzle-orm'
import { inDeviceOrder } from '@/core/model/log/device-order'
import type { LogRow } from '@/core/model/log/schema'
import { shopRecord } from '@/core/model/log/learned'
import type { ShopRecord } from '@/core/model/log/shop-record'
import { parsePlan } from '@/core/model/plan/parse'
import type { Plan } from '@/core/model/plan/schema'
import type { Tx, Who } from '../client'
import { job, ledger, revision, shopChange } from '../schema'

/** Whoever acts within a shop: a member, or a worker. */
export type InShop = Pick<Who, 'shopId'>

export const ownJob = (who: InShop, id: string) => and(eq(job.shopId, who.shopId), eq(job.id, id))
/** The next change number of the shop; whoever asks holds the row until the transaction ends. */
export async function nextChange(tx: Tx, who: InShop): Promise<number> {
  const [row] = await tx
    .insert(shopChange)
    .values({ shopId: who.shopId, head: 1 })
    .onConflictDoUpdate({ target: shopChange.shopId, set: { head: sql`${shopChange.head} + 1` } })
    .returning({ head: shopChange.head })
  return row?.head ?? 1
}

/** The number that the next change will have; whoever asks holds the row, so that nobody else takes it meanwhile. */
export async function comingChange(tx: Tx, who: InShop): Promise<number> {
  const [row] = await tx
    .insert(shopChange)
    .values({ shopId: who.shopId, head: 0 })
    .onConflictDoUpdate({ target: shopChange.shopId, set: { head: sql`${shopChange.head}` } })
    .returning({ head: shopChange.head })
  return (row?.head ?? 0) + 1
}

/** The change number of the shop as it stands. */
export async function changeNow(tx: Tx, who: InShop): Promise<number> {
  const [row] = await tx.select().from(shopChange).where(eq(shopChange.shopId, who.shopId))
  return row?.head ?? 0
}

/** The ledger of a job, each device's entries in its own order; `since`: only what came after that change number. */
export async function ledgerIn(tx: Tx, who: InShop, jobId: string, since = -1): Promise<LogRow[]> {
  const rows = await tx
    .select()
    .from(ledger)
    .where(and(eq(ledger.shopId, who.shopId), eq(ledger.jobId, jobId), gt(ledger.change, since)))
    .orderBy(asc(ledger.seq))
  return asLogRows(rows)
}

/** These entries of the ledger, by id. */
export async function entriesIn(tx: Tx, who: InShop, ids: readonly string[]): Promise<LogRow[]> {
  const rows = await tx
    .select()
    .from(ledger)
    .where(and(eq(ledger.shopId, who.shopId), inArray(ledger.id, [...ids])))
    .orderBy(asc(ledger.seq))
  return asLogRows(rows)
}

const asLogRows = (rows: readonly (typeof ledger.$inferSelect)[]): LogRow[] =>
  inDeviceOrder(rows).map((r) => ({
    id: r.id,
    at: r.happenedAt.toISOString(),
    by: r.by,
    payload: r.payload,
    revision: r.planRevision,
    ...(r.skewSeconds === null ? {} : { skewSeconds: r.skewSeconds }),
    seq: r.seq,
    device: r.device,
    n: r.n,
  }))
export async function planIn(tx: Tx, who: InShop, jobId: string, number: number): Promise<Plan | null> {
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

/** What the shop's finished jobs taught together. */
export async function recordIn(tx: Tx, who: InShop): Promise<ShopRecord> {
  const rows = await tx
    .select({ record: job.record })
    .from(job)
    .where(and(eq(job.shopId, who.shopId), isNotNull(job.record)))
    .orderBy(asc(job.id))
  return shopRecord(rows.flatMap((r) => r.record ?? []))
}
