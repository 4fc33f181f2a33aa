import { and, eq, sql } from 'drizzle-orm'
import type { SupplyKind } from '@/core/model/edge/supply-data'
import type { SupplyLevels } from '@/core/engines/edge/supply-list'
import { guarded, type Tx, type Who } from '../client'
import { tell } from '../live'
import { ledger, supplyMovement } from '../schema'
import { nextChange, type InShop } from './job-rows'

/** What is there of each supply that the shop ever took in or counted: less what all of its jobs used. */
export async function suppliesIn(tx: Tx, who: InShop): Promise<SupplyLevels> {
  const came = await tx
    .select({ kind: supplyMovement.kind, sum: sql<number>`sum(${supplyMovement.delta})::float8` })
    .from(supplyMovement)
    .where(eq(supplyMovement.shopId, who.shopId))
    .groupBy(supplyMovement.kind)
  if (came.length === 0) return {}
  const of = sql<string>`${ledger.payload} ->> 'of'`
  const used = await tx
    .select({ kind: of, sum: sql<number>`sum((${ledger.payload} ->> 'amount')::float8)::float8` })
    .from(ledger)
    .where(and(eq(ledger.shopId, who.shopId), eq(ledger.kind, 'consumable_used')))
    .groupBy(of)
  const gone = new Map(used.map((u) => [u.kind, u.sum]))
  return Object.fromEntries(came.map(({ kind, sum }) => [kind, tidy(sum - (gone.get(kind) ?? 0))]))
}
/** Sums of tenths are tenths. */
const tidy = (amount: number): number => Math.round(amount * 1000) / 1000

export const supplies = (who: Who): Promise<SupplyLevels> => guarded(who, 'read', (tx) => suppliesIn(tx, who))

/** Supplies that came in, or what was found when they were counted; once, however often it arrives. */
export const moveSupply = (
  who: Who,
  { id, kind, amount, reason }: { id: string; kind: SupplyKind; amount: number; reason: 'received' | 'counted' },
): Promise<void> =>
  guarded(who, 'stock', async (tx) => {
    // Whoever holds the change number is alone: a count is against what is there now.
    const head = await nextChange(tx, who)
    const delta = reason === 'received' ? amount : amount - ((await suppliesIn(tx, who))[kind] ?? 0)
    await tx
      .insert(supplyMovement)
      .values({ shopId: who.shopId, id, kind, delta, reason, by: who.name })
      .onConflictDoNothing()
    await tell(tx, { shop: who.shopId, job: null, head, kind: 'stock' })
  })
