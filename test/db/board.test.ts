import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closeDatabase, Denied } from '@/db/client'
import { boardKey, settleBoard } from '@/core/engines/schedule/settled-board'
import { BOARD_QUEUE, closeWorkQueue, workQueue, type BoardTask } from '@/db/queue'
import { boardToSettle, keepBoard, settledBoard } from '@/db/queries/board'
import { changesOf } from '@/db/queries/changes'
import { jobs, openPlans, setPin } from '@/db/queries/jobs'
import { addMember, whoIs } from '@/db/queries/people'
import { appendEntries } from '@/db/queries/entries'
import { addStrip, rack } from '@/db/queries/rack'
import { moveSupply, supplies } from '@/db/queries/supplies'
import { saveShop, shopOf } from '@/db/queries/shop'
import { createUser } from '@/db/auth'
import type { StripTest } from '@/core/model/film/schema'
import { shopWorld, type ShopWorld } from './world'

let made: ShopWorld | undefined
beforeAll(async () => {
  made = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})
const world = (): ShopWorld => {
  if (!made) throw new Error('no shop')
  return made
}
const strip = (over: Partial<StripTest> = {}): StripTest => ({
  id: randomUUID(),
  beforeMm: 1000,
  afterMm: 965,
  acrossBeforeMm: null,
  acrossAfterMm: null,
  at: '2026-11-20T08:00:00.000Z',
  by: 'somebody',
  ...over,
})

describe('work set to a moment', () => {
  const pins = async () => (await jobs(world().who.lead)).find((j) => j.id === world().jobId)?.pins

  it('is kept with the job, one moment for each part of the work, and let go again', async () => {
    const { who, jobId } = world()
    expect(await pins()).toEqual([])
    await setPin(who.lead, jobId, { code: 'wrap', at: '2031-03-04T09:00' })
    await setPin(who.lead, jobId, { code: 'arrive', at: '2031-03-03T08:00' })
    await setPin(who.lead, jobId, { code: 'wrap', at: '2031-03-05T10:00' })
    expect(await pins()).toEqual([
      { code: 'arrive', at: '2031-03-03T08:00' },
      { code: 'wrap', at: '2031-03-05T10:00' },
    ])
    await setPin(who.lead, jobId, { code: 'arrive', at: null })
    expect(await pins()).toEqual([{ code: 'wrap', at: '2031-03-05T10:00' }])
  })

  it('two people who set two parts at once both keep theirs', async () => {
    const { who, jobId } = world()
    await Promise.all([
      setPin(who.lead, jobId, { code: 'prepare', at: '2031-03-04T08:00' }),
      setPin(who.owner, jobId, { code: 'finish', at: '2031-03-07T08:00' }),
    ])
    expect((await pins())?.map((p) => p.code).sort()).toEqual(['finish', 'prepare', 'wrap'])
  })

  it('is the lead’s and the owner’s; a job that is not there is said', async () => {
    const { who, jobId } = world()
    await expect(setPin(who.installer, jobId, { code: 'wrap', at: null })).rejects.toThrow(Denied)
    expect(await setPin(who.lead, randomUUID(), { code: 'wrap', at: null })).toBe(false)
  })
})

describe('the board, laid out behind the screens', () => {
  const NOON = new Date('2031-03-03T12:00:00Z')
  const asked = async () => {
    const queue = await workQueue()
    const tasks = await queue.fetch<BoardTask>(BOARD_QUEUE, { batchSize: 200 })
    await Promise.all(tasks.map((t) => queue.complete(BOARD_QUEUE, t.id)))
    return tasks.filter((t) => t.data.shopId === world().who.lead.shopId).length
  }

  it('is asked for once however many look, laid out by a worker, and there for all until something changes', async () => {
    const { who, jobId } = world()
    await asked()
    expect(await settledBoard(who.desk, NOON)).toBeNull()
    expect(await settledBoard(who.lead, NOON)).toBeNull()
    expect(await asked()).toBe(1)
    const task = { shopId: who.lead.shopId }
    const input = await boardToSettle(task, NOON)
    if (!input) throw new Error('nothing to lay out')
    await keepBoard(task, boardKey(input), settleBoard(input), 'a worker')
    expect(await boardToSettle(task, NOON)).toBeNull()
    expect(await settledBoard(who.installer, NOON)).toEqual({ key: boardKey(input), board: settleBoard(input).board })
    expect(await asked()).toBe(0)
    // A quarter of an hour later, or with other work set, it is another board.
    expect(await settledBoard(who.desk, new Date('2031-03-03T12:05:00Z'))).toBeNull()
    await setPin(who.lead, jobId, { code: 'wrap', at: '2031-03-06T10:00' })
    expect(await asked()).toBe(1)
    expect(await settledBoard(who.desk, NOON)).toBeNull()
  })

  it('a board that does not read counts as none, and another shop’s is not seen', async () => {
    const { who } = world()
    const task = { shopId: who.lead.shopId }
    const input = await boardToSettle(task, NOON)
    if (!input) throw new Error('nothing to lay out')
    const broken = { rounds: 1, board: { bars: 'none' } as never }
    await keepBoard(task, boardKey(input), broken, 'a worker')
    expect(await settledBoard(who.lead, NOON)).toBeNull()
    expect(await boardToSettle(task, NOON)).not.toBeNull()
    const other = await shopWorld()
    await keepBoard(task, boardKey(input), settleBoard(input), 'a worker')
    expect(await settledBoard(other.who.lead, NOON)).toBeNull()
    expect(await settledBoard(who.lead, NOON)).not.toBeNull()
  })

  it('only the newest is kept: what hung on something else makes room', async () => {
    const { who } = world()
    const task = { shopId: who.lead.shopId }
    const later = new Date('2031-03-03T13:00:00Z')
    const input = await boardToSettle(task, later)
    if (!input) throw new Error('nothing to lay out')
    await keepBoard(task, boardKey(input), settleBoard(input), 'a worker')
    expect(await settledBoard(who.lead, later)).not.toBeNull()
    expect(await settledBoard(who.lead, NOON)).toBeNull()
  })

  it('a shop that changes its hours asks for it', async () => {
    const { who } = world()
    await asked()
    const { number, settings } = await shopOf(who.owner)
    await saveShop(who.owner, { ...settings, bays: settings.bays.slice(0, 1) }, number)
    expect(await asked()).toBe(1)
  })
})

describe('strip tests', () => {
  it('stand with their roll, once however often they arrive, and reach every open page', async () => {
    const { who, rollId, jobId } = world()
    const since = (await changesOf(who.lead, jobId, 0))?.head ?? 0
    const first = strip()
    expect(await addStrip(who.installer, rollId, first)).toBe('done')
    expect(await addStrip(who.installer, rollId, first)).toBe('done')
    expect(await addStrip(who.lead, rollId, strip({ afterMm: 970 }))).toBe('done')
    const item = (await rack(who.desk)).stock.find((s) => s.id === rollId)
    expect(item?.strips.map((s) => s.afterMm)).toEqual([965, 970])
    const changes = await changesOf(who.lead, jobId, since)
    expect(changes?.stock?.find((s) => s.id === rollId)?.strips).toHaveLength(2)
  })

  it('two at once both stand; the desk may not; another roll is not there', async () => {
    const { who, rollId } = world()
    await Promise.all([addStrip(who.lead, rollId, strip()), addStrip(who.installer, rollId, strip())])
    expect((await rack(who.lead)).stock.find((s) => s.id === rollId)?.strips).toHaveLength(4)
    await expect(addStrip(who.desk, rollId, strip())).rejects.toThrow(Denied)
    expect(await addStrip(who.lead, randomUUID(), strip())).toBe('no_such_stock')
  })

  it('so many are kept with a roll and no more', async () => {
    const { who, rollId } = world()
    for (let i = 4; i < 20; i++) expect(await addStrip(who.lead, rollId, strip())).toBe('done')
    expect(await addStrip(who.lead, rollId, strip())).toBe('too_many')
  })
})

describe('what new people and open jobs take from the shop', () => {
  it('a new member’s figures are in the shop’s units until they choose', async () => {
    const { who } = world()
    const { number, settings } = await shopOf(who.owner)
    await saveShop(who.owner, { ...settings, units: { lengthUnit: 'in', tempUnit: 'F', locale: 'en-US' } }, number)
    const userId = await createUser('Wren Holm', `wren-${randomUUID().slice(0, 8)}@shop.example`, 'long-enough-words')
    if (!userId) throw new Error('no user')
    await addMember(who.owner, userId, 'installer')
    expect((await whoIs(userId))?.units).toMatchObject({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US' })
    // Those who were there keep theirs.
    expect((await whoIs(who.lead.userId))?.units).toMatchObject({ lengthUnit: 'mm' })
  })

  it('open jobs are those not handed over, with the plan that stands', async () => {
    const { who, jobId } = world()
    expect((await openPlans(who.lead)).map((p) => p.id)).toEqual([jobId])
  })
})

describe('supplies on the shelf', () => {
  const used = (amount: number) => ({
    id: randomUUID(),
    at: new Date().toISOString(),
    payload: { kind: 'consumable_used' as const, of: 'filament' as const, amount },
  })

  it('are what came in and was counted, less what jobs used; each entry and each receipt once', async () => {
    const { who, jobId } = world()
    expect(await supplies(who.desk)).toEqual({ filament: 20 })
    const entry = used(3.5)
    const now = new Date()
    await appendEntries(who.installer, jobId, [entry], { now })
    await appendEntries(who.installer, jobId, [entry], { now })
    expect((await supplies(who.lead)).filament).toBe(16.5)
    const receipt = { id: randomUUID(), kind: 'filament' as const, amount: 50, reason: 'received' as const }
    await moveSupply(who.lead, receipt)
    await moveSupply(who.lead, receipt)
    expect((await supplies(who.lead)).filament).toBe(66.5)
    // Counted: there are 60; what is used later comes off that.
    await moveSupply(who.lead, { id: randomUUID(), kind: 'filament', amount: 60, reason: 'counted' })
    await appendEntries(who.installer, jobId, [used(1)], { now })
    expect((await supplies(who.lead)).filament).toBe(59)
    // What was never counted is not known.
    expect((await supplies(who.lead)).wire).toBeUndefined()
  })

  it('reach every open page, and only an owner or lead puts them there', async () => {
    const { who, jobId } = world()
    const since = (await changesOf(who.lead, jobId, 0))?.head ?? 0
    await moveSupply(who.owner, { id: randomUUID(), kind: 'blades', amount: 50, reason: 'received' })
    expect((await changesOf(who.lead, jobId, since))?.supplies.blades).toBe(50)
    const installer = moveSupply(who.installer, { id: randomUUID(), kind: 'blades', amount: 5, reason: 'received' })
    await expect(installer).rejects.toThrow(Denied)
  })
})
