import { foreignKey, integer, json, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core'
import type { MeasuredVehicle } from '@/core/model/plan/vehicle-library'
import { at } from './columns'
import { shopId } from './shop'

/* Vehicles measured before: a head, and every state it has been in. */
export const vehicle = pgTable(
  'vehicle',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    kind: text('kind').notNull(),
    head: integer('head').notNull(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] })],
)
export const vehicleRevision = pgTable(
  'vehicle_revision',
  {
    shopId: shopId(),
    vehicleId: uuid('vehicle_id').notNull(),
    number: integer('number').notNull(),
    summary: text('summary').notNull(),
    fromJob: uuid('from_job'),
    authorId: uuid('author_id'),
    author: text('author').notNull(),
    at: at('at').notNull().defaultNow(),
    measured: json('measured').$type<MeasuredVehicle>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.vehicleId, t.number] }),
    foreignKey({ columns: [t.shopId, t.vehicleId], foreignColumns: [vehicle.shopId, vehicle.id] }),
  ],
)
