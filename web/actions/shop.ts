'use server'

import { z } from 'zod'
import { DamageSpan, StripTest } from '@/core/model/film/schema'
import { Name, Id } from '@/core/model/values/values'
import { createUser } from '@/db/auth'
import { SavedShop } from '@/core/model/shop/shop'
import { saveShop as keepShop } from '@/db/queries/shop'
import { ROLES } from '@/core/model/rights/rights'
import { Method } from '@/core/model/method/schema'
import { addReading } from '@/db/queries/climate'
import {
  addMember as insertMember,
  setCalendar,
  setRole as updateRole,
  setShopMethod as updateMethod,
  setUnits as updateUnits,
} from '@/db/queries/people'
import { addStrip, receiveStock as insertStock, setDamage as updateDamage } from '@/db/queries/rack'
import { calendarToken } from './calendar'
import { answer, refuse, type Answer } from './answer'

/** Only what changes: two quick choices must not undo each other. */
const Units = z
  .strictObject({
    lengthUnit: z.enum(['mm', 'cm', 'in']),
    tempUnit: z.enum(['C', 'F']),
    locale: z.enum(['en-GB', 'en-US']),
  })
  .partial()
  .refine((u) => Object.keys(u).length > 0, { error: 'empty' })

export async function setUnits(raw: unknown): Promise<Answer<null>> {
  return answer('read', Units, raw, async (who, units) => {
    await updateUnits(who, units)
    return { ok: true, value: null }
  })
}

/** A secret link to one's own calendar, new each time; `false` takes it back. */
export async function setCalendarLink(raw: unknown): Promise<Answer<{ path: string | null }>> {
  return answer('read', z.boolean(), raw, async (who, wanted) => {
    const number = await setCalendar(who, wanted)
    return { ok: true, value: { path: number === 0 ? null : `/api/calendar/${calendarToken(who.memberId, number)}` } }
  })
}

const NewMember = z.strictObject({
  name: Name,
  email: z.email().max(200),
  password: z.string().min(10).max(128),
  role: z.enum(ROLES),
})

export async function addMember(raw: unknown): Promise<Answer<null>> {
  return answer('people', NewMember, raw, async (who, input) => {
    const userId = await createUser(input.name, input.email, input.password)
    if (!userId) return refuse('email_taken')
    await insertMember(who, userId, input.role)
    return { ok: true, value: null }
  })
}

export async function setRole(raw: unknown): Promise<Answer<null>> {
  return answer(
    'people',
    z.strictObject({ memberId: z.uuid(), role: z.enum(ROLES) }),
    raw,
    async (who, { memberId, role }) => {
      const out = await updateRole(who, memberId, role)
      return out === 'done' ? { ok: true, value: null } : refuse(out)
    },
  )
}

const Receipt = z.strictObject({
  id: z.uuid(),
  movementId: z.uuid(),
  filmId: Id,
  kind: z.enum(['roll', 'rest']),
  label: Name,
  lot: Name,
  widthMm: z.number().min(50).max(3000),
  lengthMm: z.number().gt(0).max(100000),
})

export async function receiveStock(raw: unknown): Promise<Answer<null>> {
  return answer('stock', Receipt, raw, async (who, input) => {
    const out = await insertStock(who, input)
    return out === 'done' || out === 'again' ? { ok: true, value: null } : refuse(out)
  })
}

/** Stretches of a roll or rest that cannot be used. */
export async function setDamage(raw: unknown): Promise<Answer<null>> {
  return answer(
    'stock',
    z.strictObject({ itemId: z.uuid(), damage: z.array(DamageSpan).max(20) }),
    raw,
    async (who, input) => {
      const out = await updateDamage(who, input.itemId, input.damage)
      return out === 'done' ? { ok: true, value: null } : refuse(out)
    },
  )
}

/** A strip of a roll, heated free: how much shorter it got. */
export async function logStrip(raw: unknown): Promise<Answer<null>> {
  const Logged = z.strictObject({ itemId: z.uuid(), strip: StripTest.safeExtend({ by: z.string().max(0) }) })
  return answer('strip', Logged, raw, async (who, { itemId, strip }) => {
    const out = await addStrip(who, itemId, { ...strip, by: who.name })
    return out === 'done' ? { ok: true, value: null } : refuse(out)
  })
}

/** The method that this shop's new jobs start with. */
export async function setShopMethod(raw: unknown): Promise<Answer<null>> {
  return answer('plan', Method, raw, async (who, method) => {
    await updateMethod(who, method)
    return { ok: true, value: null }
  })
}

const ShopVersion = z.strictObject({ settings: SavedShop, basedOn: z.number().int().min(0) })

/** What the shop says of itself: a new version on the one that was seen. */
export async function saveShop(raw: unknown): Promise<Answer<{ number: number }>> {
  return answer('shop', ShopVersion, raw, async (who, { settings, basedOn }) => {
    const zones = ['UTC', ...Intl.supportedValuesOf('timeZone')]
    if (!zones.includes(settings.timeZone)) return refuse('no_such_zone', { zone: settings.timeZone })
    const out = await keepShop(who, settings, basedOn)
    return out === 'changed_meanwhile' ? refuse(out) : { ok: true, value: out }
  })
}

const Climate = z.strictObject({
  id: z.uuid(),
  at: z.iso.datetime(),
  airC: z.number().min(-20).max(60),
  humidity: z.number().gt(0).max(1).nullable(),
  surfaceC: z.number().min(-40).max(90).nullable(),
})

/** A reading of the shop's air. */
export async function logClimate(raw: unknown): Promise<Answer<null>> {
  return answer('climate', Climate, raw, async (who, reading) => {
    await addReading(who, reading)
    return { ok: true, value: null }
  })
}
