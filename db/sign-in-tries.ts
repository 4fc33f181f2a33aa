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
 * How long a further try has to wait, s. The first `free` failures cost nothing; after that 15 s, 30 s, 60 s … so that
 * with five free ones the eleventh try comes more than ten minutes after the first.
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

interface Standing {
  /** Seconds that a try has to wait; 0 where it may go on. */
  wait: number
  /** The keys that decide, each with its free failures and those counted. */
  deciding: { key: string; free: number; failures: number }[]
}
async function standingOf(trier: Trier, now: Date): Promise<Standing> {
  const free = environment().AUTH_ATTEMPTS
  const keys = keysOf(trier)
  const rows = await doorDatabase()
    .select()
    .from(signInTry)
    .where(inArray(signInTry.key, Object.values(keys)))
  // Whoever signed in from here before is not shut out by tries from elsewhere.
  const known = trier.address !== null && rows.some((row) => row.key === keys.known)
  const deciding = [
    { key: known ? keys.known : keys.person, free },
    { key: keys.address, free: free * ADDRESS_SHARE },
  ].map((rule) => {
    const row = rows.find(({ key }) => key === rule.key)
    const agoMs = row ? now.getTime() - row.lastAt.getTime() : WINDOW_MS
    const failures = row && agoMs <= WINDOW_MS ? row.failures : 0
    return { ...rule, failures, wait: Math.max(0, waitAfter(failures, rule.free) - agoMs / 1000) }
  })
  return { wait: Math.ceil(Math.max(...deciding.map((d) => d.wait))), deciding }
}

/** Seconds that this try has to wait; 0 where it may go on. */
export const waitBefore = async (trier: Trier, now: Date): Promise<number> => (await standingOf(trier, now)).wait

/**
 * Lets a try go on (0) or says how many seconds it waits. One that goes on is counted as a failure before the password
 * is looked at, so that of many sent at once no more go on than one after the other; `countSuccess` takes it off again.
 */
export async function beginTry(trier: Trier, now: Date): Promise<number> {
  const { wait, deciding } = await standingOf(trier, now)
  if (wait > 0) return wait
  const counted = await countFailure(trier, now)
  const overtaken = deciding.filter((d) => (counted.get(d.key) ?? 1) > Math.max(d.free, d.failures + 1))
  if (overtaken.length === 0) return 0
  await takeOff(trier)
  return Math.max(...overtaken.map((d) => waitAfter((counted.get(d.key) ?? 1) - 1, d.free)))
}

/**
 * One failure more, for the person, the address, and the two together where they are known; the counts by key. One
 * statement each: two at once both count.
 */
export async function countFailure(trier: Trier, now: Date): Promise<Map<string, number>> {
  const keys = keysOf(trier)
  const since = new Date(now.getTime() - WINDOW_MS)
  const made = await doorDatabase().execute<{ key: string; failures: number }>(sql`
    insert into sign_in_try as t (key, failures, last_at)
    select key, 1, ${now} from unnest(array[${keys.person}, ${keys.address}]) as key
    on conflict (key) do update set
      failures = case when t.last_at < ${since} then 1 else t.failures + 1 end,
      last_at = ${now}
    returning key, failures`)
  const known = await doorDatabase().execute<{ key: string; failures: number }>(sql`
    update sign_in_try set failures = case when last_at < ${since} then 1 else failures + 1 end, last_at = ${now}
    where key = ${keys.known}
    returning key, failures`)
  await doorDatabase().execute(sql`
    delete from sign_in_try where key not like 'known:%' and last_at < ${new Date(now.getTime() - 10 * WINDOW_MS)}`)
  return new Map([...made.rows, ...known.rows].map((row) => [row.key, Number(row.failures)]))
}

/** A try that was counted and was no failure. */
const takeOff = (trier: Trier) =>
  doorDatabase()
    .update(signInTry)
    .set({ failures: sql`greatest(${signInTry.failures} - 1, 0)` })
    .where(inArray(signInTry.key, Object.values(keysOf(trier))))

/**
 * Signed in: the try comes off, and this person is known at this address from now on. Other failures stay; they are
 * an attacker's too.
 */
export async function countSuccess(trier: Trier, now: Date): Promise<void> {
  await takeOff(trier)
  if (trier.address === null) return
  await doorDatabase()
    .insert(signInTry)
    .values({ key: keysOf(trier).known, failures: 0, lastAt: now })
    .onConflictDoUpdate({ target: signInTry.key, set: { failures: 0, lastAt: now } })
}

/**
 * Where a request comes from, as the trusted proxies say: the last address of `X-Forwarded-For` that is none of them.
 * The server itself listens on loopback only, so with no trusted proxy on loopback the header is anybody's word: null.
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
