import { createHash, randomBytes } from 'node:crypto'
import { and, asc, eq, lt, sql } from 'drizzle-orm'
import { auth } from './auth'
import { doorDatabase } from './client'
import { cleanDatabaseError } from './errors'
import { member, tabletPin, user } from './schema'

/** Wrong tries after which only the full sign-in helps. */
export const PIN_TRIES = 5
const SECRET_BYTES = 32

/** What a tablet is known by: kept in its cookie, and here only as a mark of it. */
export const newTablet = (): string => randomBytes(SECRET_BYTES).toString('base64url')
const markOf = (tablet: string): string => createHash('sha256').update(tablet).digest('hex')

async function atTheDoor<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    throw cleanDatabaseError(error)
  }
}

export interface TabletPerson {
  memberId: string
  name: string
  role: string
}

/** Who can change in at a tablet by a PIN, by name. */
export const peopleAt = (tablet: string): Promise<TabletPerson[]> =>
  atTheDoor(() =>
    doorDatabase()
      .select({ memberId: member.id, name: user.name, role: member.role })
      .from(tabletPin)
      .innerJoin(user, eq(user.id, tabletPin.userId))
      .innerJoin(member, eq(member.userId, tabletPin.userId))
      .where(and(eq(tabletPin.tablet, markOf(tablet)), lt(tabletPin.tries, PIN_TRIES)))
      .orderBy(asc(user.name)),
  )

/** A person's PIN on one tablet; the one before it is gone, and so are wrong tries. */
export const setPinAt = (tablet: string, userId: string, pin: string): Promise<void> =>
  atTheDoor(async () => {
    const hash = await (await auth().$context).password.hash(pin)
    const own = { tablet: markOf(tablet), userId, hash, tries: 0 }
    await doorDatabase()
      .insert(tabletPin)
      .values(own)
      .onConflictDoUpdate({ target: [tabletPin.tablet, tabletPin.userId], set: { hash, tries: 0, setAt: new Date() } })
  })

export const forgetPinAt = (tablet: string, userId: string): Promise<void> =>
  atTheDoor(
    async () =>
      void (await doorDatabase()
        .delete(tabletPin)
        .where(and(eq(tabletPin.tablet, markOf(tablet)), eq(tabletPin.userId, userId)))),
  )

export type PinTry = { kind: 'right'; userId: string } | { kind: 'wrong'; left: number } | { kind: 'full_sign_in' }

/**
 * One try of somebody's PIN at a tablet. It is counted before the PIN is looked at, so that of many sent at once no
 * more are looked at than one after the other.
 */
export const tryPinAt = (tablet: string, memberId: string, pin: string): Promise<PinTry> =>
  atTheDoor(async (): Promise<PinTry> => {
    const db = doorDatabase()
    const [person] = await db.select({ userId: member.userId }).from(member).where(eq(member.id, memberId))
    if (!person) return { kind: 'full_sign_in' }
    const own = and(eq(tabletPin.tablet, markOf(tablet)), eq(tabletPin.userId, person.userId))
    const [row] = await db
      .update(tabletPin)
      .set({ tries: sql`${tabletPin.tries} + 1` })
      .where(and(own, lt(tabletPin.tries, PIN_TRIES)))
      .returning({ hash: tabletPin.hash, tries: tabletPin.tries })
    if (!row) return { kind: 'full_sign_in' }
    const { password } = await auth().$context
    if (await password.verify({ hash: row.hash, password: pin })) {
      await db.update(tabletPin).set({ tries: 0 }).where(own)
      return { kind: 'right', userId: person.userId }
    }
    return row.tries >= PIN_TRIES ? { kind: 'full_sign_in' } : { kind: 'wrong', left: PIN_TRIES - row.tries }
  })
