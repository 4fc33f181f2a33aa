import { desc, eq } from 'drizzle-orm'
import type { ClimateReading } from '@/core/model/catalogue/catalogue'
import { guarded, type Tx, type Who } from '../client'
import { climateReading } from '../schema'
import type { InShop } from './job-rows'

/** The last readings of the shop's air, oldest first. */
export async function climateIn(tx: Tx, who: InShop): Promise<ClimateReading[]> {
  const rows = await tx
    .select()
    .from(climateReading)
    .where(eq(climateReading.shopId, who.shopId))
    .orderBy(desc(climateReading.at))
    .limit(60)
  return rows
    .reverse()
    .map((r) => ({ at: r.at.toISOString(), airC: r.airC, humidity: r.humidity, surfaceC: r.surfaceC, by: r.by }))
}

/** A reading put down once, however often it arrives. */
export const addReading = (
  who: Who,
  {
    id,
    at,
    airC,
    humidity,
    surfaceC,
  }: { id: string; at: string; airC: number; humidity: number | null; surfaceC: number | null },
): Promise<void> =>
  guarded(
    who,
    'climate',
    async (tx) =>
      void (await tx
        .insert(climateReading)
        .values({ id, airC, humidity, surfaceC, at: new Date(at), shopId: who.shopId, by: who.name })
        .onConflictDoNothing()),
  )
