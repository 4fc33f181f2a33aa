import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
import type { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { DEMO_JOBS } from '@/db/demo/jobs'
import type { StretchAsk, StretchNews } from '@/web/workers/stretch.worker'

/** Workers that do nothing by themselves: what they were asked is looked at, and their answers are given by hand. */
class Hand {
  static all: Hand[] = []
  asked: StretchAsk[] = []
  ended = false
  onmessage: ((e: { data: StretchNews }) => void) | null = null
  onerror: (() => void) | null = null
  constructor() {
    Hand.all.push(this)
  }
  postMessage(ask: StretchAsk) {
    this.asked.push(ask)
  }
  terminate() {
    this.ended = true
  }
  says(data: StretchNews) {
    act(() => this.onmessage?.({ data }))
  }
  static of<K extends StretchAsk['kind']>(kind: K): { worker: Hand; ask: Extract<StretchAsk, { kind: K }> }[] {
    return Hand.all.flatMap((worker) =>
      worker.asked.flatMap((ask) =>
        ask.kind === kind ? [{ worker, ask: ask as Extract<StretchAsk, { kind: K }> }] : [],
      ),
    )
  }
}

const plan = Plan.parse(DEMO_JOBS[0]?.make())
const ids = plan.panels.filter((p) => p.wrap).map((p) => p.id)
const job = {
  plan,
  catalogue: { films: [], solved: {} as Record<string, SolvedStretch>, scans: {} },
  solved: vi.fn(),
  foundWays: vi.fn(),
  jobId: 'j',
}
vi.mock('@/web/job/job-state', () => ({ useJob: () => job }))

const value = (over: Partial<SolvedStretch> = {}): SolvedStretch => ({
  worst: 0.02,
  toPostHeatMm2: 0,
  overMm2: 0,
  wrinklesMm2: 0,
  areaMm2: 1e6,
  triangles: 400,
  spot: null,
  ...over,
})
const load = async () => ({
  ...(await import('@/web/pieces/stretch-workers')),
  ...(await import('@/web/pieces/use-stretch')),
})

beforeEach(() => {
  vi.resetModules()
  vi.useFakeTimers()
  vi.stubGlobal('Worker', Hand)
  Hand.all = []
  job.solved.mockReset()
  job.foundWays.mockReset()
  job.catalogue.solved = {}
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('workers of stretch', () => {
  const ask = { kind: 'schools', plan, panelId: ids[0] as string, scan: null } as const
  it('one that has answered is asked again; one that is called off is ended and replaced later', async () => {
    const { startStretch } = await load()
    const heard: string[] = []
    startStretch(ask, (news) => heard.push(news.kind))
    expect(Hand.all).toHaveLength(1)
    Hand.all[0]?.says({ kind: 'end' })
    const stop = startStretch(ask, (news) => heard.push(news.kind))
    expect(Hand.all).toHaveLength(1)
    expect(Hand.all[0]?.asked).toHaveLength(2)
    stop()
    expect(Hand.all[0]?.ended).toBe(true)
    expect(heard).toEqual(['end'])
    vi.advanceTimersByTime(2000)
    expect(Hand.all[1]?.asked.map((a) => a.kind)).toEqual(['warm'])
    startStretch(ask, () => {})
    expect(Hand.all).toHaveLength(2)
  })
  it('calling off what was answered ends nothing', async () => {
    const { startStretch, someoneWaits } = await load()
    const stop = startStretch(ask, () => {})
    expect(someoneWaits()).toBe(true)
    Hand.all[0]?.says({ kind: 'end' })
    expect(someoneWaits()).toBe(false)
    stop()
    expect(Hand.all[0]?.ended).toBe(false)
    expect(someoneWaits()).toBe(false)
  })
  it('nobody waits for the background, nor for a worker that could not be had', async () => {
    const { startStretch, someoneWaits } = await load()
    startStretch(ask, () => {}, true)
    expect(someoneWaits()).toBe(false)
    const heard: StretchNews[] = []
    startStretch(ask, (news) => heard.push(news))
    Hand.all[1]?.onerror?.()
    expect(heard).toEqual([{ kind: 'fault', fault: { code: 'no_worker' } }])
    expect(someoneWaits()).toBe(false)
  })
  it('first maps share one worker that is never ended; each answer goes to its own ask, none to one called off', async () => {
    const { startQuick, someoneWaits } = await load()
    const map = { plan, panelId: 'x', pull: 'even', atOnce: false, flangeMm: 0, scan: null } as const
    const heard: string[] = []
    const off = startQuick(map, () => heard.push('first'))
    startQuick(map, () => heard.push('second'))
    const [one, two] = Hand.of('quick')
    expect(one?.worker).toBe(two?.worker)
    off()
    expect(someoneWaits()).toBe(true)
    for (const q of [one, two])
      q?.worker.says({ kind: 'quick', id: q.ask.id, news: { kind: 'fault', fault: { code: 'x' } } })
    expect(heard).toEqual(['second'])
    expect(someoneWaits()).toBe(false)
    expect(one?.worker.ended).toBe(false)
    // The worker fails: whoever waits is told, and the next ask has a new one.
    startQuick(map, (news) => heard.push(news.kind))
    one?.worker.onerror?.()
    expect(heard).toEqual(['second', 'fault'])
    startQuick(map, () => {})
    expect(Hand.of('quick').at(-1)?.worker).not.toBe(one?.worker)
  })
})

describe('the survey of all panels', () => {
  const begun = async () => {
    const all = await load()
    const hook = renderHook(() => all.useSurvey())
    await act(() => vi.advanceTimersByTimeAsync(1000))
    return { ...all, hook }
  }
  it('asks for every panel on a coarse surface, then all on a finer; results are handed on, in batches', async () => {
    const { hook, keyOf } = await begun()
    const [first] = Hand.of('survey')
    expect(first?.ask.panelIds).toEqual(ids)
    expect(first?.ask.finerIds).toEqual(ids)
    expect(hook.result.current.left).toBe(ids.length)
    for (const panelId of ids) first?.worker.says({ kind: 'survey', panelId, sum: value(), fault: null })
    expect(hook.result.current).toMatchObject({ left: 0, finer: ids.length })
    const handed = job.solved.mock.calls.flatMap(([rows]) => rows as { key: string }[])
    expect(handed.map((r) => r.key)).toEqual(ids.map((id) => keyOf(plan, id, {})))
    expect(job.solved.mock.calls.length).toBeLessThan(ids.length / 2)
    for (const panelId of ids)
      first?.worker.says({ kind: 'survey', panelId, sum: value({ triangles: 3000 }), fault: null })
    first?.worker.says({ kind: 'end' })
    expect(hook.result.current).toMatchObject({ left: 0, finer: 0 })
    expect(job.solved.mock.calls.flatMap(([rows]) => rows as unknown[])).toHaveLength(2 * ids.length)
  })
  it('stands back while somebody waits for a map, and goes on with what is left, ways out included', async () => {
    const { startStretch } = await begun()
    const [first] = Hand.of('survey')
    const [a, b] = ids as [string, string]
    first?.worker.says({ kind: 'survey', panelId: a, sum: value({ overMm2: 5 }), fault: null })
    first?.worker.says({ kind: 'survey', panelId: b, sum: null, fault: { code: 'cannot_flatten' } })
    let stop = () => {}
    act(() => {
      stop = startStretch({ kind: 'schools', plan, panelId: b, scan: null }, () => {})
    })
    expect(first?.worker.ended).toBe(true)
    // What was solved is not lost with it.
    expect(job.solved.mock.calls.flatMap(([rows]) => rows as unknown[])).toHaveLength(1)
    await act(() => vi.advanceTimersByTimeAsync(3000))
    expect(Hand.of('survey')).toHaveLength(1)
    act(() => stop())
    await act(() => vi.advanceTimersByTimeAsync(500))
    const second = Hand.of('survey')[1]
    expect(second?.ask.panelIds).toEqual(ids.slice(2))
    expect(second?.ask.bestIds).toEqual([a])
    expect(second?.ask.finerIds).toEqual(ids.filter((id) => id !== b))
    second?.worker.says({ kind: 'best', panelId: a, ways: [] })
    expect(job.foundWays).toHaveBeenCalledWith(a, [])
  })
  it('what only the finer surface shows to be too much has its ways out too; what is known is not asked again', async () => {
    await begun()
    const [first] = Hand.of('survey')
    const [a, b] = ids as [string, string]
    first?.worker.says({ kind: 'survey', panelId: b, sum: value({ overMm2: 3 }), fault: null })
    first?.worker.says({ kind: 'best', panelId: b, ways: [] })
    first?.worker.says({ kind: 'survey', panelId: a, sum: value(), fault: null })
    first?.worker.says({ kind: 'survey', panelId: a, sum: value({ triangles: 3000, overMm2: 2 }), fault: null })
    const { startStretch } = await load()
    let stop = () => {}
    act(() => {
      stop = startStretch({ kind: 'schools', plan, panelId: b, scan: null }, () => {})
    })
    act(() => stop())
    await act(() => vi.advanceTimersByTimeAsync(500))
    const again = Hand.of('survey')[1]
    expect(again?.ask).toMatchObject({ bestIds: [a], knownIds: [b] })
    expect(again?.ask.finerIds).not.toContain(a)
  })
  it('says what could not be solved, and does not ask for what is known and fine', async () => {
    const { keyOf } = await load()
    const [a, b] = ids as [string, string]
    job.catalogue.solved = Object.fromEntries(
      ids.map((id) => [keyOf(plan, id, {}), value({ triangles: id === a ? 400 : 3000, overMm2: id === b ? 9 : 0 })]),
    )
    const { hook } = await begun()
    const [only] = Hand.of('survey')
    expect(only?.ask).toMatchObject({ panelIds: [], bestIds: [b], finerIds: [a] })
    only?.worker.says({ kind: 'survey', panelId: a, sum: null, fault: { code: 'cannot_flatten' } })
    expect(hook.result.current.faults.get(a)).toMatch(/No flat film/)
    hook.unmount()
    expect(only?.worker.ended).toBe(true)
  })
})
