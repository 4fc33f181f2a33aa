import { desc, eq } from 'drizzle-orm'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { ShopSettings } from '@/core/model/shop/shop'
import { guarded, type Tx, type Who } from '../client'
import { tell } from '../live'
import { shop, shopSettings } from '../schema'
import { nextChange, type InShop } from './job-rows'
import { requestBoard, requestSettleAll } from './solutions'

/** What a shop says of itself, and which version that is; 0: it has not said anything yet. */
export interface ShopVersion {
  number: number
  settings: ShopSettings
}
/** One version in the shop's history. */
export interface ShopHistoryRow {
  number: number
  by: string
  at: string
}

export async function shopIn(tx: Tx, who: InShop): Promise<ShopVersion> {
  const [row] = await tx
    .select()
    .from(shopSettings)
    .where(eq(shopSettings.shopId, who.shopId))
    .orderBy(desc(shopSettings.number))
    .limit(1)
  if (row) return { number: row.number, settings: ShopSettings.parse(row.settings) }
  const [head] = await tx
    .select({ timeZone: shop.timeZone, currency: shop.currency })
    .from(shop)
    .where(eq(shop.id, who.shopId))
  return { number: 0, settings: { ...DEFAULT_SHOP, ...head } }
}

export const shopOf = (who: Who): Promise<ShopVersion & { history: ShopHistoryRow[] }> =>
  guarded(who, 'read', async (tx) => {
    const rows = await tx
      .select({ number: shopSettings.number, by: shopSettings.by, at: shopSettings.at })
      .from(shopSettings)
      .where(eq(shopSettings.shopId, who.shopId))
      .orderBy(desc(shopSettings.number))
      .limit(50)
    const history = rows.map((r) => ({ ...r, at: r.at.toISOString() }))
    return { ...(await shopIn(tx, who)), history }
  })

/** A new version of the shop, on the one that somebody saw; all open pages of the shop hear of it. */
export const saveShop = (
  who: Who,
  settings: ShopSettings,
  basedOn: number,
): Promise<{ number: number } | 'changed_meanwhile'> =>
  guarded(who, 'shop', async (tx) => {
    // Whoever holds the change number is alone: two versions cannot be the next one.
    const head = await nextChange(tx, who)
    const { number } = await shopIn(tx, who)
    if (number !== basedOn) return 'changed_meanwhile'
    await tx.insert(shopSettings).values({ shopId: who.shopId, number: number + 1, settings, by: who.name })
    await tx
      .update(shop)
      .set({ timeZone: settings.timeZone, currency: settings.currency })
      .where(eq(shop.id, who.shopId))
    await tell(tx, { shop: who.shopId, job: null, head, kind: 'shop' })
    // Its rules for edges change what is cut, and its guns how edges are heated.
    await requestSettleAll(tx, who)
    await requestBoard(tx, who)
    return { number: number + 1 }
  })
