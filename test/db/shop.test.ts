import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hoursOf } from '@/core/model/shop/default-shop'
import { closeDatabase, Denied, guarded } from '@/db/client'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { closeWorkQueue } from '@/db/queue'
import { changesOf } from '@/db/queries/changes'
import { openJob } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { saveShop, shopOf } from '@/db/queries/shop'
import { shopSettings } from '@/db/schema'
import { shopWorld, type ShopWorld } from './world'

let [w, other]: ShopWorld[] = []
beforeAll(async () => {
  w = await shopWorld()
  other = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})
const world = (): ShopWorld => {
  if (!w) throw new Error('no shop')
  return w
}

describe('what a shop says of itself', () => {
  it('begins with the usual hours, and each save is a version by its member', async () => {
    const { who } = world()
    expect(await shopOf(who.lead)).toMatchObject({ number: 0, history: [] })
    expect(await saveShop(who.lead, DEMO_SETTINGS, 0)).toEqual({ number: 1 })
    expect(await saveShop(who.owner, { ...DEMO_SETTINGS, winter: true }, 1)).toEqual({ number: 2 })
    const now = await shopOf(who.desk)
    expect(now).toMatchObject({ number: 2, settings: { winter: true } })
    expect(now.history.map((h) => [h.number, h.by])).toEqual([
      [2, who.owner.name],
      [1, who.lead.name],
    ])
  })

  it('two who save at once do not undo each other: one is told to look again', async () => {
    const { who } = world()
    const { number } = await shopOf(who.lead)
    const tries = await Promise.all([
      saveShop(who.lead, { ...DEMO_SETTINGS, margin: 0.1 }, number),
      saveShop(who.owner, { ...DEMO_SETTINGS, margin: 0.2 }, number),
    ])
    expect(tries.filter((t) => t === 'changed_meanwhile')).toHaveLength(1)
    expect((await shopOf(who.lead)).number).toBe(number + 1)
  })

  it('reaches every job: its hours are those of the shop, on a fresh page and on one that stayed open', async () => {
    const { who, jobId } = world()
    const before = await openJob(who.lead, jobId, new Date())
    const { number } = await shopOf(who.lead)
    const short = { ...DEMO_SETTINGS, week: [{ day: 2, fromMinute: 600, toMinute: 660 }] }
    await saveShop(who.lead, short, number)
    const fresh = await openJob(who.lead, jobId, new Date())
    expect(fresh?.catalogue.hours).toEqual(hoursOf(short))
    const changes = await changesOf(who.lead, jobId, 0)
    expect(changes && hoursOf(changes.shop)).toEqual(fresh?.catalogue.hours)
    expect(before?.catalogue.hours).not.toEqual(fresh?.catalogue.hours)
  })

  it('its zone and currency are those of the shop itself', async () => {
    const { who } = world()
    const { number } = await shopOf(who.lead)
    await saveShop(who.lead, { ...DEMO_SETTINGS, timeZone: 'Europe/Lisbon', currency: 'GBP' }, number)
    expect((await whoIs(who.desk.userId))?.shop).toMatchObject({ timeZone: 'Europe/Lisbon', currency: 'GBP' })
  })

  it('is the owner’s and the lead’s to change, kept apart by shop, and never rewritten', async () => {
    const { who } = world()
    for (const role of ['installer', 'desk'] as const)
      await expect(saveShop(who[role], DEMO_SETTINGS, 0)).rejects.toBeInstanceOf(Denied)
    if (!other) throw new Error('no other shop')
    expect(await shopOf(other.who.lead)).toMatchObject({ number: 0 })
    const seen = await guarded(other.who.owner, 'read', (tx) => tx.select().from(shopSettings))
    expect(seen).toEqual([])
    const rewrite = guarded(who.owner, 'shop', (tx) => tx.update(shopSettings).set({ by: 'nobody' }))
    await expect(rewrite).rejects.toThrow()
  })
})
