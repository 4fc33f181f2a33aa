import 'fake-indexeddb/auto'
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { jobHistory, restoreRevision } from '@/web/actions/jobs'
import { HelpCard } from '@/web/bay/help-card'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { History } from '@/web/job/history'
import { useJob } from '@/web/job/job-state'
import { CAUTIONS, stepTitle } from '@/web/words/steps'
import { stubBrowser } from '../fixtures/browser'
import { openJob } from '../fixtures/open-job'
import { handCar, withPanel } from '../fixtures/plans'

vi.mock('@/web/actions/jobs', () => ({
  saveJob: () => new Promise(() => {}),
  takeBackChange: vi.fn(),
  jobHistory: vi.fn(),
  restoreRevision: vi.fn(),
}))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/history',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

const REVISIONS = [
  { number: 3, summary: 'Door: width 1050 → 1060 mm', author: 'Tamsin Brack', at: '2026-11-20T09:30:00.000Z' },
  { number: 2, summary: 'Film: Fen satin green', author: 'Joss Ferrin', at: '2026-11-19T15:00:00.000Z' },
  { number: 1, summary: 'Taken in', author: 'Joss Ferrin', at: '2026-11-19T14:00:00.000Z' },
]
const answers = (action: unknown, value: unknown) =>
  vi.mocked(action as () => Promise<unknown>).mockResolvedValueOnce(value)

describe('revisions of a plan', () => {
  it('stand with what changed, by whom and when on the shop’s clock; the newest has nothing to bring back', async () => {
    answers(jobHistory, { ok: true, value: REVISIONS })
    openJob(<History />, { number: 3 })
    await screen.findByText('Taken in')
    const rows = screen.getAllByRole('row').slice(1)
    expect(rows.map((r) => r.textContent)).toEqual([
      '3Door: width 1050 → 1060 mmTamsin BrackFri 20 Nov, 09:30',
      '2Film: Fen satin greenJoss FerrinThu 19 Nov, 15:00Bring back',
      '1Taken inJoss FerrinThu 19 Nov, 14:00Bring back',
    ])
  })
  it('one brought back is the plan that is open, as a revision of its own', async () => {
    answers(jobHistory, { ok: true, value: REVISIONS })
    const o = openJob(<History />, { number: 3 })
    await screen.findByText('Taken in')
    const back = withPanel(handCar(), 'door', () => ({ widthMm: 999 }))
    answers(restoreRevision, { ok: true, value: { number: 4, plan: back } })
    answers(jobHistory, {
      ok: true,
      value: [{ ...REVISIONS[0], number: 4, summary: 'Revision 1 brought back' }, ...REVISIONS],
    })
    const last = screen.getAllByRole('button', { name: 'Bring back' }).at(-1)
    if (!last) throw new Error('nothing to bring back')
    fireEvent.click(last)
    await waitFor(() => expect(o.job().plan.panels.find((p) => p.id === 'door')?.widthMm).toBe(999))
    expect(vi.mocked(restoreRevision).mock.lastCall?.[0]).toMatchObject({ number: 1, basedOn: 3 })
    expect(o.job().number).toBe(4)
    await screen.findByText('Revision 1 brought back')
  })
  it('what is refused is said, and the plan stays', async () => {
    answers(jobHistory, { ok: true, value: REVISIONS })
    const o = openJob(<History />, { number: 3 })
    await screen.findByText('Taken in')
    const before = o.job().plan
    answers(restoreRevision, { ok: false, error: { code: 'stale' } })
    fireEvent.click(within(screen.getByRole('table')).getAllByRole('button', { name: 'Bring back' })[0] as HTMLElement)
    expect((await screen.findByRole('alert')).textContent?.length).toBeGreaterThan(10)
    expect(o.job().plan).toBe(before)
  })
  it('whoever may not plan reads them', async () => {
    answers(jobHistory, { ok: true, value: REVISIONS })
    openJob(<History />, { number: 3, role: 'installer' })
    await screen.findByText('Taken in')
    expect(screen.queryByRole('button', { name: 'Bring back' })).toBeNull()
  })
  it('without a network it says so in place of an empty list', async () => {
    vi.mocked(jobHistory).mockRejectedValueOnce(new TypeError('no network'))
    openJob(<History />)
    expect((await screen.findByRole('alert')).textContent?.length).toBeGreaterThan(10)
    expect(screen.queryByRole('table')).toBeNull()
  })
})

describe('help at a step', () => {
  function Helps() {
    const { reckoning } = useJob('reckoning')
    return plannedSteps(reckoning.steps).map((s) => <HelpCard key={s.id} step={s} />)
  }
  it('is there for every step, opens as a dialog with its cautions, and closes', () => {
    const o = openJob(<Helps />)
    for (const s of plannedSteps(o.job().reckoning.steps)) {
      fireEvent.click(screen.getByRole('button', { name: `Help: ${stepTitle(s)}` }))
      const dialog = screen.getByRole('dialog', { name: stepTitle(s) })
      for (const c of s.cautions) expect(dialog.textContent, s.id).toContain(CAUTIONS[c])
      expect(dialog.textContent).toContain('the film’s sheet comes first')
      fireEvent.click(within(dialog).getAllByRole('button').at(-1) as HTMLElement)
      expect(screen.queryByRole('dialog')).toBeNull()
    }
  })
})
