import { and, asc, eq, sql } from 'drizzle-orm'
import type { Method } from '@/core/model/method/schema'
import { acting, doorDatabase, guarded, type Role, type Who } from '../client'
import { cleanDatabaseError } from '../errors'
import { member, shop, user } from '../schema'
import { shopIn } from './shop'

export interface Units {
  lengthUnit: 'mm' | 'cm' | 'in'
  tempUnit: 'C' | 'F'
  locale: 'en-GB' | 'en-US'
}
export interface Member extends Units {
  id: string
  name: string
  email: string
  role: Role
}
export interface Shop {
  id: string
  name: string
  town: string
  currency: string
  timeZone: string
  isDemo: boolean
  method: Method | null
}

/** The member behind a signed-in user, with shop and units; null for a user of no shop. */
export async function whoIs(userId: string): Promise<{ who: Who; shop: Shop; units: Units } | null> {
  try {
    const [m] = await doorDatabase()
      .select()
      .from(member)
      .innerJoin(user, eq(user.id, member.userId))
      .innerJoin(shop, eq(shop.id, member.shopId))
      .where(eq(member.userId, userId))
    if (!m) return null
    const { lengthUnit, tempUnit, locale } = m.member
    return {
      who: { userId, memberId: m.member.id, shopId: m.shop.id, role: m.member.role, name: m.user.name },
      shop: m.shop,
      units: { lengthUnit, tempUnit, locale },
    }
  } catch (error) {
    throw cleanDatabaseError(error)
  }
}

export const members = (who: Who): Promise<Member[]> =>
  guarded(who, 'read', (tx) =>
    tx
      .select({
        id: member.id,
        name: user.name,
        email: user.email,
        role: member.role,
        lengthUnit: member.lengthUnit,
        tempUnit: member.tempUnit,
        locale: member.locale,
      })
      .from(member)
      .innerJoin(user, eq(user.id, member.userId))
      .where(eq(member.shopId, who.shopId))
      .orderBy(asc(user.name)),
  )

export const setUnits = (who: Who, units: Partial<Units>): Promise<void> =>
  guarded(who, 'read', async (tx) => {
    await tx
      .update(member)
      .set(units)
      .where(and(eq(member.shopId, who.shopId), eq(member.id, who.memberId)))
  })

/** A new link to one's own calendar, which ends the one before; or none any more. Its number; 0 for none. */
export const setCalendar = (who: Who, wanted: boolean): Promise<number> =>
  guarded(who, 'read', async (tx) => {
    const made = sql`${member.calendarsMade} + 1`
    const [row] = await tx
      .update(member)
      .set(wanted ? { calendarsMade: made, calendar: made } : { calendar: 0 })
      .where(and(eq(member.shopId, who.shopId), eq(member.id, who.memberId)))
      .returning({ calendar: member.calendar })
    return row?.calendar ?? 0
  })

/** The member whose calendar link holds that number; null where it was taken back or never made. */
export async function byCalendar(memberId: string, number: number): Promise<string | null> {
  try {
    const [m] = await doorDatabase()
      .select({ userId: member.userId })
      .from(member)
      .where(and(eq(member.id, memberId), eq(member.calendar, number)))
    return number > 0 ? (m?.userId ?? null) : null
  } catch (error) {
    throw cleanDatabaseError(error)
  }
}

/** Another member's role. The last owner stays one. */
export const setRole = (who: Who, memberId: string, role: Role): Promise<'done' | 'not_found' | 'last_owner'> =>
  guarded(who, 'people', async (tx) => {
    const owners = await tx
      .select({ id: member.id })
      .from(member)
      .where(and(eq(member.shopId, who.shopId), eq(member.role, 'owner')))
      .for('update')
    if (role !== 'owner' && owners.length === 1 && owners[0]?.id === memberId) return 'last_owner'
    const rows = await tx
      .update(member)
      .set({ role })
      .where(and(eq(member.shopId, who.shopId), eq(member.id, memberId)))
      .returning({ id: member.id })
    return rows.length > 0 ? 'done' : 'not_found'
  })

/** A user becomes a member; gives the member's id. */
export const addMember = (who: Who, userId: string, role: Role): Promise<string> =>
  guarded(who, 'people', async (tx) => {
    const { units } = (await shopIn(tx, who)).settings
    const values = { shopId: who.shopId, userId, role, ...units }
    const [row] = await tx.insert(member).values(values).returning({ id: member.id })
    return row?.id ?? ''
  })

/** Whether the demo data was loaded here; only then is there a one-click sign-in. */
export async function demoLoaded(): Promise<boolean> {
  const rows = await acting({}, (tx) => tx.select({ id: shop.id }).from(shop).where(eq(shop.isDemo, true)).limit(1))
  return rows.length > 0
}

/** The method that this shop's new jobs start with. */
export const setShopMethod = (who: Who, method: Method): Promise<void> =>
  guarded(who, 'plan', async (tx) => void (await tx.update(shop).set({ method }).where(eq(shop.id, who.shopId))))
