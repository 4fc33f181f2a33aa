import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { reckon } from '@/core/reckon/reckon'
import { restsOf } from '@/core/engines/roll/rests'
import { cutEntry } from '@/core/engines/roll/cutting'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { closeDatabase } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { appendEntries } from '@/db/queries/entries'
import { openJob } from '@/db/queries/jobs'
import { savePlan } from '@/db/queries/plans'
import { whoIs } from '@/db/queries/people'
import { rack } from '@/db/queries/rack'
import { shopWorld, type ShopWorld } from './world'

let acting: string | null = null
vi.mock('@/web/actions/session', () => ({ currentMember: async () => (acting ? whoIs(acting) : null) }))
const { layoutFile } = await import('@/web/actions/job-papers')
const { closeThreads } = await import('@/web/actions/threads')
const LABEL_SIZES = ['62x29', '100x50', '100x62']

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
const get = (name: string, query: Record<string, string> = {}) =>
  layoutFile(world.jobId, name, new URLSearchParams(query))

describe('files of a layout', () => {
  it.each(['cut-sheet.pdf', 'labels.pdf', 'layout.svg', 'layout.dxf', 'pieces.csv', 'order.csv'])(
    '%s',
    async (name) => {
      const response = await get(name, { film: 'fen-satin' })
      expect(response.status).toBe(200)
      const body = Buffer.from(await response.arrayBuffer())
      if (name.endsWith('.pdf')) expect(body.subarray(0, 5).toString()).toBe('%PDF-')
      if (name === 'pieces.csv') expect(body.toString().split('\r\n')).toHaveLength(3 + 2)
      if (name === 'order.csv') expect(body.toString()).toContain('Fen satin')
    },
  )
  it('labels come in every size that is offered, one a piece and one a rest worth keeping', async () => {
    const file = await openJob(world.who.lead, world.jobId, new Date())
    const layout = file && reckon(file.plan, file.catalogue, file.ledger).layouts[0]
    if (!layout) throw new Error('no layout')
    const labels = layout.pieces.length + restsOf(layout).length
    expect(labels).toBeGreaterThan(3)
    for (const size of LABEL_SIZES) {
      const body = Buffer.from(await (await get('labels.pdf', { size })).arrayBuffer()).toString('latin1')
      expect(body.match(/\/Type \/Page\b/g)).toHaveLength(labels)
    }
    expect((await get('labels.pdf', { size: '5x5' })).status).toBe(400)
  })
  it('what is not there is not found', async () => {
    expect((await get('layout.svg', { film: 'no-such-film' })).status).toBe(404)
    expect((await get('layout.exe')).status).toBe(404)
  })
})

it('a cut takes its length off the roll once, makes its pieces real, and the kept plan stays as it is', async () => {
  const file = await openJob(world.who.lead, world.jobId, new Date())
  if (!file) throw new Error('no job')
  const r = reckon(file.plan, file.catalogue, file.ledger)
  const layout = r.layouts[0]
  if (!layout) throw new Error('no layout')
  // The roll on the shelf covers the plan: it is laid there, and nothing is bought.
  expect(layout.rolls.map((x) => x.stock?.id)).toEqual([world.rollId])
  expect(r.purchases.get('fen-satin')).toMatchObject({ covered: true, cost: 0 })
  const plan = { ...file.plan, layout: { ...file.plan.layout, kept: [keepLayout(layout)] } }
  expect(
    await savePlan(
      world.who.lead,
      { jobId: world.jobId, basedOn: file.head.head, plan, summary: () => 'kept' },
      new Date(),
    ),
  ).toMatchObject({ kind: 'saved' })
  const roll = layout.rolls[0]
  const cut = roll?.cutting.cuts[0]
  if (!roll || !cut) throw new Error('no cut')
  const entry = { id: randomUUID(), at: '2026-11-20T08:00:00.000Z', payload: cutEntry(layout, roll, cut, world.rollId) }
  const left = async () => (await rack(world.who.lead)).stock.find((s) => s.id === world.rollId)?.leftMm ?? 0
  const before = await left()
  for (const outcome of ['done', 'again']) {
    const { outcomes } = await appendEntries(world.who.installer, world.jobId, [entry], { now: new Date() })
    expect(outcomes).toMatchObject([{ outcome }])
    expect(before - (await left())).toBeCloseTo(cut.tapeMm, 1)
  }
  const after = await openJob(world.who.lead, world.jobId, new Date())
  if (!after) throw new Error('no job')
  const again = reckon(after.plan, after.catalogue, after.ledger)
  expect(again.layouts[0]?.kept).toBe('current')
  expect(again.layouts[0]?.cut.map((c) => c.id).sort()).toEqual([...cut.pieceIds].sort())
  expect(again.findings.filter((f) => f.code === 'stock_short' || f.code === 'cut_spoiled')).toEqual([])
})
