import { and, eq, gt } from 'drizzle-orm'
import type { SupplyLevels } from '@/core/engines/edge/supply-list'
import type { Solution } from '@/core/model/catalogue/solutions'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import type { ShopRecord } from '@/core/model/log/shop-record'
import type { ShopSettings } from '@/core/model/shop/shop'
import type { Plan } from '@/core/model/plan/schema'
import { guarded, type Who } from '../client'
import { job, revision, stockItem } from '../schema'
import { changeNow, ledgerIn, ownJob, planIn, recordIn } from './job-rows'
import { rackIn } from './rack'
import { shopIn } from './shop'
import { solutionsOf } from './solutions'
import { suppliesIn } from './supplies'
import { scanMarksIn } from './stretch'

/** What changed of a job, and of what its shop brings to it, after a change number. */
export interface Changes {
  entries: LogRow[]
  /** The newest revision; null where it is the one before. */
  revision: { number: number; plan: Plan } | null
  /** The whole rack where anything on it changed; null where nothing did. */
  stock: StockItem[] | null
  films: FilmSheet[]
  /** What the shop's finished jobs taught. */
  record: ShopRecord
  /** What is on the shelf of each supply. */
  supplies: SupplyLevels
  /** What the shop says of itself. */
  shop: ShopSettings
  solutions: Solution[]
  /** Marks of the job's scans, by panel. */
  scans: Record<string, string>
  /** The shop's change number up to which all of this tells. */
  head: number
}

/** Everything after `since`. Null: no such job. */
export const changesOf = (who: Who, jobId: string, since: number): Promise<Changes | null> =>
  guarded(who, 'read', async (tx) => {
    // First of all: what is written while the rest is read is told again the next time, never left out.
    const head = await changeNow(tx, who)
    const [row] = await tx.select({ head: job.head }).from(job).where(ownJob(who, jobId))
    const plan = row ? await planIn(tx, who, jobId, row.head) : null
    if (!row || !plan) return null
    const [newer] = await tx
      .select({ number: revision.number })
      .from(revision)
      .where(
        and(
          eq(revision.shopId, who.shopId),
          eq(revision.jobId, jobId),
          eq(revision.number, row.head),
          gt(revision.change, since),
        ),
      )
    const { films, stock } = await rackIn(tx, who)
    const [moved] = await tx
      .select({ id: stockItem.id })
      .from(stockItem)
      .where(and(eq(stockItem.shopId, who.shopId), gt(stockItem.change, since)))
      .limit(1)
    const scans = await scanMarksIn(tx, who, jobId)
    const { settings } = await shopIn(tx, who)
    return {
      entries: await ledgerIn(tx, who, jobId, since),
      revision: newer ? { number: row.head, plan } : null,
      stock: moved ? stock : null,
      films,
      record: await recordIn(tx, who),
      supplies: await suppliesIn(tx, who),
      shop: settings,
      // Another plan may hang on what was solved long ago.
      solutions: await solutionsOf(tx, who, {
        jobId,
        plan,
        films,
        scans,
        guns: settings.guns,
        ...(newer ? {} : { since }),
      }),
      scans,
      head,
    }
  })

/** Jobs of the shop that changed after a change number, each with its own: what a stream catches up with. */
export const changedSince = (
  who: Who,
  since: number,
): Promise<{ jobs: { id: string; changes: number }[]; head: number }> =>
  guarded(who, 'read', async (tx) => {
    const head = await changeNow(tx, who)
    const jobs = await tx
      .select({ id: job.id, changes: job.changes })
      .from(job)
      .where(and(eq(job.shopId, who.shopId), gt(job.changes, since)))
    return { jobs, head }
  })
