import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { filmTable } from '@/core/model/film/film-table'
import { THRIFTY } from '@/core/model/method/schema'
import { vehicleOf } from '@/core/model/plan/vehicle-library'
import { closeDatabase, guarded } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { createJob as insertJob, openJob } from '@/db/queries/jobs'
import { savePlan } from '@/db/queries/plans'
import { whoIs } from '@/db/queries/people'
import { photoBytes } from '@/db/queries/photos'
import { rack, saveFilm } from '@/db/queries/rack'
import { saveVehicle, vehicleFile, vehicles } from '@/db/queries/vehicles'
import { writeCsv } from '@/web/kit/csv'
import { picturePlace, picturePng } from '../fixtures/pictures'
import { film, handCar, withPanel } from '../fixtures/plans'
import { shopWorld, type ShopWorld } from './world'

let acting: string | null = null
vi.mock('@/web/actions/session', () => ({ currentMember: async () => (acting ? whoIs(acting) : null) }))
const { takePhoto, showPhoto } = await import('@/web/actions/photos')
const { bringFilms, putFilm, sellFilm } = await import('@/web/actions/rack')
const { inspectionPdf, measurePdf, panelsCsv } = await import('@/web/actions/job-papers')
const { closeThreads } = await import('@/web/actions/threads')
const { createJob } = await import('@/web/actions/jobs')
const { setShopMethod } = await import('@/web/actions/shop')
const { keepVehicle, restoreVehicle } = await import('@/web/actions/vehicles')

let world: ShopWorld
beforeAll(async () => {
  world = await shopWorld()
  acting = world.who.lead.userId
})
afterAll(async () => {
  await closeWorkQueue()
  await closeThreads()
  await closeDatabase()
})

const send = async (
  body: Uint8Array<ArrayBuffer> | ReadableStream,
  headers: Record<string, string> = {},
  query: Record<string, string> = {},
) => {
  const response = await takePhoto(
    new Request(`http://127.0.0.1:3999/x?${new URLSearchParams(query).toString()}`, {
      method: 'POST',
      body,
      headers: { host: '127.0.0.1:3999', ...headers },
      ...(body instanceof ReadableStream ? { duplex: 'half' } : {}),
    }),
    world.jobId,
  )
  const out = (await response.json()) as { ok: boolean; value?: { id: string }; error?: { code: string } }
  return { status: response.status, ...out }
}
const bytes = (b: Buffer) => new Uint8Array(b)

describe('photos', () => {
  it('is made anew: upright, without a word of where and by what it was taken', async () => {
    const sent = await picturePlace()
    expect((await sharp(sent).metadata()).exif).toBeDefined()
    expect(sent.includes(Buffer.from('Telltale'))).toBe(true)
    const out = await send(bytes(sent))
    expect(out.status).toBe(201)
    const kept = await photoBytes(world.who.lead, out.value?.id ?? '')
    const meta = await sharp(kept ?? Buffer.alloc(0)).metadata()
    // Sent lying on its side (orientation 6), kept standing.
    expect([meta.format, meta.width, meta.height, meta.exif, meta.orientation]).toEqual([
      'jpeg',
      20,
      40,
      undefined,
      undefined,
    ])
    expect(kept?.includes(Buffer.from('Telltale'))).toBe(false)
    const shown = await showPhoto(out.value?.id ?? '')
    expect(shown.headers.get('content-type')).toBe('image/jpeg')
    expect(shown.headers.get('x-content-type-options')).toBe('nosniff')
  })
  it('a large one is kept small', async () => {
    const out = await send(bytes(await picturePng(4000, 2000)))
    const kept = await photoBytes(world.who.lead, out.value?.id ?? '')
    expect((await sharp(kept ?? Buffer.alloc(0)).metadata()).width).toBe(1600)
  })
  it.each([
    ['text that calls itself a photo', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>')],
    ['a page', Buffer.from('<html>')],
    ['nothing', Buffer.alloc(0)],
    ['half a photo', null],
  ])('%s is refused', async (_, body) => {
    const whole = await picturePlace()
    expect(await send(bytes(body ?? whole.subarray(0, whole.length / 2)))).toMatchObject({
      status: 422,
      error: { code: 'not_a_photo' },
    })
  })
  it('80 MB is refused after the limit, not after all of it', async () => {
    let given = 0
    const stream = new ReadableStream({
      pull(c) {
        given += 1_000_000
        if (given > 80_000_000) c.close()
        else c.enqueue(new Uint8Array(1_000_000))
      },
    })
    expect(await send(stream)).toMatchObject({ status: 413, error: { code: 'photo_too_large' } })
    expect(given).toBeLessThan(15_000_000)
    expect(await send(bytes(Buffer.alloc(10)), { 'content-length': '80000000' })).toMatchObject({ status: 413 })
  })
  it('is taken once under its device’s id, from whoever took it and from nobody else', async () => {
    const id = randomUUID()
    const png = bytes(await picturePng())
    const { lead, installer } = world.who
    expect(await send(png, {}, { id, member: installer.memberId })).toMatchObject({
      status: 403,
      error: { code: 'another_member' },
    })
    expect(await photoBytes(lead, id)).toBe(null)
    for (let i = 0; i < 2; i++)
      expect(await send(png, {}, { id, member: lead.memberId })).toMatchObject({ status: 201, value: { id } })
    expect(await send(png, {}, { id: 'mine' })).toMatchObject({ status: 422, error: { code: 'bad_input' } })
  })
  it('a page of another origin may not send one', async () =>
    expect((await send(bytes(await picturePng()), { origin: 'http://elsewhere.example' })).status).toBe(403))
})

describe('films on the rack', () => {
  it('a sheet is changed by whoever saw its newest state; the other is told', async () => {
    const sheet = { ...film('quay-orange'), id: `q-${randomUUID().slice(0, 8)}` }
    expect(await putFilm({ sheet, basedOn: 0 })).toMatchObject({ ok: true })
    expect(await putFilm({ sheet, basedOn: 0 })).toMatchObject({ error: { code: 'id_taken' } })
    expect(await putFilm({ sheet: { ...sheet, stretchLimit: 0.07 }, basedOn: 1 })).toMatchObject({ ok: true })
    expect(await putFilm({ sheet: { ...sheet, stretchLimit: 0.01 }, basedOn: 1 })).toMatchObject({
      error: { code: 'changed_meanwhile' },
    })
    const kept = (await rack(world.who.lead)).all.find((f) => f.sheet.id === sheet.id)
    expect([kept?.sheet.stretchLimit, kept?.version]).toEqual([0.07, 2])
  })
  it('one that is no longer sold leaves the choice and stays in the jobs made with it', async () => {
    await savePlan(
      world.who.lead,
      {
        jobId: world.jobId,
        basedOn: 1,
        plan: { ...handCar(), film: { mainId: world.filmId, sheets: [{ ...film('fen-satin'), id: world.filmId }] } },
        summary: () => 'own film',
      },
      new Date(),
    )
    expect(await sellFilm({ id: world.filmId, sold: false })).toMatchObject({ ok: true })
    const file = await openJob(world.who.lead, world.jobId, new Date())
    expect(file?.catalogue.films.map((f) => f.id)).not.toContain(world.filmId)
    expect(file?.plan.film.sheets.map((f) => f.id)).toContain(world.filmId)
  })
  it('a file of films comes in whole or not at all', async () => {
    const before = (await rack(world.who.lead)).all.length
    const rows = filmTable([film('heron-gloss'), film('mere-mirror')])
    const broken = rows.map((r, i) => (i === 2 ? r.map((c, j) => (rows[0]?.[j] === 'stretch_limit' ? 'lots' : c)) : r))
    const refused = await bringFilms({ text: writeCsv(broken), csv: true })
    expect(refused).toMatchObject({ ok: false, error: { code: 'table' } })
    expect(JSON.stringify(refused)).toContain('Line 3, stretch_limit')
    expect((await rack(world.who.lead)).all).toHaveLength(before)
    expect(await bringFilms({ text: writeCsv(rows), csv: true })).toMatchObject({
      ok: true,
      value: { added: 2, changed: 0 },
    })
    const json = JSON.stringify({ format: 'cuirass/films@1', films: [{ ...film('heron-gloss'), name: 'Heron again' }] })
    expect(await bringFilms({ text: json, csv: false })).toMatchObject({ ok: true, value: { added: 0, changed: 1 } })
    expect(await bringFilms({ text: '{"format":"cuirass/films@1","films":[{}]}', csv: false })).toMatchObject({
      ok: false,
    })
  })
  it('an installer may not touch the sheets', async () =>
    await expect(saveFilm(world.who.installer, film('fen-satin'), 1)).rejects.toThrow(/may not film/))
})

describe('the library of measured vehicles', () => {
  it('a correction is one state more; an older one comes back; nothing is rewritten', async () => {
    const measured = vehicleOf(handCar())
    const wider = vehicleOf(withPanel(handCar(), 'door', () => ({ widthMm: 1066 })))
    const id = randomUUID()
    expect(await keepVehicle({ id, basedOn: 0, measured, summary: 'Kept', fromJob: null })).toMatchObject({
      value: { id, number: 1 },
    })
    expect(await keepVehicle({ id, basedOn: 1, measured: wider, summary: 'Door', fromJob: null })).toMatchObject({
      value: { number: 2 },
    })
    expect(await keepVehicle({ id, basedOn: 1, measured, summary: 'Late', fromJob: null })).toMatchObject({
      error: { code: 'changed_meanwhile' },
    })
    expect(await restoreVehicle({ id, basedOn: 2, number: 1 })).toMatchObject({ value: { number: 3 } })
    const file = await vehicleFile(world.who.lead, id)
    expect(file?.measured).toEqual(measured)
    expect(file?.revisions.map((r) => r.summary)).toEqual(['Brought back: state 1', 'Door', 'Kept'])
    await expect(
      guarded(world.who.lead, 'read', (tx) => tx.execute(sql`update vehicle_revision set summary = 'x'`)),
    ).rejects.toMatchObject({ code: '42501' })
  })
  it('a job kept twice makes one vehicle, whoever taps and however fast', async () => {
    const jobId = randomUUID()
    await insertJob(world.who.lead, jobId, handCar(), 'Taken in', new Date())
    const keep = () =>
      keepVehicle({ id: randomUUID(), basedOn: 0, measured: vehicleOf(handCar()), summary: 'Kept', fromJob: jobId })
    const before = (await vehicles(world.who.lead)).length
    const outcomes = await Promise.all([keep(), keep(), keep()])
    const ids = new Set(outcomes.map((o) => (o.ok ? o.value.id : o.error.code)))
    expect([...ids]).toHaveLength(1)
    expect((await vehicles(world.who.lead)).length).toBe(before + 1)
    // Measured on since, it is one state more of the same vehicle.
    const wider = vehicleOf(withPanel(handCar(), 'door', () => ({ widthMm: 1066 })))
    expect(
      await keepVehicle({ id: randomUUID(), basedOn: 0, measured: wider, summary: 'Kept', fromJob: jobId }),
    ).toMatchObject({ value: { id: [...ids][0], number: 2 } })
  })
  it('the next job starts from it', async () => {
    const id = randomUUID()
    const vehicleId = randomUUID()
    await saveVehicle(
      world.who.lead,
      { id: vehicleId, basedOn: 0, measured: vehicleOf(handCar()), summary: 'Kept', fromJob: null },
      new Date(),
    )
    await createJob({
      id,
      name: 'Next',
      customerRef: '',
      vehicle: 'Another',
      kind: 'other',
      colourName: 'Red',
      colourHex: '#aa0000',
      start: { from: 'vehicle', vehicleId },
    })
    const plan = (await openJob(world.who.lead, id, new Date()))?.plan
    expect(plan?.panels).toEqual(handCar().panels)
    expect([plan?.vehicle.name, plan?.vehicle.colour.hex, plan?.vehicle.libraryId]).toEqual([
      'Another',
      '#aa0000',
      vehicleId,
    ])
  })
  it('the shop’s own method is what the next job starts with', async () => {
    expect(await setShopMethod({ ...THRIFTY, name: 'Ours' })).toMatchObject({ ok: true })
    const id = randomUUID()
    await createJob({
      id,
      name: 'Ours',
      customerRef: '',
      vehicle: 'V',
      kind: 'other',
      colourName: 'Red',
      colourHex: '#aa0000',
    })
    expect((await openJob(world.who.lead, id, new Date()))?.plan.method).toMatchObject({
      name: 'Ours',
      tension: 'relax_first',
    })
  })
  it('a job from a body style: typed lengths stand, the rest is marked assumed; one out of range is refused by name', async () => {
    const id = randomUUID()
    const job = {
      name: 'Style',
      customerRef: '',
      vehicle: 'Hatch',
      kind: 'city_car',
      colourName: 'Red',
      colourHex: '#aa0000',
    }
    expect(await createJob({ id, ...job, start: { from: 'style', keys: { length: 9000 } } })).toMatchObject({
      error: { code: 'key_too_big', at: 'length' },
    })
    expect(await openJob(world.who.lead, id, new Date())).toBeNull()
    await createJob({ id, ...job, start: { from: 'style', keys: { length: 3800 } } })
    const vehicle = (await openJob(world.who.lead, id, new Date()))?.plan.vehicle
    expect(vehicle?.keys.length).toBe(3800)
    expect(vehicle?.keysAssumed).not.toContain('length')
    expect(vehicle?.keysAssumed).toContain('wheelbase')
  })
})

describe('papers of the measured vehicle', () => {
  it.each([
    ['inspection', () => inspectionPdf(world.jobId)],
    ['blank sheet', () => measurePdf(world.jobId)],
  ])('%s is a PDF', async (_, get) => {
    const response = await get()
    expect(response.headers.get('content-type')).toBe('application/pdf')
    const body = Buffer.from(await response.arrayBuffer())
    expect(body.subarray(0, 5).toString()).toBe('%PDF-')
    expect(body.length).toBeGreaterThan(4000)
  })
  it('the inspection keeps to one page, however much was found', async () => {
    const jobId = randomUUID()
    const damage = Array.from({ length: 40 }, (_, i) => ({
      id: `d${i}`,
      panelId: 'door',
      kind: 'scratch' as const,
      note: 'A long scratch that somebody described at length. '.repeat(4),
      sizeMm: 30,
      xMm: 20 * i,
      yMm: 100,
      photoIds: [],
      waived: null,
    }))
    await createJob({
      id: jobId,
      name: 'Full',
      customerRef: '',
      vehicle: 'Wreck',
      kind: 'other',
      colourName: 'Red',
      colourHex: '#aa0000',
    })
    await savePlan(
      world.who.lead,
      {
        jobId,
        basedOn: 1,
        plan: { ...handCar(), walkaround: { ...handCar().walkaround, damage, note: 'x '.repeat(900) } },
        summary: () => 'full',
      },
      new Date(),
    )
    const body = Buffer.from(await (await inspectionPdf(jobId)).arrayBuffer()).toString('latin1')
    expect(body.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
  })
  it('the CSV carries every panel', async () => {
    const text = await (await panelsCsv(world.jobId)).text()
    expect(text.split('\r\n')).toHaveLength(2 + handCar().panels.length)
  })
})
