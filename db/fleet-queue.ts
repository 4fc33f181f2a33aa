import PgBoss from 'pg-boss'

/** What a worker is handed: where to find the layout that is asked for. */
export interface FleetTask {
  shopId: string
  id: string
}
export const FLEET_QUEUE = 'fleet-layout'
/** A task that is handed out for longer than this is handed out again, whatever became of its worker. */
const EXPIRE_SECONDS = 30 * 60
const TRIES = 3

const kept = globalThis as unknown as { cuirassQueue?: Promise<PgBoss> }

async function open(worker: boolean): Promise<PgBoss> {
  const connectionString = process.env.DATABASE_URL
  if (!connectionString) throw new Error('DATABASE_URL is not set')
  const boss = new PgBoss({ connectionString, max: worker ? 3 : 2, supervise: worker, schedule: false })
  boss.on('error', () => {}) // a broken connection is replaced at the next query
  await boss.start()
  await boss.createQueue(FLEET_QUEUE, { name: FLEET_QUEUE, retryLimit: TRIES, retryDelay: 0, expireInSeconds: EXPIRE_SECONDS }) // prettier-ignore
  return boss
}

/** The queue as this process uses it; kept over reloads in development. */
export const fleetQueue = ({ worker = false }: { worker?: boolean } = {}): Promise<PgBoss> =>
  (kept.cuirassQueue ??= open(worker))
export async function closeFleetQueue(): Promise<void> {
  const boss = await kept.cuirassQueue
  delete kept.cuirassQueue
  await boss?.stop({ graceful: false, close: true })
}
