import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { closeDatabase, database } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { askFleet } from '@/db/queries/fleet'
import { openJob } from '@/db/queries/jobs'
import { whoIs } from '@/db/queries/people'
import { rack } from '@/db/queries/rack'
import { packScan } from '@/core/engines/stretch/scan-file'
import { filesBelow } from '../fixtures/files'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { THRIFTY } from '@/core/model/method/schema'
import { vehicleOf } from '@/core/model/plan/vehicle-library'
import { film, handCar } from '../fixtures/plans'
import { picturePng } from '../fixtures/pictures'
import { shopWorld, type ShopWorld } from './world'

/** Who the actions take the request to come from. */
let acting: string | null = null
vi.mock('@/web/actions/session', () => ({
  currentMember: async () => (acting ? whoIs(acting) : null),
  requireMember: async () => (acting ? whoIs(acting) : null),
}))

const jobActions = await import('@/web/actions/jobs')
const shopActions = await import('@/web/actions/shop')
const pinActions = await import('@/web/actions/pins')
const supplyActions = await import('@/web/actions/supplies')
const ruleActions = await import('@/web/actions/rules')
const fleetActions = await import('@/web/actions/fleet')
const tableActions = await import('@/web/actions/cutting-table')
const { exportCatalogue, exportLedger, exportJob, importJob } = await import('@/web/actions/job-files')
const { takeEntries } = await import('@/web/actions/entries')
const { closeThreads } = await import('@/web/actions/threads')
const rackActions = await import('@/web/actions/rack')
const vehicleActions = await import('@/web/actions/vehicles')
const {
  handoverPdf,
  heatRecordPdf,
  inspectionPdf,
  layingCardsPdf,
  layoutFile,
  measurePdf,
  panelsCsv,
  readingsCsv,
  trimPlanPdf,
} = await import('@/web/actions/job-papers')
const { jobCalendarFile, memberCalendar } = await import('@/web/actions/calendar')
const { showPhoto, takePhoto } = await import('@/web/actions/photos')
const { listScans, takeScan } = await import('@/web/actions/scans')
const { readChanges } = await import('@/web/actions/live')
const { readCompared, readFleetFile, readFleetHead, readFleets, readTableReports } = await import('@/web/actions/reads')
const { exportFilms } = await import('@/web/actions/film-files')

let ours: ShopWorld
let theirs: ShopWorld
const fleetId = randomUUID()
beforeAll(async () => {
  process.env.CUTTING_TABLE_DIR = mkdtempSync(join(tmpdir(), 'table-'))
  ours = await shopWorld()
  theirs = await shopWorld()
  // Each has a cutting table of its own.
  for (const w of [ours, theirs]) mkdirSync(join(process.env.CUTTING_TABLE_DIR, w.who.lead.shopId))
  const request = {
    format: 'cuirass/layout@1' as const,
    cutting: 'guillotine' as const,
    gap_mm: 0,
    seconds: 1,
    seed: 1,
    stock: [{ id: 'r', width_mm: 10, length_mm: 10 }],
    pieces: [{ id: 'p', width_mm: 1, height_mm: 1, count: 1, turn: 'fixed' as const }],
  }
  await askFleet(ours.who.lead, { id: fleetId, name: 'Ours', request, stages: null })
})
afterAll(async () => {
  await closeThreads()
  await closeWorkQueue()
  await closeDatabase()
})

type Outcome = { ok: boolean; error?: { code: string }; value?: unknown }
const post = (body: string) =>
  new Request('http://127.0.0.1:3999/api/jobs/import', { method: 'POST', body, headers: { host: '127.0.0.1:3999' } })
const sendEntries = async (...payloads: object[]) => {
  const body = JSON.stringify({ sent_at: new Date().toISOString(), entries: payloads.map(entry) })
  const request = new Request('http://127.0.0.1:3999/x', { method: 'POST', body, headers: { host: '127.0.0.1:3999' } })
  const answer = await takeEntries(request, ours.jobId)
  return {
    status: answer.status,
    body: (await answer.json()) as { outcomes?: { outcome: string; code?: string }[]; code?: string },
  }
}
const entry = (payload: object) => ({ id: randomUUID(), at: '2026-11-20T08:00:00.000Z', payload })

/**
 * Every action and route handler that reads or writes a shop's rows: what a lead of another shop tries, and what has to
 * come of it. `own` marks those that can only ever touch the caller's own shop.
 */
const ACTIONS: Record<
  string,
  { call: () => Promise<Outcome>; want: string } | { own: string; call: () => Promise<Outcome> }
> = {
  'jobs.createJob': {
    own: 'makes a job in the caller’s shop',
    call: () =>
      jobActions.createJob({
        id: randomUUID(),
        name: 'X',
        customerRef: '',
        vehicle: 'V',
        kind: 'other',
        colourName: 'c',
        colourHex: '#000000',
      }),
  },
  'jobs.saveJob': {
    call: () => jobActions.saveJob({ jobId: ours.jobId, basedOn: 1, plan: { ...handCar(), name: 'stolen' } }),
    want: 'not_found',
  },
  'jobs.takeBackChange': {
    call: () => jobActions.takeBackChange({ jobId: ours.jobId, which: 'undo' }),
    want: 'not_found',
  },
  'jobs.restoreRevision': {
    call: () => jobActions.restoreRevision({ jobId: ours.jobId, number: 1, basedOn: 1 }),
    want: 'not_found',
  },
  'jobs.jobHistory': {
    call: async () => {
      const out = await jobActions.jobHistory({ jobId: ours.jobId })
      return out.ok && out.value.length === 0 ? { ok: false, error: { code: 'empty' } } : out
    },
    want: 'empty',
  },
  'shop.setUnits': {
    own: 'sets the caller’s own units',
    call: () => shopActions.setUnits({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US' }),
  },
  'shop.setCalendarLink': {
    own: 'makes a link to the caller’s own calendar',
    call: () => shopActions.setCalendarLink(true),
  },
  'shop.addMember': {
    call: () =>
      shopActions.addMember({ name: 'X', email: 'x@x.example', password: 'long-enough-words', role: 'owner' }),
    want: 'not_allowed',
  },
  'shop.setRole': {
    call: () => shopActions.setRole({ memberId: ours.who.installer.memberId, role: 'owner' }),
    want: 'not_allowed',
  },
  'shop.setShopMethod': { own: 'sets the caller’s own shop', call: () => shopActions.setShopMethod(THRIFTY) },
  'shop.saveShop': {
    own: 'sets the caller’s own shop',
    call: () => shopActions.saveShop({ settings: DEFAULT_SHOP, basedOn: 0 }),
  },
  'shop.logClimate': {
    own: 'reads the caller’s own air',
    call: () =>
      shopActions.logClimate({
        id: randomUUID(),
        at: '2026-11-20T08:00:00.000Z',
        airC: 19,
        humidity: 0.5,
        surfaceC: null,
      }),
  },
  'rack.putFilm': {
    call: () => rackActions.putFilm({ sheet: film('slate-matte'), basedOn: 7 }),
    want: 'changed_meanwhile',
  },
  'shop.setDamage': { call: () => shopActions.setDamage({ itemId: ours.rollId, damage: [] }), want: 'no_such_stock' },
  'shop.logStrip': {
    call: () =>
      shopActions.logStrip({
        itemId: ours.rollId,
        strip: {
          id: randomUUID(),
          beforeMm: 1000,
          afterMm: 970,
          acrossBeforeMm: null,
          acrossAfterMm: null,
          at: '2026-11-20T08:00:00.000Z',
          by: '',
        },
      }),
    want: 'no_such_stock',
  },
  'pins.pinWork': {
    call: () => pinActions.pinWork({ jobId: ours.jobId, code: 'wrap', at: '2031-03-03T09:00' }),
    want: 'not_found',
  },
  'supplies.moveSupply': {
    own: 'counts the caller’s own shelf',
    call: () => supplyActions.moveSupply({ id: randomUUID(), kind: 'filament', amount: 5, reason: 'received' }),
  },
  'rules.previewRules': {
    own: 'looks at the caller’s own open jobs',
    call: () => ruleActions.previewRules({ winter: true, edgeLeave: {}, edgeCut: {} }),
  },
  'fleet.startFleet': {
    call: () =>
      fleetActions.startFleet({
        id: randomUUID(),
        name: 'F',
        filmId: 'fen-satin',
        cars: [{ jobId: ours.jobId, count: 1 }],
        newRolls: 1,
        shelf: false,
        widthMm: 1520,
        cutting: 'guillotine',
        stages: 3,
        gapMm: 0,
        seconds: 1,
      }),
    want: 'not_found',
  },
  'fleet.startFleetFile': {
    call: () => fleetActions.startFleetFile({ id: randomUUID(), name: 'F', text: '{}' }),
    want: 'invalid_value',
  },
  'fleet.cancelFleet': { call: () => fleetActions.cancelFleet({ id: fleetId }), want: 'not_found' },
  'cutting-table.sendToTable': {
    call: () => tableActions.sendToTable({ jobId: ours.jobId, filmId: 'fen-satin', rollId: 'new-1', as: 'svg' }),
    want: 'not_found',
  },
  'rack.sellFilm': { call: () => rackActions.sellFilm({ id: ours.filmId, sold: false }), want: 'no_such_film' },
  'rack.bringFilms': {
    own: 'brings films into the caller’s rack',
    call: () =>
      rackActions.bringFilms({
        text: JSON.stringify({ format: 'cuirass/films@1', films: [film('reed-sheet')] }),
        csv: false,
      }),
  },
  'vehicles.keepVehicle': {
    call: () =>
      vehicleActions.keepVehicle({
        id: ours.vehicleId,
        basedOn: 1,
        measured: vehicleOf(handCar()),
        summary: 'stolen',
        fromJob: null,
      }),
    want: 'not_found',
  },
  'vehicles.restoreVehicle': {
    call: () => vehicleActions.restoreVehicle({ id: ours.vehicleId, basedOn: 1, number: 1 }),
    want: 'not_found',
  },
  'vehicles.listVehicles': {
    call: async () => {
      const out = await vehicleActions.listVehicles({})
      return out.ok && !out.value.some((v) => v.id === ours.vehicleId) ? { ok: false, error: { code: 'empty' } } : out
    },
    want: 'empty',
  },
  'shop.receiveStock': {
    call: () =>
      shopActions.receiveStock({
        id: ours.rollId,
        movementId: randomUUID(),
        filmId: 'no-such-film',
        kind: 'roll',
        label: 'R-9',
        lot: 'L',
        widthMm: 1520,
        lengthMm: 1000,
      }),
    want: 'no_such_film',
  },
}

const ROUTES: Record<string, { call: () => Promise<Response>; want: number } | { open: string }> = {
  'app/api/fleets/route.ts': {
    call: async () => {
      const list = (await (await readFleets()).json()) as { value: { id: string }[] }
      return new Response(null, { status: list.value.some((f) => f.id === fleetId) ? 200 : 404 })
    },
    want: 404,
  },
  'app/api/fleets/[fleetId]/route.ts': { call: () => readFleetFile(fleetId), want: 404 },
  'app/api/fleets/[fleetId]/head/route.ts': { call: () => readFleetHead(fleetId), want: 404 },
  'app/api/jobs/[jobId]/table/route.ts': { call: () => readTableReports(ours.jobId), want: 404 },
  'app/api/jobs/[jobId]/compared/route.ts': { call: () => readCompared(ours.jobId), want: 404 },
  'app/api/jobs/[jobId]/changes/route.ts': {
    call: () => readChanges(new Request('http://127.0.0.1:3999/x?since=0'), ours.jobId),
    want: 404,
  },
  'app/api/live/route.ts': { open: 'tells of the own shop alone, tried in live.test.ts' },
  'app/api/auth/[...all]/route.ts': { open: 'in and out and nothing else, tried in sign-in.test.ts' },
  'app/api/health/route.ts': { open: 'says nothing of any shop, tried in rules-of-the-door.test.ts' },
  'app/api/jobs/[jobId]/entries/route.ts': {
    call: async () => {
      const { status, body } = await sendEntries(
        { kind: 'note', text: 'x' },
        { kind: 'film_used', stockId: ours.rollId, lengthMm: 5 },
      )
      expect(body.outcomes).toMatchObject([
        { outcome: 'refused', code: 'not_found' },
        { outcome: 'refused', code: 'not_found' },
      ])
      return new Response(null, { status })
    },
    want: 200,
  },
  'app/api/demo-sign-in/route.ts': { open: 'exists only with demo data, tried in sign-in.test.ts' },
  'app/api/jobs/import/route.ts': { call: async () => ((acting = null), importJob(post('{}'))), want: 401 },
  'app/(shop)/jobs/[jobId]/job.json/route.ts': { call: () => exportJob(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/catalogue.json/route.ts': { call: () => exportCatalogue(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/ledger.json/route.ts': { call: () => exportLedger(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/inspection.pdf/route.ts': { call: () => inspectionPdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/measure.pdf/route.ts': { call: () => measurePdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/panels.csv/route.ts': { call: () => panelsCsv(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/layout/[file]/route.ts': {
    call: () => layoutFile(ours.jobId, 'layout.svg', new URLSearchParams()),
    want: 404,
  },
  'app/(shop)/rack/films.csv/route.ts': { call: async () => ((acting = null), exportFilms('csv')), want: 401 },
  'app/(shop)/rack/films.json/route.ts': { call: async () => ((acting = null), exportFilms('json')), want: 401 },
  'app/api/jobs/[jobId]/photos/route.ts': {
    call: async () =>
      takePhoto(
        new Request('http://127.0.0.1:3999/x', {
          method: 'POST',
          body: new Uint8Array(await picturePng()),
          headers: { host: '127.0.0.1:3999' },
        }),
        ours.jobId,
      ),
    want: 404,
  },
  'app/api/jobs/[jobId]/scans/route.ts': { call: () => listScans(ours.jobId), want: 404 },
  'app/api/jobs/[jobId]/scans/[panelId]/route.ts': {
    call: () =>
      takeScan(
        new Request('http://127.0.0.1:3999/x?name=theirs', {
          method: 'PUT',
          body: packScan({
            positions: new Float64Array([0, 0, 0, 1, 0, 0, 0, 1, 0]),
            triangles: new Uint32Array([0, 1, 2]),
            taped: new Float64Array(6),
          }) as Uint8Array<ArrayBuffer>,
          headers: { host: '127.0.0.1:3999' },
        }),
        ours.jobId,
        'bonnet',
      ),
    want: 404,
  },
  'app/api/photos/[photoId]/route.ts': { call: () => showPhoto(ours.photoId), want: 404 },
  'app/(shop)/jobs/[jobId]/handover.pdf/route.ts': { call: () => handoverPdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/heat.pdf/route.ts': { call: () => heatRecordPdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/cards.pdf/route.ts': { call: () => layingCardsPdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/readings.csv/route.ts': { call: () => readingsCsv(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/trim.pdf/route.ts': { call: () => trimPlanPdf(ours.jobId), want: 404 },
  'app/(shop)/jobs/[jobId]/schedule.ics/route.ts': { call: () => jobCalendarFile(ours.jobId), want: 404 },
  'app/api/calendar/[token]/route.ts': {
    call: () => memberCalendar(`${ours.who.lead.memberId}.1.forged`),
    want: 404,
  },
  'app/api/tablet/route.ts': { open: 'people of the one tablet whose secret is sent; see tablet.test.ts' },
  'app/api/thermometer/route.ts': {
    open: 'an instrument of the bay, and nothing of any shop; see thermometer.test.ts',
  },
  'app/serwist/[path]/route.ts': { open: 'the worker of the browser, the same for everybody' },
}

describe('a member of one shop reaches nothing of another', () => {
  it('the tables name every action and every route handler', () => {
    const exported = filesBelow('web/actions', '.ts').flatMap((file) => {
      const text = readFileSync(file, 'utf8')
      return /^'use server'/.test(text)
        ? [...text.matchAll(/^export async function (\w+)/gm)].map(
            (m) => `${file.split('/').at(-1)?.replace('.ts', '')}.${m[1]}`,
          )
        : []
    })
    expect(exported.sort()).toEqual(Object.keys(ACTIONS).sort())
    expect(filesBelow('app', 'route.ts', 'route.tsx')).toEqual(Object.keys(ROUTES).sort())
  })
  it.each(Object.keys(ACTIONS))('%s', async (name) => {
    const before = await picture()
    acting = theirs.who.lead.userId
    const row = ACTIONS[name] as (typeof ACTIONS)[string]
    const out = await row.call()
    if ('want' in row) expect(out).toMatchObject({ ok: false, error: { code: row.want } })
    else expect(out.ok, row.own).toBe(true)
    expect(await picture()).toEqual(before)
  })
  it.each(Object.keys(ACTIONS))('%s: nobody signed in', async (name) => {
    acting = null
    const out = await (ACTIONS[name] as (typeof ACTIONS)[string]).call()
    expect(out).toMatchObject({ ok: false, error: { code: expect.stringMatching(/signed_out|empty/) } })
  })
  it.each(Object.entries(ROUTES).filter(([, r]) => 'call' in r))('%s', async (_, row) => {
    acting = theirs.who.lead.userId
    if ('call' in row) expect((await row.call()).status).toBe(row.want)
  })
  it('pages read through the same layer: another shop’s job and rack are not there', async () => {
    expect(await openJob(theirs.who.lead, ours.jobId, new Date())).toBeNull()
    expect((await rack(theirs.who.lead)).stock.map((s) => s.id)).toEqual([theirs.rollId])
  })
  it('the database itself shows no row without a shop set, and only own rows with one, whatever the query', async () => {
    const count = async (shop: string | null, table: string) =>
      database().transaction(async (tx) => {
        if (shop) await tx.execute(sql`select set_config('cuirass.shop', ${shop}, true)`)
        return Number(
          (await tx.execute<{ n: string }>(sql`select count(distinct shop_id) as n from ${sql.identifier(table)}`))
            .rows[0]?.n,
        )
      })
    for (const table of [
      'film',
      'stock_item',
      'stock_movement',
      'job',
      'revision',
      'member',
      'vehicle',
      'vehicle_revision',
      'climate_reading',
      'supply_movement',
      'photo',
      'fleet_layout',
    ]) {
      expect(await count(null, table), table).toBe(0)
      expect(await count(ours.who.lead.shopId, table), table).toBe(1)
    }
  })
})

describe('roles', () => {
  const code = async (role: 'installer' | 'desk' | 'lead' | 'owner', call: () => Promise<Outcome>) => {
    acting = ours.who[role].userId
    const out = await call()
    return out.ok ? 'ok' : out.error?.code
  }
  const save = (over: object) => () =>
    jobActions.saveJob({ jobId: ours.jobId, basedOn: 1, plan: { ...handCar(), ...over } })
  it('an installer logs but does not plan; the desk takes in and walks round, no more', async () => {
    expect(await code('installer', save({ name: 'n' }))).toBe('not_allowed')
    expect(await code('desk', save({ panels: [] }))).toBe('not_allowed')
    expect(await code('desk', save({ customerRef: 'desk may' }))).toBe('ok')
    acting = ours.who.desk.userId
    expect(await sendEntries({ kind: 'note', text: 'x' })).toMatchObject({ status: 403, body: { code: 'not_allowed' } })
    acting = ours.who.installer.userId
    expect(await sendEntries({ kind: 'note', text: 'x' })).toMatchObject({ body: { outcomes: [{ outcome: 'done' }] } })
    expect(await code('lead', () => shopActions.setRole({ memberId: ours.who.desk.memberId, role: 'lead' }))).toBe(
      'not_allowed',
    )
  })
  it('the last owner stays one', async () =>
    expect(await code('owner', () => shopActions.setRole({ memberId: ours.who.owner.memberId, role: 'desk' }))).toBe(
      'last_owner',
    ))
  it('an owner adds a person once', async () => {
    const add = () =>
      shopActions.addMember({
        name: 'New',
        email: `new@${ours.rollId.slice(0, 8)}.example`,
        password: 'long-enough-words',
        role: 'installer',
      })
    expect(await code('owner', add)).toBe('ok')
    expect(await code('owner', add)).toBe('email_taken')
  })
})

describe('job files', () => {
  const send = async (body: string) => {
    acting = ours.who.lead.userId
    const response = await importJob(post(body))
    return { status: response.status, body: (await response.json()) as Outcome & { value?: { id: string } } }
  }
  it('an export comes in again as the same document', async () => {
    acting = ours.who.lead.userId
    const text = await (await exportJob(ours.jobId)).text()
    const { status, body } = await send(text)
    expect(status).toBe(201)
    expect(await (await exportJob(body.value?.id ?? '')).text()).toBe(text)
  })
  it.each([
    ['{"format":"cuirass/job@1"', 422, 'truncated'],
    ['{"format":"cuirass/job@7"}', 422, 'later_version'],
    ['['.repeat(50_000), 422, 'too_deep'],
    [`"${'x'.repeat(5_000_000)}"`, 413, 'too_large'],
  ])('a bad one leaves nothing behind (%#)', async (text, status, want) => {
    const before = await picture()
    expect(await send(text)).toMatchObject({ status, body: { ok: false, error: { code: want } } })
    expect(await picture()).toEqual(before)
  })
  it('a page of another origin may not send one', async () => {
    acting = ours.who.lead.userId
    const request = new Request('http://127.0.0.1:3999/x', {
      method: 'POST',
      body: '{}',
      headers: { host: '127.0.0.1:3999', origin: 'http://elsewhere.example' },
    })
    expect((await importJob(request)).status).toBe(403)
  })
})

/** All that our shop has, as rows counted and roll lengths. */
async function picture() {
  return database().transaction(async (tx) => {
    await tx.execute(sql`select set_config('cuirass.shop', ${ours.who.lead.shopId}, true)`)
    const rows = await tx.execute(
      sql`select (select count(*) from job) jobs, (select count(*) from revision) revisions, (select count(*)
          from ledger) entries, (select count(*) from member) members, (select sum(left_mm) from stock_item)
          film, (select string_agg(role::text, ',' order by id) from member) roles`,
    )
    return rows.rows[0]
  })
}
