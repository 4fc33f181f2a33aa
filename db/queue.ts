import { log } from './log'
import { sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import type { Tx } from './client'
import type { Lack } from '@/core/model/catalogue/solutions'
import { environment } from './environment'

/** What a worker is handed: where to find the layout that is asked for. */
export interface FleetTask {
  shopId: string
  id: string
}
export const FLEET_QUEUE = 'fleet-layout'
/** Looks what a job lacks, and hands that on. */
export interface SettleTask {
  shopId: string
  jobId: string
  /** When it was asked for [s since 2024, in steps of ten]: the newest plan comes first. */
  since: number
}
/** Looks at every job of a shop: something changed that all of them share. */
export interface RackTask {
  shopId: string
  jobId: null
  since: number
}
export const SETTLE_QUEUE = 'settle'
/** Solves one thing that a job lacks. */
export interface SolveTask extends SettleTask {
  lack: Lack
}
export const SOLVE_QUEUE = 'solve'
/** Lays out the board of a shop. */
export interface BoardTask {
  shopId: string
}
export const BOARD_QUEUE = 'board'
/** How a worker's connection calls itself: while the process lives it is there, and no longer. */
export const WORKER_NAME = 'cuirass-worker'
/**
 * The queues there are; made by the owner's migrations. A task handed out for longer than its time is handed out
 * again.
 */
export const QUEUES: Record<string, Omit<PgBoss.Queue, 'name'>> = {
  [FLEET_QUEUE]: { retryLimit: 3, retryDelay: 0, expireInSeconds: 30 * 60 },
  // One look at a job waits at a time: it reads what stands when it begins.
  [SETTLE_QUEUE]: { policy: 'short', retryLimit: 3, retryDelay: 1, expireInSeconds: 30 },
  // One look at a shop's board waits at a time, as with a job.
  [BOARD_QUEUE]: { policy: 'short', retryLimit: 1, retryDelay: 1, expireInSeconds: 180 },
  // One solution is worked on once, however often it is asked for.
  [SOLVE_QUEUE]: { policy: 'stately', retryLimit: 2, retryDelay: 1, expireInSeconds: 180 },
}

const kept = globalThis as unknown as { cuirassQueue?: Promise<PgBoss> }

async function open(worker: boolean): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString: environment().DATABASE_URL,
    max: worker ? 4 : 2,
    supervise: worker,
    schedule: false,
    migrate: false,
    // Handed on to the connections as it stands: they see the tasks of all shops.
    ...({ options: '-c cuirass.queue=on' } as object),
  })
  // A broken connection is replaced at the next query.
  boss.on('error', (err) => log.warn({ part: 'queue', err }, 'the queue lost a connection'))
  await boss.start()
  return boss
}

/** The queue as this process uses it; kept over reloads in development. */
export function workQueue({ worker = false }: { worker?: boolean } = {}): Promise<PgBoss> {
  kept.cuirassQueue ??= open(worker).catch((error: unknown) => {
    // The next request tries again.
    delete kept.cuirassQueue
    throw error
  })
  return kept.cuirassQueue
}
export async function closeWorkQueue(): Promise<void> {
  const boss = await kept.cuirassQueue?.catch(() => null)
  delete kept.cuirassQueue
  await boss?.stop({ graceful: false, close: true })
}

/**
 * The queue's statements within a transaction of ours, so that a task and what it is about are written together or
 * not at all.
 */
export const within = (tx: Tx): PgBoss.Db => ({
  executeSql: async (text, values) => {
    // Every other part is the number of a value.
    const parts = text.split(/\$(\d+)/)
    const chunks = parts.map((part, i) => (i % 2 === 0 ? sql.raw(part) : sql`${sql.param(values[Number(part) - 1])}`))
    const { rows } = await tx.execute(sql.join(chunks))
    return { rows }
  },
})
