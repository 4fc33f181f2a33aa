import { sql } from 'drizzle-orm'
import type { Tx } from './client'

/** What changed in a shop: told to every page that shows it. `job`: null for what all jobs share. */
export interface LiveEvent {
  shop: string
  job: string | null
  /** The shop's change number then. */
  head: number
  kind: 'plan' | 'entries' | 'stock' | 'films' | 'solution' | 'scan' | 'yard' | 'shop' | 'now'
}
export const LIVE_CHANNEL = 'cuirass_live'

/** Tells of a change within its transaction: nobody hears of what was not committed. */
export const tell = async (tx: Tx, event: LiveEvent): Promise<void> =>
  void (await tx.execute(sql`select pg_notify(${LIVE_CHANNEL}, ${JSON.stringify(event)})`))
