import { and, asc, eq } from 'drizzle-orm'
import { FilmSheet, type StockItem } from '@/core/film/schema'
import { guarded, type Tx, type Who } from '../client'
import { film, stockItem, stockMovement } from '../schema'

export async function rackIn(tx: Tx, who: Who): Promise<{ films: FilmSheet[]; stock: StockItem[] }> {
  const films = await tx.select().from(film).where(eq(film.shopId, who.shopId)).orderBy(asc(film.id))
  const stock = await tx.select().from(stockItem).where(eq(stockItem.shopId, who.shopId)).orderBy(asc(stockItem.label))
  return { films: films.map((f) => FilmSheet.parse(f.sheet)), stock: stock.map(({ shopId: _, ...s }) => s) }
}

export const rack = (who: Who) => guarded(who, 'read', (tx) => rackIn(tx, who))

export interface Receipt {
  id: string
  movementId: string
  filmId: string
  kind: 'roll' | 'rest'
  label: string
  lot: string
  widthMm: number
  lengthMm: number
}

/** A roll or rest put on the rack, with its first movement. A second arrival of the same id changes nothing. */
export const receiveStock = (who: Who, r: Receipt): Promise<'done' | 'again' | 'no_such_film' | 'label_taken'> =>
  guarded(who, 'stock', async (tx) => {
    const own = await tx.select({ id: film.id }).from(film).where(and(eq(film.shopId, who.shopId), eq(film.id, r.filmId))) // prettier-ignore
    if (own.length === 0) return 'no_such_film'
    const same = await tx.select({ id: stockItem.id }).from(stockItem).where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, r.id))) // prettier-ignore
    if (same.length > 0) return 'again'
    const label = await tx.select({ id: stockItem.id }).from(stockItem).where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.label, r.label))) // prettier-ignore
    if (label.length > 0) return 'label_taken'
    await tx.insert(stockItem).values({
      shopId: who.shopId,
      id: r.id,
      filmId: r.filmId,
      kind: r.kind,
      label: r.label,
      lot: r.lot,
      widthMm: r.widthMm,
    })
    await tx.insert(stockMovement).values({
      shopId: who.shopId,
      id: r.movementId,
      itemId: r.id,
      deltaMm: r.lengthMm,
      reason: 'received',
      by: who.name,
    })
    return 'done'
  })

/** A cut taken off a roll within a transaction. Throws the database's own check error when there is not enough. */
export async function cutStock(
  tx: Tx,
  who: Who,
  cut: { id: string; itemId: string; lengthMm: number; jobId: string },
): Promise<'done' | 'again' | 'no_such_stock'> {
  const item = await tx.select({ id: stockItem.id }).from(stockItem).where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, cut.itemId))) // prettier-ignore
  if (item.length === 0) return 'no_such_stock'
  const rows = await tx
    .insert(stockMovement)
    .values({
      shopId: who.shopId,
      id: cut.id,
      itemId: cut.itemId,
      deltaMm: -cut.lengthMm,
      reason: 'cut',
      jobId: cut.jobId,
      by: who.name,
    })
    .onConflictDoNothing()
    .returning({ id: stockMovement.id })
  return rows.length > 0 ? 'done' : 'again'
}

/** The constraint that a failed query ran into, if it was one. */
export const brokenConstraint = (error: unknown): string | null => {
  const cause =
    (error as { cause?: { constraint?: string } } | null)?.cause ?? (error as { constraint?: string } | null)
  return cause?.constraint ?? null
}
