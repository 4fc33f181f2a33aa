import { sql } from 'drizzle-orm'
import {
  boolean,
  doublePrecision,
  check,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import type { SupplyKind } from '@/core/model/edge/supply-data'
import type { DamageSpan, FilmSheet, StripTest } from '@/core/model/film/schema'
import { at, mm } from './columns'
import { member, shopId, change } from './shop'

/* The rack. */
export const film = pgTable(
  'film',
  {
    shopId: shopId(),
    id: text('id').notNull(),
    sheet: json('sheet').$type<FilmSheet>().notNull(),
    sold: boolean('sold').notNull().default(true),
    /** Counts its changes: an edit of an older one is refused. */
    version: integer('version').notNull().default(1),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] })],
)
export const stockItem = pgTable(
  'stock_item',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    filmId: text('film_id').notNull(),
    kind: text('kind', { enum: ['roll', 'rest'] }).notNull(),
    label: text('label').notNull(),
    lot: text('lot').notNull(),
    widthMm: mm('width_mm').notNull(),
    /** Kept by the database as the sum of the movements. */
    leftMm: mm('left_mm').notNull().default(0),
    /** Stretches that cannot be used, from the core end. */
    strips: json('strips').$type<StripTest[]>().notNull().default([]),
    damage: json('damage').$type<DamageSpan[]>().notNull().default([]),
    change: change(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.filmId], foreignColumns: [film.shopId, film.id] }),
    unique('stock_item_label').on(t.shopId, t.label),
    check('stock_never_below_zero', sql`${t.leftMm} >= 0`),
    check('stock_width', sql`${t.widthMm} > 0`),
  ],
)
export const stockMovement = pgTable(
  'stock_movement',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    itemId: uuid('item_id').notNull(),
    deltaMm: mm('delta_mm').notNull(),
    reason: text('reason', { enum: ['received', 'cut', 'correction'] }).notNull(),
    jobId: uuid('job_id'),
    /** Who, by id; the name beside it is as it was then. */
    byId: uuid('by_id'),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.byId], foreignColumns: [member.shopId, member.id] }),
    foreignKey({ columns: [t.shopId, t.itemId], foreignColumns: [stockItem.shopId, stockItem.id] }),
    index('movement_item').on(t.shopId, t.itemId),
  ],
)

/* Tapes, blades and the like: what came in and what was counted. What was used stands in the ledger. */
export const supplyMovement = pgTable(
  'supply_movement',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    kind: text('kind').$type<SupplyKind>().notNull(),
    /** Metres of tape, or pieces. */
    delta: doublePrecision('delta').notNull(),
    reason: text('reason', { enum: ['received', 'counted'] }).notNull(),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] }), index('supply_kind').on(t.shopId, t.kind)],
)
