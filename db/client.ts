import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { sql } from 'drizzle-orm'
import pg from 'pg'
import * as schema from './schema'

export type Database = NodePgDatabase<typeof schema>
export type Tx = Parameters<Parameters<Database['transaction']>[0]>[0]

const kept = globalThis as unknown as { cuirassDb?: { db: Database; pool: pg.Pool } }

function open(): { db: Database; pool: pg.Pool } {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set')
  const pool = new pg.Pool({ connectionString: url, max: Number(process.env.DATABASE_POOL ?? 10) })
  pool.on('error', () => {}) // an idle connection that breaks is replaced at the next query
  return { db: drizzle(pool, { schema }), pool }
}

/** The one connection pool of this process; kept over reloads in development. */
export const database = (): Database => (kept.cuirassDb ??= open()).db
export const closeDatabase = async (): Promise<void> => {
  await kept.cuirassDb?.pool.end()
  delete kept.cuirassDb
}

export const ROLES = ['owner', 'lead', 'installer', 'desk'] as const
export type Role = (typeof ROLES)[number]

/** Who acts, in which shop, with what right. Made by `whoIs` only. */
export interface Who {
  readonly userId: string
  readonly memberId: string
  readonly shopId: string
  readonly role: Role
  readonly name: string
}

/** What a member may do. Everyone reads everything of their own shop. */
export const MAY = {
  plan: ['owner', 'lead'],
  newJob: ['owner', 'lead', 'desk'],
  log: ['owner', 'lead', 'installer'],
  stock: ['owner', 'lead'],
  people: ['owner'],
  read: ROLES,
  walkaround: ['owner', 'lead', 'desk'],
  film: ['owner', 'lead'],
  vehicles: ['owner', 'lead'],
  climate: ['owner', 'lead', 'installer'],
  photo: ['owner', 'lead', 'installer', 'desk'],
  tape: ['owner', 'lead', 'installer'],
  fleet: ['owner', 'lead'],
  scan: ['owner', 'lead', 'installer'],
  /** What was computed from the plan is kept by whoever has it open. */
  solve: ROLES,
} as const satisfies Record<string, readonly Role[]>
export type Right = keyof typeof MAY

export class Denied extends Error {
  constructor(readonly right: Right) {
    super(`may not ${right}`)
  }
}

/** One guarded transaction: the right is checked, then the database shows rows of this shop only. */
export function guarded<T>(who: Who, right: Right, work: (tx: Tx) => Promise<T>): Promise<T> {
  if (!(MAY[right] as readonly Role[]).includes(who.role)) return Promise.reject(new Denied(right))
  return database().transaction(async (tx) => {
    await tx.execute(
      sql`select set_config('cuirass.shop', ${who.shopId}, true), set_config('cuirass.user', ${who.userId}, true)`,
    )
    return work(tx)
  })
}

/** A transaction of a worker process, within the one shop that its job belongs to. */
export const inShop = <T>(shopId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  database().transaction(async (tx) => {
    await tx.execute(sql`select set_config('cuirass.shop', ${shopId}, true)`)
    return work(tx)
  })
