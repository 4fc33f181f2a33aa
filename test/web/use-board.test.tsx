// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { boardInput, boardKey, type BoardInput } from '@/core/engines/schedule/settled-board'
import type { Board } from '@/core/engines/schedule/shop-schedule'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import type { BoardAnswer, BoardAsk } from '@/web/workers/board.worker'
import { useBoard, type KeptBoard } from '@/web/yard/use-board'

/** Workers that were begun, each answered by the test. */
let workers: FakeWorker[] = []
class FakeWorker {
  onmessage: ((event: { data: BoardAnswer }) => void) | null = null
  onerror: ((event: { message: string }) => void) | null = null
  asked: BoardAsk | null = null
  ended = false
  constructor() {
    workers.push(this)
  }
  postMessage(ask: BoardAsk) {
    this.asked = ask
  }
  terminate() {
    this.ended = true
  }
  answer(data: BoardAnswer) {
    act(() => this.onmessage?.({ data }))
  }
}
beforeEach(() => {
  workers = []
  vi.stubGlobal('Worker', FakeWorker)
})
afterEach(() => vi.unstubAllGlobals())

/** A board that is known by the job that is late on it. */
const board = (name: string): Board => ({
  bars: [],
  stays: [],
  ready: new Map(),
  late: [{ jobId: name, promisedAt: '2031-03-03T08:00', readyAt: '2031-03-04T08:00' }],
  rescues: [],
  broken: [],
})
const kept = (ask: BoardInput, name: string): KeptBoard => ({
  key: boardKey(ask),
  board: { bars: [], stays: [], ready: {}, late: [...board(name).late], rescues: [], broken: [] },
})
const FIRST = boardInput([], DEFAULT_SHOP, '2031-03-03T08:00')
const SECOND = boardInput([], DEFAULT_SHOP, '2031-03-03T08:15')
const shown = (b: ReturnType<typeof useBoard>['board']) => (b && !('code' in b) ? b.late[0]?.jobId : b)
const open = (ask: BoardInput, settled: KeptBoard | null) =>
  renderHook((p: { ask: BoardInput; settled: KeptBoard | null }) => useBoard(p.ask, p.settled), {
    initialProps: { ask, settled },
  })

describe('the board on the yard', () => {
  it('a settled one that holds is there at once, and nothing is laid out', () => {
    const { result } = open(FIRST, kept(FIRST, 'settled'))
    expect(shown(result.current.board)).toBe('settled')
    expect(result.current.isSettled).toBe(true)
    expect(workers).toHaveLength(0)
  })
  it('without one it is laid out quickly, marked as settling, until the settled one comes', () => {
    const { result, rerender } = open(FIRST, null)
    expect(result.current.board).toBeNull()
    workers[0]?.answer({ board: board('quick') })
    expect(shown(result.current.board)).toBe('quick')
    expect(result.current.isSettled).toBe(false)
    rerender({ ask: FIRST, settled: kept(FIRST, 'settled') })
    expect(shown(result.current.board)).toBe('settled')
    expect(result.current.isSettled).toBe(true)
  })
  it('one of a quarter of an hour ago is shown no longer than until there is another', () => {
    const { result, rerender } = open(FIRST, kept(FIRST, 'settled'))
    rerender({ ask: SECOND, settled: kept(FIRST, 'settled') })
    expect(shown(result.current.board)).toBe('settled')
    expect(result.current.isSettled).toBe(false)
    workers[0]?.answer({ board: board('quick') })
    expect(shown(result.current.board)).toBe('quick')
    // What it hung on is back: so is it.
    rerender({ ask: FIRST, settled: kept(FIRST, 'settled') })
    expect(shown(result.current.board)).toBe('settled')
  })
  it('work that was dragged stands until what was saved of it is laid out; taken back, all is as before', async () => {
    const { result, rerender } = open(FIRST, kept(FIRST, 'settled'))
    const trial = { jobId: 'a', pin: { code: 'wrap' as const, at: '2031-03-03T09:00' } }
    const answered = result.current.attempt(trial)
    expect(workers[0]?.asked?.trial).toEqual(trial)
    workers[0]?.answer({ trial: { ok: true, board: board('tried') } })
    expect((await answered).ok).toBe(true)
    expect(shown(result.current.board)).toBe('tried')
    act(() => result.current.restore())
    expect(shown(result.current.board)).toBe('settled')
    const again = result.current.attempt(trial)
    workers[1]?.answer({ trial: { ok: true, board: board('tried') } })
    await again
    rerender({ ask: SECOND, settled: kept(FIRST, 'settled') })
    expect(shown(result.current.board)).toBe('tried')
    workers[2]?.answer({ board: board('quick') })
    expect(shown(result.current.board)).toBe('quick')
  })
  it('a refused drag changes nothing; a worker that breaks is told', async () => {
    const { result } = open(FIRST, kept(FIRST, 'settled'))
    const trial = { jobId: 'a', pin: { code: 'wrap' as const, at: '2031-03-03T09:00' } }
    const refused = result.current.attempt(trial)
    workers[0]?.answer({ trial: { ok: false, why: 'others_then' } })
    expect(await refused).toEqual({ ok: false, why: 'others_then' })
    expect(shown(result.current.board)).toBe('settled')
    const broken = result.current.attempt(trial)
    workers[1]?.onerror?.({ message: 'out of memory' })
    await expect(broken).rejects.toThrow('out of memory')
    expect(workers.every((w) => w.ended)).toBe(true)
  })
  it('what changes while it is laid out begins anew, and an answer of before is not taken', () => {
    const { result, rerender } = open(FIRST, null)
    rerender({ ask: SECOND, settled: null })
    expect(workers[0]?.ended).toBe(true)
    workers[1]?.answer({ board: board('second') })
    expect(shown(result.current.board)).toBe('second')
  })
})
