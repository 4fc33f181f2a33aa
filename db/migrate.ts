import { fileURLToPath } from 'node:url'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import PgBoss from 'pg-boss'
import { environment } from './environment'
import { settleAllTask } from './queries/solutions'
import { QUEUES } from './queue'

/** Tables whose rows the application may change after they were written; in all others it may only add and read. */
const MAY_UPDATE = [
  'shop',
  'member',
  'user',
  'session',
  'account',
  'verification',
  'sign_in_try',
  'tablet_pin',
  'shop_change',
  'film',
  'stock_item',
  'job',
  'vehicle',
  'fleet_layout',
  'panel_scan',
  'solution',
]
const MAY_DELETE = ['session', 'verification', 'sign_in_try', 'tablet_pin', 'cut_standing', 'panel_scan', 'solution']

/**
 * Applies what is not applied yet, in order, as the owner of the tables; then says anew what the application's role
 * may do.
 */
export async function migrateDatabase(): Promise<void> {
  const { DATABASE_URL, DATABASE_OWNER_URL } = environment()
  if (!DATABASE_OWNER_URL)
    throw new Error(
      'DATABASE_OWNER_URL is needed for migrations: the role that owns the tables, another than that of DATABASE_URL.',
    )
  const application = decodeURIComponent(new URL(DATABASE_URL).username)
  const pool = new pg.Pool({ connectionString: DATABASE_OWNER_URL, max: 1 })
  try {
    await refuseMighty(pool, application)
    await migrate(drizzle(pool), { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) })
    await makeQueues(DATABASE_OWNER_URL, await shopIds(pool))
    const statements = [...queueRules(await queueTables(pool)), ...grants(application)]
    // All at once, so that a server that runs beside it never stands without its rights.
    await pool.query(['begin', ...statements, 'commit'].join(';\n'))
  } finally {
    await pool.end()
  }
}

/** A role that owns the tables, or that row-level security does not hold, is no application's role. */
async function refuseMighty(pool: pg.Pool, application: string): Promise<void> {
  const { rows } = await pool.query<{ mighty: boolean; owner: boolean }>(
    `select (rolsuper or rolbypassrls) as mighty, rolname = current_user as owner from pg_roles where rolname = $1`,
    [application],
  )
  const [role] = rows
  if (!role) throw new Error(`The role of DATABASE_URL, ${application}, does not exist on this server.`)
  if (role.owner)
    throw new Error('DATABASE_URL and DATABASE_OWNER_URL name one role. The application needs one that owns nothing.')
  if (role.mighty)
    throw new Error(
      `The role of DATABASE_URL, ${application}, is a superuser or has BYPASSRLS; give the application another.`,
    )
  const { rows: owned } = await pool.query<{ n: string }>(
    `select count(*) as n from pg_class c join pg_namespace s on s.oid = c.relnamespace
     where s.nspname in ('public', 'pgboss') and c.relkind in ('r', 'p') and pg_get_userbyid(c.relowner) = $1`,
    [application],
  )
  if (Number(owned[0]?.n) > 0)
    throw new Error(
      `The role of DATABASE_URL, ${application}, owns tables. As a superuser: reassign owned by ` +
        `"${application}" to the owner, in this database.`,
    )
}

/** Of every shop: the rules that keep them apart hold the owner too, and are put aside for this one look. */
async function shopIds(pool: pg.Pool): Promise<string[]> {
  await pool.query('begin')
  await pool.query('alter table shop no force row level security')
  const { rows } = await pool.query<{ id: string }>('select id from shop')
  await pool.query('alter table shop force row level security')
  await pool.query('commit')
  return rows.map((row) => row.id)
}

/**
 * The queue makes its own tables; they too belong to the owner. What a new version solves in another way, the jobs of
 * these shops lack from now on: they are looked at without waiting for their next save.
 */
async function makeQueues(connectionString: string, shops: readonly string[]): Promise<void> {
  // Its connections see the tasks of all shops.
  const all = { options: '-c cuirass.queue=on' } as object
  const boss = new PgBoss({ connectionString, max: 1, supervise: false, schedule: false, ...all })
  await boss.start()
  for (const [name, options] of Object.entries(QUEUES)) await boss.createQueue(name, { name, ...options })
  for (const { name, data, options } of shops.map(settleAllTask)) await boss.send(name, data, options)
  await boss.stop({ graceful: false, close: true })
}

const queueTables = async (pool: pg.Pool): Promise<string[]> =>
  (
    await pool.query<{ name: string }>(
      `select distinct table_name as name from information_schema.columns where table_schema = 'pgboss' and column_name = 'data'`,
    )
  ).rows.map((row) => row.name)

/** Of what is queued a shop sees its own; the queue's own connections say that they are. */
const queueRules = (tables: readonly string[]): string[] =>
  tables.flatMap((table) => {
    const own = `coalesce(current_setting('cuirass.queue', true), '') = 'on' or data ->> 'shopId' = current_shop()::text`
    return [
      `alter table pgboss."${table}" enable row level security`,
      `alter table pgboss."${table}" force row level security`,
      `drop policy if exists own_shop on pgboss."${table}"`,
      `create policy own_shop on pgboss."${table}" using (${own}) with check (${own})`,
    ]
  })

function grants(application: string): string[] {
  const role = `"${application.replaceAll('"', '""')}"`
  return [
    `revoke all on all tables in schema public from ${role}`,
    `grant usage on schema public to ${role}`,
    `grant select, insert on all tables in schema public to ${role}`,
    ...MAY_UPDATE.map((table) => `grant update on public."${table}" to ${role}`),
    ...MAY_DELETE.map((table) => `grant delete on public."${table}" to ${role}`),
    `grant usage, select on all sequences in schema public to ${role}`,
    `grant usage on schema pgboss to ${role}`,
    `grant select, insert, update, delete on all tables in schema pgboss to ${role}`,
  ]
}
