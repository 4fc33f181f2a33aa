import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closeDatabase } from '@/db/client'
import { closeWorkQueue } from '@/db/queue'
import { askFleet, beatFleet, cancelFleet, endFleet, fleetFile, fleets, isSilent, takeFleet } from '@/db/queries/fleet'
import type { LayoutInput, LayoutPlan } from '@/core/engines/roll/contract'
import { shopWorld, type ShopWorld } from './world'

let ours: ShopWorld
let theirs: ShopWorld
const workers: ChildProcess[] = []
beforeAll(async () => {
  ours = await shopWorld()
  theirs = await shopWorld()
})
afterAll(async () => {
  for (const w of workers) w.kill('SIGKILL')
  await closeWorkQueue()
  await closeDatabase()
})

const request = (seconds: number, pieces = 12): LayoutInput => ({
  format: 'cuirass/layout@1',
  cutting: 'guillotine',
  gap_mm: 0,
  seconds,
  seed: 1,
  stock: [{ id: 'R-1', width_mm: 1520, length_mm: 90_000, lot: 'L1' }],
  // Sizes with no common step and no plan that is proven at once, so that the search takes its time.
  pieces: Array.from({ length: pieces }, (_, i) => ({
    id: `p${i}`,
    width_mm: 317.3 + 41.7 * (i % 11),
    height_mm: 289.9 + 57.1 * (i % 13),
    count: 1,
    turn: 'quarter' as const,
  })),
})

async function worker(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'worker/main.ts'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: process.env,
  })
  workers.push(child)
  await new Promise<void>((resolve, reject) => {
    child.stdout?.on('data', (d: Buffer) => d.toString().includes('ready') && resolve())
    child.on('exit', () => reject(new Error('the worker ended')))
  })
  return child
}
async function until<T>(look: () => Promise<T>, good: (t: T) => boolean, seconds = 60): Promise<T> {
  for (let i = 0; i < seconds * 10; i++) {
    const t = await look()
    if (good(t)) return t
    await new Promise((r) => setTimeout(r, 100))
  }
  throw new Error(`not within ${seconds} s: ${JSON.stringify(await look()).slice(0, 300)}`)
}

describe('layouts of fleets', () => {
  it('a second arrival of the same id changes nothing; other shops see none of it', async () => {
    const id = randomUUID()
    const ask = { id, name: 'Six vans', request: request(1), stages: 3 }
    expect(await askFleet(ours.who.lead, ask)).toBe('done')
    expect(await askFleet(ours.who.lead, { ...ask, name: 'Another' })).toBe('again')
    expect((await fleetFile(ours.who.desk, id))?.name).toBe('Six vans')
    expect(await fleetFile(theirs.who.lead, id)).toBeNull()
    expect((await fleets(theirs.who.lead)).some((f) => f.id === id)).toBe(false)
    expect(await cancelFleet(theirs.who.lead, id)).toBe('not_found')
    await expect(askFleet(ours.who.installer, { ...ask, id: randomUUID() })).rejects.toThrow()
    // Cancelled while it waits, it is never begun.
    expect(await cancelFleet(ours.who.lead, id)).toBe('done')
    expect((await fleetFile(ours.who.lead, id))?.state).toBe('cancelled')
    expect(await takeFleet({ shopId: ours.who.lead.shopId, id })).toBeNull()
  })

  it('only the worker that took it up last may write', async () => {
    const id = randomUUID()
    const task = { shopId: ours.who.lead.shopId, id }
    await askFleet(ours.who.lead, { id, name: 'Twice', request: request(1), stages: null })
    const first = await takeFleet(task)
    const second = await takeFleet(task)
    expect((await fleetFile(ours.who.lead, id))?.silent).toBe(false)
    expect([first?.attempt, second?.attempt]).toEqual([1, 2])
    expect(await beatFleet(task, 1, { share: 0.5, usedMm: 1, boundMm: 1 })).toBe('lost')
    expect(await beatFleet(task, 2, { share: 0.5, usedMm: 1, boundMm: 1 })).toBe('on')
    const result: LayoutPlan = {
      format: 'cuirass/layout-plan@1',
      used_mm: 1,
      bound_mm: 1,
      proven: true,
      stock: [],
      unplaced: [],
    }
    expect(await endFleet(task, 1, { state: 'done', result })).toBe(false)
    expect(await endFleet(task, 2, { state: 'done', result })).toBe(true)
    expect((await fleetFile(ours.who.lead, id))?.state).toBe('done')
  })

  it('is silent once its worker has not been heard of for half a minute, and only while it is being laid out', () => {
    const beatAt = new Date('2031-03-03T08:00:00Z')
    const after = (seconds: number) => beatAt.getTime() + 1000 * seconds
    expect(isSilent({ state: 'running', beatAt }, after(29))).toBe(false)
    expect(isSilent({ state: 'running', beatAt }, after(31))).toBe(true)
    for (const state of ['queued', 'done', 'failed', 'cancelled'] as const)
      expect(isSilent({ state, beatAt }, after(3600))).toBe(false)
    expect(isSilent({ state: 'running', beatAt: null }, after(3600))).toBe(false)
  })

  it('is worked on, told of, cancelled; a killed worker’s is taken up by another', async () => {
    const { lead } = ours.who
    const see = (id: string) => fleetFile(lead, id)
    const one = await worker()
    const quick = randomUUID()
    await askFleet(lead, { id: quick, name: 'Quick', request: request(1), stages: 3 })
    const done = await until(
      () => see(quick),
      (f) => f?.state === 'done',
    )
    expect(done?.result?.stock[0]?.placements).toHaveLength(12)
    expect(done?.usedMm).toBe(done?.result?.used_mm)

    const long = randomUUID()
    await askFleet(lead, { id: long, name: 'Cancelled', request: request(200, 70), stages: null })
    await until(
      () => see(long),
      (f) => f?.state === 'running' && f.share > 0 && f.usedMm !== null,
    )
    expect(await cancelFleet(lead, long)).toBe('done')
    const cancelled = await until(
      () => see(long),
      (f) => f?.state === 'cancelled',
      20,
    )
    // What was found until then is kept.
    expect(cancelled?.result?.stock[0]?.placements).toHaveLength(70)

    const orphan = randomUUID()
    await askFleet(lead, { id: orphan, name: 'Orphan', request: request(8, 70), stages: null })
    await until(
      () => see(orphan),
      (f) => f?.state === 'running' && f.attempt === 1,
    )
    await worker()
    one.kill('SIGKILL')
    const again = await until(
      () => see(orphan),
      (f) => (f?.attempt ?? 0) > 1,
      40,
    )
    expect(again?.attempt).toBe(2)
    const finished = await until(
      () => see(orphan),
      (f) => f?.state === 'done',
      40,
    )
    expect(finished?.result?.stock[0]?.placements).toHaveLength(70)
  }, 180_000)
})
