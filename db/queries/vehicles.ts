import { and, desc, eq } from 'drizzle-orm'
import { MeasuredVehicle, tapedShare } from '@/core/model/plan/vehicle-library'
import { guarded, type Tx, type Who } from '../client'
import { job, vehicle, vehicleRevision } from '../schema'

export interface VehicleHead {
  id: string
  name: string
  kind: string
  head: number
  panels: number
  taped: number
  figures: number
  updatedAt: string
}
export interface VehicleRevision {
  number: number
  summary: string
  author: string
  at: string
}
export interface VehicleFile {
  head: VehicleHead
  measured: MeasuredVehicle
  revisions: VehicleRevision[]
}

const own = (who: Who, id: string) => and(eq(vehicle.shopId, who.shopId), eq(vehicle.id, id))

async function measuredAt(tx: Tx, who: Who, id: string, number: number): Promise<MeasuredVehicle | null> {
  const [row] = await tx
    .select({ measured: vehicleRevision.measured })
    .from(vehicleRevision)
    .where(
      and(
        eq(vehicleRevision.shopId, who.shopId),
        eq(vehicleRevision.vehicleId, id),
        eq(vehicleRevision.number, number),
      ),
    )
  return row ? MeasuredVehicle.parse(row.measured) : null
}

function headOf(row: typeof vehicle.$inferSelect, measured: MeasuredVehicle): VehicleHead {
  const share = tapedShare(measured.panels)
  return {
    id: row.id,
    name: row.name,
    kind: row.kind,
    head: row.head,
    panels: measured.panels.length,
    taped: share.taped,
    figures: share.all,
    updatedAt: row.updatedAt.toISOString(),
  }
}

export const vehicles = (who: Who): Promise<VehicleHead[]> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .select({ head: vehicle, measured: vehicleRevision.measured })
      .from(vehicle)
      .innerJoin(
        vehicleRevision,
        and(
          eq(vehicleRevision.shopId, vehicle.shopId),
          eq(vehicleRevision.vehicleId, vehicle.id),
          eq(vehicleRevision.number, vehicle.head),
        ),
      )
      .where(eq(vehicle.shopId, who.shopId))
      .orderBy(desc(vehicle.updatedAt))
    return rows.map((r) => headOf(r.head, MeasuredVehicle.parse(r.measured)))
  })

export const vehicleFile = (who: Who, id: string, number?: number): Promise<VehicleFile | null> =>
  guarded(who, 'read', async (tx) => {
    const [row] = await tx.select().from(vehicle).where(own(who, id))
    const measured = row ? await measuredAt(tx, who, id, number ?? row.head) : null
    if (!row || !measured) return null
    const { number: n, summary, author, at } = vehicleRevision
    const revisions = await tx
      .select({ number: n, summary, author, at })
      .from(vehicleRevision)
      .where(and(eq(vehicleRevision.shopId, who.shopId), eq(vehicleRevision.vehicleId, id)))
      .orderBy(desc(n))
    return {
      head: headOf(row, measured),
      measured,
      revisions: revisions.map((r) => ({ ...r, at: r.at.toISOString() })),
    }
  })

export interface VehicleSave {
  id: string
  /** 0 for a vehicle that is new to the library. */
  basedOn: number
  measured: MeasuredVehicle
  summary: string
  fromJob: string | null
}

/** One state more of a vehicle in the library; refused when somebody else has changed it since. */
export const saveVehicle = (
  who: Who,
  v: VehicleSave,
  now: Date,
): Promise<{ kind: 'saved'; id: string; number: number } | { kind: 'changed_meanwhile' | 'not_found' }> =>
  guarded(who, 'vehicles', async (tx) => {
    const kept = v.basedOn === 0 && v.fromJob ? await keptFrom(tx, who, v.fromJob) : null
    return kept ? nextState(tx, who, { ...v, id: kept.id, basedOn: kept.head }, now) : nextState(tx, who, v, now)
  })

/** The vehicle that a job was kept as before; the job's row is held, so that two taps make one vehicle. */
async function keptFrom(tx: Tx, who: Who, jobId: string): Promise<{ id: string; head: number } | null> {
  await tx
    .select({ id: job.id })
    .from(job)
    .where(and(eq(job.shopId, who.shopId), eq(job.id, jobId)))
    .for('update')
  const [row] = await tx
    .select({ id: vehicle.id, head: vehicle.head })
    .from(vehicleRevision)
    .innerJoin(vehicle, and(eq(vehicle.shopId, vehicleRevision.shopId), eq(vehicle.id, vehicleRevision.vehicleId)))
    .where(
      and(eq(vehicleRevision.shopId, who.shopId), eq(vehicleRevision.fromJob, jobId), eq(vehicleRevision.number, 1)),
    )
  return row ?? null
}

async function nextState(
  tx: Tx,
  who: Who,
  v: VehicleSave,
  now: Date,
): Promise<{ kind: 'saved'; id: string; number: number } | { kind: 'changed_meanwhile' | 'not_found' }> {
  const head = { name: v.measured.vehicle.name, kind: v.measured.vehicle.kind, updatedAt: now }
  const number = v.basedOn + 1
  if (v.basedOn === 0) {
    const rows = await tx
      .insert(vehicle)
      .values({ shopId: who.shopId, id: v.id, head: 1, ...head })
      .onConflictDoNothing()
      .returning({ id: vehicle.id })
    if (rows.length === 0) return { kind: 'changed_meanwhile' }
  } else {
    const [row] = await tx.select().from(vehicle).where(own(who, v.id)).for('update')
    if (!row) return { kind: 'not_found' }
    if (row.head !== v.basedOn) return { kind: 'changed_meanwhile' }
    const was = await measuredAt(tx, who, v.id, row.head)
    if (JSON.stringify(was) === JSON.stringify(v.measured)) return { kind: 'saved', id: v.id, number: row.head }
    await tx
      .update(vehicle)
      .set({ head: number, ...head })
      .where(own(who, v.id))
  }
  await tx.insert(vehicleRevision).values({
    shopId: who.shopId,
    vehicleId: v.id,
    number,
    summary: v.summary.slice(0, 300),
    fromJob: v.fromJob,
    authorId: who.memberId,
    author: who.name,
    at: now,
    measured: v.measured,
  })
  return { kind: 'saved', id: v.id, number }
}
