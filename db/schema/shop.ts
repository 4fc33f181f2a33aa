import { sql } from 'drizzle-orm'
import {
  boolean,
  doublePrecision,
  check,
  index,
  integer,
  json,
  pgEnum,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import type { Method } from '@/core/model/method/schema'
import type { ShopSettings } from '@/core/model/shop/shop'
import { at } from './columns'
import { user } from './people'

/* The shop and its members. */
export const role = pgEnum('role', ['owner', 'lead', 'installer', 'desk'])
export const shop = pgTable('shop', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  town: text('town').notNull().default(''),
  currency: text('currency').notNull().default('EUR'),
  /** In which the shop's clocks are read; times are stored in UTC. */
  timeZone: text('time_zone').notNull().default('UTC'),
  isDemo: boolean('is_demo').notNull().default(false),
  /** The method that a new job starts with; the careful school where none is set. */
  method: json('method').$type<Method>(),
})
/** What a shop says of itself, version by version: hours, bays, people, guns, money. */
export const shopSettings = pgTable(
  'shop_settings',
  {
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    number: integer('number').notNull(),
    settings: json('settings').$type<ShopSettings>().notNull(),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.number] })],
)
export const member = pgTable(
  'member',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    shopId: uuid('shop_id')
      .notNull()
      .references(() => shop.id),
    userId: text('user_id')
      .notNull()
      .unique()
      .references(() => user.id, { onDelete: 'cascade' }),
    role: role('role').notNull(),
    lengthUnit: text('length_unit', { enum: ['mm', 'cm', 'in'] })
      .notNull()
      .default('mm'),
    tempUnit: text('temp_unit', { enum: ['C', 'F'] })
      .notNull()
      .default('C'),
    locale: text('locale', { enum: ['en-GB', 'en-US'] })
      .notNull()
      .default('en-GB'),
    /** Which link to their calendar holds; 0: none was made, or it was taken back. */
    calendar: integer('calendar').notNull().default(0),
    /** How many links were made: none is ever the same again. */
    calendarsMade: integer('calendars_made').notNull().default(0),
  },
  (t) => [index('member_shop').on(t.shopId), unique('member_shop_id').on(t.shopId, t.id)],
)

export const shopId = () =>
  uuid('shop_id')
    .notNull()
    .references(() => shop.id)

/** The shop's change number with which a row was written. */
export const change = () => integer('change').notNull().default(0)

/** The shop's change number, counted under the row's lock, so that its order is the order of commits. */
export const shopChange = pgTable('shop_change', {
  shopId: shopId().primaryKey(),
  head: integer('head').notNull(),
})

/* The shop's air as it was read. */
export const climateReading = pgTable(
  'climate_reading',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    airC: doublePrecision('air_c').notNull(),
    humidity: doublePrecision('humidity'),
    surfaceC: doublePrecision('surface_c'),
    by: text('by').notNull(),
    at: at('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    index('climate_at').on(t.shopId, t.at),
    check('climate_humidity', sql`${t.humidity} > 0 and ${t.humidity} <= 1`),
  ],
)
