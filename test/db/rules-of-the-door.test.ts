import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { closeDatabase, database, doorDatabase, guarded, inShop } from '@/db/client'
import { cleanDatabaseError, DatabaseError, isBusy } from '@/db/errors'
import { migrateDatabase } from '@/db/migrate'
import { askFleet } from '@/db/queries/fleet'
import { health } from '@/db/queries/health'
import { openJob } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { keepSolutions } from '@/db/queries/solutions'
import { keepScan } from '@/db/queries/stretch'
import { closeWorkQueue } from '@/db/queue'
import { QUOTAS } from '@/db/quotas'
import { solution } from '@/db/schema'
import { shopWorld, type ShopWorld } from './world'

let acting: string | null = null
vi.mock('@/web/actions/session', () => ({ currentMember: async () => (acting ? whoIs(acting) : null) }))
const { takeEntries } = await import('@/web/actions/entries')
const { closeThreads } = await import('@/web/actions/threads')

let ours: ShopWorld
let theirs: ShopWorld
beforeAll(async () => {
  ours = await shopWorld()
  theirs = await shopWorld()
})
afterAll(async () => {
  await closeThreads()
  await closeWorkQueue()
  await closeDatabase()
})

const refused = (work: Promise<unknown>) =>
  work.then(
    () => 'allowed',
    (e: unknown) => (cleanDatabaseError(e) as DatabaseError).code,
  )

describe('the application’s role', () => {
  it('owns nothing, and is neither superuser nor past the rules', async () => {
    const { rows } = await database().execute<{ super: boolean; past: boolean; owned: string }>(sql`
      select rolsuper as super, rolbypassrls as past,
        (select count(*) from pg_class where relowner = r.oid) as owned
      from pg_roles r where rolname = current_user`)
    expect(rows[0]).toEqual({ super: false, past: false, owned: '0' })
  })
  it('may change and delete only where it has to', async () => {
    const { lead } = ours.who
    for (const table of [
      'photo',
      'climate_reading',
      'vehicle_revision',
      'ledger',
      'revision',
      'stock_movement',
      'supply_movement',
    ])
      for (const statement of [
        sql`update ${sql.identifier(table)} set by = 'x'`,
        sql`delete from ${sql.identifier(table)}`,
      ])
        expect(await refused(guarded(lead, 'read', (tx) => tx.execute(statement))), table).toMatch(/42501|42703/)
    expect(await refused(guarded(lead, 'read', (tx) => tx.execute(sql`create table mine (id int)`)))).toBe('42501')
    expect(await refused(guarded(lead, 'read', (tx) => tx.execute(sql`delete from "user"`)))).toBe('42501')
  })
  it('migrations refuse a role that owns tables or is the owner’s own', async () => {
    const before = process.env.DATABASE_URL ?? ''
    try {
      process.env.DATABASE_URL = process.env.DATABASE_OWNER_URL
      await expect(migrateDatabase()).rejects.toThrow(/one role/)
    } finally {
      process.env.DATABASE_URL = before
    }
    await expect(migrateDatabase()).resolves.toBeUndefined()
  })
  it('after a new version the jobs of every shop are looked at, and shops stay apart', async () => {
    await migrateDatabase()
    for (const { who } of [ours, theirs]) {
      const { shopId } = who.lead
      const waiting = await guarded(who.lead, 'read', (tx) =>
        tx.execute<{ shop: string }>(sql`
          select data ->> 'shopId' as shop from pgboss.job
          where name = 'settle' and state = 'created' and data ->> 'jobId' is null`),
      )
      // However often it is asked for, one look waits.
      expect(waiting.rows).toEqual([{ shop: shopId }])
      const { rows } = await guarded(who.lead, 'read', (tx) =>
        tx.execute<{ id: string }>(sql`select id from shop where not is_demo`),
      )
      expect(rows).toEqual([{ id: shopId }])
    }
  })
})

describe('users, sessions, accounts and queued work', () => {
  const count = async (shop: string | null, table: string) =>
    database().transaction(async (tx) => {
      if (shop) await tx.execute(sql`select set_config('cuirass.shop', ${shop}, true)`)
      const { rows } = await tx.execute<{ n: string }>(sql.raw(`select count(*) as n from ${table}`))
      return Number(rows[0]?.n)
    })
  it('show only colleagues to a shop, and sessions and passwords to nobody but the door', async () => {
    expect(await count(null, '"user"')).toBe(0)
    expect(await count(ours.who.lead.shopId, '"user"')).toBe(4)
    for (const table of ['session', 'account', 'verification', 'sign_in_try'])
      expect(await count(ours.who.lead.shopId, table), table).toBe(0)
    const { rows } = await doorDatabase().execute<{ n: string }>(sql`select count(*) as n from account`)
    expect(Number(rows[0]?.n)).toBeGreaterThanOrEqual(8)
  })
  it('a shop sees of the queue what is its own; a layout and its task are written together or not at all', async () => {
    const request = {
      format: 'cuirass/layout@1' as const,
      cutting: 'guillotine' as const,
      gap_mm: 0,
      seconds: 1,
      seed: 1,
      stock: [{ id: 'r', width_mm: 10, length_mm: 10 }],
      pieces: [{ id: 'p', width_mm: 1, height_mm: 1, count: 1, turn: 'fixed' as const }],
    }
    const [before, theirsBefore] = [
      await count(ours.who.lead.shopId, 'pgboss.job'),
      await count(theirs.who.lead.shopId, 'pgboss.job'),
    ]
    await askFleet(ours.who.lead, { id: randomUUID(), name: 'Ours', request, stages: null })
    expect(await count(ours.who.lead.shopId, 'pgboss.job')).toBe(before + 1)
    expect(await count(theirs.who.lead.shopId, 'pgboss.job')).toBe(theirsBefore)
    // A name that the row cannot take: no task stays behind either.
    const broken = askFleet(ours.who.lead, { id: 'no-uuid', name: 'Broken', request, stages: null })
    await expect(broken).rejects.toThrow()
    expect(await count(ours.who.lead.shopId, 'pgboss.job')).toBe(before + 1)
  })
  it('the first of a shop comes before the third of another', async () => {
    const { rows } = await guarded(ours.who.lead, 'read', (tx) =>
      tx.execute<{ priority: number }>(
        sql`select priority from pgboss.job where name = 'fleet-layout' order by created_on, id`,
      ),
    )
    expect(rows[0]?.priority).toBe(0)
  })
})

describe('what the log of the server says of a refused statement', () => {
  it('names code and constraint, and none of the values', async () => {
    const secret = 'session-token-of-somebody'
    const error = await guarded(ours.who.lead, 'read', (tx) =>
      tx.execute(sql`insert into film (shop_id, id, sheet) values (${ours.who.lead.shopId}, ${secret}, ${secret})`),
    ).catch((e: unknown) => e)
    expect(error).toBeInstanceOf(DatabaseError)
    const printed = `${(error as Error).message} ${(error as Error).stack} ${JSON.stringify(error)}`
    expect(printed).toContain('22P02')
    expect(printed).not.toContain(secret)
  })
})

describe('one shop’s trouble is not another’s', () => {
  it('a row held for long turns its own writers away and holds up nobody else', async () => {
    const holder = new pg.Client({ connectionString: process.env.DATABASE_OWNER_URL ?? '' })
    await holder.connect()
    await holder.query('begin')
    await holder.query(`select set_config('cuirass.shop', $1, true)`, [ours.who.lead.shopId])
    await holder.query('select 1 from job where id = $1 for update', [ours.jobId])
    try {
      acting = ours.who.installer.userId
      const send = () => {
        const entry = { id: randomUUID(), at: new Date().toISOString(), payload: { kind: 'note', text: 'x' } }
        const body = JSON.stringify({ sent_at: new Date().toISOString(), entries: [entry] })
        return takeEntries(new Request('http://127.0.0.1:3999/x', { method: 'POST', body }), ours.jobId)
      }
      const waiting = Array.from({ length: 25 }, send)
      await new Promise((resolve) => setTimeout(resolve, 300))
      const began = performance.now()
      for (let i = 0; i < 20; i++) expect(await openJob(theirs.who.lead, theirs.jobId, new Date())).not.toBeNull()
      expect(performance.now() - began).toBeLessThan(2500)
      const answers = await Promise.all(waiting)
      expect(new Set(answers.map((a) => a.status))).toEqual(new Set([503]))
      expect(['busy', 'too_much_at_once']).toContain(((await answers[0]?.json()) as { code: string }).code)
    } finally {
      await holder.query('rollback')
      await holder.end()
    }
  }, 120_000)
  it('waiting too long for a row is told from what is wrong', () => {
    expect(isBusy(Object.assign(new Error('x'), { code: '55P03' }))).toBe(true)
    expect(isBusy(new Error('timeout exceeded when trying to connect'))).toBe(true)
    expect(isBusy(Object.assign(new Error('x'), { code: '23505' }))).toBe(false)
  })
})

describe('what a shop may keep', () => {
  const scan = (panelId: string, size: number) => ({
    jobId: ours.jobId,
    panelId,
    name: 'Scan',
    triangles: 1,
    bytes: Buffer.alloc(size),
  })
  it('a scan belongs to a panel that is there', async () => {
    expect(await keepScan(ours.who.lead, scan('invented', 10))).toBe('no_such_panel')
    expect(await keepScan(ours.who.lead, scan('door', 10))).toBe('done')
  })
  it('scans and solved rows are bounded, with a word for it', async () => {
    const quotas = QUOTAS as { scanBytes: number; solvedRows: number }
    const before = { ...quotas }
    try {
      Object.assign(quotas, { scanBytes: 1000, solvedRows: 3 })
      expect(await keepScan(ours.who.lead, scan('wing', 995))).toBe('scan_quota')
      // A new scan in the place of the old counts as one.
      expect(await keepScan(ours.who.lead, scan('door', 995))).toBe('done')
      const value = {
        worst: 0.1,
        toPostHeatMm2: 0,
        overMm2: 0,
        wrinklesMm2: 0,
        areaMm2: 10,
        triangles: 400,
        spot: null,
        toPostHeat: [],
      }
      const task = { shopId: ours.who.lead.shopId, jobId: ours.jobId, since: 1000 }
      for (let i = 0; i < 5; i++)
        await keepSolutions(task, [{ kind: 'stretch', key: `000000000000000${i}`, fineness: 400, value }], 'test')
      const kept = await inShop(task.shopId, (tx) => tx.select({ key: solution.key }).from(solution))
      expect(kept.map((row) => row.key).sort()).toEqual([2, 3, 4].map((i) => `000000000000000${i}`))
    } finally {
      Object.assign(quotas, before)
    }
  })
})

describe('health', () => {
  it('is good while the database answers and nothing waits without a worker', async () => {
    const state = await health()
    expect(state).toMatchObject({ database: 'up', workers: 0 })
    expect(state.ok).toBe(state.waiting === 0)
    expect(JSON.stringify(state)).not.toMatch(/postgres:|password|shop/)
  })
})
