import { inArray, sql } from 'drizzle-orm'
import { doorDatabase } from './client'
import { environment } from './environment'
import { signInTry } from './schema'

/** Failures are forgotten this long after the last one. */
const WINDOW_MS = 10 * 60_000
/** The first wait after the free tries; each further failure doubles it. */
const FIRST_WAIT_S = 15
const LONGEST_WAIT_S = 480
/** Several people sign in from one address. */
const ADDRESS_SHARE = 4

/**
 * How long a further try has to wait, s. The first `free` failures cost nothing; after that 15 s, 30 s, 60 s … so that with
 * five free ones the eleventh try comes more than ten minutes after the first.
 */
export const waitAfter = (failures: number, free: number): number =>
  failures < free ? 0 : Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** Math.min(20, failures - free))

/** Who tries, from where: `address` is null where no proxy is trusted to say. */
export interface Trier {
  email: string
  address: string | null
}
const keysOf = ({ email, address }: Trier) => ({
  person: `person:${email}`,
  address: `address:${address ?? 'direct'}`,
  /** A person at an address where they have signed in before: only failures from there delay them. */
  known: `known:${email}:${address ?? 'direct'}`,
})

/** Seconds that this try has to wait; 0 where it may go on. */
export async function waitBefore(trier: Trier, now: Date): Promise<number> {
  const free = environment().AUTH_ATTEMPTS
  const keys = keysOf(trier)
  const rows = await doorDatabase()
    .select()
    .from(signInTry)
    .where(inArray(signInTry.key, Object.values(keys)))
  const of = (key: string) => rows.find((row) => row.key === key)
  const left = (key: string, freeHere: number): number => {
    const row = of(key)
    if (!row || now.getTime() - row.lastAt.getTime() > WINDOW_MS) return 0
    return Math.max(0, waitAfter(row.failures, freeHere) - (now.getTime() - row.lastAt.getTime()) / 1000)
  }
  // Whoever signed in from here before is not shut out by tries from elsewhere.
  const person = trier.address !== null && of(keys.known) ? left(keys.known, free) : left(keys.person, free)
  return Math.ceil(Math.max(person, left(keys.address, free * ADDRESS_SHARE)))
}

/** One failure more, for the person, the address, and the two together where they are known. One statement: two at once both count. */
export async function countFailure(trier: Trier, now: Date): Promise<void> {
  const keys = keysOf(trier)
  const since = new Date(now.getTime() - WINDOW_MS)
  await doorDatabase().execute(sql`
    insert into sign_in_try as t (key, failures, last_at)
    select key, 1, ${now} from unnest(array[${keys.person}, ${keys.address}]) as key
    on conflict (key) do update set
      failures = case when t.last_at < ${since} then 1 else t.failures + 1 end,
      last_at = ${now}`)
  await doorDatabase().execute(sql`
    update sign_in_try set failures = case when last_at < ${since} then 1 else failures + 1 end, last_at = ${now}
    where key = ${keys.known}`)
  await doorDatabase().execute(sql`
    delete from sign_in_try where key not like 'known:%' and last_at < ${new Date(now.getTime() - 10 * WINDOW_MS)}`)
}

/** Signed in: this person is known at this address from now on. The person's own count stays; it is the attacker's too. */
export async function countSuccess(trier: Trier, now: Date): Promise<void> {
  if (trier.address === null) return
  await doorDatabase()
    .insert(signInTry)
    .values({ key: keysOf(trier).known, failures: 0, lastAt: now })
    .onConflictDoUpdate({ target: signInTry.key, set: { failures: 0, lastAt: now } })
}

/**
 * Where a request comes from, as the trusted proxies say: the last address of `X-Forwarded-For` that is none of them. The
 * server itself listens on loopback only, so with no trusted proxy on loopback the header is anybody's word: null.
 */
export function addressOf(forwardedFor: string | null, trusted: readonly string[]): string | null {
  const loopback = trusted.some((address) => address === '127.0.0.1' || address === '::1')
  if (!loopback || forwardedFor === null) return null
  const chain = forwardedFor
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
  return chain.findLast((address) => !trusted.includes(address))?.slice(0, 60) ?? null
}
