import { and, count, desc, eq, inArray, sql } from 'drizzle-orm'
import type { LayoutInput, LayoutPlan } from '@/core/engines/roll/contract'
import { guarded, inShop, type Who } from '../client'
import { FLEET_QUEUE, within, workQueue, type FleetTask } from '../queue'
import { fleetLayout } from '../schema'

export type FleetState = (typeof fleetLayout.$inferSelect)['state']
export interface FleetHead {
  id: string
  name: string
  state: FleetState
  cancelAsked: boolean
  attempt: number
  share: number
  usedMm: number | null
  boundMm: number | null
  pieces: number
  fault: string | null
  by: string
  at: string
  endedAt: string | null
  /** Being laid out, but nothing was heard of its worker for a while. */
  silent: boolean
}
export interface FleetFile extends FleetHead {
  request: LayoutInput
  stages: number | null
  result: LayoutPlan | null
}

const MOST_LISTED = 50
const own = (who: Who, id: string) => and(eq(fleetLayout.shopId, who.shopId), eq(fleetLayout.id, id))
/** Pieces asked for, counted where they lie: the request itself stays in the database. */
const copies = sql<number>`(
  select coalesce(sum((p ->> 'count')::int), 0)::int from json_array_elements(${fleetLayout.request} -> 'pieces') p
)`
const HEAD = {
  id: fleetLayout.id,
  name: fleetLayout.name,
  state: fleetLayout.state,
  cancelAsked: fleetLayout.cancelAsked,
  attempt: fleetLayout.attempt,
  share: fleetLayout.share,
  usedMm: fleetLayout.usedMm,
  boundMm: fleetLayout.boundMm,
  fault: fleetLayout.fault,
  by: fleetLayout.by,
  at: fleetLayout.at,
  endedAt: fleetLayout.endedAt,
  beatAt: fleetLayout.beatAt,
  pieces: copies,
}
type Row = typeof fleetLayout.$inferSelect
/** A worker tells how far it is every second or so. */
const SILENT_MS = 30_000
export const isSilent = (r: Pick<Row, 'state' | 'beatAt'>, now = Date.now()): boolean =>
  r.state === 'running' && r.beatAt !== null && now - r.beatAt.getTime() > SILENT_MS
const headOf = (r: Pick<Row, Exclude<keyof typeof HEAD, 'pieces'>> & { pieces: number }): FleetHead => ({
  id: r.id,
  name: r.name,
  state: r.state,
  cancelAsked: r.cancelAsked,
  attempt: r.attempt,
  share: r.share,
  usedMm: r.usedMm,
  boundMm: r.boundMm,
  pieces: Number(r.pieces),
  fault: r.fault,
  by: r.by,
  at: r.at.toISOString(),
  endedAt: r.endedAt?.toISOString() ?? null,
  silent: isSilent(r),
})

export const fleets = (who: Who): Promise<FleetHead[]> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .select(HEAD)
      .from(fleetLayout)
      .where(eq(fleetLayout.shopId, who.shopId))
      .orderBy(desc(fleetLayout.at))
      .limit(MOST_LISTED)
    return rows.map(headOf)
  })

export const fleetHead = (who: Who, id: string): Promise<FleetHead | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx.select(HEAD).from(fleetLayout).where(own(who, id))
    return row ? headOf(row) : null
  })

export const fleetFile = (who: Who, id: string): Promise<FleetFile | null> =>
  guarded(who, 'read', async (tx) => {
    const whole = { ...HEAD, request: fleetLayout.request, stages: fleetLayout.stages, result: fleetLayout.result }
    const [row] = await tx.select(whole).from(fleetLayout).where(own(who, id))
    return row ? { ...headOf(row), request: row.request, stages: row.stages, result: row.result } : null
  })

/**
 * A layout asked for: kept and handed to the queue, both or neither. A second arrival of the same id changes nothing.
 * The more a shop has waiting, the later its next one comes, so that shops take turns.
 */
export async function askFleet(
  who: Who,
  ask: { id: string; name: string; request: LayoutInput; stages: number | null },
): Promise<'done' | 'again'> {
  const queue = await workQueue()
  return guarded(who, 'fleet', async (tx) => {
    const [waiting] = await tx
      .select({ n: count() })
      .from(fleetLayout)
      .where(and(eq(fleetLayout.shopId, who.shopId), inArray(fleetLayout.state, ['queued', 'running'])))
    const rows = await tx
      .insert(fleetLayout)
      .values({ shopId: who.shopId, by: who.name, ...ask })
      .onConflictDoNothing()
      .returning({ id: fleetLayout.id })
    if (rows.length === 0) return 'again'
    const task: FleetTask = { shopId: who.shopId, id: ask.id }
    await queue.send(FLEET_QUEUE, task, { priority: -Number(waiting?.n ?? 0), db: within(tx) })
    return 'done'
  })
}

/** Asks whoever works on it to stop; what waits in the queue is not begun. */
export const cancelFleet = (who: Who, id: string): Promise<'done' | 'not_found'> =>
  guarded(who, 'fleet', async (tx) => {
    const rows = await tx
      .update(fleetLayout)
      .set({
        cancelAsked: true,
        state: sql`case when ${fleetLayout.state} = 'queued' then 'cancelled' else ${fleetLayout.state} end`,
      })
      .where(own(who, id))
      .returning({ id: fleetLayout.id })
    return rows.length > 0 ? 'done' : 'not_found'
  })

/* What workers do. Only the worker that took a layout up last may write on it. */

const task = ({ shopId, id }: FleetTask) => and(eq(fleetLayout.shopId, shopId), eq(fleetLayout.id, id))

/** Takes a layout up; null where it is gone, over, or cancelled. */
export const takeFleet = (
  t: FleetTask,
): Promise<{ request: LayoutInput; stages: number | null; attempt: number } | null> =>
  inShop(t.shopId, async (tx) => {
    const [row] = await tx.select().from(fleetLayout).where(task(t)).for('update')
    if (!row || row.cancelAsked || (row.state !== 'queued' && row.state !== 'running')) {
      if (row?.cancelAsked && row.state === 'running')
        await tx.update(fleetLayout).set({ state: 'cancelled', endedAt: new Date() }).where(task(t))
      return null
    }
    const attempt = row.attempt + 1
    await tx.update(fleetLayout).set({ state: 'running', attempt, share: 0, beatAt: new Date() }).where(task(t))
    return { request: row.request, stages: row.stages, attempt }
  })

/** How far it is; answers whether to go on. */
export const beatFleet = (
  t: FleetTask,
  attempt: number,
  at: { share: number; usedMm: number | null; boundMm: number | null },
): Promise<'on' | 'cancel' | 'lost'> =>
  inShop(t.shopId, async (tx) => {
    const [row] = await tx
      .update(fleetLayout)
      .set({ ...at, beatAt: new Date() })
      .where(and(task(t), eq(fleetLayout.attempt, attempt)))
      .returning({ cancelAsked: fleetLayout.cancelAsked })
    return !row ? 'lost' : row.cancelAsked ? 'cancel' : 'on'
  })

export const endFleet = (
  t: FleetTask,
  attempt: number | null,
  end: { state: 'done' | 'failed' | 'cancelled'; result?: LayoutPlan; fault?: string },
): Promise<boolean> =>
  inShop(t.shopId, async (tx) => {
    const { state, result, fault } = end
    const rows = await tx
      .update(fleetLayout)
      .set({
        state,
        endedAt: new Date(),
        ...(result ? { result, usedMm: result.used_mm, boundMm: result.bound_mm, share: 1 } : {}),
        ...(fault ? { fault } : {}),
      })
      .where(and(task(t), ...(attempt === null ? [] : [eq(fleetLayout.attempt, attempt)])))
      .returning({ id: fleetLayout.id })
    return rows.length > 0
  })
