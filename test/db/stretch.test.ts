import { afterAll, beforeAll, expect, it } from 'vitest'
import { packScan, unpackScan } from '@/core/engines/stretch/scan-file'
import { closeDatabase, Denied } from '@/db/client'
import { openJob } from '@/db/queries/jobs'
import { dropScan, keepScan, scanBytes, scansOf } from '@/db/queries/stretch'
import { closeWorkQueue } from '@/db/queue'
import { shopWorld, type ShopWorld } from './world'

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

const scan = (size: number) => ({
  positions: new Float64Array([0, 0, 0, size, 0, 0, 0, size, 0, size, size, 5]),
  triangles: new Uint32Array([0, 1, 2, 1, 3, 2]),
  taped: new Float64Array(8),
})

it('a scan is kept with its panel, a new one takes its place, dropped it is gone; another shop sees nothing of it', async () => {
  const { lead, installer, desk } = ours.who
  const own = { jobId: ours.jobId, panelId: 'bonnet', triangles: 2 }
  expect(await keepScan(installer, { ...own, name: 'first.ply', bytes: Buffer.from(packScan(scan(100))) })).toBe('done')
  expect(await keepScan(lead, { ...own, name: 'second.ply', bytes: Buffer.from(packScan(scan(200))) })).toBe('done')
  expect(await scansOf(desk, ours.jobId)).toMatchObject([{ panelId: 'bonnet', name: 'second.ply', by: lead.name }])
  // Figures of the job are told which scan it is.
  const mark = async () => (await openJob(desk, ours.jobId, NOW))?.catalogue.scans?.bonnet
  expect(await mark()).toMatch(/^2@/u)
  const bytes = await scanBytes(desk, ours.jobId, 'bonnet')
  const back = bytes && unpackScan(bytes)
  expect(back?.ok && back.value.positions[3]).toBe(200)
  expect(await scansOf(theirs.who.lead, ours.jobId)).toBeNull()
  expect(await scanBytes(theirs.who.lead, ours.jobId, 'bonnet')).toBeNull()
  expect(await keepScan(theirs.who.lead, { ...own, name: 'x', bytes: Buffer.from(packScan(scan(9))) })).toBe(
    'not_found',
  )
  await dropScan(theirs.who.lead, ours.jobId, 'bonnet')
  expect(await scansOf(lead, ours.jobId)).toHaveLength(1)
  await expect(dropScan(desk, ours.jobId, 'bonnet')).rejects.toBeInstanceOf(Denied)
  await dropScan(lead, ours.jobId, 'bonnet')
  expect(await scansOf(lead, ours.jobId)).toEqual([])
  expect(await mark()).toBeUndefined()
})
