import { sql } from 'drizzle-orm'
import {
  bigserial,
  doublePrecision,
  check,
  foreignKey,
  index,
  integer,
  json,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core'
import type { JobOutline } from '@/core/engines/schedule/job-outline'
import type { BoardPin } from '@/core/engines/schedule/pins'
import type { JobRecord } from '@/core/model/log/learned'
import type { Alert } from '@/core/model/finding/alert'
import type { LogPayload } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { at, bytea } from './columns'
import { member, shopId, change } from './shop'

/* Jobs: a head that points at its newest revision, the revisions, and the ledger of what happened. */
export const job = pgTable(
  'job',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    name: text('name').notNull(),
    vehicle: text('vehicle').notNull(),
    customerRef: text('customer_ref').notNull().default(''),
    head: integer('head').notNull(),
    /** Read off the newest reckoning, for the yard. */
    stage: text('stage').notNull(),
    stageState: text('stage_state').notNull(),
    waitsFor: text('waits_for').notNull(),
    waitsFacts: json('waits_facts').$type<Record<string, string | number>>().notNull(),
    recheckDueAt: text('recheck_due_at'),
    /** The work that is left on it, in a few blocks, for the board. */
    outline: json('outline').$type<JobOutline>(),
    /** What the yard tells first of it. */
    alerts: json('alerts').$type<Alert[]>().notNull().default([]),
    /** What it taught, once it was handed over. */
    record: json('record').$type<JobRecord>(),
    /** Work of this job that the shop has set to a moment of its own. */
    pins: json('pins').$type<BoardPin[]>().notNull().default([]),
    /**
     * The shop's change number when this job changed last; the yard's columns tell of the one they were read off at.
     */
    changes: integer('changes').notNull().default(0),
    yardOf: integer('yard_of').notNull().default(0),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.shopId, t.id] })],
)
export const revision = pgTable(
  'revision',
  {
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    number: integer('number').notNull(),
    basedOn: integer('based_on'),
    /** The revision whose content this one brings back. */
    restores: integer('restores'),
    /** The revision whose change this one takes back; taking back one that took back does it again. */
    undoes: integer('undoes'),
    summary: text('summary').notNull(),
    authorId: uuid('author_id'),
    author: text('author').notNull(),
    at: at('at').notNull().defaultNow(),
    plan: json('plan').$type<Plan>().notNull(),
    change: change(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.jobId, t.number] }),
    foreignKey({ columns: [t.shopId, t.jobId], foreignColumns: [job.shopId, job.id] }),
    foreignKey({ columns: [t.shopId, t.authorId], foreignColumns: [member.shopId, member.id] }),
  ],
)
export const ledger = pgTable(
  'ledger',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    seq: bigserial('seq', { mode: 'number' }).notNull(),
    jobId: uuid('job_id').notNull(),
    kind: text('kind').notNull(),
    payload: json('payload').$type<LogPayload>().notNull(),
    happenedAt: at('happened_at').notNull(),
    receivedAt: at('received_at').notNull().defaultNow(),
    byId: uuid('by_id'),
    by: text('by').notNull(),
    /** The plan's revision that stood when it came. */
    planRevision: integer('plan_revision'),
    /** The device it was made on, and that device's own count. */
    device: text('device'),
    n: integer('n'),
    /** How far that device's clock stood behind the server's when it sent this, s; null where it was not said. */
    skewSeconds: doublePrecision('skew_seconds'),
    change: change(),
  },
  (t) => [
    // What was used up is summed over all jobs of a shop, time after time.
    index('ledger_supplies')
      .on(t.shopId)
      .where(sql`${t.kind} = 'consumable_used'`),
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.jobId], foreignColumns: [job.shopId, job.id] }),
    foreignKey({ columns: [t.shopId, t.byId], foreignColumns: [member.shopId, member.id] }),
    index('ledger_job').on(t.shopId, t.jobId, t.seq),
    index('ledger_change').on(t.shopId, t.jobId, t.change),
  ],
)

/* Cuts that stand, by name: one name is cut once, however many tablets tick it. */
export const cutStanding = pgTable(
  'cut_standing',
  {
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    cutKey: text('cut_key').notNull(),
    entryId: uuid('entry_id').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.jobId, t.cutKey] }),
    foreignKey({ columns: [t.shopId, t.entryId], foreignColumns: [ledger.shopId, ledger.id] }),
  ],
)

/* Photos of what was found, made anew on arrival: no metadata, bounded size. */
export const photo = pgTable(
  'photo',
  {
    shopId: shopId(),
    id: uuid('id').notNull(),
    jobId: uuid('job_id').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    bytes: bytea('bytes').notNull(),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.id] }),
    foreignKey({ columns: [t.shopId, t.jobId], foreignColumns: [job.shopId, job.id] }),
    index('photo_job').on(t.shopId, t.jobId),
    check('photo_size', sql`octet_length(${t.bytes}) <= 3000000`),
  ],
)

/* Scans of single panels, cleaned and thinned before they come here: places and triangles, and where each lies on the panel. */
export const panelScan = pgTable(
  'panel_scan',
  {
    shopId: shopId(),
    jobId: uuid('job_id').notNull(),
    panelId: text('panel_id').notNull(),
    name: text('name').notNull(),
    triangles: integer('triangles').notNull(),
    bytes: bytea('bytes').notNull(),
    by: text('by').notNull(),
    at: at('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.shopId, t.jobId, t.panelId] }),
    foreignKey({ columns: [t.shopId, t.jobId], foreignColumns: [job.shopId, job.id] }),
    check('panel_scan_size', sql`octet_length(${t.bytes}) <= 6000000`),
  ],
)
