import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { seeded } from '@/core/kit/random'
import { mergePlans } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import { forgetDeviceStore } from '@/web/job/device-store'
import { PlanSync } from '@/web/job/plan-sync'
import { handCar, withPanel } from '../fixtures/plans'

/** What the server keeps: revisions, and a merge of what comes with what stands. */
const server = vi.hoisted(() => ({ revisions: [] as { number: number; plan: unknown }[], offline: false, sent: 0 }))
const newest = () => server.revisions.at(-1) as { number: number; plan: Plan }
const put = (plan: Plan) => void server.revisions.push({ number: newest().number + 1, plan })
vi.mock('@/web/actions/jobs', () => ({
  saveJob: async ({ basedOn, plan }: { basedOn: number; plan: Plan }) => {
    server.sent++
    if (server.offline) throw new TypeError('no network')
    const base = server.revisions.find((r) => r.number === basedOn)?.plan as Plan
    const { number, plan: now } = newest()
    if (basedOn === number) {
      put(plan)
      return { ok: true, value: { kind: 'saved', number: number + 1, plan: null } }
    }
    const merged = mergePlans(base, plan, now)
    if (!merged.clean)
      return {
        ok: true,
        value: { kind: 'clash', number, theirs: now, clashes: merged.clashes, by: 'Other', summary: '' },
      }
    put(merged.plan)
    return { ok: true, value: { kind: 'merged', number: number + 1, plan: merged.plan, theirParts: [] } }
  },
  takeBackChange: async () => ({ ok: false, error: { code: 'nothing_to_undo' } }),
}))

const START = { jobId: '00000000-0000-4000-8000-000000000abc', member: { id: '00000000-0000-4000-8000-00000000aaaa' } }
const later = (ms: number) => vi.advanceTimersByTimeAsync(ms)
const width = (plan: Plan, id: string) => plan.panels.find((p) => p.id === id)?.widthMm
const open = () => new PlanSync({ ...START, number: 1, plan: newest().plan })

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
  server.revisions = [{ number: 1, plan: handCar() }]
  server.offline = false
  server.sent = 0
  globalThis.indexedDB = new IDBFactory()
  forgetDeviceStore()
})
afterEach(() => {
  vi.useRealTimers()
})

describe('the plan of an open job', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])(
    'ends as the server has it, whatever was typed, saved by others and lost on the way: seed %i',
    async (seed) => {
      const random = seeded(seed * 104_729)
      const sync = open()
      // This page types at the door, the colleague at the wing: nothing clashes, and nothing of either may be lost.
      let [own, theirs] = [0, 0]
      const size = () => 500 + Math.floor(random() * 900)
      for (let i = 0; i < 25; i++) {
        const what = random()
        if (what < 0.45) {
          const mm = (own = size())
          sync.edit((p) => withPanel(p, 'door', () => ({ widthMm: mm })))
        } else if (what < 0.7) {
          const mm = (theirs = size())
          put(withPanel(newest().plan, 'wing', () => ({ widthMm: mm })))
          // The stream tells of it, mostly.
          if (random() < 0.7) sync.receive(newest())
        } else if (what < 0.8) server.offline = !server.offline
        else await later(Math.floor(random() * 1500))
        await later(random() < 0.5 ? 0 : 400)
      }
      server.offline = false
      await later(20_000)
      // What was saved by others while the stream said nothing comes with the next word of it.
      sync.receive(newest())
      await later(2000)
      const { plan, save, number } = sync.store.getState()
      expect(save.kind).toMatch(/saved|merged/)
      expect(sync.isUnsaved()).toBe(false)
      expect(number).toBe(newest().number)
      expect(plan).toEqual(newest().plan)
      if (own > 0) expect(width(plan, 'door')).toBe(own)
      if (theirs > 0) expect(width(plan, 'wing')).toBe(theirs)
    },
  )

  it('saves once for what is typed in one go, and one save at a time', async () => {
    const sync = open()
    for (const mm of [701, 702, 703]) sync.edit((p) => withPanel(p, 'door', () => ({ widthMm: mm })))
    await Promise.all([sync.push(), sync.push(), sync.push()])
    await later(5000)
    expect(server.sent).toBe(1)
    expect(width(newest().plan, 'door')).toBe(703)
  })

  it('a figure that both changed stops the page; keeping either one ends it, with all else of both', async () => {
    for (const side of ['mine', 'theirs'] as const) {
      server.revisions = [{ number: 1, plan: handCar() }]
      const sync = open()
      put(
        withPanel(
          withPanel(newest().plan, 'door', () => ({ widthMm: 811 })),
          'wing',
          () => ({ heightMm: 444 }),
        ),
      )
      sync.edit((p) =>
        withPanel(
          withPanel(p, 'door', () => ({ widthMm: 822 })),
          'bonnet',
          () => ({ heightMm: 555 }),
        ),
      )
      await later(2000)
      expect(sync.store.getState().save.kind).toBe('clash')
      sync.settle(side)
      await later(5000)
      const { plan, save } = sync.store.getState()
      expect(save.kind).toMatch(/saved|merged/)
      expect(plan).toEqual(newest().plan)
      const height = (id: string) => plan.panels.find((p) => p.id === id)?.heightMm
      expect([width(plan, 'door'), height('wing'), height('bonnet')]).toEqual([side === 'mine' ? 822 : 811, 444, 555])
    }
  })

  it('what was typed and never saved is there after the page was closed, over what others saved since', async () => {
    server.offline = true
    const first = open()
    first.edit((p) => withPanel(p, 'door', () => ({ widthMm: 905 })))
    await later(1500)
    expect(first.store.getState().save).toMatchObject({ kind: 'fault', fault: { code: 'offline' } })
    vi.useRealTimers()
    await new Promise((r) => setTimeout(r, 30))
    // Another page, another day.
    server.offline = false
    put(withPanel(newest().plan, 'wing', () => ({ widthMm: 606 })))
    const second = open()
    await second.resumeDraft(newest(), () => true)
    await vi.waitFor(() => expect(width(newest().plan, 'door')).toBe(905))
    expect(width(newest().plan, 'wing')).toBe(606)
  })
})
