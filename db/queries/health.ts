import { sql } from 'drizzle-orm'
import { acting } from '../client'
import { FLEET_QUEUE, WORKER_NAME } from '../queue'

export interface Health {
  ok: boolean
  database: 'up' | 'down'
  /** Worker processes connected to the database. */
  workers: number
  /** Layouts of fleets that wait for one. */
  waiting: number
}

/** Whether the database answers, and whether what waits has somebody to do it. */
export async function health(): Promise<Health> {
  try {
    return await acting({}, async (tx) => {
      await tx.execute(sql`select set_config('cuirass.queue', 'on', true)`)
      const { rows } = await tx.execute<{ workers: string; waiting: string }>(sql`
        select
          (select count(*) from pg_stat_activity where datname = current_database() and application_name = ${WORKER_NAME}) as workers,
          (select count(*) from pgboss.job where name = ${FLEET_QUEUE} and state in ('created', 'retry')) as waiting`)
      const [workers, waiting] = [Number(rows[0]?.workers ?? 0), Number(rows[0]?.waiting ?? 0)]
      return { ok: workers > 0 || waiting === 0, database: 'up', workers, waiting }
    })
  } catch {
    return { ok: false, database: 'down', workers: 0, waiting: 0 } // why is for the log of the database, not for strangers
  }
}
