import { log } from '@/db/log'
import { hostname } from 'node:os'
import { Worker } from 'node:worker_threads'
import pg from 'pg'
import type { Job } from 'pg-boss'
import { closeDatabase } from '@/db/client'
import { environment } from '@/db/environment'
import { cleanDatabaseError } from '@/db/errors'
import {
  BOARD_QUEUE,
  closeWorkQueue,
  FLEET_QUEUE,
  SETTLE_QUEUE,
  SOLVE_QUEUE,
  WORKER_NAME,
  workQueue,
  type BoardTask,
  type FleetTask,
  type RackTask,
  type SettleTask,
  type SolveTask,
} from '@/db/queue'
import { beatFleet, endFleet, takeFleet } from '@/db/queries/fleet'
import { endSolvers, layOutBoard, settleJob, solveOne } from './settling'
import type { SolveAsk, SolveNews } from './solve'

/** How often progress is written and cancelling is looked for, and how often orphaned work is looked for, ms. */
const BEAT_MS = 400
const ORPHAN_MS = 2000
const POLL_SECONDS = 0.5
/** A shop whose layout is being worked on here waits this long before its next one is offered again. */
const NEXT_TURN_SECONDS = 1
const name = `${hostname()}/${process.pid}`

/**
 * One worker process; any number may run. While it works on a layout it holds a lock that the database lets go of when
 * the process dies, so that the others see at once whose work is orphaned and take it up.
 */
const guard = new pg.Client({
  connectionString: environment().DATABASE_URL,
  application_name: WORKER_NAME,
  options: '-c cuirass.queue=on',
})
guard.on('error', () => {
  // Without its lock a worker must not go on; whoever started it starts another.
  log.fatal({ part: 'worker' }, 'the worker lost its database')
  process.exit(1)
})
await guard.connect()
const boss = await workQueue({ worker: true })
const lockKey = `hashtextextended($1, 20)`
const mine = new Set<string>()
/** Shops that have a layout in work here: one each, so that a long one holds up nobody else's. */
const shops = new Set<string>()

async function work(jobId: string, task: FleetTask): Promise<void> {
  mine.add(jobId)
  await guard.query(`select pg_advisory_lock(${lockKey})`, [jobId])
  try {
    const taken = await takeFleet(task)
    if (!taken) return
    const flag = new Int32Array(new SharedArrayBuffer(4))
    const at: { share: number; usedMm: number | null; boundMm: number | null } = {
      share: 0,
      usedMm: null,
      boundMm: null,
    }
    const ask: SolveAsk = { request: taken.request, stages: taken.stages, flag }
    const thread = new Worker(new URL('./solve-thread.mjs', import.meta.url), { workerData: ask })
    let beating = false
    const beat = setInterval(() => {
      if (beating) return
      beating = true
      void beatFleet(task, taken.attempt, at)
        .then((go) => {
          if (go !== 'on') Atomics.store(flag, 0, go === 'cancel' ? 1 : 2)
        })
        .catch((err: unknown) => log.warn({ part: 'worker', job: task.id, err }, 'no beat came through'))
        .finally(() => (beating = false))
    }, BEAT_MS)
    const end = await new Promise<Extract<SolveNews, { kind: 'done' | 'fault' }>>((resolve) => {
      thread.on('message', (news: SolveNews) => {
        if (news.kind === 'tick') at.share = Math.min(1, news.share)
        else if (news.kind === 'better') Object.assign(at, { usedMm: news.usedMm, boundMm: news.boundMm })
        else resolve(news)
      })
      thread.on('error', (error) => {
        log.error({ part: 'worker', job: task.id, err: error }, 'the solver broke')
        resolve({ kind: 'fault', code: 'solver_ended' })
      })
      thread.on('exit', () => resolve({ kind: 'fault', code: 'solver_ended' }))
    })
    clearInterval(beat)
    await thread.terminate()
    const asked = Atomics.load(flag, 0)
    if (asked === 2) return
    // Cancelled after a plan was there: the plan is kept and said to be cut short.
    if (end.kind === 'fault') await endFleet(task, taken.attempt, { state: 'failed', fault: end.code })
    else await endFleet(task, taken.attempt, { state: asked === 1 ? 'cancelled' : 'done', result: end.plan })
  } finally {
    mine.delete(jobId)
    await guard.query(`select pg_advisory_unlock(${lockKey})`, [jobId])
  }
}

/** One layout of each shop at a time: a second one of the same shop goes back into the line. */
async function inTurn({ id, data }: Job<FleetTask>): Promise<void> {
  if (shops.has(data.shopId)) {
    await boss.send(FLEET_QUEUE, data, { startAfter: NEXT_TURN_SECONDS, priority: -1 })
    return
  }
  shops.add(data.shopId)
  try {
    await work(id, data)
  } catch (error) {
    throw cleanDatabaseError(error)
  } finally {
    shops.delete(data.shopId)
  }
}

/** Work that was handed out and whose worker no longer holds its lock goes back into the queue. */
async function adopt(): Promise<void> {
  const { rows } = await guard.query<{ id: string }>(
    `select id from pgboss.job where name = $1 and state = 'active' and started_on < now() - interval '2 seconds'`,
    [FLEET_QUEUE],
  )
  for (const { id } of rows) {
    if (mine.has(id)) continue
    const { rows: got } = await guard.query<{ ok: boolean }>(`select pg_try_advisory_lock(${lockKey}) as ok`, [id])
    if (!got[0]?.ok) continue
    await boss.fail(FLEET_QUEUE, id, { why: 'worker_gone', by: name })
    await guard.query(`select pg_advisory_unlock(${lockKey})`, [id])
  }
}

for (let i = 0; i < environment().LAYOUTS_AT_ONCE; i++)
  await boss.work<FleetTask>(
    FLEET_QUEUE,
    { batchSize: 1, pollingIntervalSeconds: POLL_SECONDS, includeMetadata: false },
    async ([job]) => {
      if (job) await inTurn(job)
    },
  )
for (let i = 0; i < environment().SOLVERS; i++) {
  const options = { batchSize: 1, pollingIntervalSeconds: POLL_SECONDS }
  await boss.work<SettleTask | RackTask>(SETTLE_QUEUE, options, async ([task]) => {
    if (task) await clean(settleJob(task.data))
  })
  await boss.work<SolveTask>(SOLVE_QUEUE, { ...options, priority: true }, async ([task]) => {
    if (task) await clean(solveOne(task.data, name))
  })
}
await boss.work<BoardTask>(BOARD_QUEUE, { batchSize: 1, pollingIntervalSeconds: POLL_SECONDS }, async ([task]) => {
  if (task) await clean(layOutBoard(task.data, name))
})
/** What the queue keeps of a failure names no values. */
async function clean(work: Promise<void>): Promise<void> {
  try {
    await work
  } catch (error) {
    log.error({ part: 'worker', err: error }, 'a solution was not made')
    throw cleanDatabaseError(error)
  }
}
let adopting = false
const watch = setInterval(() => {
  if (adopting) return
  adopting = true
  void adopt()
    .catch((err: unknown) => log.warn({ part: 'worker', err }, 'orphans could not be looked for'))
    .finally(() => (adopting = false))
}, ORPHAN_MS)

let ending = false
async function end(): Promise<void> {
  if (ending) return
  ending = true
  clearInterval(watch)
  await endSolvers().catch(() => {})
  await closeWorkQueue().catch(() => {})
  await guard.end().catch(() => {})
  await closeDatabase().catch(() => {})
  process.exit(0)
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end())
console.log(`ready ${name}`)
