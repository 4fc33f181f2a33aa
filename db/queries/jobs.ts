import { and, asc, desc, eq } from 'drizzle-orm'
import type { LogEntry, LogRow } from '@/core/log/schema'
import { mergePlans, planEdits, type Clash } from '@/core/plan/merge'
import { Plan } from '@/core/plan/schema'
import type { Catalogue } from '@/core/reckon/catalogue'
import { standing } from '@/core/roll/cut-pieces'
import { EMPTY_CATALOGUE } from '@/core/reckon/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { standsAt } from '@/core/reckon/stages'
import { guarded, type Right, type Tx, type Who } from '../client'
import { job, ledger, revision } from '../schema'
import { climateIn } from './climate'
import { scanMarksIn, solvedIn } from './stretch'
import { cutStock, rackIn, restoreStock } from './rack'

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
  updatedAt: string
}
export interface RevisionHead {
  number: number
  basedOn: number | null
  restores: number | null
  summary: string
  author: string
  at: string
}
export interface JobFile {
  head: JobHead
  plan: Plan
  ledger: LogRow[]
  catalogue: Catalogue
}

/** UTC wall time without a zone, as core counts it. */
export const utcWall = (date: Date): string => date.toISOString().slice(0, 16)

const own = (who: Who, id: string) => and(eq(job.shopId, who.shopId), eq(job.id, id))
const headOf = ({ shopId: _s, createdAt: _c, updatedAt, ...row }: typeof job.$inferSelect): JobHead => ({
  ...row,
  updatedAt: updatedAt.toISOString(),
})

async function catalogueIn(tx: Tx, who: Who, jobId: string | null, now: Date): Promise<Catalogue> {
  const { films, stock } = await rackIn(tx, who)
  return {
    ...EMPTY_CATALOGUE,
    films,
    stock,
    climate: await climateIn(tx, who),
    solved: await solvedIn(tx, who),
    scans: jobId ? await scanMarksIn(tx, who, jobId) : {},
    now: utcWall(now),
  }
}
async function ledgerIn(tx: Tx, who: Who, jobId: string): Promise<LogRow[]> {
  const rows = await tx.select().from(ledger).where(and(eq(ledger.shopId, who.shopId), eq(ledger.jobId, jobId))).orderBy(asc(ledger.seq)) // prettier-ignore
  return rows.map((r) => ({ id: r.id, at: r.happenedAt.toISOString(), by: r.by, payload: r.payload }))
}
async function planIn(tx: Tx, who: Who, jobId: string, number: number): Promise<Plan | null> {
  const [row] = await tx.select({ plan: revision.plan }).from(revision).where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, number))) // prettier-ignore
  return row ? Plan.parse(row.plan) : null
}

/** What the yard shows of a job, read off a fresh reckoning. */
async function yardColumns(tx: Tx, who: Who, jobId: string | null, plan: Plan, now: Date) {
  const result = reckon(plan, await catalogueIn(tx, who, jobId, now), jobId ? await ledgerIn(tx, who, jobId) : [])
  const stands = standsAt(result.stages)
  return {
    name: plan.name, vehicle: plan.vehicle.name, customerRef: plan.customerRef, stage: stands.stage, stageState: stands.state,
    waitsFor: stands.why, waitsFacts: stands.facts, recheckDueAt: result.recheckDueAt, updatedAt: now,
  } // prettier-ignore
}

export const jobs = (who: Who): Promise<JobHead[]> =>
  guarded(who, 'read', async (tx) =>
    (await tx.select().from(job).where(eq(job.shopId, who.shopId)).orderBy(desc(job.updatedAt))).map(headOf),
  )

export const openJob = (who: Who, id: string, now: Date): Promise<JobFile | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx.select().from(job).where(own(who, id))
    if (!row) return null
    const plan = await planIn(tx, who, id, row.head)
    if (!plan) return null
    return {
      head: headOf(row),
      plan,
      ledger: await ledgerIn(tx, who, id),
      catalogue: await catalogueIn(tx, who, id, now),
    }
  })

export const createJob = (who: Who, id: string, plan: Plan, summary: string, now: Date): Promise<'done' | 'again'> =>
  guarded(who, 'newJob', async (tx) => {
    const rows = await tx.insert(job).values({ shopId: who.shopId, id, head: 1, ...(await yardColumns(tx, who, null, plan, now)) }).onConflictDoNothing().returning({ id: job.id }) // prettier-ignore
    if (rows.length === 0) return 'again'
    await tx
      .insert(revision)
      .values({ shopId: who.shopId, jobId: id, number: 1, summary, author: who.name, at: now, plan })
    return 'done'
  })

export type SaveOutcome =
  | { kind: 'saved' | 'merged'; number: number; plan: Plan; theirParts: string[] }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }
  | { kind: 'unchanged'; number: number }
  | { kind: 'not_found' }
  | { kind: 'invalid' }

export interface SaveInput {
  jobId: string
  basedOn: number
  plan: Plan
  summary: (before: Plan, after: Plan) => string
  restores?: number
}

/** Parts of the plan that front desk people may change. */
const WALKAROUND_PARTS = ['walkaround', 'name', 'customerRef', 'vehicle', 'note']
/** Parts that installers may change: they measure, also while another does. */
const TAPE_PARTS = ['panels', 'conditions']

/**
 * One revision more. A save based on an older one is merged where the two changed different parts, and refused with
 * both sides where they touched the same. The head's row is locked, so that two saves stand in line.
 */
export const savePlan = (
  who: Who,
  { jobId, basedOn, plan, summary, restores }: SaveInput,
  now: Date,
): Promise<SaveOutcome> => {
  const right: Right = who.role === 'desk' ? 'walkaround' : who.role === 'installer' ? 'tape' : 'plan'
  const covered = right === 'walkaround' ? WALKAROUND_PARTS : right === 'tape' ? TAPE_PARTS : null
  return guarded(who, right, async (tx): Promise<SaveOutcome> => {
    const [row] = await tx.select().from(job).where(own(who, jobId)).for('update')
    if (!row || basedOn > row.head) return { kind: 'not_found' }
    const head = await planIn(tx, who, jobId, row.head)
    const base = basedOn === row.head ? head : await planIn(tx, who, jobId, basedOn)
    if (!head || !base) return { kind: 'not_found' }
    if (covered && planEdits(base, plan).some((e) => !covered.includes(e.part.split('/')[0] ?? '')))
      return { kind: 'invalid' }
    const merge = basedOn === row.head ? ({ clean: true, plan, theirParts: [] } as const) : mergePlans(base, plan, head)
    if (!merge.clean) {
      const [last] = await tx.select().from(revision).where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, row.head))) // prettier-ignore
      return {
        kind: 'clash',
        number: row.head,
        theirs: head,
        clashes: merge.clashes,
        by: last?.author ?? '',
        summary: last?.summary ?? '',
      }
    }
    const merged = Plan.safeParse(merge.plan)
    if (!merged.success) return { kind: 'invalid' }
    if (planEdits(head, merged.data).length === 0) return { kind: 'unchanged', number: row.head }
    const number = row.head + 1
    await tx.insert(revision).values({
      shopId: who.shopId,
      jobId,
      number,
      basedOn,
      restores: restores ?? null,
      summary: summary(head, merged.data).slice(0, 300),
      author: who.name,
      at: now,
      plan: merged.data,
    })
    await tx.update(job).set({ head: number, ...(await yardColumns(tx, who, jobId, merged.data, now)) }).where(own(who, jobId)) // prettier-ignore
    return {
      kind: basedOn === row.head ? 'saved' : 'merged',
      number,
      plan: merged.data,
      theirParts: [...merge.theirParts],
    }
  })
}

export const revisions = (who: Who, jobId: string): Promise<RevisionHead[]> =>
  guarded(who, 'read', async (tx) => {
    const { number, basedOn, restores, summary, author, at } = revision
    const rows = await tx.select({ number, basedOn, restores, summary, author, at }).from(revision).where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId))).orderBy(desc(number)).limit(200) // prettier-ignore
    return rows.map((r) => ({ ...r, at: r.at.toISOString() }))
  })

export const planAt = (who: Who, jobId: string, number: number): Promise<Plan | null> =>
  guarded(who, 'read', (tx) => planIn(tx, who, jobId, number))

/** Which revision's content an undo brings back: the one before what stands now; null at the beginning. */
export const undoTarget = (who: Who, jobId: string): Promise<{ head: number; target: number } | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx.select({ head: job.head }).from(job).where(own(who, jobId))
    if (!row) return null
    const [last] = await tx.select({ restores: revision.restores }).from(revision).where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, row.head))) // prettier-ignore
    // Standing on the content of n, by restoring it or by having written it, undo goes on to what n itself replaced.
    let target = (last?.restores ?? row.head) - 1
    for (let hops = 0; target > 0 && hops < 50; hops++) {
      const [before] = await tx.select({ restores: revision.restores }).from(revision).where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, target))) // prettier-ignore
      if (!before?.restores) break
      target = before.restores
    }
    return target > 0 ? { head: row.head, target } : null
  })

export type LogOutcome = 'done' | 'again' | 'id_taken' | 'not_found' | 'no_such_stock' | 'no_such_cut'

/** Entries of the ledger, each applied once however often it arrives; film used is cut from the rack in the same transaction. */
export const appendLog = (who: Who, jobId: string, entries: readonly LogEntry[], now: Date): Promise<LogOutcome[]> =>
  guarded(who, 'log', async (tx) => {
    const [row] = await tx.select().from(job).where(own(who, jobId)).for('update')
    if (!row) return entries.map(() => 'not_found' as const)
    const out: LogOutcome[] = []
    for (const entry of entries) out.push(await appendOne(tx, who, jobId, entry))
    const plan = await planIn(tx, who, jobId, row.head)
    if (plan && out.includes('done')) await tx.update(job).set(await yardColumns(tx, who, jobId, plan, now)).where(own(who, jobId)) // prettier-ignore
    return out
  })

async function appendOne(tx: Tx, who: Who, jobId: string, entry: LogEntry): Promise<LogOutcome> {
  const { id, payload } = entry
  const [known] = await tx.select().from(ledger).where(and(eq(ledger.shopId, who.shopId), eq(ledger.id, id))) // prettier-ignore
  if (known)
    return known.jobId === jobId && JSON.stringify(known.payload) === JSON.stringify(payload) ? 'again' : 'id_taken'
  if (
    payload.kind === 'film_used' &&
    (await cutStock(tx, who, { id, itemId: payload.stockId, lengthMm: payload.lengthMm, jobId })) === 'no_such_stock'
  )
    return 'no_such_stock'
  if (payload.kind === 'cut_taken_back') {
    const made = standing(await ledgerIn(tx, who, jobId)).findLast(
      (r) => (r.payload.kind === 'film_used' || r.payload.kind === 'cut_made') && r.payload.cutKey === payload.cutKey,
    )
    if (!made) return 'no_such_cut'
    if (made.payload.kind === 'film_used')
      await restoreStock(tx, who, { id, itemId: made.payload.stockId, lengthMm: made.payload.lengthMm, jobId })
  }
  await tx.insert(ledger).values({
    shopId: who.shopId,
    id,
    jobId,
    kind: payload.kind,
    payload,
    happenedAt: new Date(entry.at),
    by: who.name,
  })
  return 'done'
}
