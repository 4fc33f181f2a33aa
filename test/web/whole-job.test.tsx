import 'fake-indexeddb/auto'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { NO_SOLUTIONS, solutionTables } from '@/core/model/catalogue/solution-tables'
import { Plan } from '@/core/model/plan/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { demoSolutions } from '@/db/demo/solutions'
import { Bay } from '@/web/bay/bay'
import { JobProvider } from '@/web/job/job-state'
import { stubBrowser } from '../fixtures/browser'
import { catalogue } from '../fixtures/plans'
import { watchJob } from '../fixtures/watch-job'

vi.mock('@/web/actions/jobs', () => ({ saveJob: vi.fn(), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/bay',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()

const MINUTE = 60_000
const [HATCH] = DEMO_JOBS
const ID = HATCH?.id ?? ''
const SHOP: Catalogue = { ...catalogue, solutions: { ...NO_SOLUTIONS, ...solutionTables(demoSolutions(ID)) } }
const start = {
  jobId: ID,
  number: 1,
  shopHead: 0,
  plan: Plan.parse(HATCH?.make()),
  ledger: [],
  catalogue: SHOP,
  units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' } as const,
  member: { id: '00000000-0000-4000-8000-00000000aaaa', name: 'Imre Saltwell', role: 'installer' as const },
}

const { Watch, job } = watchJob()

let taps = 0
const kinds = new Map<string, number>()
/** One touch of a thumb. */
function tap(button: HTMLElement, kind: string): void {
  if ((button as HTMLButtonElement).disabled) throw new Error(`${kind}: it cannot be tapped`)
  taps += 1
  kinds.set(kind, (kinds.get(kind) ?? 0) + 1)
  fireEvent.click(button)
}
const button = (name: string | RegExp): HTMLElement => screen.getByRole('button', { name })
const maybe = (name: string | RegExp): HTMLElement | null => screen.queryByRole('button', { name })
const view = (name: string): HTMLElement =>
  within(screen.getByRole('navigation', { name: 'Bay views' })).getByRole('button', { name: new RegExp(`^${name}`) })
const later = (minutes: number): void => {
  act(() => void vi.setSystemTime(Date.now() + minutes * MINUTE))
}

/** Reads all places of the panel that is shown: its edges in a sweep, then what is left place by place. */
function readPanel(panelId: string): void {
  const due = () => job().reckoning.points.filter((p) => p.panelId === panelId && p.state === 'due')
  const sweep = screen.queryAllByRole('button', { name: /^All \d+ edges$/ })[0]
  if (sweep && due().length > 1) tap(sweep, 'all edges')
  for (let left = due().length; left > 0; left = due().length) {
    const [point] = due()
    if (!point) break
    const field = screen.getByLabelText(/^Thermometer/)
    // Digits are not counted.
    fireEvent.change(field, { target: { value: String(Math.round((point.range.min + point.range.max) / 2)) } })
    tap(button('Gun away: log'), 'reading')
    const again = maybe('Log it all the same')
    if (again) tap(again, 'doubt')
    if (due().length === left) throw new Error(`${panelId}: nothing was read`)
  }
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime(new Date('2026-11-23T08:00:00Z'))
  taps = 0
  kinds.clear()
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('the demo hatch by thumb, from its wash to the recheck', () => {
  it('takes at most 200 taps, digits not counted, and leaves nothing open', { timeout: 300_000 }, () => {
    render(
      <QueryClientProvider client={new QueryClient()}>
        <JobProvider start={start}>
          <Watch />
          <Bay />
        </JobProvider>
      </QueryClientProvider>,
    )
    const open = () => job().reckoning.steps.filter((s) => s.state === 'to_do' || s.state === 'running')
    for (let guard = 0; open().length > 0 && guard < 120; guard++) {
      const go = maybe('Start')
      if (go) tap(go, 'start')
      if (screen.queryByRole('alertdialog')) throw new Error(`asked: ${screen.getByRole('alertdialog').textContent}`)
      const running = job().reckoning.steps.find((s) => s.state === 'running')
      if (!running) throw new Error('nothing runs')
      const { panelId } = running
      later(running.minutes)
      if (panelId && job().reckoning.points.some((p) => p.panelId === panelId)) {
        later(60)
        tap(view('Heat'), 'view')
        readPanel(panelId)
        tap(view('Now'), 'view')
      }
      if (running.code === 'check_round' || running.code === 'recheck') {
        tap(view('Check'), 'view')
        tap(button('All of them hold'), 'check')
        tap(view('Now'), 'view')
      }
      if (running.code === 'cut') {
        tap(view('Film'), 'view')
        const cut = maybe(/^Cut from /)
        if (cut && !(cut as HTMLButtonElement).disabled) tap(cut, 'film')
        tap(view('Now'), 'view')
      }
      tap(button('Done'), 'done')
      if (screen.queryByRole('alertdialog')) throw new Error(`asked: ${screen.getByRole('alertdialog').textContent}`)
      later(Math.max(running.waitMin, 24 * 60 * Number(running.code === 'rest')))
    }
    expect(open()).toEqual([])
    expect(job().reckoning.points.filter((p) => p.state !== 'done')).toEqual([])
    expect(taps).toBeLessThanOrEqual(200)
  })
})
