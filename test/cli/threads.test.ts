import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { afterEach, describe, expect, it } from 'vitest'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { yardColumnsOf } from '@/core/reckon/yard'
import { ThreadPool } from '@/web/threads/pool'
import { supervise } from '../../scripts/supervise.mjs'
import { picturePng } from '../fixtures/pictures'
import { handCar, manyPanels } from '../fixtures/plans'

const pools: ThreadPool[] = []
const pool = (over: { size?: number; mostWaiting?: number; timeLimitMs?: number } = {}) => {
  const made = new ThreadPool({
    size: 1,
    open: () => new Worker(join(process.cwd(), 'web', 'threads', 'thread.mjs')),
    ...over,
  })
  pools.push(made)
  return made
}
afterEach(async () => {
  await Promise.all(pools.splice(0).map((p) => p.close()))
})
const job = (plan = handCar()) => ({ plan, catalogue: EMPTY_CATALOGUE, ledger: [] })

describe('work beside the server’s own thread', () => {
  it('comes out as it would here, while this thread goes on', async () => {
    let turns = 0
    const tick = setInterval(() => turns++, 1)
    const out = await pool().run('yard', job(manyPanels(200)))
    clearInterval(tick)
    expect(out).toEqual(yardColumnsOf(manyPanels(200), EMPTY_CATALOGUE, []))
    expect(turns).toBeGreaterThan(20)
  }, 120_000)
  it('a picture is made anew there; what is none, or too large, is told', async () => {
    const p = pool()
    expect(await p.run('photo', { bytes: new Uint8Array(await picturePng()) })).toMatchObject({ width: 40, height: 20 })
    expect(await p.run('photo', { bytes: new Uint8Array([1, 2, 3]) })).toEqual({ fault: 'not_a_photo' })
    // A picture of 9000 × 9000 that takes some hundred bytes to send.
    const header = Buffer.from('89504e470d0a1a0a0000000d4948445200002328000023280802000000', 'hex')
    const crc = Buffer.alloc(4)
    const large = await p.run('photo', { bytes: new Uint8Array(Buffer.concat([header, crc])) })
    expect(large).toHaveProperty('fault')
  }, 120_000)
  it('that takes too long ends with its thread, and the next has another', async () => {
    const p = pool()
    await expect(p.run('yard', job(manyPanels(500)), { timeLimitMs: 1 })).rejects.toMatchObject({
      code: 'took_too_long',
    })
    await expect(p.run('yard', job())).resolves.toHaveProperty('stage')
  }, 120_000)
  it('beyond what may wait is refused at once', async () => {
    const p = pool({ mostWaiting: 2 })
    const first = [p.run('yard', job()), p.run('yard', job()), p.run('yard', job())]
    await expect(p.run('yard', job())).rejects.toMatchObject({ code: 'too_much_at_once' })
    expect(await Promise.all(first)).toHaveLength(3)
  }, 120_000)
  it('that breaks rejects and holds up nothing', async () => {
    const p = pool()
    await expect(p.run('yard', { plan: null, catalogue: EMPTY_CATALOGUE, ledger: [] } as never)).rejects.toThrow()
    await expect(p.run('yard', job())).resolves.toHaveProperty('stage')
  }, 120_000)
})

describe('a process that is kept running', () => {
  const ends = () => spawn(process.execPath, ['-e', 'process.exit(3)'])
  it('is started again, later each time, and given up after a number of ends in a row; all of it is said', async () => {
    const said: string[] = []
    const code = await new Promise<number>((givenUp) =>
      supervise('worker', ends, { say: (s: string) => said.push(s), givenUp, backOffMs: [1, 20], mostEnds: 4 }),
    )
    expect(code).toBe(3)
    expect(said).toHaveLength(4)
    expect(said[0]).toMatch(/The worker ended with code 3; it is started again in 0.001 s/)
    expect(said.at(-1)).toMatch(/4 times in a row, and is not started again/)
  }, 120_000)
  it('stopped by us, it stays stopped; a killed one comes back', async () => {
    let started = 0
    const said: string[] = []
    const stays = () => {
      started++
      return spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'])
    }
    const kept = supervise('server', stays, { say: (s: string) => said.push(s), backOffMs: [1] })
    process.kill(kept.pid as number, 'SIGKILL')
    await new Promise((r) => setTimeout(r, 600))
    expect([started, said[0]]).toEqual([2, expect.stringContaining('by SIGKILL')])
    kept.kill('SIGKILL')
    await new Promise((r) => setTimeout(r, 300))
    expect(started).toBe(2)
  }, 120_000)
})
