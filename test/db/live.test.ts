import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { inDeviceOrder } from '@/core/model/log/device-order'
import type { Solution } from '@/core/model/catalogue/solutions'
import { reckon } from '@/core/reckon/reckon'
import { closeDatabase, inShop } from '@/db/client'
import type { LiveEvent } from '@/db/live'
import { subscribe } from '@/db/live-listener'
import { changesOf } from '@/db/queries/changes'
import { appendEntries } from '@/db/queries/entries'
import { createJob, openJob } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { saveShop, shopOf } from '@/db/queries/shop'
import { savePlan } from '@/db/queries/plans'
import { setDamage } from '@/db/queries/rack'
import { keepSolutions, requestSettleEach, requestSolves, reuseSolution } from '@/db/queries/solutions'
import { closeWorkQueue, SETTLE_QUEUE, SOLVE_QUEUE, workQueue, type RackTask, type SolveTask } from '@/db/queue'
import { job, solution } from '@/db/schema'
import { handCar } from '../fixtures/plans'
import { shopWorld, type ShopWorld } from './world'

let acting: string | null = null
vi.mock('@/web/actions/session', () => ({ currentMember: async () => (acting ? whoIs(acting) : null) }))
const { openLive, readChanges } = await import('@/web/actions/live')

const NOW = new Date('2026-11-20T08:00:00Z')
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

const opened = async (world = ours) => {
  const file = await openJob(world.who.lead, world.jobId, NOW)
  if (!file) throw new Error('no job')
  return file
}
const save = async (note: string) => {
  const { head, plan } = await opened()
  return savePlan(
    ours.who.lead,
    { jobId: ours.jobId, basedOn: head.head, plan: { ...plan, note }, summary: () => 'note' },
    NOW,
  )
}
const note = (text: string, n: number) => ({
  id: randomUUID(),
  at: '2026-11-20T07:00:00.000Z',
  device: 'tablet',
  n,
  payload: { kind: 'note' as const, text },
})
const stretchOf = (key: string, triangles: number, worst = 0.1): Solution => ({
  kind: 'stretch',
  key,
  fineness: triangles,
  value: { worst, toPostHeatMm2: 0, overMm2: 0, wrinklesMm2: 0, areaMm2: 10, triangles, spot: null, toPostHeat: [] },
})
const task = () => ({ shopId: ours.who.lead.shopId, jobId: ours.jobId, since: 1000 })
const keptWorst = async (key: string) => {
  const rows = await inShop(task().shopId, (tx) => tx.select().from(solution))
  const value = rows.find((row) => row.key === key)?.value as { worst?: number } | undefined
  return value?.worst
}

describe('solutions', () => {
  it('a coarser one never takes the place of a finer one, a finer one does', async () => {
    const key = '00000000000000aa'
    await keepSolutions(task(), [stretchOf(key, 3000, 0.2)], 'one')
    await keepSolutions(task(), [stretchOf(key, 500, 0.9)], 'two')
    expect(await keptWorst(key)).toBe(0.2)
    await keepSolutions(task(), [stretchOf(key, 6000, 0.21)], 'three')
    expect(await keptWorst(key)).toBe(0.21)
  })
  it('stand in the reckoning of the job whose plan hangs on them, and in no other shop', async () => {
    const file = await opened()
    const [lack] = reckon(file.plan, file.catalogue, file.ledger).settling.lacks
    if (lack?.kind !== 'stretch') throw new Error('nothing lacks')
    await keepSolutions(task(), [stretchOf(lack.key, 3000, 0.4321)], 'test')
    const again = await opened()
    const { figures } = reckon(again.plan, again.catalogue, again.ledger)
    expect(figures.get(`stretch/${lack.of}/worst`)).toMatchObject({
      value: 0.4321,
      formula: 'solved_on_tape({triangles}, {rule})',
    })
    expect(Object.keys((await opened(theirs)).catalogue.solutions?.stretch ?? {})).toEqual([])
  })
  it('a shop that says something new has its jobs looked at; how its gun goes is solved once for all of them', async () => {
    const queue = await workQueue()
    await queue.purgeQueue(SETTLE_QUEUE)
    const said = await shopOf(ours.who.owner)
    const guns = [{ id: 'g', name: 'Gun', displayC: 350, airC: 350, coefficient: 105, sigmaMm: 30 }]
    await saveShop(ours.who.owner, { ...said.settings, guns }, said.number)
    expect(Number(await queue.getQueueSize(SETTLE_QUEUE, { before: 'active' }))).toBe(1)
    const heatOf = async (jobId: string, world = ours) => {
      const file = await openJob(world.who.lead, jobId, NOW)
      if (!file) throw new Error('no job')
      const { lacks } = reckon(file.plan, file.catalogue, file.ledger).settling
      return { lacks: lacks.filter((l) => l.kind === 'heat'), heat: file.catalogue.solutions?.heat ?? {} }
    }
    const [lack] = (await heatOf(ours.jobId)).lacks
    if (!lack) throw new Error('nothing lacks')
    const value = { kind: 'none' as const, code: 'cannot_reach' as const }
    await keepSolutions(task(), [{ kind: 'heat', key: lack.key, fineness: 1, value }], 'test')
    const other = randomUUID()
    await createJob(ours.who.lead, other, handCar(), 'another', NOW)
    for (const jobId of [ours.jobId, other]) {
      const { lacks, heat } = await heatOf(jobId)
      expect(heat[lack.key]).toEqual(value)
      expect(lacks.map((l) => l.key)).not.toContain(lack.key)
    }
    const file = await openJob(ours.who.lead, other, NOW)
    const { findings } = file ? reckon(file.plan, file.catalogue, file.ledger) : { findings: [] }
    expect(findings.find((f) => f.code === 'heat_no_way')?.facts).toMatchObject({ why: 'cannot_reach' })
    expect((await heatOf(theirs.jobId, theirs)).heat).toEqual({})
    await saveShop(ours.who.owner, said.settings, said.number + 1)
    await queue.purgeQueue(SETTLE_QUEUE)
  })
  it('a row of another shape counts as not there, and breaks nothing', async () => {
    const file = await opened()
    const [lack] = reckon(file.plan, file.catalogue, file.ledger).settling.lacks
    if (!lack) throw new Error('nothing lacks')
    const { shopId } = task()
    const broken = { shopId, kind: 'stretch' as const, key: lack.key, fineness: 9, by: 'x', value: { worst: 'much' } }
    await inShop(shopId, async (tx) => void (await tx.insert(solution).values(broken as never)))
    const again = await opened()
    expect(reckon(again.plan, again.catalogue, again.ledger).settling.lacks.map((l) => l.key)).toContain(lack.key)
    await keepSolutions(task(), [stretchOf(lack.key, 3000, 0.11)], 'test')
    expect(await keptWorst(lack.key)).toBe(0.11)
  })
  it('a saved plan asks once for what it lacks, and each thing is asked for once', async () => {
    const queue = await workQueue()
    const waiting = async (name: string) => Number(await queue.getQueueSize(name, { before: 'active' }))
    await queue.purgeQueue(SETTLE_QUEUE)
    await queue.purgeQueue(SOLVE_QUEUE)
    await save('one')
    await save('two')
    // Once in ten seconds, and two saves may lie on both sides of such a step.
    expect([1, 2]).toContain(await waiting(SETTLE_QUEUE))
    const lacks = [
      { kind: 'stretch', key: '00000000000000b1', of: 'door' },
      { kind: 'stretch', key: '00000000000000b2', of: 'wing' },
    ] as const
    await requestSolves(task(), lacks)
    await requestSolves(task(), lacks)
    expect(await waiting(SOLVE_QUEUE)).toBe(2)
    const first: SolveTask = { ...task(), lack: lacks[0] }
    expect(await reuseSolution(first)).toBe(false)
    await keepSolutions(task(), [stretchOf(lacks[0].key, 3000)], 'test')
    expect(await reuseSolution(first)).toBe(true)
    await queue.purgeQueue(SETTLE_QUEUE)
    await queue.purgeQueue(SOLVE_QUEUE)
  })
  it('the newest plan comes first and of it the most telling; what is only compared with comes last', async () => {
    const queue = await workQueue()
    await queue.purgeQueue(SOLVE_QUEUE)
    const lack = (key: string, as = false) => ({
      kind: 'stretch' as const,
      key: `00000000000000${key}`,
      of: 'door',
      ...(as ? { as: { filmId: 'fen', order: 'flats_first' as const, tension: 'triangles' as const } } : {}),
    })
    await requestSolves({ ...task(), since: 1000 }, [lack('d1'), lack('d2')])
    await requestSolves({ ...task(), since: 5000 }, [lack('d3'), lack('d4'), lack('d5', true)])
    const order: string[] = []
    for (let i = 0; i < 5; i++) {
      const [next] = await queue.fetch<SolveTask>(SOLVE_QUEUE, { batchSize: 1, priority: true })
      if (!next) break
      order.push(next.data.lack.key.slice(-2))
      await queue.complete(SOLVE_QUEUE, next.id)
    }
    expect(order).toEqual(['d3', 'd4', 'd1', 'd2', 'd5'])
  })
  it('a layout that another job of the shop has already is taken over, and both jobs read it', async () => {
    const other = randomUUID()
    await createJob(ours.who.lead, other, handCar(), 'Taken in', NOW)
    const layout: Solution = {
      kind: 'layout',
      key: '00000000000000ee',
      fineness: 1,
      value: {
        filmId: 'fen-satin',
        sourceId: null,
        sources: [],
        join: null,
        rollWidthMm: 1520,
        usedMm: 0,
        boundMm: 0,
        rolls: [],
        unplaced: [],
      },
    }
    await keepSolutions(task(), [layout], 'test')
    const layoutsOf = async (id: string) =>
      Object.keys((await openJob(ours.who.lead, id, NOW))?.catalogue.solutions?.layout ?? {})
    expect(await layoutsOf(other)).toEqual([])
    const lack = { kind: 'layout', key: layout.key, of: 'fen-satin' } as const
    expect(await reuseSolution({ ...task(), jobId: other, lack })).toBe(true)
    expect(await layoutsOf(other)).toEqual([layout.key])
    expect(await layoutsOf(ours.jobId)).toContain(layout.key)
    const missing = { ...lack, key: '00000000000000ef' }
    expect(await reuseSolution({ ...task(), jobId: other, lack: missing })).toBe(false)
  })
  it('a change of the rack is one task, whatever the number of jobs; a worker goes through those that are not over', async () => {
    const queue = await workQueue()
    const waiting = async () => Number(await queue.getQueueSize(SETTLE_QUEUE, { before: 'active' }))
    await queue.purgeQueue(SETTLE_QUEUE)
    await setDamage(ours.who.lead, ours.rollId, [])
    await setDamage(ours.who.lead, ours.rollId, [{ fromCoreMm: 40, lengthMm: 5, note: '' }])
    expect(await waiting()).toBe(1)
    const [rack] = await queue.fetch<RackTask>(SETTLE_QUEUE, { batchSize: 1 })
    if (!rack) throw new Error('no task')
    expect(rack.data).toMatchObject({ shopId: task().shopId, jobId: null })
    await requestSettleEach(rack.data)
    const jobs = await inShop(task().shopId, (tx) => tx.select({ id: job.id }).from(job))
    expect(await waiting()).toBe(jobs.length)
    await queue.complete(SETTLE_QUEUE, rack.id)
    await queue.purgeQueue(SETTLE_QUEUE)
  })
  it('what was refused queues nothing', async () => {
    const queue = await workQueue()
    await queue.purgeQueue(SETTLE_QUEUE)
    const { plan } = await opened()
    const out = await savePlan(ours.who.lead, { jobId: ours.jobId, basedOn: 999, plan, summary: () => '' }, NOW)
    expect(out.kind).toBe('not_found')
    expect(await queue.getQueueSize(SETTLE_QUEUE, { before: 'active' })).toBe(0)
  })
})

describe('changes of a job', () => {
  it('after a number: what came since, and nothing before', async () => {
    const { shopHead } = await opened()
    expect(await changesOf(ours.who.lead, ours.jobId, shopHead)).toMatchObject({
      entries: [],
      revision: null,
      stock: null,
      solutions: [],
      head: shopHead,
    })
    await appendEntries(ours.who.installer, ours.jobId, [note('first', 1)], { now: NOW })
    await save('three')
    await setDamage(ours.who.lead, ours.rollId, [{ fromCoreMm: 10, lengthMm: 5, note: '' }])
    await keepSolutions(task(), [stretchOf('00000000000000cc', 3000)], 'test')
    const since = await changesOf(ours.who.desk, ours.jobId, shopHead)
    expect(since?.entries.map((row) => row.payload)).toEqual([{ kind: 'note', text: 'first' }])
    expect(since?.revision?.plan.note).toBe('three')
    expect(since?.stock?.find((item) => item.id === ours.rollId)?.damage).toHaveLength(1)
    expect(since?.head).toBeGreaterThan(shopHead)
    expect(await changesOf(theirs.who.lead, ours.jobId, 0)).toBeNull()
  })
  it('a page that stayed open has the ledger of a fresh reading, whatever order entries arrive in', async () => {
    const { mergedRows } = await import('@/core/model/log/device-order')
    const before = await opened()
    let known = before.ledger
    let head = before.shopHead
    for (const n of [5, 3, 4, 9, 7]) {
      await appendEntries(ours.who.installer, ours.jobId, [note(`n${n}`, n)], { now: NOW })
      const since = await changesOf(ours.who.lead, ours.jobId, head)
      if (!since) throw new Error('no job')
      known = mergedRows(known, since.entries)
      head = since.head
    }
    expect(known).toEqual((await opened()).ledger)
    expect(inDeviceOrder([])).toEqual([])
  })
  it('a number that is none, another shop’s job and nobody at all are refused', async () => {
    const ask = (query: string, id = ours.jobId) => readChanges(new Request(`http://127.0.0.1:3999/x${query}`), id)
    acting = ours.who.lead.userId
    expect((await ask('?since=0')).status).toBe(200)
    expect((await ask('?since=-1')).status).toBe(422)
    expect((await ask('?since=x')).status).toBe(422)
    expect((await ask('?since=0', 'none')).status).toBe(404)
    acting = theirs.who.lead.userId
    expect((await ask('?since=0')).status).toBe(404)
    acting = null
    expect((await ask('?since=0')).status).toBe(401)
  })
})

describe('the stream', () => {
  /** Reads a stream until it has told of `count` changes, or for two seconds. */
  async function told(
    response: Response,
    count: number,
  ): Promise<{ job: string | null; head: number; kind: string }[]> {
    const reader = (response.body as ReadableStream<Uint8Array>).getReader()
    const text = new TextDecoder()
    const out: { job: string | null; head: number; kind: string }[] = []
    const end = Date.now() + 2000
    let rest = ''
    while (out.length < count && Date.now() < end) {
      const chunk = await Promise.race([reader.read(), new Promise<null>((r) => setTimeout(r, 500, null))])
      if (!chunk) continue
      if (chunk.done) break
      rest += text.decode(chunk.value)
      for (const part of rest.split('\n\n').slice(0, -1))
        for (const line of part.split('\n')) if (line.startsWith('data: ')) out.push(JSON.parse(line.slice(6)) as never)
      rest = rest.slice(rest.lastIndexOf('\n\n') + 2)
    }
    await reader.cancel()
    return out
  }
  const open = (headers: Record<string, string> = {}) =>
    openLive(new Request('http://127.0.0.1:3999/api/live', { headers }))

  it('tells of a save within two seconds of its commit, and of nothing of another shop', async () => {
    acting = ours.who.desk.userId
    const stream = await open()
    expect(stream.headers.get('content-type')).toMatch(/event-stream/)
    acting = theirs.who.desk.userId
    const other = await open()
    await new Promise((resolve) => setTimeout(resolve, 400))
    await save('four')
    const heard = await told(stream, 2)
    expect(heard.some((news) => news.job === ours.jobId && news.kind === 'plan')).toBe(true)
    expect((await told(other, 2)).some((news) => news.job === ours.jobId)).toBe(false)
  })
  it('one that comes back after a gap is told what it missed', async () => {
    acting = ours.who.desk.userId
    const { shopHead } = await opened()
    await save('five')
    const heard = await told(await open({ 'last-event-id': String(shopHead) }), 2)
    expect(heard.find((news) => news.job === ours.jobId)?.head).toBeGreaterThan(shopHead)
    expect((await told(await open({ 'last-event-id': 'forged' }), 1)).every((news) => news.job === null)).toBe(true)
  })
  it('is refused to nobody at all, and beyond a handful to one member; a closed one makes room', async () => {
    acting = null
    expect((await open()).status).toBe(401)
    acting = ours.who.installer.userId
    const many = await Promise.all(Array.from({ length: 9 }, () => open()))
    expect(many.filter((r) => r.status === 503)).toHaveLength(1)
    await Promise.all(many.filter((r) => r.status === 200).map((r) => r.body?.cancel()))
    const again = await open()
    expect(again.status).toBe(200)
    await again.body?.cancel()
  })
  it('an entry travels in the word of it, as whoever asks would read it; a cut, or too many at once, are asked for', async () => {
    const heard: LiveEvent[] = []
    const stop = await subscribe({ shopId: task().shopId, hear: (event) => heard.push(event), lost: () => {} })
    const since = (await opened()).shopHead
    const wordOf = async (head: number) => {
      await vi.waitFor(() => expect(heard.some((e) => e.kind === 'entries' && e.head === head)).toBe(true), 2000)
      return heard.find((e) => e.kind === 'entries' && e.head === head)
    }
    const enter = (entries: Parameters<typeof appendEntries>[2]) =>
      appendEntries(ours.who.installer, ours.jobId, entries, { now: NOW })
    const one = await enter([note('travels', 101), note('travels too', 102)])
    const read = await changesOf(ours.who.desk, ours.jobId, since)
    expect((await wordOf(one.head))?.entries).toEqual(read?.entries)
    expect(read?.entries).toHaveLength(2)
    const used = { kind: 'film_used' as const, stockId: ours.rollId, lengthMm: 10 }
    const cut = await enter([{ ...note('', 103), payload: used }])
    expect(await wordOf(cut.head)).not.toHaveProperty('entries')
    // Past what one notification takes, by number and by size.
    const many = await enter(Array.from({ length: 40 }, (_, i) => note(`${i}`, 200 + i)))
    expect(await wordOf(many.head)).not.toHaveProperty('entries')
    const long = await enter(Array.from({ length: 8 }, (_, i) => note('é'.repeat(480), 300 + i)))
    expect(await wordOf(long.head)).not.toHaveProperty('entries')
    stop()
  })
  it('hears nothing of what was not committed', async () => {
    const heard: LiveEvent[] = []
    const stop = await subscribe({ shopId: task().shopId, hear: (event) => heard.push(event), lost: () => {} })
    const { tell } = await import('@/db/live')
    const undone = inShop(task().shopId, async (tx) => {
      await tell(tx, { shop: task().shopId, job: ours.jobId, head: 1, kind: 'plan' })
      throw new Error('taken back')
    })
    await expect(undone).rejects.toThrow()
    await save('six')
    await vi.waitFor(() => expect(heard.some((event) => event.kind === 'plan')).toBe(true), 2000)
    expect(heard.every((event) => event.head > 1)).toBe(true)
    stop()
  })
  it('a database that can no longer be listened to ends the streams: their browsers come back and catch up', async () => {
    acting = ours.who.desk.userId
    const { shopHead } = await opened()
    const stream = await open()
    const ended = told(stream, 99)
    await new Promise((resolve) => setTimeout(resolve, 300))
    const own = new pg.Client({ connectionString: process.env.DATABASE_URL ?? '' })
    await own.connect()
    await own.query(`select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'cuirass-live'`)
    await own.end()
    await save('seven')
    expect((await ended).some((news) => news.kind === 'plan')).toBe(false)
    const again = await told(await open({ 'last-event-id': String(shopHead) }), 2)
    expect(again.find((news) => news.job === ours.jobId)?.head).toBeGreaterThan(shopHead)
  })
})
