import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { LogRow } from '@/core/log/schema'
import type { Plan } from '@/core/plan/schema'
import { Fig, Working } from '@/web/job/figure'
import { Findings } from '@/web/job/findings'
import { JobProvider, useJob } from '@/web/job/job-state'
import { catalogue, handCar, withPanel } from '../fixtures/plans'
import { DEMO_JOBS } from '@/db/demo/jobs'

const saveJob = vi.fn()
const logEntries = vi.fn()
const undoJob = vi.fn()
vi.mock('@/web/actions/jobs', () => ({
  saveJob: (x: unknown) => saveJob(x) as unknown,
  logEntries: (x: unknown) => logEntries(x) as unknown,
  undoJob: (x: unknown) => undoJob(x) as unknown,
}))
vi.mock('next/navigation', () => ({ usePathname: () => '/jobs/x/tape' }))
vi.stubGlobal('matchMedia', () => ({
  matches: false,
  addListener: () => {},
  removeListener: () => {},
  addEventListener: () => {},
  removeEventListener: () => {},
}))

const JOB = '00000000-0000-4000-8000-000000000abc'
function Probe() {
  const job = useJob()
  return (
    <div>
      <span data-testid="door">{job.plan.panels[1]?.widthMm}</span>
      <span data-testid="wing">{job.plan.panels[2]?.heightMm}</span>
      <span data-testid="state">{job.save.kind}</span>
      <span data-testid="number">{job.number}</span>
      <span data-testid="ledger">{job.ledger.length}</span>
      <span data-testid="waiting">{job.waiting}</span>
      <span data-testid="fault">{job.logFault?.code ?? ''}</span>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: 1111 })))}>edit</button>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: 1222 })))}>edit again</button>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: -1 })))}>edit badly</button>
      <button onClick={() => job.log({ kind: 'note', text: 'seen' })}>log</button>
      <button onClick={() => job.settle('theirs')}>theirs</button>
      <button onClick={() => job.settle('mine')}>mine</button>
    </div>
  )
}
const show = (plan: Plan = handCar(), more = <Probe />, ledger: LogRow[] = []) =>
  render(
    <JobProvider
      start={{
        jobId: JOB,
        number: 1,
        plan,
        ledger,
        catalogue,
        units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' },
        member: { name: 'Tamsin Brack', role: 'lead' },
      }}
    >
      {more}
    </JobProvider>,
  )
const click = (name: string) => fireEvent.click(screen.getByText(name))
const text = (id: string) => screen.getByTestId(id).textContent
const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers({ shouldAdvanceTime: true })
  for (const f of [saveJob, logEntries, undoJob]) f.mockReset()
  localStorage.clear()
  logEntries.mockImplementation(async ({ entries }: { entries: { id: string }[] }) => ({
    ok: true,
    value: entries.map((e) => ({ id: e.id, outcome: 'done' })),
  }))
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('saving', () => {
  it('waits for a pause, then sends the newest once, based on the revision it stands on', async () => {
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: { kind: 'saved', number: 2, plan, theirParts: [] },
    }))
    show()
    click('edit')
    await later(400)
    click('edit again')
    expect(saveJob).not.toHaveBeenCalled()
    await later(800)
    expect(saveJob).toHaveBeenCalledTimes(1)
    expect(saveJob.mock.calls[0]?.[0]).toMatchObject({ jobId: JOB, basedOn: 1 })
    await waitFor(() => expect(text('state')).toBe('saved'))
    expect([text('door'), text('number')]).toEqual(['1222', '2'])
  })
  it('takes in what another changed elsewhere, and keeps what was typed while the save was under way', async () => {
    let answer: (x: unknown) => void = () => {}
    saveJob.mockImplementationOnce(() => new Promise((r) => (answer = r)))
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: { kind: 'saved', number: 4, plan, theirParts: [] },
    }))
    show()
    click('edit')
    await later(800)
    click('edit again')
    const merged = withPanel(
      withPanel(handCar(), 'door', () => ({ widthMm: 1111 })),
      'wing',
      () => ({ heightMm: 650 }),
    )
    await act(async () =>
      answer({ ok: true, value: { kind: 'merged', number: 3, plan: merged, theirParts: ['panels/wing'] } }),
    )
    expect([text('door'), text('wing')]).toEqual(['1222', '650'])
    await later(800)
    expect(saveJob.mock.calls[1]?.[0]).toMatchObject({
      basedOn: 3,
      plan: { panels: [{}, { widthMm: 1222 }, { heightMm: 650 }] },
    })
  })
  it.each([
    ['theirs', '999'],
    ['mine', '1111'],
  ])('a clash is settled for %s', async (side, want) => {
    const theirs = withPanel(
      withPanel(handCar(), 'door', () => ({ widthMm: 999 })),
      'wing',
      () => ({ heightMm: 650 }),
    )
    saveJob.mockImplementationOnce(async () => ({
      ok: true,
      value: { kind: 'clash', number: 5, theirs, clashes: [{ part: 'panels/door' }], by: 'Imre', summary: '' },
    }))
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: { kind: 'saved', number: 6, plan, theirParts: [] },
    }))
    show()
    click('edit')
    await later(800)
    expect(text('state')).toBe('clash')
    click(side)
    await later(800)
    expect([text('door'), text('wing')]).toEqual([want, '650'])
    if (side === 'mine') expect(saveJob.mock.calls[1]?.[0]).toMatchObject({ basedOn: 5 })
  })
  it('never sends what the schema refuses', async () => {
    show()
    click('edit badly')
    await later(2000)
    expect(saveJob).not.toHaveBeenCalled()
    expect(text('state')).toBe('fault')
  })
  it('tries again by itself after a dead network', async () => {
    saveJob.mockRejectedValueOnce(new Error('network'))
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: { kind: 'saved', number: 2, plan, theirParts: [] },
    }))
    show()
    click('edit')
    await later(800)
    expect(text('state')).toBe('fault')
    await later(4500)
    expect(text('state')).toBe('saved')
  })
})

describe('the outbox', () => {
  it('shows an entry at once and sends it', async () => {
    show()
    click('log')
    expect(text('ledger')).toBe('1')
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect(text('ledger')).toBe('1')
  })
  it('keeps an entry on the device while the network is dead, also over a reload, with the same id', async () => {
    logEntries.mockRejectedValue(new Error('network'))
    show()
    click('log')
    await later(100)
    expect([text('ledger'), text('waiting'), text('fault')]).toEqual(['1', '1', 'offline'])
    const first = (logEntries.mock.calls.at(-1)?.[0] as { entries: { id: string }[] }).entries[0]?.id
    cleanup()
    logEntries.mockReset()
    logEntries.mockImplementation(async ({ entries }: { entries: { id: string }[] }) => ({
      ok: true,
      value: entries.map((e) => ({ id: e.id, outcome: 'again' })),
    }))
    show()
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect((logEntries.mock.calls[0]?.[0] as { entries: { id: string }[] }).entries[0]?.id).toBe(first)
    expect(text('ledger')).toBe('1')
  })
  it('a refused entry is taken back with its reason', async () => {
    logEntries.mockImplementation(async ({ entries }: { entries: { id: string }[] }) => ({
      ok: true,
      value: entries.map((e) => ({ id: e.id, outcome: 'not_enough_film' })),
    }))
    show()
    click('log')
    await waitFor(() => expect(text('fault')).toBe('not_enough_film'))
    expect([text('ledger'), text('waiting')]).toEqual(['0', '0'])
  })
})

describe('figures and findings on screen', () => {
  it('a figure opens its working: formula, numbers put in, inputs with place and standing', async () => {
    show(handCar(), (<><Fig id="piece/door/width" /><Working /></>)) // prettier-ignore
    fireEvent.click(screen.getByRole('button', { name: /^Door: cut width: 1150 mm/ }))
    const dialog = await screen.findByRole('dialog')
    expect(dialog.textContent).toContain('(width + left + right)')
    expect(dialog.textContent).toContain('(1050 mm + 50 mm + 50 mm) = 1150 mm')
    expect(screen.getByRole('link', { name: 'Door, width' }).getAttribute('href')).toBe(`/jobs/${JOB}/tape#door`)
    expect(dialog.textContent).toContain('measured')
  })
  it('a way out, taken, changes the plan and the finding goes', async () => {
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: { kind: 'saved', number: 2, plan, theirParts: [] },
    }))
    const plan = DEMO_JOBS[0]?.make()
    if (!plan) throw new Error('no job')
    show(plan, <Findings stage="pieces" />)
    expect(screen.getByText(/Rear bumper needs 17\.3 %/)).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /4 ways out/ }))
    fireEvent.click(screen.getAllByRole('button', { name: 'Take it' })[0] as HTMLElement)
    expect(screen.queryByText(/Rear bumper needs/)).toBeNull()
  })
})
