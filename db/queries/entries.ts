import { and, eq } from 'drizzle-orm'
import { withoutUndoneCuts } from '@/core/roll/cut-pieces'
import { momentOf, type BayEntry } from '@/core/log/arrival'
import { guarded, type Tx, type Who } from '../client'
import { brokenConstraint } from '../errors'
import { cutStanding, job, ledger } from '../schema'
import { changeNow, ledgerIn, nextChange, ownJob } from './job-rows'
import { cutStock, restoreStock } from './rack'

/** What became of an entry: applied, known already, or refused with a code. */
export type EntryOutcome = { id: string; outcome: 'done' | 'again' } | { id: string; outcome: 'refused'; code: string }

class Refused extends Error {
  constructor(readonly code: string) {
    super(code)
  }
}

/**
 * Entries of the ledger, each applied once however often it arrives, in the order of their device; film used is cut from the
 * rack in the same transaction. One that is refused leaves nothing behind and holds none of the others back.
 */
export const appendEntries = (
  who: Who,
  jobId: string,
  entries: readonly BayEntry[],
  { now, skewSeconds = 0 }: { now: Date; skewSeconds?: number },
): Promise<{ outcomes: EntryOutcome[]; changed: boolean; head: number }> =>
  guarded(who, 'log', async (tx) => {
    const [row] = await tx
      .select({ createdAt: job.createdAt, revision: job.head })
      .from(job)
      .where(ownJob(who, jobId))
      .for('update')
    const outcomes: EntryOutcome[] = []
    for (const entry of entries)
      outcomes.push(
        row
          ? await settled(entry.id, () =>
              appendOne(tx, who, jobId, entry, { now, skewSeconds, since: row.createdAt, revision: row.revision }),
            )
          : { id: entry.id, outcome: 'refused', code: 'not_found' },
      )
    const changed = outcomes.some((o) => o.outcome === 'done')
    if (!changed) return { outcomes, changed, head: await changeNow(tx, who) }
    const head = await nextChange(tx, who)
    await tx.update(job).set({ changes: head, updatedAt: now }).where(ownJob(who, jobId))
    return { outcomes, changed, head }
  })

async function settled(id: string, work: () => Promise<'done' | 'again'>): Promise<EntryOutcome> {
  try {
    return { id, outcome: await work() }
  } catch (error) {
    if (error instanceof Refused) return { id, outcome: 'refused', code: error.code }
    const constraint = brokenConstraint(error)
    if (constraint === 'stock_never_below_zero') return { id, outcome: 'refused', code: 'not_enough_film' }
    throw error
  }
}

interface Arrival {
  now: Date
  skewSeconds: number
  since: Date
  revision: number
}

/** One entry, in a savepoint of its own. */
const appendOne = (outer: Tx, who: Who, jobId: string, entry: BayEntry, arrival: Arrival): Promise<'done' | 'again'> =>
  outer.transaction(async (tx) => {
    const { id, payload } = entry
    const [known] = await tx
      .select()
      .from(ledger)
      .where(and(eq(ledger.shopId, who.shopId), eq(ledger.id, id)))
    if (known) {
      if (known.jobId === jobId && JSON.stringify(known.payload) === JSON.stringify(payload)) return 'again'
      throw new Refused('id_taken')
    }
    const moment = momentOf({
      atMs: Date.parse(entry.at),
      nowMs: arrival.now.getTime(),
      skewSeconds: arrival.skewSeconds,
      sinceMs: arrival.since.getTime(),
    })
    if (!moment.ok) throw new Refused(moment.error.code)
    await takeFilm(tx, who, jobId, entry)
    await tx.insert(ledger).values({
      shopId: who.shopId,
      id,
      jobId,
      kind: payload.kind,
      payload,
      happenedAt: new Date(moment.value.ms),
      byId: who.memberId,
      by: who.name,
      device: entry.device ?? null,
      n: entry.n ?? null,
      skewSeconds: moment.value.skewSeconds,
      planRevision: arrival.revision,
    })
    if ((payload.kind === 'film_used' || payload.kind === 'cut_made') && payload.cutKey !== undefined) {
      const rows = await tx
        .insert(cutStanding)
        .values({ shopId: who.shopId, jobId, cutKey: payload.cutKey, entryId: id })
        .onConflictDoNothing()
        .returning({ cutKey: cutStanding.cutKey })
      if (rows.length === 0) throw new Refused('cut_made_already')
    }
    return 'done'
  })

/** What an entry does to the rack: a cut takes film off its roll, a cut taken back puts it there again. */
async function takeFilm(tx: Tx, who: Who, jobId: string, { id, payload }: BayEntry): Promise<void> {
  if (payload.kind === 'film_used') {
    const out = await cutStock(tx, who, { id, itemId: payload.stockId, lengthMm: payload.lengthMm, jobId })
    if (out === 'no_such_stock') throw new Refused(out)
  }
  if (payload.kind !== 'cut_taken_back') return
  const stands = await tx
    .delete(cutStanding)
    .where(
      and(eq(cutStanding.shopId, who.shopId), eq(cutStanding.jobId, jobId), eq(cutStanding.cutKey, payload.cutKey)),
    )
    .returning({ entryId: cutStanding.entryId })
  if (stands.length === 0) throw new Refused('no_such_cut')
  const made = withoutUndoneCuts(await ledgerIn(tx, who, jobId)).findLast(
    (r) => (r.payload.kind === 'film_used' || r.payload.kind === 'cut_made') && r.payload.cutKey === payload.cutKey,
  )
  if (made?.payload.kind === 'film_used')
    await restoreStock(tx, who, { id, itemId: made.payload.stockId, lengthMm: made.payload.lengthMm, jobId })
}
