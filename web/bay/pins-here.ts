import { openDB, type DBSchema } from 'idb'
import type { Fault } from '@/core/kit/result'
import type { TabletPerson } from './tablet'

/**
 * PINs as this tablet checks them while there is no network: salted and stretched, never the digits themselves. Who is let
 * in by one works on this device only; what they enter goes to the server once they came in there.
 */
interface PinHere extends TabletPerson {
  salt: Uint8Array
  mark: Uint8Array
  wrong: number
}
interface Schema extends DBSchema {
  pins: { key: string; value: PinHere }
}

/** As often as the server: so many wrong tries, and only the full sign-in is left. */
const MOST_WRONG = 5
/** PBKDF2 with SHA-256: what four digits gain by it is that trying them all takes an hour, not a second. */
const ROUNDS = 310_000

const store = () =>
  openDB<Schema>('cuirass-pins', 1, { upgrade: (db) => void db.createObjectStore('pins', { keyPath: 'memberId' }) })

async function markOf(pin: string, salt: Uint8Array): Promise<Uint8Array> {
  const key = await crypto.subtle.importKey('raw', new TextEncoder().encode(pin), 'PBKDF2', false, ['deriveBits'])
  const how = { name: 'PBKDF2', hash: 'SHA-256', salt: new Uint8Array(salt), iterations: ROUNDS }
  return new Uint8Array(await crypto.subtle.deriveBits(how, key, 256))
}

const isSame = (a: Uint8Array, b: Uint8Array): boolean => a.length === b.length && a.every((v, i) => v === b[i])

/** What the server took as somebody's PIN on this tablet holds without it too. */
export async function keepPin({ memberId, name, role }: TabletPerson, pin: string): Promise<void> {
  const salt = crypto.getRandomValues(new Uint8Array(16))
  await (await store()).put('pins', { memberId, name, role, salt, mark: await markOf(pin, salt), wrong: 0 })
}

export const dropPin = async (memberId: string): Promise<void> => (await store()).delete('pins', memberId)

/** Who can be let in without a network. */
export async function peopleKept(): Promise<TabletPerson[]> {
  const list = await (await store()).getAll('pins')
  return list.map(({ memberId, name, role }) => ({ memberId, name, role })).sort((a, b) => a.name.localeCompare(b.name))
}

/** Null: these are somebody's four digits. After five wrong ones nothing is kept of them: wrong_pin, then full_sign_in. */
export async function checkPin(memberId: string, pin: string): Promise<Fault | null> {
  const db = await store()
  const known = await db.get('pins', memberId)
  if (!known) return { code: 'full_sign_in' }
  if (isSame(await markOf(pin, known.salt), known.mark)) {
    await db.put('pins', { ...known, wrong: 0 })
    return null
  }
  const wrong = known.wrong + 1
  if (wrong >= MOST_WRONG) await db.delete('pins', memberId)
  else await db.put('pins', { ...known, wrong })
  return wrong >= MOST_WRONG ? { code: 'full_sign_in' } : { code: 'wrong_pin', facts: { left: MOST_WRONG - wrong } }
}
