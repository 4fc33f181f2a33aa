import { log } from './log'
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { sql } from 'drizzle-orm'
import pg from 'pg'
import { cleanDatabaseError } from './errors'
import { environment } from './environment'
import { MAY, type Right, type Role } from '@/core/model/rights/rights'
import * as schema from './schema'

export { MAY, may, ROLES, type Right, type Role } from '@/core/model/rights/rights'
export type Database = NodePgDatabase<typeof schema>
export type Tx = Parameters<Parameters<Database['transaction']>[0]>[0]

/**
 * How long a request waits for a row that another holds, for one statement, for a connection, and idles in a
 * transaction; ms.
 */
export const WAITS = { lock: 2500, statement: 20_000, connection: 4000, idle: 15_000 } as const
const settings = (extra: Record<string, string> = {}): string =>
  Object.entries({
    lock_timeout: WAITS.lock,
    statement_timeout: WAITS.statement,
    idle_in_transaction_session_timeout: WAITS.idle,
    ...extra,
  })
    .map(([name, value]) => `-c ${name}=${value}`)
    .join(' ')

const kept = globalThis as unknown as {
  cuirassDb?: { db: Database; pool: pg.Pool }
  cuirassDoorDb?: { db: Database; pool: pg.Pool }
}

function open(size: number, extra: Record<string, string> = {}): { db: Database; pool: pg.Pool } {
  const pool = new pg.Pool({
    connectionString: environment().DATABASE_URL,
    max: size,
    connectionTimeoutMillis: WAITS.connection,
    options: settings(extra),
  })
  // An idle connection that breaks is replaced at the next query.
  pool.on('error', (err) => log.warn({ part: 'database', err }, 'an idle connection broke'))
  return { db: drizzle(pool, { schema }), pool }
}

/** The one connection pool of this process; kept over reloads in development. */
export const database = (): Database => (kept.cuirassDb ??= open(environment().DATABASE_POOL)).db
/**
 * The door's own few connections: only they see users, sessions and accounts of everybody, and whose member a user
 * is.
 */
export const doorDatabase = (): Database => (kept.cuirassDoorDb ??= open(6, { 'cuirass.door': 'on' })).db
export const closeDatabase = async (): Promise<void> => {
  await Promise.all([kept.cuirassDb?.pool.end(), kept.cuirassDoorDb?.pool.end()])
  delete kept.cuirassDb
  delete kept.cuirassDoorDb
}

/** Who acts, in which shop, with what right. Made by `whoIs` only. */
export interface Who {
  readonly userId: string
  readonly memberId: string
  readonly shopId: string
  readonly role: Role
  readonly name: string
}

export class Denied extends Error {
  constructor(readonly right: Right) {
    super(`may not ${right}`)
  }
}

/**
 * A transaction that acts for somebody in a shop; what the database refuses comes out without the values it was
 * given.
 */
export async function acting<T>(as: { shopId?: string; userId?: string }, work: (tx: Tx) => Promise<T>): Promise<T> {
  try {
    return await database().transaction(async (tx) => {
      await tx.execute(
        sql`select set_config('cuirass.shop', ${as.shopId ?? ''}, true), set_config('cuirass.user', ${as.userId ?? ''}, true)`,
      )
      return work(tx)
    })
  } catch (error) {
    throw cleanDatabaseError(error)
  }
}

/** One guarded transaction: the right is checked, then the database shows rows of this shop only. */
export function guarded<T>(who: Who, right: Right, work: (tx: Tx) => Promise<T>): Promise<T> {
  if (!(MAY[right] as readonly Role[]).includes(who.role)) return Promise.reject(new Denied(right))
  return acting(who, work)
}

/** A transaction of a worker process, within the one shop that its job belongs to. */
export const inShop = <T>(shopId: string, work: (tx: Tx) => Promise<T>): Promise<T> => acting({ shopId }, work)
