import { and, desc, eq, gt, inArray, isNull, or, sql } from 'drizzle-orm'
import type PgBoss from 'pg-boss'
import { stretchKeysOf } from '@/core/engines/stretch/variants'
import { waysKey } from '@/core/engines/stretch/ways-key'
import { filmOf } from '@/core/model/plan/piece-choice'
import { NO_SOLUTIONS, solutionTables, type SolutionTables } from '@/core/model/catalogue/solution-tables'
import { Solution, type Lack } from '@/core/model/catalogue/solutions'
import { heatKey } from '@/core/model/catalogue/heat-key'
import { stretchKey } from '@/core/model/catalogue/stretch-key'
import type { FilmSheet } from '@/core/model/film/schema'
import type { ShopSettings } from '@/core/model/shop/shop'
import type { Plan } from '@/core/model/plan/schema'
import { guarded, inShop, type Tx, type Who } from '../client'
import { tell } from '../live'
import { log } from '../log'
import { QUOTAS } from '../quotas'
import {
  BOARD_QUEUE,
  SETTLE_QUEUE,
  SOLVE_QUEUE,
  within,
  workQueue,
  type BoardTask,
  type RackTask,
  type SettleTask,
  type SolveTask,
} from '../queue'
import { job, solution } from '../schema'
import { nextChange, type InShop } from './job-rows'

/** Layouts kept with a job that are read with it: those before, that an undo brings back, among them. */
const MOST_LAYOUTS = 30
/** What is only compared with comes a day later than what a plan hangs on; what changed with the rack, ten minutes. [s] */
const COMPARED_LATER = 86_400
const RACK_LATER = 600
/** Each task that a shop has waiting already lets others come before its next ones by so much. [s] */
const TURN = 2
const YEAR_2024 = 1_704_067_200
const secondsNow = (): number => Math.floor((Date.now() / 1000 - YEAR_2024) / 10) * 10

/** Keys of the panels' solutions that a plan hangs on. */
function ownKeys({ plan, films, scans, guns }: OfJob): string[] {
  const keys = plan.panels.flatMap((panel) => {
    const film = filmOf(plan, panel)
    if (!panel.wrap || !film) return []
    const stretch = stretchKey(plan, panel, film, scans[panel.id])
    const heat = heatKey(panel.surface, film, guns)
    return [stretch, waysKey(stretch, panel.id, films), ...(heat === null ? [] : [heat])]
  })
  return [...new Set(keys)]
}

/** Keys that it is only compared by: other films, other schools. */
function comparedKeys(of: OfJob): string[] {
  const own = new Set(ownKeys(of))
  return stretchKeysOf(of.plan, of.films, of.scans).filter((key) => !own.has(key))
}

/** A row as it reads; null, and told, where it does not: a value of another shape counts as not there. */
function readRow(row: typeof solution.$inferSelect): Solution | null {
  const read = Solution.safeParse({ kind: row.kind, key: row.key, fineness: row.fineness, value: row.value })
  if (read.success) return read.data
  log.warn(
    { part: 'solutions', kind: row.kind, key: row.key, at: read.error.issues[0]?.path },
    'a solution does not read',
  )
  return null
}

interface OfJob {
  jobId: string
  plan: Plan
  films: readonly FilmSheet[]
  scans: Readonly<Record<string, string>>
  guns: ShopSettings['guns']
  /** Only those of after this change number. */
  since?: number
  /** Only those that the plan hangs on, or only those that it is compared by; all where it is not said. */
  part?: 'own' | 'compared'
}

/** The solutions that a job's plan hangs on, as far as they are there: of its panels by key, and its own layouts. */
export async function solutionsOf(tx: Tx, who: InShop, of: OfJob): Promise<Solution[]> {
  const { jobId, since = -1, part } = of
  const keys = [...(part === 'compared' ? [] : ownKeys(of)), ...(part === 'own' ? [] : comparedKeys(of))]
  const byKey = keys.length > 0 ? inArray(solution.key, keys) : undefined
  const ofJob = and(inArray(solution.kind, ['layout', 'fault']), or(eq(solution.jobId, jobId), isNull(solution.jobId)))
  const rows = await tx
    .select()
    .from(solution)
    .where(
      and(
        eq(solution.shopId, who.shopId),
        gt(solution.change, since),
        part === 'compared' ? (byKey ?? sql`false`) : or(ofJob, byKey),
      ),
    )
    .orderBy(desc(solution.change))
    .limit(keys.length + MOST_LAYOUTS)
  return rows.flatMap((row) => readRow(row) ?? [])
}

export const solutionTablesOf = async (tx: Tx, who: InShop, of: OfJob): Promise<SolutionTables> => ({
  ...NO_SOLUTIONS,
  ...solutionTables(await solutionsOf(tx, who, of)),
})

/** Asks for what a job lacks to be solved: in the transaction that changes what it hangs on, or not at all. */
export async function requestSettle(tx: Tx, who: InShop, jobId: string, since = secondsNow()): Promise<void> {
  const task: SettleTask = { shopId: who.shopId, jobId, since }
  const queue = await workQueue()
  await queue.send(SETTLE_QUEUE, task, { singletonKey: `${jobId}/${since}`, priority: since, db: within(tx) })
}

/** Every job of a shop is to be looked at; one such look waits at a time. */
export function settleAllTask(shopId: string): { name: string; data: RackTask; options: PgBoss.SendOptions } {
  const data: RackTask = { shopId, jobId: null, since: secondsNow() - RACK_LATER }
  return { name: SETTLE_QUEUE, data, options: { singletonKey: `${shopId}/rack`, priority: data.since } }
}

/** The same for every job of the shop: something changed that all of them share. A worker goes through them. */
export async function requestSettleAll(tx: Tx, { shopId }: InShop): Promise<void> {
  const { name, data, options } = settleAllTask(shopId)
  const queue = await workQueue()
  await queue.send(name, data, { ...options, db: within(tx) })
}

/** Asks for the shop's board to be laid out anew: in the transaction that changes what it hangs on, or not at all. */
export async function requestBoard(tx: Tx, { shopId }: InShop): Promise<void> {
  const queue = await workQueue()
  const task: BoardTask = { shopId }
  await queue.send(BOARD_QUEUE, task, { singletonKey: shopId, db: within(tx) })
}

/** Asks for what each job of the shop lacks that is not over. */
export const requestSettleEach = ({ shopId, since }: RackTask): Promise<void> =>
  inShop(shopId, async (tx) => {
    const over = and(eq(job.stage, 'handover'), eq(job.stageState, 'settled'))
    const rows = await tx
      .select({ id: job.id })
      .from(job)
      .where(and(eq(job.shopId, shopId), sql`not (${over})`))
    for (const { id } of rows) await requestSettle(tx, { shopId }, id, since)
  })

/** Hands on what a job lacks: the newest plan first and of it the most telling; a shop that has much waiting stands back. */
export const requestSolves = ({ shopId, jobId, since }: SettleTask, lacks: readonly Lack[]): Promise<void> =>
  inShop(shopId, async (tx) => {
    const queue = await workQueue()
    const { rows } = await tx.execute<{ n: string }>(
      sql`select count(*) as n from pgboss.job where name = ${SOLVE_QUEUE} and state = 'created'`,
    )
    const first = since - TURN * Number(rows[0]?.n ?? 0)
    for (const [rank, lack] of lacks.entries()) {
      const task: SolveTask = { shopId, jobId, since, lack }
      await queue.send(SOLVE_QUEUE, task, {
        singletonKey: `${shopId}/${lack.kind}/${lack.key}`,
        priority: first - rank - (lack.as ? COMPARED_LATER : 0),
        db: within(tx),
      })
    }
  })

/** What a job lacks is looked at once more. */
export const requestSettleAgain = ({ shopId, jobId, since }: SettleTask): Promise<void> =>
  inShop(shopId, (tx) => requestSettle(tx, { shopId }, jobId, since))

/**
 * Takes what is solved already, by another worker or for another job, into this job: it is told of as if it were new.
 * False: it is not there. A row that does not read makes room for another.
 */
export const reuseSolution = ({ shopId, jobId, since, lack }: SolveTask): Promise<boolean> =>
  inShop(shopId, async (tx) => {
    const [row] = await tx
      .select()
      .from(solution)
      .where(and(eq(solution.shopId, shopId), inArray(solution.kind, [lack.kind, 'fault']), eq(solution.key, lack.key)))
    if (!row) return false
    const own = and(eq(solution.shopId, shopId), eq(solution.kind, row.kind), eq(solution.key, row.key))
    if (!readRow(row)) {
      await tx.delete(solution).where(own)
      return false
    }
    const change = await nextChange(tx, { shopId })
    // A layout of several jobs belongs to none of them alone.
    await tx
      .update(solution)
      .set({ change, jobId: row.jobId === jobId ? jobId : null })
      .where(own)
    await toldSolved(tx, { shopId, jobId, change })
    await requestSettle(tx, { shopId }, jobId, since)
    return true
  })

/** Keeps solutions, tells of it, and asks what the job lacks now. A coarser one never takes the place of a finer one. */
export const keepSolutions = (
  { shopId, jobId, since }: SettleTask,
  list: readonly Solution[],
  by: string,
): Promise<void> =>
  inShop(shopId, async (tx) => {
    await putSolutions(tx, { shopId }, jobId, list, by)
    await requestSettle(tx, { shopId }, jobId, since)
  })

/** Keeps solutions within a transaction, and tells of them. */
export async function putSolutions(
  tx: Tx,
  who: InShop,
  jobId: string | null,
  list: readonly Solution[],
  by: string,
): Promise<void> {
  if (list.length === 0) return
  const once = new Map(list.map((s) => [`${s.kind}/${s.key}`, s]))
  const change = await nextChange(tx, who)
  await tx
    .insert(solution)
    .values([...once.values()].map((s) => ({ ...s, shopId: who.shopId, jobId, by, change })))
    .onConflictDoUpdate({
      target: [solution.shopId, solution.kind, solution.key],
      set: {
        value: sql`excluded.value`,
        fineness: sql`excluded.fineness`,
        by: sql`excluded.by`,
        change,
        at: sql`now()`,
      },
      setWhere: sql`excluded.fineness >= ${solution.fineness}`,
    })
  // The oldest make room.
  await tx.execute(sql`
    delete from solution where shop_id = ${who.shopId} and (kind, key) in (
      select kind, key from solution where shop_id = ${who.shopId} order by at desc, key offset ${QUOTAS.solvedRows})`)
  if (jobId !== null) await toldSolved(tx, { shopId: who.shopId, jobId, change })
}

/** The yard reads its columns off what is solved, and open pages hear of it. */
async function toldSolved(
  tx: Tx,
  { shopId, jobId, change }: { shopId: string; jobId: string; change: number },
): Promise<void> {
  await tx
    .update(job)
    .set({ changes: change })
    .where(and(eq(job.shopId, shopId), eq(job.id, jobId)))
  await tell(tx, { shop: shopId, job: jobId, head: change, kind: 'solution' })
}

/** Solutions that somebody brings along, such as a demo shop's. */
export const bringSolutions = (who: Who, jobId: string, list: readonly Solution[], by: string): Promise<void> =>
  guarded(who, 'newJob', (tx) => putSolutions(tx, who, jobId, list, by))
