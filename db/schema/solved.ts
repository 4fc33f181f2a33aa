import { sql } from 'drizzle-orm'
import {
  boolean,
  doublePrecision,
  check,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core'
import type { LayoutInput, LayoutPlan } from '@/core/engines/roll/contract'
import type { SettledBoard } from '@/core/engines/schedule/settled-board'
import type { Solution } from '@/core/model/catalogue/solutions'
import { at } from './columns'
import { shopId, change } from './shop'

/* Layouts of many vehicles at once: worked on by any number of worker processes, which a queue hands them to. */
export const fleetLayout = pgTable(
  'fleet_layout',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    request: json('request').$type<LayoutInput>().notNull(),
    /** Stages of straight cuts; null for any number. */
    stages: integer('stages'),
    state: text('state', { enum: ['queued', 'running', 'done', 'failed', 'cancelled'] })
      .notNull()
      .default('queued'),
    /** Counts the workers that took it up: only the last one may write. */
    attempt: integer('attempt').notNull().default(0),
    cancelAsked: boolean('cancel_asked').notNull().default(false),
    beatAt: at('beat_at'),
    share: doublePrecision('share').notNull().default(0),
    usedMm: doublePrecision('used_mm'),
    boundMm: doublePrecision('bound_mm'),
    result: json('result').$type<LayoutPlan>(),
    fault: text('fault'),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
    endedAt: at('ended_at'),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    index('fleet_layout_at').on(t.shopId, t.at),
    check('fleet_share', sql`${t.share} >= 0 and ${t.share} <= 1`),
    check('fleet_result', sql`(${t.state} = 'done') = (${t.result} is not null) or ${t.state} = 'cancelled'`),
  ],
)

/*
 * What takes long, solved once and kept by what it hangs on: the same panel in another job need not be solved again.
 */
export const solution = pgTable(
  'solution',
  {
    shopId: shopId(),
    kind: text('kind').$type<Solution['kind'] | 'board'>().notNull(),
    key: text('key').notNull(),
    /** Triangles, or moves: a coarser one never takes the place of a finer one. */
    fineness: integer('fineness').notNull(),
    value: json('value').$type<Solution['value'] | SettledBoard>().notNull(),
    /** The job it was solved for. */
    jobId: uuid('job_id'),
    by: text('by').notNull(),
    change: change(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.kind, t.key] }),
    index('solution_job').on(t.shopId, t.jobId, t.change),
    index('solution_at').on(t.shopId, t.at),
  ],
)
