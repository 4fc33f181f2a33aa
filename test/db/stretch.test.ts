import { afterAll, beforeAll, expect, it } from 'vitest'
import { reckon } from '@/core/reckon/reckon'
import { packScan, unpackScan } from '@/core/engines/stretch/scan-file'
import { stretchKey, type SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { filmOf } from '@/core/engines/stretch/way-candidates'
import { closeDatabase, Denied } from '@/db/client'
import { openJob } from '@/db/queries/jobs'
import { dropScan, keepScan, keepSolved, scanBytes, scansOf } from '@/db/queries/stretch'
import { shopWorld, type ShopWorld } from './world'

const NOW = new Date('2026-11-20T08:00:00Z')
let ours: ShopWorld
let theirs: ShopWorld
beforeAll(async () => {
  ours = await shopWorld()
  theirs = await shopWorld()
})
afterAll(closeDatabase)

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

it('a solved stretch stands in the reckoning of the job until its panel changes, and in no other shop', async () => {
  const file = await openJob(ours.who.lead, ours.jobId, NOW)
  if (!file) throw new Error('no job')
  const panel = file.plan.panels.find((p) => p.wrap && filmOf(file.plan, p))
  const film = panel && filmOf(file.plan, panel)
  if (!panel || !film) throw new Error('no panel in film')
  const value: SolvedStretch = {
    worst: 0.4321,
    toPostHeatMm2: 5,
    overMm2: 5,
    wrinklesMm2: 0,
    areaMm2: 10,
    triangles: 500,
    spot: { row: 'top', column: 'left', stretch: 0.4321 },
  }
  // Who may measure may hand in what was solved; the desk reads.
  await expect(keepSolved(ours.who.desk, [{ key: stretchKey(file.plan, panel, film), value }])).rejects.toBeInstanceOf(
    Denied,
  )
  await keepSolved(ours.who.installer, [{ key: stretchKey(file.plan, panel, film), value }])
  const again = await openJob(ours.who.lead, ours.jobId, NOW)
  if (!again) throw new Error('no job')
  const { figures, findings } = reckon(again.plan, again.catalogue, again.ledger)
  expect(figures.get(`stretch/${panel.id}/worst`)?.value).toBe(0.4321)
  expect(figures.get(`stretch/${panel.id}/worst`)?.formula).toBe('solved_on_tape({triangles}, {rule})')
  expect(findings.find((f) => f.code === 'stretch_over_limit' && f.panelId === panel.id)?.facts).toMatchObject({
    where: 'spot:top:left',
  })
  const deeper = {
    ...again.plan,
    panels: again.plan.panels.map((p) => (p.id === panel.id ? { ...p, crownMm: p.crownMm + 1, crownOverMm: 900 } : p)),
  }
  expect(reckon(deeper, again.catalogue, again.ledger).figures.get(`stretch/${panel.id}/worst`)?.value).not.toBe(0.4321)
  const renamed = {
    ...again.plan,
    panels: again.plan.panels.map((p) => (p.id === panel.id ? { ...p, name: 'Other', note: 'x' } : p)),
  }
  expect(reckon(renamed, again.catalogue, again.ledger).figures.get(`stretch/${panel.id}/worst`)?.value).toBe(0.4321)
  const other = await openJob(theirs.who.lead, theirs.jobId, NOW)
  expect(Object.keys(other?.catalogue.solved ?? {})).toEqual([])
})
