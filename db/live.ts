import { sql } from 'drizzle-orm'
import type { LogRow } from '@/core/model/log/schema'
import type { Tx } from './client'

/** What changed in a shop: told to every page that shows it. `job`: null for what all jobs share. */
export interface LiveEvent {
  shop: string
  job: string | null
  /** The shop's change number then. */
  head: number
  kind: 'plan' | 'entries' | 'stock' | 'films' | 'solution' | 'scan' | 'yard' | 'shop' | 'now'
  /**
   * Of `entries`, where they change nothing but the ledger and are not too many: the rows themselves, so that nobody has
   * to ask for them.
   */
  entries?: readonly LogRow[]
}
export const LIVE_CHANNEL = 'cuirass_live'

/** PostgreSQL takes just under 8000 bytes in one notification. */
const MOST_BYTES = 7500

/**
 * Tells of a change within its transaction: nobody hears of what was not committed. Entries that do not fit are left
 * out.
 */
export async function tell(tx: Tx, event: LiveEvent): Promise<void> {
  const whole = JSON.stringify(event)
  const { entries: _, ...bare } = event
  const text = Buffer.byteLength(whole) <= MOST_BYTES ? whole : JSON.stringify(bare)
  await tx.execute(sql`select pg_notify(${LIVE_CHANNEL}, ${text})`)
}
