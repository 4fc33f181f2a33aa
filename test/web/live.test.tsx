import 'fake-indexeddb/auto'
import { act, cleanup, render, waitFor } from '@testing-library/react'
import { useEffect } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { seeded } from '@/core/kit/random'
import { NO_SOLUTIONS, solutionTables } from '@/core/model/catalogue/solution-tables'
import type { Solution } from '@/core/model/catalogue/solutions'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { StockItem } from '@/core/model/film/schema'
import type { LogPayload, LogRow } from '@/core/model/log/schema'
import { DEFAULT_SHOP, hoursOf } from '@/core/model/shop/default-shop'
import type { ShopSettings } from '@/core/model/shop/shop'
import { mergePlans } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import { reckoningJson } from '@/core/reckon/output'
import { reckon, type Reckoning } from '@/core/reckon/reckon'
import { forgetDeviceStore } from '@/web/job/device-store'
import { JobProvider, useJob } from '@/web/job/job-state'
import { catalogue, handCar, withPanel } from '../fixtures/plans'

/** Everything that the server has, with its change numbers; what a route handler would answer is read off it. */
class Server {
  head = 1
  revision = { number: 1, plan: handCar(), change: 1 }
  ledger: (LogRow & { change: number })[] = []
  stock: StockItem[] = catalogue.stock.map((s) => ({ ...s }))
  stockChange = 1
  solutions: (Solution & { change: number })[] = []
  shop: ShopSettings = DEFAULT_SHOP
  save(basedOn: Plan, plan: Plan): Plan {
    const merged = mergePlans(basedOn, plan, this.revision.plan)
    if (!merged.clean) throw new Error('a clash that nobody made')
    this.revision = { number: this.revision.number + 1, plan: merged.plan, change: ++this.head }
    return merged.plan
  }
  enter(payload: LogPayload) {
    const n = this.ledger.length
    const at = new Date(Date.UTC(2026, 10, 20, 8, n)).toISOString()
    this.head++
    this.ledger.push({
      id: `e${n}`,
      at,
      by: 'Other',
      payload,
      revision: 1,
      seq: n,
      device: null,
      n: null,
      change: this.head,
    })
    if (payload.kind !== 'film_used') return
    this.stock = this.stock.map((s) =>
      s.id === payload.stockId ? { ...s, leftMm: Math.max(0, s.leftMm - payload.lengthMm) } : s,
    )
    this.stockChange = this.head
  }
  /** The shop closes earlier or later on Mondays. */
  settle(toMinute: number) {
    this.shop = { ...this.shop, week: this.shop.week.map((s, i) => (i === 0 ? { ...s, toMinute } : s)) }
    this.head++
  }
  solve(worst: number) {
    const [lack] = reckon(this.revision.plan, this.catalogue(), this.ledger).settling.lacks
    if (lack?.kind !== 'stretch') return
    const value = {
      worst,
      toPostHeatMm2: 0,
      overMm2: 0,
      wrinklesMm2: 0,
      areaMm2: 1e6,
      triangles: 2900,
      spot: null,
      toPostHeat: [],
    }
    this.solutions.push({ kind: 'stretch', key: lack.key, fineness: 2900, value, change: ++this.head })
  }
  catalogue(): Catalogue {
    const list = this.solutions.map(({ change: _, ...s }) => s)
    const { shop } = this
    return {
      ...catalogue,
      shop,
      hours: hoursOf(shop),
      stock: this.stock,
      solutions: { ...NO_SOLUTIONS, ...solutionTables(list) },
      scans: {},
    }
  }
  changes(since: number) {
    const newer = this.revision.change > since
    const { number, plan } = this.revision
    return {
      entries: this.ledger.filter((r) => r.change > since).map(({ change: _, ...r }) => r),
      revision: newer ? { number, plan } : null,
      stock: this.stockChange > since ? this.stock : null,
      films: catalogue.films,
      shop: this.shop,
      solutions: this.solutions.filter((s) => newer || s.change > since).map(({ change: _, ...s }) => s),
      scans: {},
      head: this.head,
    }
  }
}

let server: Server
let asked = 0
let offline = false
vi.mock('@/web/actions/jobs', () => ({
  saveJob: async ({ basedOn, plan }: { basedOn: number; plan: Plan }) => {
    if (offline) return { ok: false, error: { code: 'offline' } }
    const kind = basedOn === server.revision.number ? 'saved' : 'merged'
    const merged = server.save(bases.get(basedOn) ?? plan, plan)
    bases.set(server.revision.number, merged)
    return { ok: true, value: { kind, number: server.revision.number, plan: merged, theirParts: [] } }
  },
  takeBackChange: async () => ({ ok: false, error: { code: 'nothing_to_undo' } }),
}))
const bases = new Map<number, Plan>()
vi.mock('next/navigation', () => ({ usePathname: () => '/jobs/x/tape', useSearchParams: () => new URLSearchParams() }))
vi.stubGlobal('fetch', async (url: string) => {
  if (offline) throw new TypeError('no network')
  const since = /changes\?since=(\d+)/.exec(url)?.[1]
  if (since === undefined) return new Response('{}')
  asked++
  // What crosses the wire is text.
  return Response.json({ ok: true, value: server.changes(Number(since)) })
})

/** The stream as a browser holds it. */
class Stream {
  static all: Stream[] = []
  static OPEN = 1
  readyState = 1
  onmessage: ((e: { data: string }) => void) | null = null
  onopen: (() => void) | null = null
  closed = false
  constructor(readonly url: string) {
    Stream.all.push(this)
  }
  close() {
    this.closed = true
  }
}
vi.stubGlobal('EventSource', Stream)
const tell = (job: string | null = JOB) =>
  act(async () => {
    for (const s of Stream.all.filter((x) => !x.closed))
      s.onmessage?.({ data: JSON.stringify({ job, head: server.head, kind: 'plan' }) })
    await vi.advanceTimersByTimeAsync(20)
  })

/** The stream brings the newest entry along with the word of it. */
const bringNewest = () =>
  act(async () => {
    const [newest] = server.changes(server.head - 1).entries
    const data = JSON.stringify({ job: JOB, head: server.head, kind: 'entries', entries: [newest] })
    for (const s of Stream.all.filter((x) => !x.closed)) s.onmessage?.({ data })
    await vi.advanceTimersByTimeAsync(20)
  })

const JOB = '00000000-0000-4000-8000-000000000abc'
let seen: { reckoning: Reckoning; edit: (change: (p: Plan) => Plan) => void } | null = null
function Probe() {
  const { reckoning, edit } = useJob()
  useEffect(() => {
    seen = { reckoning, edit }
  })
  return null
}
const open = () => {
  bases.set(1, server.revision.plan)
  return render(
    <JobProvider
      start={{
        jobId: JOB,
        number: server.revision.number,
        shopHead: server.head,
        plan: server.revision.plan,
        ledger: [],
        catalogue: server.catalogue(),
        units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' },
        member: { id: '00000000-0000-4000-8000-00000000aaaa', name: 'Tamsin Brack', role: 'lead' },
      }}
    >
      <Probe />
    </JobProvider>,
  )
}
const fresh = () => reckoningJson(reckon(server.revision.plan, server.catalogue(), server.changes(0).entries))
const shown = () => seen && reckoningJson(seen.reckoning)
const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers({
    shouldAdvanceTime: true,
    toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'Date'],
  })
  server = new Server()
  bases.clear()
  asked = 0
  offline = false
  Stream.all = []
  globalThis.indexedDB = new IDBFactory()
  forgetDeviceStore()
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('an open page', () => {
  it.each([1, 2, 3, 4, 5, 6])(
    'equals a fresh load, figure by figure, whatever happens meanwhile: seed %i',
    async (seed) => {
      const random = seeded(seed * 7919)
      open()
      await later(50)
      const size = () => 500 + Math.floor(random() * 600)
      const acts: (() => void)[] = [
        // Somebody else changes a panel; this page another one.
        () =>
          void server.save(
            server.revision.plan,
            withPanel(server.revision.plan, 'wing', () => ({ widthMm: size() })),
          ),
        () => {
          const mm = size()
          act(() => seen?.edit((p) => withPanel(p, 'door', () => ({ heightMm: mm }))))
        },
        () => server.enter({ kind: 'note', text: 'seen to' }),
        // An entry that the stream brings itself.
        () => {
          server.enter({ kind: 'consumable_used', of: 'filament', amount: 1 + Math.floor(random() * 9) })
          bring = true
        },
        () =>
          server.enter({ kind: 'film_used', stockId: server.stock[0]?.id ?? '', lengthMm: Math.ceil(random() * 400) }),
        () => server.solve(random() * 0.3),
        () => server.settle(600 + Math.floor(random() * 600)),
      ]
      let bring = false
      for (let i = 0; i < 16; i++) {
        bring = false
        acts[Math.floor(random() * acts.length)]?.()
        // Sometimes the network goes away in between.
        if (random() < 0.15) offline = true
        await (bring ? bringNewest() : tell())
        if (offline && random() < 0.6) offline = false
        await later(random() < 0.5 ? 100 : 900)
      }
      offline = false
      await later(12_000)
      await tell()
      await later(2000)
      await waitFor(() => expect(shown()).toEqual(fresh()))
    },
  )
  it('asks for nothing that another job changed, and for everything that all jobs share', async () => {
    open()
    await later(50)
    const before = asked
    server.enter({ kind: 'note', text: 'x' })
    await tell('00000000-0000-4000-8000-000000000fff')
    expect(asked).toBe(before)
    await tell(null)
    expect(asked).toBe(before + 1)
    expect(seen?.reckoning.parts.ledger).toHaveLength(1)
  })
  it('an entry that the stream brings is there without being asked for; what was missed before it comes too', async () => {
    open()
    await later(50)
    const before = asked
    // Nobody told of this one.
    server.enter({ kind: 'note', text: 'missed' })
    server.enter({ kind: 'note', text: 'brought' })
    await bringNewest()
    expect(asked).toBe(before)
    expect(seen?.reckoning.parts.ledger.map((r) => r.payload)).toEqual([{ kind: 'note', text: 'brought' }])
    await tell()
    expect(asked).toBe(before + 1)
    expect(seen?.reckoning.parts.ledger).toHaveLength(2)
    expect(shown()).toEqual(fresh())
  })
  it('an entry brought while an answer is under way is asked for once more, so that nothing is counted twice or never', async () => {
    open()
    await later(50)
    const before = asked
    server.enter({ kind: 'note', text: 'one' })
    await act(async () => {
      for (const s of Stream.all.filter((x) => !x.closed))
        s.onmessage?.({ data: JSON.stringify({ job: JOB, head: server.head, kind: 'plan' }) })
      server.enter({ kind: 'consumable_used', of: 'filament', amount: 2 })
      const [newest] = server.changes(server.head - 1).entries
      const data = JSON.stringify({ job: JOB, head: server.head, kind: 'entries', entries: [newest] })
      for (const s of Stream.all.filter((x) => !x.closed)) s.onmessage?.({ data })
      await vi.advanceTimersByTimeAsync(20)
    })
    expect(asked).toBe(before + 2)
    expect(shown()).toEqual(fresh())
  })
  it('without a word from the stream it asks by itself, every ten seconds', async () => {
    open()
    await later(100)
    for (const s of Stream.all) s.readyState = 2
    const before = asked
    server.enter({ kind: 'note', text: 'x' })
    await later(60_000)
    expect(asked).toBeGreaterThan(before + 1)
    expect(seen?.reckoning.parts.ledger).toHaveLength(1)
  })
  it('closes its stream when it is left', async () => {
    const page = open()
    await later(50)
    expect(Stream.all.filter((s) => !s.closed)).toHaveLength(1)
    page.unmount()
    await later(50)
    expect(Stream.all.filter((s) => !s.closed)).toHaveLength(0)
  })
})
