import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { LogPayload } from '@/core/model/log/schema'
import { closeDatabase, guarded } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { createJob, jobs, openJob } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { rack } from '@/db/queries/rack'
import { handCar } from '../fixtures/plans'
import { shopWorld, type ShopWorld } from './world'

let acting: string | null = null
vi.mock('@/web/actions/session', () => ({ currentMember: async () => (acting ? whoIs(acting) : null) }))
const { takeEntries } = await import('@/web/actions/entries')
const { yardFollows, yardJobs } = await import('@/web/actions/yard')
const { closeThreads } = await import('@/web/actions/threads')

let world: ShopWorld
beforeAll(async () => {
  world = await shopWorld()
  acting = world.who.installer.userId
})
afterAll(async () => {
  await closeWorkQueue()
  await closeThreads()
  await closeDatabase()
})

const NOTE: LogPayload = { kind: 'note', text: 'seen' }
const ago = (seconds: number) => new Date(Date.now() - seconds * 1000).toISOString()
const entry = (payload: unknown, over: object = {}) => ({ id: randomUUID(), at: ago(5), payload, ...over })
interface Sent {
  status: number
  outcomes: { id: string; outcome: string; code?: string }[]
  head: number
  code?: string
}
const send = async (entries: unknown[], over: object = {}): Promise<Sent> => {
  const body = JSON.stringify({ sent_at: new Date().toISOString(), entries, ...over })
  const answer = await takeEntries(new Request('http://127.0.0.1:3999/x', { method: 'POST', body }), world.jobId)
  return { status: answer.status, ...((await answer.json()) as Omit<Sent, 'status'>) }
}
const said = ({ outcomes }: Sent) => outcomes.map((o) => o.code ?? o.outcome)
const ledger = async () => (await openJob(world.who.lead, world.jobId, new Date()))?.ledger ?? []
const left = async () => (await rack(world.who.lead)).stock.find((s) => s.id === world.rollId)?.leftMm

describe('entries of the bay', () => {
  it('each counts once, however often and in whatever company it arrives; the head counts changes', async () => {
    const [a, b] = [entry(NOTE), entry(NOTE)]
    const first = await send([a])
    expect(first).toMatchObject({ status: 200, outcomes: [{ id: a.id, outcome: 'done' }] })
    const second = await send([a, b, a])
    expect(said(second)).toEqual(['again', 'done', 'again'])
    expect(second.head).toBe(first.head + 1)
    expect((await send([b])).head).toBe(second.head)
  })
  it('one that cannot be read or applied holds back no other, and leaves nothing', async () => {
    const before = (await ledger()).length
    const bad = [
      entry({ kind: 'film_used', stockId: world.rollId, lengthMm: 0.04 }),
      entry({ kind: 'film_used', stockId: randomUUID(), lengthMm: 10 }),
      entry({ kind: 'film_used', stockId: world.rollId, lengthMm: 99_000 }),
      entry({ kind: 'dance' }),
    ]
    const out = await send([bad[0], entry(NOTE), ...bad.slice(1), entry(NOTE)])
    expect(said(out)).toEqual(['bad_input', 'done', 'no_such_stock', 'not_enough_film', 'bad_input', 'done'])
    expect((await ledger()).length).toBe(before + 2)
  })
  it('a cut by one name takes film once, whichever tablet ticks it; taken back it can be made again', async () => {
    const cut = () => entry({ kind: 'film_used', stockId: world.rollId, lengthMm: 700, cutKey: 'm:r:1' })
    const before = Number(await left())
    const both = await Promise.all([send([cut()]), send([cut()])])
    expect(both.map(said).flat().sort()).toEqual(['cut_made_already', 'done'])
    expect(await left()).toBe(before - 700)
    expect(said(await send([entry({ kind: 'cut_taken_back', cutKey: 'm:r:1' }), cut()]))).toEqual(['done', 'done'])
    expect(await left()).toBe(before - 700)
  })
  it('forty tablets at once: each entry once, a cut among them once, nobody’s batch mixed up with another’s', async () => {
    const before = (await ledger()).length
    const mine = Array.from({ length: 40 }, () => entry(NOTE))
    const cut = () => entry({ kind: 'film_used', stockId: world.rollId, lengthMm: 100, cutKey: 'm:r:9' })
    const all = mine.map((e, i) => (i % 10 === 3 ? [e, cut()] : i % 10 === 7 ? [e, { ...e, payload: 'none' }] : [e, e]))
    const answers = await Promise.all(all.map((batch) => send(batch)))
    expect(answers.map((a) => a.outcomes[0]).map((o) => o?.id)).toEqual(mine.map((e) => e.id))
    expect(answers.filter((_, i) => ![3, 7].includes(i % 10)).every((a) => said(a).join() === 'done,again')).toBe(true)
    expect(
      answers
        .filter((_, i) => i % 10 === 3)
        .map((a) => said(a)[1])
        .sort(),
    ).toEqual(['cut_made_already', 'cut_made_already', 'cut_made_already', 'done'])
    expect((await ledger()).length).toBe(before + 41)
    expect(new Set(answers.map((a) => a.head)).size).toBeLessThanOrEqual(40)
  })
  it('a device’s entries keep the order of its own counter, in one batch and over several', async () => {
    const device = `tablet-${randomUUID().slice(0, 8)}`
    const noted = (n: number) => entry({ kind: 'note', text: `${device} ${n}` }, { device, n })
    await send([noted(3), noted(1)])
    await send([noted(0), noted(2)])
    const texts = (await ledger()).flatMap((r) =>
      r.payload.kind === 'note' && r.payload.text.startsWith(device) ? [r.payload.text] : [],
    )
    expect(texts).toEqual([0, 1, 2, 3].map((n) => `${device} ${n}`))
  })
})

describe('who and when', () => {
  it('a row carries the member, whatever their name becomes; another’s entries are refused', async () => {
    const mine = entry(NOTE)
    await send([mine])
    const rows = await guarded(world.who.lead, 'read', (tx) =>
      tx.execute<{ by_id: string; by: string; plan_revision: number }>(
        sql`select by_id, by, plan_revision from ledger where id = ${mine.id}`,
      ),
    )
    const { memberId, name } = world.who.installer
    expect(rows.rows).toEqual([{ by_id: memberId, by: name, plan_revision: 1 }])
    const theirs = await send([entry(NOTE)], { member: world.who.lead.memberId })
    expect(theirs).toMatchObject({ status: 403, code: 'another_member' })
    expect(said(await send([entry(NOTE)], { member: memberId }))).toEqual(['done'])
  })
  it('nothing happened in the future, nor before the job was taken in; the years 1 and 9999 are no times', async () => {
    const at = (when: string) => entry(NOTE, { at: when })
    const out = await send([
      at(ago(-600)),
      at('0001-01-01T00:00:00.000Z'),
      at('9999-01-01T00:00:00.000Z'),
      at('2026-10-20T08:00:00.000Z'),
      at(ago(3600)),
    ])
    expect(said(out)).toEqual(['in_the_future', 'before_the_job', 'in_the_future', 'before_the_job', 'done'])
  })
  it('a clock two hours wrong is told by when it says it sends, put right, and said; a long wait in the queue is not', async () => {
    for (const hours of [2, -2]) {
      const wrong = (seconds: number) => new Date(Date.now() - hours * 3_600_000 - seconds * 1000).toISOString()
      const e = entry(NOTE, { at: wrong(300) })
      expect(said(await send([e], { sent_at: wrong(0) }))).toEqual(['done'])
      const row = (await ledger()).find((r) => r.id === e.id)
      expect(Math.abs(Date.parse(row?.at ?? '') - (Date.now() - 300_000))).toBeLessThan(5000)
      expect(row?.skewSeconds).toBeCloseTo(hours * 3600, -1)
    }
    const waited = entry(NOTE, { at: ago(30 * 3600) })
    await send([waited])
    const row = (await ledger()).find((r) => r.id === waited.id)
    expect(row).toMatchObject({ at: waited.at })
    expect(row).not.toHaveProperty('skewSeconds')
  })
})

describe('the yard', () => {
  it('also knows what changed while it was being reckoned', async () => {
    const begin = () => entry({ kind: 'step_started', stepId: 'wash' })
    await send([begin()])
    // However slow the machine is that runs this: what is asked here is the order, not how long a page waits.
    const patient = { waitMs: 60_000 }
    const first = yardJobs(world.who.lead, patient)
    await new Promise((r) => setTimeout(r, 40))
    await send([begin()])
    const heads = await yardJobs(world.who.lead, patient)
    expect(heads.find((head) => head.id === world.jobId)).toMatchObject({ behind: false })
    await first
  })
  it('follows every job that changed by itself, one after the other, however many changed at once', async () => {
    const ids = [world.jobId, ...Array.from({ length: 4 }, () => randomUUID())]
    for (const id of ids.slice(1)) await createJob(world.who.lead, id, handCar(), 'one more', new Date())
    for (const id of ids) yardFollows(world.who.lead, id)
    const isBehind = async () => (await jobs(world.who.lead)).filter((head) => ids.includes(head.id) && head.behind)
    expect((await isBehind()).length).toBeGreaterThan(0)
    // Nobody opens the yard meanwhile.
    await vi.waitFor(async () => expect(await isBehind()).toEqual([]), { timeout: 90_000, interval: 200 })
  })
})

describe('what is no batch', () => {
  it.each([
    ['no JSON', '{', 422, 'truncated'],
    ['no time', JSON.stringify({ entries: [entry(NOTE)] }), 422, 'invalid_type'],
    ['no entries', JSON.stringify({ sent_at: ago(0), entries: [] }), 422, 'too_small'],
    ['an entry without an id', JSON.stringify({ sent_at: ago(0), entries: [{ payload: NOTE }] }), 422, 'bad_input'],
  ])('%s', async (_, body, status, code) => {
    const answer = await takeEntries(new Request('http://127.0.0.1:3999/x', { method: 'POST', body }), world.jobId)
    expect([answer.status, await answer.json()]).toMatchObject([status, { code }])
  })
  it('text with a NUL in it is refused by itself', async () => {
    const out = await send([entry({ kind: 'note', text: 'a\u0000b' }), entry(NOTE)])
    expect(said(out)).toEqual(['bad_input', 'done'])
  })
})
