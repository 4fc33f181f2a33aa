import pg from 'pg'
import { z } from 'zod'
import type { LogRow } from '@/core/model/log/schema'
import { environment } from './environment'
import { LIVE_CHANNEL, type LiveEvent } from './live'
import { log } from './log'

/** Kept open so long after the last stream: the next one is often near. */
const IDLE_MS = 5000

const Event = z.object({
  shop: z.string(),
  job: z.string().nullable(),
  head: z.number(),
  kind: z.enum(['plan', 'entries', 'stock', 'films', 'solution', 'scan', 'yard', 'shop', 'now']),
  // Written by this application alone, as it writes its ledger.
  entries: z.array(z.custom<LogRow>((row) => typeof row === 'object' && row !== null && 'id' in row)).optional(),
})

interface Subscriber {
  shopId: string
  hear: (event: LiveEvent) => void
  /** The connection broke: changes may have been missed since. */
  lost: () => void
}
interface Listener {
  subscribers: Set<Subscriber>
  client: Promise<pg.Client> | null
}
const kept = globalThis as unknown as { cuirassListener?: Listener }
const listener = (): Listener => (kept.cuirassListener ??= { subscribers: new Set(), client: null })

/** The one connection of this process that listens, for all streams. Throws where it cannot be had. */
function connection(): Promise<pg.Client> {
  const own = listener()
  own.client ??= open().catch((error: unknown) => {
    own.client = null
    throw error
  })
  return own.client
}

async function open(): Promise<pg.Client> {
  const own = listener()
  const client = new pg.Client({ connectionString: environment().DATABASE_URL, application_name: 'cuirass-live' })
  const broke = () => {
    own.client = null
    for (const subscriber of [...own.subscribers]) subscriber.lost()
  }
  client.on('error', (err) => {
    log.warn({ part: 'live', err }, 'the listening connection broke')
    broke()
  })
  client.on('notification', ({ payload }) => {
    const event = parsed(payload)
    for (const subscriber of own.subscribers) if (subscriber.shopId === event?.shop) subscriber.hear(event)
  })
  await client.connect()
  await client.query(`listen ${LIVE_CHANNEL}`)
  return client
}

function parsed(payload: string | undefined): LiveEvent | null {
  try {
    const read = Event.safeParse(JSON.parse(payload ?? ''))
    if (!read.success) return null
    const { entries, ...event } = read.data
    return { ...event, ...(entries ? { entries } : {}) }
  } catch {
    return null // not ours
  }
}

/**
 * Hears of every change of a shop that is committed once this has answered, until the connection is lost; answers how to
 * stop. Throws where the database cannot be listened to.
 */
export async function subscribe(subscriber: Subscriber): Promise<() => void> {
  const own = listener()
  own.subscribers.add(subscriber)
  const stop = () => {
    own.subscribers.delete(subscriber)
    setTimeout(() => void rest(), IDLE_MS).unref()
  }
  try {
    await connection()
  } catch (error) {
    stop()
    throw error
  }
  return stop
}

/** Closes the connection where nobody has listened for a while. */
async function rest(): Promise<void> {
  const own = listener()
  if (own.subscribers.size > 0 || !own.client) return
  const { client } = own
  own.client = null
  await (await client).end().catch(() => {}) // it is gone already
}
