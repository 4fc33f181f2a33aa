import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closeDatabase, Denied, guarded, MAY, ROLES } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { jobs, openJob, planAt } from '@/db/queries/jobs'
import { members, setRole, setUnits, whoIs } from '@/db/queries/people'
import { rack, receiveStock } from '@/db/queries/rack'
import { shopWorld, type ShopWorld } from './world'

let w: ShopWorld
beforeAll(async () => {
  w = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

describe('members', () => {
  it('are those of the shop, with their roles', async () =>
    expect((await members(w.who.desk)).map((m) => m.role).sort()).toEqual(['desk', 'installer', 'lead', 'owner']))
  it('units change one by one, and for that member alone', async () => {
    await Promise.all([setUnits(w.who.lead, { lengthUnit: 'in' }), setUnits(w.who.lead, { tempUnit: 'F' })])
    expect((await whoIs(w.who.lead.userId))?.units).toEqual({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-GB' })
    expect((await whoIs(w.who.desk.userId))?.units.lengthUnit).toBe('mm')
  })
  it('a role given is there at the next request; an unknown member is not found', async () => {
    expect(await setRole(w.who.owner, w.who.desk.memberId, 'lead')).toBe('done')
    expect((await whoIs(w.who.desk.userId))?.who.role).toBe('lead')
    expect(await setRole(w.who.owner, w.who.desk.memberId, 'desk')).toBe('done')
    expect(await setRole(w.who.owner, randomUUID(), 'desk')).toBe('not_found')
  })
  it('a user of no shop is nobody', async () => expect(await whoIs('no-such-user')).toBeNull())
})

describe('rights', () => {
  it('are checked before the database is asked', async () => {
    for (const right of Object.keys(MAY) as (keyof typeof MAY)[])
      for (const role of ROLES) {
        const tried = guarded({ ...w.who[role], role }, right, async () => 'in').catch((e: unknown) =>
          e instanceof Denied ? 'denied' : e,
        )
        expect(await tried, `${role} ${right}`).toBe((MAY[right] as readonly string[]).includes(role) ? 'in' : 'denied')
      }
  })
})

describe('the rack', () => {
  const receipt = () => ({
    id: randomUUID(),
    movementId: randomUUID(),
    filmId: 'fen-satin',
    kind: 'rest' as const,
    label: `S-${randomUUID().slice(0, 6)}`,
    lot: 'L2',
    widthMm: 600,
    lengthMm: 1234.5,
  })
  it('a rest put on it is there with its length; arriving again changes nothing', async () => {
    const r = receipt()
    expect(await receiveStock(w.who.lead, r)).toBe('done')
    expect(await receiveStock(w.who.lead, r)).toBe('again')
    expect((await rack(w.who.lead)).stock.find((s) => s.id === r.id)).toMatchObject({
      leftMm: 1234.5,
      lot: 'L2',
      kind: 'rest',
    })
  })
  it('a label names one roll; a film has to be on the rack', async () => {
    const r = receipt()
    await receiveStock(w.who.lead, r)
    expect(await receiveStock(w.who.lead, { ...receipt(), label: r.label })).toBe('label_taken')
    expect(await receiveStock(w.who.lead, { ...receipt(), filmId: 'unknown' })).toBe('no_such_film')
  })
})

describe('reading jobs', () => {
  it('lists heads and opens one with plan, ledger and rack', async () => {
    expect((await jobs(w.who.installer)).map((j) => j.id)).toEqual([w.jobId])
    const file = await openJob(w.who.installer, w.jobId, new Date('2026-11-20T09:00:00Z'))
    expect(file).toMatchObject({ head: { head: 1, stage: 'roll' }, ledger: [], catalogue: { now: '2026-11-20T09:00' } })
    expect(file?.plan.panels).toHaveLength(3)
  })
  it('a revision that is not there is null', async () => expect(await planAt(w.who.lead, w.jobId, 99)).toBeNull())
})
