import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { closeDatabase } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import type { BayEntry } from '@/core/model/log/arrival'
import { appendEntries } from '@/db/queries/entries'
import { openJob } from '@/db/queries/jobs'
import { rack, setDamage } from '@/db/queries/rack'
import { shopWorld, type ShopWorld } from './world'

let ours: ShopWorld
let theirs: ShopWorld
beforeAll(async () => {
  ours = await shopWorld()
  theirs = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

const left = async (w: ShopWorld) => (await rack(w.who.lead)).stock.find((s) => s.id === w.rollId)?.leftMm
const entry = (payload: BayEntry['payload']): BayEntry => ({
  id: randomUUID(),
  at: '2026-11-20T08:00:00.000Z',
  payload,
})

it('a cut taken back puts its film back on the roll, once, and only where it was made', async () => {
  const cut = entry({ kind: 'film_used', stockId: ours.rollId, lengthMm: 1200, cutKey: 'm:r:1' })
  const back = entry({ kind: 'cut_taken_back', cutKey: 'm:r:1' })
  const log = async (list: BayEntry[], w = ours) =>
    (await appendEntries(w.who.installer, w.jobId, list, { now: new Date() })).outcomes.map((o) =>
      'code' in o ? o.code : o.outcome,
    )
  expect(await log([back])).toEqual(['no_such_cut'])
  expect(await log([cut])).toEqual(['done'])
  expect(await left(ours)).toBe(8800)
  expect(await log([{ ...back, id: randomUUID() }], theirs)).toEqual(['no_such_cut'])
  expect(await log([back, back])).toEqual(['done', 'again'])
  expect(await left(ours)).toBe(10_000)
  expect(await log([entry({ kind: 'cut_taken_back', cutKey: 'm:r:1' })])).toEqual(['no_such_cut'])
  expect((await openJob(ours.who.lead, ours.jobId, new Date()))?.ledger).toHaveLength(2)
})

it('damage is noted by those who keep the rack, on rolls of their own shop', async () => {
  const damage = [{ fromCoreMm: 500, lengthMm: 80, note: 'creased' }]
  expect(await setDamage(ours.who.lead, ours.rollId, damage)).toBe('done')
  expect((await rack(ours.who.lead)).stock.find((s) => s.id === ours.rollId)?.damage).toEqual(damage)
  expect(await setDamage(theirs.who.lead, ours.rollId, [])).toBe('no_such_stock')
  await expect(setDamage(ours.who.installer, ours.rollId, [])).rejects.toThrow()
})
