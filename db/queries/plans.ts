import { and, desc, eq, gt } from 'drizzle-orm'
import { changesOnly, mergePlans, planEdits, type Clash } from '@/core/model/plan/merge'
import { parsePlan } from '@/core/model/plan/parse'
import type { Plan } from '@/core/model/plan/schema'
import { ownChanges, type RevisionMark } from '@/core/model/plan/undo'
import { planPartsOf, savingRight } from '@/core/model/rights/rights'
import { guarded, type Tx, type Who } from '../client'
import { tell } from '../live'
import { job, revision } from '../schema'
import { nextChange, ownJob, planIn } from './job-rows'
import { namesOf } from './jobs'
import { requestSettle } from './solutions'

export interface RevisionHead {
  number: number
  basedOn: number | null
  restores: number | null
  summary: string
  author: string
  at: string
}
export type SaveOutcome =
  | { kind: 'saved' | 'merged'; number: number; plan: Plan; theirParts: string[] }
  | { kind: 'clash'; number: number; theirs: Plan; clashes: Clash[]; by: string; summary: string }
  | { kind: 'unchanged'; number: number }
  | { kind: 'not_found' }
  | { kind: 'invalid' }
  | { kind: 'not_yours' }

type Summary = (before: Plan, after: Plan) => string
export interface SaveInput {
  jobId: string
  basedOn: number
  plan: Plan
  summary: Summary
  restores?: number
}
interface Head {
  number: number
  plan: Plan
}

/** The job's newest revision, its row locked, so that two saves stand in line. */
async function lockedHead(tx: Tx, who: Who, jobId: string): Promise<Head | null> {
  const [row] = await tx.select().from(job).where(ownJob(who, jobId)).for('update')
  const plan = row ? await planIn(tx, who, jobId, row.head) : null
  return row && plan ? { number: row.head, plan } : null
}

async function writeRevision(
  tx: Tx,
  who: Who,
  head: Head,
  next: { jobId: string; plan: Plan; basedOn: number; summary: string; restores?: number; undoes?: number },
  now: Date,
): Promise<number> {
  const number = head.number + 1
  const change = await nextChange(tx, who)
  await tx.insert(revision).values({
    shopId: who.shopId,
    jobId: next.jobId,
    number,
    basedOn: next.basedOn,
    restores: next.restores ?? null,
    undoes: next.undoes ?? null,
    summary: next.summary.slice(0, 300),
    authorId: who.memberId,
    author: who.name,
    at: now,
    plan: next.plan,
    change,
  })
  await tx
    .update(job)
    .set({ head: number, ...namesOf(next.plan), changes: change, updatedAt: now })
    .where(ownJob(who, next.jobId))
  await tell(tx, { shop: who.shopId, job: next.jobId, head: change, kind: 'plan' })
  await requestSettle(tx, who, next.jobId)
  return number
}

/**
 * One revision more. A save based on an older one is merged where the two changed different parts, and refused with
 * both sides where they touched the same.
 */
export const savePlan = (
  who: Who,
  { jobId, basedOn, plan, summary, restores }: SaveInput,
  now: Date,
): Promise<SaveOutcome> =>
  guarded(who, savingRight(who.role), async (tx): Promise<SaveOutcome> => {
    const head = await lockedHead(tx, who, jobId)
    if (!head || basedOn > head.number) return { kind: 'not_found' }
    const base = basedOn === head.number ? head.plan : await planIn(tx, who, jobId, basedOn)
    if (!base) return { kind: 'not_found' }
    const covered = planPartsOf(who.role)
    if (covered && !changesOnly(base, plan, covered)) return { kind: 'not_yours' }
    const merge =
      basedOn === head.number ? ({ clean: true, plan, theirParts: [] } as const) : mergePlans(base, plan, head.plan)
    if (!merge.clean) {
      const [last] = await tx
        .select()
        .from(revision)
        .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.number, head.number)))
      const { author: by = '', summary: said = '' } = last ?? {}
      return { kind: 'clash', number: head.number, theirs: head.plan, clashes: merge.clashes, by, summary: said }
    }
    // What nobody else changed meanwhile was parsed as it came.
    const merged = merge.plan === plan ? { ok: true as const, value: plan } : parsePlan(merge.plan)
    if (!merged.ok) return { kind: 'invalid' }
    if (planEdits(head.plan, merged.value).length === 0) return { kind: 'unchanged', number: head.number }
    const number = await writeRevision(
      tx,
      who,
      head,
      {
        jobId,
        plan: merged.value,
        basedOn,
        summary: summary(head.plan, merged.value),
        ...(restores === undefined ? {} : { restores }),
      },
      now,
    )
    return {
      kind: basedOn === head.number ? 'saved' : 'merged',
      number,
      plan: merged.value,
      theirParts: [...merge.theirParts],
    }
  })

export type TakeBack =
  | { kind: 'saved'; number: number; plan: Plan; said: string }
  | { kind: 'nothing' }
  | { kind: 'not_found' }
  | { kind: 'changed_since'; by: string; what: string }

/**
 * Takes back this member's own last change (`undo`), or does again what they took back last (`redo`): that change
 * alone, whatever others did since. Where somebody else changed the same thing since, it is refused and they are named.
 */
export const takeBack = (
  who: Who,
  { jobId, which, summary }: { jobId: string; which: 'undo' | 'redo'; summary: Summary },
  now: Date,
): Promise<TakeBack> =>
  guarded(who, savingRight(who.role), async (tx): Promise<TakeBack> => {
    const head = await lockedHead(tx, who, jobId)
    if (!head) return { kind: 'not_found' }
    const target = ownChanges(await ownMarks(tx, who, jobId))[which]
    const [before, after] =
      target === null ? [null, null] : [await planIn(tx, who, jobId, target - 1), await planIn(tx, who, jobId, target)]
    if (target === null || !before || !after) return { kind: 'nothing' }
    const merge = mergePlans(after, before, head.plan)
    const merged = merge.clean ? parsePlan(merge.plan) : null
    if (!merge.clean)
      return {
        kind: 'changed_since',
        ...(await changedSince({ tx, who, jobId, number: target, part: merge.clashes[0]?.part ?? '', summary })),
      }
    // What was built on the change since does not go without it.
    if (!merged?.ok)
      return { kind: 'changed_since', ...(await changedSince({ tx, who, jobId, number: target, part: '', summary })) }
    const said = summary(head.plan, merged.value)
    const verb = which === 'undo' ? 'Undo' : 'Redo'
    const number = await writeRevision(
      tx,
      who,
      head,
      { jobId, plan: merged.value, basedOn: head.number, summary: `${verb}: ${said}`, undoes: target },
      now,
    )
    return { kind: 'saved', number, plan: merged.value, said: `${verb}: ${said}` }
  })

async function ownMarks(tx: Tx, who: Who, jobId: string): Promise<RevisionMark[]> {
  const rows = await tx
    .select({ number: revision.number, undoes: revision.undoes })
    .from(revision)
    .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), eq(revision.authorId, who.memberId)))
    .orderBy(desc(revision.number))
    .limit(500)
  return rows.reverse()
}

/** Who changed a part after that revision, and what they did. */
async function changedSince({
  tx,
  who,
  jobId,
  number,
  part,
  summary,
}: {
  tx: Tx
  who: Who
  jobId: string
  number: number
  part: string
  summary: Summary
}): Promise<{ by: string; what: string }> {
  const rows = await tx
    .select()
    .from(revision)
    .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId), gt(revision.number, number)))
    .orderBy(desc(revision.number))
    .limit(60)
  for (const row of rows) {
    if (row.authorId === who.memberId) continue
    const [was, is] = [await planIn(tx, who, jobId, row.number - 1), await planIn(tx, who, jobId, row.number)]
    if (!was || !is) continue
    if (part === '' || planEdits(was, is).some((edit) => edit.part === part))
      return { by: row.author, what: summary(was, is) }
  }
  return { by: rows[0]?.author ?? '', what: rows[0]?.summary ?? '' }
}

export const revisions = (who: Who, jobId: string): Promise<RevisionHead[]> =>
  guarded(who, 'read', async (tx) => {
    const { number, basedOn, restores, summary, author, at } = revision
    const rows = await tx
      .select({ number, basedOn, restores, summary, author, at })
      .from(revision)
      .where(and(eq(revision.shopId, who.shopId), eq(revision.jobId, jobId)))
      .orderBy(desc(number))
      .limit(200)
    return rows.map((r) => ({ ...r, at: r.at.toISOString() }))
  })
