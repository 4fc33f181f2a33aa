import { and, asc, eq, inArray } from 'drizzle-orm'
import { upgradeSheet } from '@/core/model/film/upgrade'
import { FilmSheet, MOST_STRIPS, type DamageSpan, type StockItem, type StripTest } from '@/core/model/film/schema'
import { guarded, type Tx, type Who } from '../client'
import { tell } from '../live'
import { film, stockItem, stockMovement } from '../schema'
import { nextChange, type InShop } from './job-rows'
import { requestSettleAll } from './solutions'

export interface RackFilm {
  sheet: FilmSheet
  sold: boolean
  version: number
}

/** Films on sale, and what is on the shelf. */
export async function rackIn(
  tx: Tx,
  who: InShop,
): Promise<{ films: FilmSheet[]; stock: StockItem[]; all: RackFilm[] }> {
  const rows = await tx.select().from(film).where(eq(film.shopId, who.shopId)).orderBy(asc(film.id))
  const stock = await tx.select().from(stockItem).where(eq(stockItem.shopId, who.shopId)).orderBy(asc(stockItem.label))
  const all = rows.map((f) => ({ sheet: FilmSheet.parse(upgradeSheet(f.sheet)), sold: f.sold, version: f.version }))
  return {
    films: all.filter((f) => f.sold).map((f) => f.sheet),
    stock: stock.map(({ shopId: _s, change: _c, ...s }) => s),
    all,
  }
}

export const rack = (who: Who) => guarded(who, 'read', (tx) => rackIn(tx, who))

/**
 * A film's sheet put on the rack or changed; `basedOn` 0 for one that is new. Old jobs keep the sheet they were made
 * with.
 */
export const saveFilm = (
  who: Who,
  sheet: FilmSheet,
  basedOn: number,
): Promise<'done' | 'id_taken' | 'changed_meanwhile'> =>
  guarded(who, 'film', async (tx) => {
    const key = and(eq(film.shopId, who.shopId), eq(film.id, sheet.id))
    if (basedOn === 0) {
      const rows = await tx
        .insert(film)
        .values({ shopId: who.shopId, id: sheet.id, sheet })
        .onConflictDoNothing()
        .returning({ id: film.id })
      if (rows.length > 0) await rackChanged(tx, who, 'films')
      return rows.length > 0 ? 'done' : 'id_taken'
    }
    const rows = await tx
      .update(film)
      .set({ sheet, version: basedOn + 1 })
      .where(and(key, eq(film.version, basedOn)))
      .returning({ id: film.id })
    if (rows.length > 0) await rackChanged(tx, who, 'films')
    return rows.length > 0 ? 'done' : 'changed_meanwhile'
  })

/** Whether a film is still sold: one that is not can be read in old jobs, and not chosen for new ones. */
export const setSold = (who: Who, id: string, sold: boolean): Promise<'done' | 'no_such_film'> =>
  guarded(who, 'film', async (tx) => {
    const rows = await tx
      .update(film)
      .set({ sold })
      .where(and(eq(film.shopId, who.shopId), eq(film.id, id)))
      .returning({ id: film.id })
    if (rows.length > 0) await rackChanged(tx, who, 'films')
    return rows.length > 0 ? 'done' : 'no_such_film'
  })

/** Many sheets at once, all or none: those known are changed, the others added. */
export const importSheets = (who: Who, sheets: readonly FilmSheet[]): Promise<{ added: number; changed: number }> =>
  guarded(who, 'film', async (tx) => {
    let added = 0
    for (const sheet of sheets) {
      const [row] = await tx
        .select({ version: film.version })
        .from(film)
        .where(and(eq(film.shopId, who.shopId), eq(film.id, sheet.id)))
        .for('update')
      if (!row) added++
      await tx
        .insert(film)
        .values({ shopId: who.shopId, id: sheet.id, sheet })
        .onConflictDoUpdate({ target: [film.shopId, film.id], set: { sheet, version: (row?.version ?? 0) + 1 } })
    }
    await rackChanged(tx, who, 'films')
    return { added, changed: sheets.length - added }
  })

/** Stretches of a roll or rest that cannot be used. */
export const setDamage = (who: Who, itemId: string, damage: DamageSpan[]): Promise<'done' | 'no_such_stock'> =>
  guarded(who, 'stock', async (tx) => {
    const rows = await tx
      .update(stockItem)
      .set({ damage })
      .where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, itemId)))
      .returning({ id: stockItem.id })
    if (rows.length > 0) await rackChanged(tx, who, 'stock', itemId)
    return rows.length > 0 ? 'done' : 'no_such_stock'
  })

/** A strip test put down once on the roll it was cut from, however often it arrives. */
export const addStrip = (who: Who, itemId: string, strip: StripTest): Promise<'done' | 'no_such_stock' | 'too_many'> =>
  guarded(who, 'strip', async (tx) => {
    const own = and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, itemId))
    const [row] = await tx.select({ strips: stockItem.strips }).from(stockItem).where(own).for('update')
    if (!row) return 'no_such_stock'
    if (row.strips.some((s) => s.id === strip.id)) return 'done'
    if (row.strips.length >= MOST_STRIPS) return 'too_many'
    await tx
      .update(stockItem)
      .set({ strips: [...row.strips, strip] })
      .where(own)
    await rackChanged(tx, who, 'stock', itemId)
    return 'done'
  })

/** Rolls and rests that these movements touched stand changed; every page that shows the rack hears of it. */
export async function stockChanged(tx: Tx, who: Who, head: number, movementIds: readonly string[]): Promise<void> {
  const touched = tx
    .select({ id: stockMovement.itemId })
    .from(stockMovement)
    .where(and(eq(stockMovement.shopId, who.shopId), inArray(stockMovement.id, [...movementIds])))
  await tx
    .update(stockItem)
    .set({ change: head })
    .where(and(eq(stockItem.shopId, who.shopId), inArray(stockItem.id, touched)))
  await tell(tx, { shop: who.shopId, job: null, head, kind: 'stock' })
}

/** The rack changed: layouts of every job may hang on it. */
async function rackChanged(tx: Tx, who: Who, kind: 'stock' | 'films', itemId: string | null = null): Promise<void> {
  const head = await nextChange(tx, who)
  if (itemId)
    await tx
      .update(stockItem)
      .set({ change: head })
      .where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, itemId)))
  await tell(tx, { shop: who.shopId, job: null, head, kind })
  await requestSettleAll(tx, who)
}

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
    const own = await tx
      .select({ id: film.id })
      .from(film)
      .where(and(eq(film.shopId, who.shopId), eq(film.id, r.filmId)))
    if (own.length === 0) return 'no_such_film'
    const same = await tx
      .select({ id: stockItem.id })
      .from(stockItem)
      .where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, r.id)))
    if (same.length > 0) return 'again'
    const label = await tx
      .select({ id: stockItem.id })
      .from(stockItem)
      .where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.label, r.label)))
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
      byId: who.memberId,
      by: who.name,
    })
    await rackChanged(tx, who, 'stock', r.id)
    return 'done'
  })

/** A cut taken off a roll within a transaction. Throws the database's own check error when there is not enough. */
export async function cutStock(
  tx: Tx,
  who: Who,
  cut: { id: string; itemId: string; lengthMm: number; jobId: string },
): Promise<'done' | 'again' | 'no_such_stock'> {
  const item = await tx
    .select({ id: stockItem.id })
    .from(stockItem)
    .where(and(eq(stockItem.shopId, who.shopId), eq(stockItem.id, cut.itemId)))
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
      byId: who.memberId,
      by: who.name,
    })
    .onConflictDoNothing()
    .returning({ id: stockMovement.id })
  return rows.length > 0 ? 'done' : 'again'
}

/** A cut taken back within a transaction: its length goes back on its roll. */
export async function restoreStock(
  tx: Tx,
  who: Who,
  back: { id: string; itemId: string; lengthMm: number; jobId: string },
): Promise<'done' | 'again'> {
  const rows = await tx
    .insert(stockMovement)
    .values({
      shopId: who.shopId,
      id: back.id,
      itemId: back.itemId,
      deltaMm: back.lengthMm,
      reason: 'correction',
      jobId: back.jobId,
      byId: who.memberId,
      by: who.name,
    })
    .onConflictDoNothing()
    .returning({ id: stockMovement.id })
  return rows.length > 0 ? 'done' : 'again'
}
