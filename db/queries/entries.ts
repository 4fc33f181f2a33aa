import type { FaultCode } from '@/core/kit/fault-code'
import { and, eq, inArray } from 'drizzle-orm'
import { withoutUndoneCuts } from '@/core/model/log/cut-pieces'
import { momentOf, type BayEntry } from '@/core/model/log/arrival'
import type { LogPayload } from '@/core/model/log/schema'
import { Denied, guarded, may, type Tx, type Who } from '../client'
import { brokenConstraint } from '../errors'
import { cutStanding, job, ledger } from '../schema'
import { changeNow, comingChange, entriesIn, ledgerIn, nextChange, ownJob } from './job-rows'
import { tell } from '../live'
import { cutStock, restoreStock, stockChanged } from './rack'
import { requestSettleAll } from './solutions'

/** What became of an entry: applied, known already, or refused with a code. */
export type EntryOutcome =
  { id: string; outcome: 'done' | 'again' } | { id: string; outcome: 'refused'; code: FaultCode }

class Refused extends Error {
  constructor(readonly code: FaultCode) {
    super(code)
  }
}

/** Entries of one member as one device sent them. */
export interface Batch {
  who: Who
  entries: readonly BayEntry[]
  now: Date
  skewSeconds?: number
}
export interface Taken {
  outcomes: EntryOutcome[]
  /** Whether any of them is new. */
  changed: boolean
  /** The shop's change number after them. */
  head: number
}

/**
 * Entries of the ledger, each applied once however often it arrives, in the order of their device; film used is cut
 * from the rack in the same transaction. One that is refused leaves nothing behind and holds none of the others back.
 */
export const appendEntries = async (
  who: Who,
  jobId: string,
  entries: readonly BayEntry[],
  at: { now: Date; skewSeconds?: number },
): Promise<Taken> => (await appendBatches(jobId, [{ who, entries, ...at }]))[0] as Taken

/** Batches of one shop that came while another was being taken, in one transaction; an answer each. */
export function appendBatches(jobId: string, batches: readonly Batch[]): Promise<Taken[]> {
  const [first] = batches
  if (!first) return Promise.resolve([])
  const { who } = first
  const stranger = batches.find((b) => b.who.shopId !== who.shopId || !may(b.who.role, 'log'))
  if (stranger) return Promise.reject(new Denied('log'))
  return guarded(who, 'log', async (tx) => {
    const [row] = await tx
      .select({ createdAt: job.createdAt, revision: job.head })
      .from(job)
      .where(ownJob(who, jobId))
      .for('update')
    const change = await comingChange(tx, who)
    const items = batches.flatMap(({ who: by, entries, now, skewSeconds = 0 }, batch) =>
      entries.map((entry): Item => ({
        batch,
        by,
        entry,
        arrival: { now, skewSeconds, since: row?.createdAt ?? now, revision: row?.revision ?? 0, change },
      })),
    )
    const outcomes = row
      ? await inTurn(tx, jobId, items)
      : items.map(({ entry }): EntryOutcome => ({ id: entry.id, outcome: 'refused', code: 'not_found' }))
    const changed = outcomes.some((o) => o.outcome === 'done')
    const head = changed ? await nextChange(tx, who) : await changeNow(tx, who)
    if (changed) await told(tx, who, { jobId, head, now: first.now, items, outcomes })
    return batches.map((_, batch) => {
      const own = outcomes.filter((_, i) => items[i]?.batch === batch)
      return { outcomes: own, changed: own.some((o) => o.outcome === 'done'), head }
    })
  })
}

/** The change that new entries make, and who hangs on it: the job's pages, and where film was cut, the rack's. */
async function told(
  tx: Tx,
  who: Who,
  of: { jobId: string; head: number; now: Date; items: readonly Item[]; outcomes: readonly EntryOutcome[] },
): Promise<void> {
  const { jobId, head, now, items, outcomes } = of
  const done = items.filter((_, i) => outcomes[i]?.outcome === 'done')
  const ids = done.map(({ entry }) => entry.id)
  await tx.update(job).set({ changes: head, updatedAt: now }).where(ownJob(who, jobId))
  const isCut = done.some(({ entry }) => CUTS.includes(entry.payload.kind))
  // Cuts change the rack too: whoever shows it asks.
  const entries = isCut || ids.length > MOST_TOLD ? {} : { entries: await entriesIn(tx, who, ids) }
  await tell(tx, { shop: who.shopId, job: jobId, head, kind: 'entries', ...entries })
  if (!isCut) return
  await stockChanged(tx, who, head, ids)
  await requestSettleAll(tx, who)
}

/** More than so many do not fit into one notification. */
const MOST_TOLD = 20

interface Item {
  batch: number
  by: Who
  entry: BayEntry
  arrival: Arrival
}
const CUTS: readonly LogPayload['kind'][] = ['film_used', 'cut_made', 'cut_taken_back']

/** One after the other; those between two cuts touch nothing but the ledger and are written together. */
async function inTurn(tx: Tx, jobId: string, items: readonly Item[]): Promise<EntryOutcome[]> {
  const out: EntryOutcome[] = []
  for (let from = 0; from < items.length;) {
    const item = items[from] as Item
    if (CUTS.includes(item.entry.payload.kind)) {
      out.push(await settled(item.entry.id, () => appendOne(tx, jobId, item)))
      from++
      continue
    }
    const next = items.findIndex((x, i) => i > from && CUTS.includes(x.entry.payload.kind))
    const together = items.slice(from, next < 0 ? undefined : next)
    out.push(...(await appendTogether(tx, jobId, together)))
    from += together.length
  }
  return out
}

/** Entries that touch nothing but the ledger. */
async function appendTogether(tx: Tx, jobId: string, items: readonly Item[]): Promise<EntryOutcome[]> {
  const shopId = (items[0] as Item).by.shopId
  const wasThere = await tx
    .select()
    .from(ledger)
    .where(
      and(
        eq(ledger.shopId, shopId),
        inArray(
          ledger.id,
          items.map((x) => x.entry.id),
        ),
      ),
    )
  const known = new Map(wasThere.map((r) => [r.id, { jobId: r.jobId, payload: r.payload }]))
  const rows: (typeof ledger.$inferInsert)[] = []
  const out = items.map((item): EntryOutcome => {
    const { id, payload } = item.entry
    try {
      if (isKnown(known.get(id), jobId, payload)) return { id, outcome: 'again' }
      rows.push(rowOf(jobId, item))
      known.set(id, { jobId, payload })
      return { id, outcome: 'done' }
    } catch (error) {
      if (error instanceof Refused) return { id, outcome: 'refused', code: error.code }
      throw error
    }
  })
  if (rows.length === 0) return out
  const written = await tx.insert(ledger).values(rows).onConflictDoNothing().returning({ id: ledger.id })
  const made = new Set(written.map((r) => r.id))
  // Another job of the shop took the id meanwhile.
  return out.map((o) =>
    o.outcome === 'done' && !made.has(o.id) ? { id: o.id, outcome: 'refused', code: 'id_taken' } : o,
  )
}

/** Whether this entry is there already; refuses an id that is another's. */
function isKnown(row: { jobId: string; payload: LogPayload } | undefined, jobId: string, payload: LogPayload): boolean {
  if (!row) return false
  if (row.jobId === jobId && JSON.stringify(row.payload) === JSON.stringify(payload)) return true
  throw new Refused('id_taken')
}

/** The ledger's row of an entry; refuses a time that cannot be. */
function rowOf(jobId: string, { by, entry, arrival }: Item): typeof ledger.$inferInsert {
  const moment = momentOf({
    atMs: Date.parse(entry.at),
    nowMs: arrival.now.getTime(),
    skewSeconds: arrival.skewSeconds,
    sinceMs: arrival.since.getTime(),
  })
  if (!moment.ok) throw new Refused(moment.error.code)
  return {
    shopId: by.shopId,
    id: entry.id,
    jobId,
    kind: entry.payload.kind,
    payload: entry.payload,
    happenedAt: new Date(moment.value.ms),
    byId: by.memberId,
    by: by.name,
    device: entry.device ?? null,
    n: entry.n ?? null,
    skewSeconds: moment.value.skewSeconds,
    planRevision: arrival.revision,
    change: arrival.change,
  }
}

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
  /** The shop's change number that these entries make. */
  change: number
}

/** One entry, in a savepoint of its own. */
const appendOne = (outer: Tx, jobId: string, item: Item): Promise<'done' | 'again'> =>
  outer.transaction(async (tx) => {
    const { by, entry } = item
    const { id, payload } = entry
    const [known] = await tx
      .select()
      .from(ledger)
      .where(and(eq(ledger.shopId, by.shopId), eq(ledger.id, id)))
    if (isKnown(known, jobId, payload)) return 'again'
    const row = rowOf(jobId, item)
    await takeFilm(tx, by, jobId, entry)
    await tx.insert(ledger).values(row)
    if ((payload.kind === 'film_used' || payload.kind === 'cut_made') && payload.cutKey !== undefined) {
      const rows = await tx
        .insert(cutStanding)
        .values({ shopId: by.shopId, jobId, cutKey: payload.cutKey, entryId: id })
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
