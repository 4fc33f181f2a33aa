import { act, cleanup } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
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
const load = () => import('@/web/pieces/stretch-workers')

beforeEach(() => {
  vi.resetModules()
  vi.useFakeTimers()
  vi.stubGlobal('Worker', Hand)
  Hand.all = []
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
    const { startStretch } = await load()
    const stop = startStretch(ask, () => {})
    Hand.all[0]?.says({ kind: 'end' })
    stop()
    expect(Hand.all[0]?.ended).toBe(false)
  })
  it('a worker that could not be had says so', async () => {
    const { startStretch } = await load()
    const heard: StretchNews[] = []
    startStretch(ask, (news) => heard.push(news))
    Hand.all[0]?.onerror?.()
    expect(heard).toEqual([{ kind: 'fault', fault: { code: 'no_worker' } }])
  })
  it('first maps share one worker that is never ended; each answer goes to its own ask, none to one called off', async () => {
    const { startQuick } = await load()
    const map = { plan, panelId: 'x', pull: 'even', atOnce: false, flangeMm: 0, scan: null } as const
    const heard: string[] = []
    const off = startQuick(map, () => heard.push('first'))
    startQuick(map, () => heard.push('second'))
    const [one, two] = Hand.of('quick')
    expect(one?.worker).toBe(two?.worker)
    off()
    for (const q of [one, two])
      q?.worker.says({ kind: 'quick', id: q.ask.id, news: { kind: 'fault', fault: { code: 'cannot_flatten' } } })
    expect(heard).toEqual(['second'])
    expect(one?.worker.ended).toBe(false)
    // The worker fails: whoever waits is told, and the next ask has a new one.
    startQuick(map, (news) => heard.push(news.kind))
    one?.worker.onerror?.()
    expect(heard).toEqual(['second', 'fault'])
    startQuick(map, () => {})
    expect(Hand.of('quick').at(-1)?.worker).not.toBe(one?.worker)
  })
})
