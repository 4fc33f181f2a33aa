import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import pg from 'pg'
import { reckon } from '@/core/reckon/reckon'
import { settle } from '@/core/reckon/solve-lack'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_MORE_JOBS } from '@/db/demo/more-jobs'
import { DEMO_SHOP } from '@/db/demo/people'
import { comparedSolutions, jobToSettle, jobWithSolutions } from '@/db/queries/jobs'
import { eq } from 'drizzle-orm'
import { readCatalogue, readLedger, writeCatalogue, writeLedger } from '@/core/model/catalogue/files'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { reckoningJson } from '@/core/reckon/output'
import { whoIs } from '@/db/queries/people'
import { member } from '@/db/schema'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { LogPayload } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { closeDatabase, database, guarded, inShop } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import type { BayEntry } from '@/core/model/log/arrival'
import { brokenConstraint, DatabaseError } from '@/db/errors'
import { appendEntries } from '@/db/queries/entries'
import { createJob, openJob } from '@/db/queries/jobs'
import { revisions, savePlan } from '@/db/queries/plans'
import { rack } from '@/db/queries/rack'
import { handCar, withPanel } from '../fixtures/plans'
import { demo, shopWorld, type ShopWorld } from './world'

let w: ShopWorld
const now = new Date('2026-11-20T09:00:00Z')
beforeAll(async () => {
  w = await shopWorld()
})
afterAll(async () => {
  await closeWorkQueue()
  await closeDatabase()
})

const newJob = async () => {
  const id = randomUUID()
  await createJob(w.who.lead, id, handCar(), 'Taken in', now)
  return id
}
const save = (jobId: string, basedOn: number, plan: Plan, restores?: number) =>
  savePlan(w.who.lead, { jobId, basedOn, plan, summary: () => 'changed', ...(restores ? { restores } : {}) }, now)
const head = async (jobId: string) => (await openJob(w.who.lead, jobId, now))?.plan
const append = async (jobId: string, list: BayEntry[]) =>
  (await appendEntries(w.who.installer, jobId, list, { now })).outcomes.map((o) => ('code' in o ? o.code : o.outcome))
const entry = (payload: LogPayload, id = randomUUID()): BayEntry => ({ id, at: '2026-11-20T08:00:00.000Z', payload })
const left = async () => (await rack(w.who.lead)).stock.find((s) => s.id === w.rollId)?.leftMm

describe('revisions', () => {
  it('each save is one, with its author', async () => {
    const id = await newJob()
    expect(
      await save(
        id,
        1,
        withPanel(handCar(), 'door', () => ({ widthMm: 1111 })),
      ),
    ).toMatchObject({ kind: 'saved', number: 2 })
    expect((await revisions(w.who.lead, id)).map((r) => [r.number, r.basedOn, r.author])).toEqual([
      [2, 1, w.who.lead.name],
      [1, null, w.who.lead.name],
    ])
    expect(
      await save(
        id,
        2,
        withPanel(handCar(), 'door', () => ({ widthMm: 1111 })),
      ),
    ).toMatchObject({ kind: 'unchanged', number: 2 })
  })
  it('a save on an older revision merges different panels and refuses the same, with both sides', async () => {
    const id = await newJob()
    await save(
      id,
      1,
      withPanel(handCar(), 'door', () => ({ widthMm: 1111 })),
    )
    expect(
      await save(
        id,
        1,
        withPanel(handCar(), 'wing', () => ({ heightMm: 650 })),
      ),
    ).toMatchObject({ kind: 'merged', number: 3, theirParts: ['panels/door'] })
    expect((await head(id))?.panels.map((p) => [p.widthMm, p.heightMm])).toEqual([
      [1380, 920],
      [1111, 680],
      [780, 650],
    ])
    const clash = await save(
      id,
      1,
      withPanel(handCar(), 'door', () => ({ widthMm: 999 })),
    )
    expect(clash).toMatchObject({
      kind: 'clash',
      number: 3,
      by: w.who.lead.name,
      clashes: [{ part: 'panels/door', mine: { widthMm: 999 }, theirs: { widthMm: 1111 } }],
    })
    expect((await head(id))?.panels[1]?.widthMm).toBe(1111)
  })
  it('eight saves at once on one base all land, each panel change in the end', async () => {
    const id = randomUUID()
    const names = ['bonnet', 'door', 'wing']
    await createJob(w.who.lead, id, handCar(), 'Taken in', now)
    await Promise.all(
      names.map((n) =>
        save(
          id,
          1,
          withPanel(handCar(), n, () => ({ note: `note of ${n}` })),
        ),
      ),
    )
    expect((await head(id))?.panels.map((p) => p.note)).toEqual(names.map((n) => `note of ${n}`))
    expect((await revisions(w.who.lead, id)).length).toBe(4)
  })
  it('are never rewritten, nor is the ledger or a movement: the application’s role may not', async () => {
    await append(w.jobId, [entry({ kind: 'note', text: 'stays' })])
    for (const table of ['revision', 'ledger', 'stock_movement'])
      for (const change of [
        sql`delete from ${sql.identifier(table)}`,
        sql`update ${sql.identifier(table)} set shop_id = shop_id`,
        sql`truncate ${sql.identifier(table)}`,
        sql`alter table ${sql.identifier(table)} disable row level security`,
      ]) {
        const refused = await guarded(w.who.owner, 'read', (tx) => tx.execute(change)).catch((e: unknown) => e)
        expect(refused instanceof DatabaseError && refused.code, table).toBe('42501')
      }
  })
  it('nor by the tables’ owner: their triggers refuse it', async () => {
    const owner = new pg.Client({ connectionString: process.env.DATABASE_OWNER_URL ?? '' })
    await owner.connect()
    try {
      await owner.query(`select set_config('cuirass.shop', $1, false)`, [w.who.lead.shopId])
      for (const table of ['revision', 'ledger', 'stock_movement'])
        for (const change of [`delete from ${table}`, `update ${table} set shop_id = shop_id`])
          expect(brokenConstraint(await owner.query(change).catch((e: unknown) => e)), table).toBe('append_only')
    } finally {
      await owner.end()
    }
  })
})

describe('the ledger', () => {
  it('applies an entry once however often and however concurrently it arrives', async () => {
    const before = await left()
    const cut = entry({ kind: 'film_used', stockId: w.rollId, lengthMm: 1000 })
    const outcomes = (await Promise.all(Array.from({ length: 6 }, () => append(w.jobId, [cut])))).flat()
    expect(outcomes.sort()).toEqual(['again', 'again', 'again', 'again', 'again', 'done'])
    expect(await left()).toBe(Number(before) - 1000)
  })
  it('an id that stands for something else is refused', async () => {
    const id = randomUUID()
    expect(await append(w.jobId, [entry({ kind: 'note', text: 'a' }, id)])).toEqual(['done'])
    expect(await append(w.jobId, [entry({ kind: 'note', text: 'b' }, id)])).toEqual(['id_taken'])
  })
})

describe('stock', () => {
  it('never falls below zero: two clients cut the same roll at once, one gets it', async () => {
    const rest = Number(await left())
    const [a, b] = [await newJob(), await newJob()]
    const cut = (jobId: string) =>
      append(jobId, [entry({ kind: 'film_used', stockId: w.rollId, lengthMm: rest * 0.6 })]).then(([o]) => o)
    expect((await Promise.all([cut(a), cut(b)])).sort()).toEqual(['done', 'not_enough_film'])
    expect(await left()).toBeCloseTo(rest * 0.4, 3)
    // The refused cut left no entry behind either.
    const entries = await Promise.all([a, b].map(async (id) => (await openJob(w.who.lead, id, now))?.ledger.length))
    expect(entries.sort()).toEqual([0, 1])
  })
  it('what is left is the sum of the movements, and changes no other way', async () => {
    const sums = await guarded(w.who.lead, 'read', (tx) =>
      tx.execute<{ left: string; moved: string }>(
        sql`select i.left_mm as left, sum(m.delta_mm) as moved from stock_item i join stock_movement m on
          m.item_id = i.id group by i.id, i.left_mm`,
      ),
    )
    for (const r of sums.rows) expect(Number(r.left)).toBeCloseTo(Number(r.moved), 3)
    const forced = await guarded(w.who.owner, 'stock', (tx) =>
      tx.execute(sql`update stock_item set left_mm = 99999`),
    ).catch((e: unknown) => e)
    expect(brokenConstraint(forced)).toBe('left_by_movements_only')
  })
})

describe('demo data', () => {
  it('loads once: a dozen jobs at their stages, eight films, rolls of two lots, five rests', async () => {
    expect(await demo()).toBe('loaded')
    expect(await demo()).toBe('already')
    const shop = '5a170000-0000-4000-8000-000000000001'
    const rows = await database().transaction(async (tx) => {
      await tx.execute(sql`select set_config('cuirass.shop', ${shop}, true)`)
      const stages = await tx.execute<{ vehicle: string; stage: string; recheck_due_at: string | null }>(
        sql`select vehicle, stage, recheck_due_at from job order by id`,
      )
      const films = await tx.execute<{ n: string }>(sql`select count(*) n from film`)
      const stock = await tx.execute<{ kind: string; n: string; lots: string }>(
        sql`select kind, count(*) n, count(distinct lot) lots from stock_item group by kind order by kind`,
      )
      return { stages: stages.rows, films: Number(films.rows[0]?.n), stock: stock.rows }
    })
    expect(rows.films).toBe(8)
    expect(rows.stages.map((r) => r.stage).slice(0, 5)).toEqual(['tape', 'bay', 'pieces', 'walkaround', 'handover'])
    expect(rows.stages).toHaveLength(DEMO_JOBS.length + DEMO_MORE_JOBS.length)
    expect(rows.stages[4]?.recheck_due_at).not.toBeNull()
    expect(rows.stock).toMatchObject([
      { kind: 'rest', n: '5' },
      { kind: 'roll', n: '7' },
    ])
  })
  it('its files say at a prompt what its pages say, figure by figure', async () => {
    await demo()
    for (const { id } of DEMO_JOBS) {
      const now = new Date('2031-03-03T08:00:00Z')
      const lead = await inShop(DEMO_SHOP.id, async (tx) => {
        const [row] = await tx.select().from(member).where(eq(member.role, 'lead'))
        return whoIs(row?.userId ?? '')
      })
      const file = lead && (await jobWithSolutions(lead.who, id, now))
      if (!file) throw new Error('no demo job')
      const plan = readPlan(writePlan(file.plan))
      const shop = readCatalogue(writeCatalogue(file.catalogue, file.solutions))
      const ledger = readLedger(writeLedger(file.ledger))
      if (!plan.ok || !shop.ok || !ledger.ok) throw new Error(JSON.stringify([plan, shop, ledger]).slice(0, 300))
      const atPrompt = reckon(plan.value, { ...shop.value, now: '2031-03-03T08:00' }, ledger.value)
      const onPage = reckon(file.plan, file.catalogue, file.ledger)
      expect(reckoningJson(atPrompt)).toEqual(reckoningJson(onPage))
    }
  })
  it('a page comes without what its plan is only compared by, and no figure of it waits for that', async () => {
    await demo()
    const now = new Date('2031-03-03T08:00:00Z')
    const lead = await inShop(DEMO_SHOP.id, async (tx) => {
      const [row] = await tx.select().from(member).where(eq(member.role, 'lead'))
      return whoIs(row?.userId ?? '')
    })
    if (!lead) throw new Error('no lead')
    for (const { id } of DEMO_JOBS) {
      const [page, whole] = [await openJob(lead.who, id, now, 'own'), await openJob(lead.who, id, now)]
      const compared = await comparedSolutions(lead.who, id)
      if (!page || !whole || !compared) throw new Error('no demo job')
      const keys = (file: typeof page) => Object.keys(file.catalogue.solutions?.stretch ?? {})
      const later = compared.map((s) => s.key)
      // Nothing twice, nothing left out.
      expect(keys(page).filter((key) => later.includes(key))).toEqual([])
      expect([...keys(page), ...later].sort()).toEqual(keys(whole).sort())
      expect(compared.every((s) => s.kind === 'stretch')).toBe(true)
      const told = (file: typeof page) => reckoningJson(reckon(file.plan, file.catalogue, file.ledger))
      expect(told(page)).toEqual(told(whole))
    }
    const hatch = await comparedSolutions(lead.who, DEMO_JOBS[0]?.id ?? '')
    const own = (await openJob(lead.who, DEMO_JOBS[0]?.id ?? '', now, 'own'))?.catalogue.solutions?.stretch ?? {}
    expect(hatch?.length).toBeGreaterThan(Object.keys(own).length)
    expect(await comparedSolutions(lead.who, randomUUID())).toBeNull()
    const stranger = await shopWorld()
    expect(await comparedSolutions(stranger.who.lead, DEMO_JOBS[0]?.id ?? '')).toBeNull()
  })
  it('loads settled: every solution that its jobs hang on ships with it (else: npm run demo:solve)', async () => {
    await demo()
    for (const { id } of [...DEMO_JOBS, ...DEMO_MORE_JOBS]) {
      const file = await jobToSettle({ shopId: DEMO_SHOP.id, jobId: id }, null)
      if (!file) throw new Error('no demo job')
      const { plan, catalogue, ledger } = file
      expect(reckon(plan, catalogue, ledger).settling.lacks, plan.vehicle.name).toEqual([])
      expect(settle({ plan, catalogue, ledger, scanOf: () => null })).toEqual([])
    }
  })
})
