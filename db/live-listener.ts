import pg from 'pg'
import { z } from 'zod'
import { environment } from './environment'
import { LIVE_CHANNEL, type LiveEvent } from './live'
import { log } from './log'

/** A connection that broke is opened again after this long, ms. */
const AGAIN_MS = 1000
/** Kept open so long after the last stream: the next one is often near. */
const IDLE_MS = 5000

const Event = z.object({
  shop: z.string(),
  job: z.string().nullable(),
  head: z.number(),
  kind: z.enum(['plan', 'entries', 'stock', 'films', 'solution', 'scan', 'yard', 'now']),
})

type Hear = (event: LiveEvent) => void
interface Listener {
  byShop: Map<string, Set<Hear>>
  client: pg.Client | null
}
const kept = globalThis as unknown as { cuirassListener?: Listener }
const listener = (): Listener => (kept.cuirassListener ??= { byShop: new Map(), client: null })

/** One connection of this process that listens, for all streams; open while anybody listens. */
async function listen(): Promise<void> {
  const own = listener()
  if (own.client || own.byShop.size === 0) return
  const client = new pg.Client({ connectionString: environment().DATABASE_URL, application_name: 'cuirass-live' })
  own.client = client
  const again = () => {
    if (own.client !== client) return
    own.client = null
    setTimeout(() => void listen(), AGAIN_MS).unref()
  }
  client.on('error', (err) => {
    log.warn({ part: 'live', err }, 'the listening connection broke')
    again()
  })
  client.on('end', again)
  client.on('notification', ({ payload }) => {
    const event = parsed(payload)
    if (event) for (const hear of own.byShop.get(event.shop) ?? []) hear(event)
  })
  try {
    await client.connect()
    await client.query(`listen ${LIVE_CHANNEL}`)
  } catch (err) {
    log.warn({ part: 'live', err }, 'nobody listens for changes yet')
    again()
  }
}

function parsed(payload: string | undefined): LiveEvent | null {
  try {
    const read = Event.safeParse(JSON.parse(payload ?? ''))
    return read.success ? read.data : null
  } catch {
    return null // not ours
  }
}

/** Hears of every change of a shop from now on; answers how to stop. */
export function subscribe(shopId: string, hear: Hear): () => void {
  const own = listener()
  const others = own.byShop.get(shopId) ?? new Set()
  own.byShop.set(shopId, others.add(hear))
  void listen()
  return () => {
    others.delete(hear)
    if (others.size === 0) own.byShop.delete(shopId)
    setTimeout(rest, IDLE_MS).unref()
  }
}

/** Closes the connection where nobody has listened for a while. */
function rest(): void {
  const own = listener()
  if (own.byShop.size > 0 || !own.client) return
  const { client } = own
  own.client = null
  void client.end().catch(() => {}) // it is gone already
}
