import { sql } from 'drizzle-orm'
import {
  bigserial,
  boolean,
  customType,
  doublePrecision,
  check,
  foreignKey,
  index,
  integer,
  json,
  numeric,
  pgEnum,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import type { JobOutline } from '@/core/engines/schedule/job-outline'
import type { DamageSpan, FilmSheet } from '@/core/model/film/schema'
import type { LogPayload } from '@/core/model/log/schema'
import type { ShopSettings } from '@/core/model/shop/shop'
import type { Method } from '@/core/model/method/schema'
import type { Plan } from '@/core/model/plan/schema'
import type { LayoutInput, LayoutPlan } from '@/core/engines/roll/contract'
import type { Solution } from '@/core/model/catalogue/solutions'
import type { MeasuredVehicle } from '@/core/model/plan/vehicle-library'

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })
const mm = (name: string) => numeric(name, { precision: 12, scale: 3, mode: 'number' })

/* People: the four tables of the sign-in library, by its names, and its attempt counter. */
export const user = pgTable(
  'user',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    email: text('email').notNull().unique(),
    emailVerified: boolean('email_verified').notNull().default(false),
    image: text('image'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [
    check('user_name_length', sql`char_length(btrim(${t.name})) between 1 and 120`),
    check('user_email_length', sql`char_length(${t.email}) between 3 and 200`),
  ],
)
export const session = pgTable(
  'session',
  {
    id: text('id').primaryKey(),
    expiresAt: at('expires_at').notNull(),
    token: text('token').notNull().unique(),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
  },
  (t) => [index('session_user').on(t.userId)],
)
export const account = pgTable(
  'account',
  {
    id: text('id').primaryKey(),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: at('access_token_expires_at'),
    refreshTokenExpiresAt: at('refresh_token_expires_at'),
    scope: text('scope'),
    password: text('password'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [index('account_user').on(t.userId)],
)
export const verification = pgTable('verification', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: at('expires_at').notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
})
/** Failed tries at signing in, by person, by address, and by both together. */
export const signInTry = pgTable('sign_in_try', {
  key: text('key').primaryKey(),
  failures: integer('failures').notNull(),
  lastAt: at('last_at').notNull(),
})

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

const shopId = () =>
  uuid('shop_id')
    .notNull()
    .references(() => shop.id)

/** The shop's change number with which a row was written. */
const change = () => integer('change').notNull().default(0)

/** The shop's change number, counted under the row's lock, so that its order is the order of commits. */
export const shopChange = pgTable('shop_change', {
  shopId: shopId().primaryKey(),
  head: integer('head').notNull(),
})

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

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
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

/*
 * What takes long, solved once and kept by what it hangs on: the same panel in another job need not be solved again.
 */
export const solution = pgTable(
  'solution',
  {
    shopId: shopId(),
    kind: text('kind').$type<Solution['kind']>().notNull(),
    key: text('key').notNull(),
    /** Triangles, or moves: a coarser one never takes the place of a finer one. */
    fineness: integer('fineness').notNull(),
    value: json('value').$type<Solution['value']>().notNull(),
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
