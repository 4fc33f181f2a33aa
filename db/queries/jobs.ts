import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import type { JobOutline } from '@/core/engines/schedule/job-outline'
import type { BoardPin } from '@/core/engines/schedule/pins'
import { and, desc, eq, lte, sql } from 'drizzle-orm'
import { handedOver } from '@/core/stages/handover/handover'
import type { Alert } from '@/core/model/finding/alert'
import type { LogRow } from '@/core/model/log/schema'
import { hoursOf } from '@/core/model/shop/default-shop'
import type { Plan } from '@/core/model/plan/schema'
import { EMPTY_CATALOGUE, type Catalogue } from '@/core/model/catalogue/catalogue'
import type { Solution } from '@/core/model/catalogue/solutions'
import { yardColumnsOf, type YardColumns } from '@/core/reckon/yard'
import { guarded, inShop, type Tx, type Who } from '../client'
import type { InShop } from './job-rows'
import { tell } from '../live'
import { job, revision } from '../schema'
import { climateIn } from './climate'
import { changeNow, ledgerIn, nextChange, ownJob, planIn, recordIn } from './job-rows'
import { rackIn } from './rack'
import { shopIn } from './shop'
import { requestBoard, requestSettle, solutionsOf, solutionTablesOf } from './solutions'
import { suppliesIn } from './supplies'
import { scanBytesIn, scanMarksIn } from './stretch'

export interface JobHead {
  id: string
  name: string
  vehicle: string
  customerRef: string
  head: number
  stage: string
  stageState: string
  waitsFor: string
  waitsFacts: Record<string, string | number>
  recheckDueAt: string | null
  /** The work that is left, in a few blocks; null where it was never read off. */
  outline: JobOutline | null
  pins: BoardPin[]
  alerts: Alert[]
  updatedAt: string
  /** Something happened since the yard's columns were read off; they follow by themselves. */
  behind: boolean
}
export interface JobFile {
  head: JobHead
  plan: Plan
  ledger: LogRow[]
  catalogue: Catalogue
  /** The plan that the vehicle was handed over with, once it was. */
  handedOver: Plan | null
  /** The change number at which the job changed last. */
  changes: number
  /** The shop's change number up to which all of this tells. */
  shopHead: number
}

/** UTC wall time without a zone, as core counts it. */
export const utcWall = (date: Date): string => date.toISOString().slice(0, 16)

const headOf = ({
  shopId: _s,
  createdAt: _c,
  changes,
  yardOf,
  updatedAt,
  record: _r,
  ...row
}: typeof job.$inferSelect): JobHead => ({
  ...row,
  updatedAt: updatedAt.toISOString(),
  behind: yardOf < changes,
})

/** What the shop brings to a job as it stands, the solutions that the plan hangs on among it. */
async function catalogueIn(
  tx: Tx,
  who: InShop,
  { jobId, plan, now, part }: { jobId: string; plan: Plan; now: Date; part?: 'own' | undefined },
): Promise<Catalogue> {
  const { films, stock } = await rackIn(tx, who)
  const scans = await scanMarksIn(tx, who, jobId)
  const { settings } = await shopIn(tx, who)
  return {
    ...EMPTY_CATALOGUE,
    hours: hoursOf(settings),
    shop: settings,
    films,
    stock,
    climate: await climateIn(tx, who),
    supplies: await suppliesIn(tx, who),
    record: await recordIn(tx, who),
    solutions: await solutionTablesOf(tx, who, {
      jobId,
      plan,
      films,
      scans,
      guns: settings.guns,
      ...(part ? { part } : {}),
    }),
    scans,
    now: utcWall(now),
  }
}
/** Work of a job set to a moment, or let go where `at` is null: one block after the other, nobody's pin undoes another's. */
export const setPin = (
  who: Who,
  jobId: string,
  { code, at }: { code: BoardPin['code']; at: string | null },
): Promise<boolean> =>
  guarded(who, 'plan', async (tx) => {
    const [row] = await tx.select({ pins: job.pins }).from(job).where(ownJob(who, jobId)).for('update')
    if (!row) return false
    const pins = [...row.pins.filter((p) => p.code !== code), ...(at === null ? [] : [{ code, at }])]
    await tx.update(job).set({ pins }).where(ownJob(who, jobId))
    await tell(tx, { shop: who.shopId, job: jobId, head: await nextChange(tx, who), kind: 'yard' })
    await requestBoard(tx, who)
    return true
  })

export const jobs = (who: Who): Promise<JobHead[]> =>
  guarded(who, 'read', async (tx) =>
    (await tx.select().from(job).where(eq(job.shopId, who.shopId)).orderBy(desc(job.updatedAt))).map(headOf),
  )

/** The plans of jobs that are not handed over, the newest first. */
export const openPlans = (who: Who): Promise<{ id: string; plan: Plan }[]> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .select({ id: job.id, head: job.head, stage: job.stage, state: job.stageState })
      .from(job)
      .where(eq(job.shopId, who.shopId))
      .orderBy(desc(job.updatedAt))
    const open = rows.filter((r) => r.stage !== 'handover' || r.state !== 'settled')
    const plans: { id: string; plan: Plan }[] = []
    for (const { id, head } of open) {
      const plan = await planIn(tx, who, id, head)
      if (plan) plans.push({ id, plan })
    }
    return plans
  })

/** The plan as it stood when the vehicle was handed over: what is chosen later does not change what was done. */
async function handedOverIn(tx: Tx, who: InShop, id: string, rows: readonly LogRow[]): Promise<Plan | null> {
  const row = handedOver(rows)?.row
  if (!row) return null
  if (row.revision) return planIn(tx, who, id, row.revision)
  // An entry of before revisions were kept with it: what stood at that time.
  const [then] = await tx
    .select({ number: revision.number })
    .from(revision)
    .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, id), lte(revision.at, new Date(row.at))))
    .orderBy(desc(revision.number))
    .limit(1)
  return planIn(tx, who, id, then?.number ?? 1)
}

/** `part: 'own'`: without the solutions that the plan is only compared by; a page asks for those once it stands. */
export const openJob = (who: Who, id: string, now: Date, part?: 'own'): Promise<JobFile | null> =>
  guarded(who, 'read', (tx) => jobIn(tx, who, id, now, part))

/** What the plan of a job is compared by: other films, other schools. Null: there is no such job. */
export const comparedSolutions = (who: Who, id: string): Promise<Solution[] | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx.select({ head: job.head }).from(job).where(ownJob(who, id))
    const plan = row ? await planIn(tx, who, id, row.head) : null
    if (!plan) return null
    const { films } = await rackIn(tx, who)
    const scans = await scanMarksIn(tx, who, id)
    const { settings } = await shopIn(tx, who)
    return solutionsOf(tx, who, { jobId: id, plan, films, scans, guns: settings.guns, part: 'compared' })
  })

async function jobIn(tx: Tx, who: InShop, id: string, now: Date, part?: 'own'): Promise<JobFile | null> {
  // First of all: what is written while the rest is read is told again later, never left out.
  const shopHead = await changeNow(tx, who)
  const [row] = await tx.select().from(job).where(ownJob(who, id))
  const plan = row ? await planIn(tx, who, id, row.head) : null
  if (!row || !plan) return null
  const rows = await ledgerIn(tx, who, id)
  return {
    head: headOf(row),
    plan,
    ledger: rows,
    handedOver: await handedOverIn(tx, who, id, rows),
    catalogue: await catalogueIn(tx, who, { jobId: id, plan, now, part }),
    changes: row.changes,
    shopHead,
  }
}

/** A job with the solutions that its plan hangs on, as the shop keeps them. */
export const jobWithSolutions = (
  who: Who,
  id: string,
  now: Date,
): Promise<(JobFile & { solutions: Solution[] }) | null> =>
  guarded(who, 'read', async (tx) => {
    const file = await jobIn(tx, who, id, now)
    if (!file) return null
    const { plan, catalogue } = file
    const { films, scans = {} } = catalogue
    const { guns } = catalogue.shop ?? DEFAULT_SHOP
    return { ...file, solutions: await solutionsOf(tx, who, { jobId: id, plan, films, scans, guns }) }
  })

/** A job as a worker settles it, with the kept scan of one of its panels. Null: it is gone. */
export const jobToSettle = (
  { shopId, jobId }: { shopId: string; jobId: string },
  panelId: string | null,
): Promise<(JobFile & { scan: Uint8Array | null }) | null> =>
  inShop(shopId, async (tx) => {
    const file = await jobIn(tx, { shopId }, jobId, new Date())
    if (!file) return null
    return { ...file, scan: panelId ? await scanBytesIn(tx, { shopId }, jobId, panelId) : null }
  })

export const planAt = (who: Who, jobId: string, number: number): Promise<Plan | null> =>
  guarded(who, 'read', (tx) => planIn(tx, who, jobId, number))

/** The columns of the job's head that the plan itself says. */
export const namesOf = (plan: Plan) => ({
  name: plan.name,
  vehicle: plan.vehicle.name,
  customerRef: plan.customerRef,
})

export const createJob = (who: Who, id: string, plan: Plan, summary: string, now: Date): Promise<'done' | 'again'> =>
  guarded(who, 'newJob', async (tx) => {
    const change = await nextChange(tx, who)
    const rows = await tx
      .insert(job)
      .values({
        shopId: who.shopId,
        id,
        head: 1,
        ...namesOf(plan),
        stage: 'walkaround',
        stageState: 'open',
        waitsFor: 'settling',
        waitsFacts: {},
        changes: change,
        createdAt: now,
        updatedAt: now,
      })
      .onConflictDoNothing()
      .returning({ id: job.id })
    if (rows.length === 0) return 'again'
    await tx.insert(revision).values({
      shopId: who.shopId,
      jobId: id,
      number: 1,
      summary,
      authorId: who.memberId,
      author: who.name,
      at: now,
      plan,
      change,
    })
    await tell(tx, { shop: who.shopId, job: id, head: change, kind: 'plan' })
    await requestSettle(tx, who, id)
    return 'done'
  })

/** What the yard's columns are read off, for a job whose columns are behind; null where they are not. */
export async function yardInput(who: Who, id: string, now: Date): Promise<JobFile | null> {
  const file = await openJob(who, id, now)
  return file?.head.behind ? file : null
}
/** Columns that were read off at that change number; older ones never take the place of newer ones. */
export const keepYard = (who: Who, id: string, changes: number, columns: YardColumns): Promise<void> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .update(job)
      .set({ ...columns, yardOf: changes })
      .where(and(ownJob(who, id), sql`${job.yardOf} < ${changes}`))
      .returning({ id: job.id })
    if (rows.length === 0) return
    await tell(tx, { shop: who.shopId, job: id, head: changes, kind: 'yard' })
    await requestBoard(tx, who)
  })
/** Brings the yard's columns of a job up to date here and now; servers do it on a thread instead. */
export async function settleYard(who: Who, id: string, now: Date): Promise<void> {
  const file = await yardInput(who, id, now)
  if (file) await keepYard(who, id, file.changes, yardColumnsOf(file.plan, file.catalogue, file.ledger))
}

/** Whether this shop has such a job. */
export const jobIsThere = (who: Who, jobId: string): Promise<boolean> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(eq(job.shopId, who.shopId), eq(job.id, jobId)))
    return rows.length > 0
  })
