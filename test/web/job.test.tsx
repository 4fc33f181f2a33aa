import 'fake-indexeddb/auto'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { Bay } from '@/web/bay/bay'
import { Fig } from '@/web/job/figure'
import { Working } from '@/web/job/working'
import { Findings } from '@/web/job/findings'
import { JobProvider, useJob } from '@/web/job/job-state'
import { forgetDeviceStore } from '@/web/job/device-store'
import { HeldBar } from '@/web/job/held'
import { catalogue, handCar, withPanel } from '../fixtures/plans'
import { DEMO_JOBS } from '@/db/demo/jobs'

const saveJob = vi.fn()
const takeBackChange = vi.fn()
vi.mock('@/web/actions/jobs', () => ({
  saveJob: (x: unknown) => saveJob(x) as unknown,
  takeBackChange: (x: unknown) => takeBackChange(x) as unknown,
}))
/** What the server says to a batch of entries; throws where there is no network. */
const answerBatch = vi.fn()
interface Batch {
  sent_at: string
  member: string
  entries: { id: string; at: string; n: number; device: string; payload: unknown }[]
}
const batches = (): Batch[] => answerBatch.mock.calls.map(([batch]) => batch as Batch)
vi.stubGlobal('fetch', async (url: string, init?: { body?: string }) => {
  if (!url.endsWith('/entries')) return new Response('{}')
  return Response.json(await answerBatch(JSON.parse(init?.body ?? '{}')))
})
const all = (outcome: string, code?: string) => async (batch: Batch) => ({
  outcomes: batch.entries.map(({ id }) => ({ id, outcome, ...(code ? { code } : {}) })),
  head: 1,
})
vi.mock('next/navigation', () => ({ usePathname: () => '/jobs/x/tape', useSearchParams: () => new URLSearchParams() }))
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
      <span data-testid="refused">{job.refused.map((e) => e.code).join()}</span>
      <span data-testid="others">{job.othersWaiting}</span>
      <span data-testid="held-back">{job.held.map((h) => `${h.place} ${h.fault.code}`).join()}</span>
      <span data-testid="said">{job.said}</span>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: 1111 })))}>edit</button>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: 1222 })))}>edit again</button>
      <button onClick={() => job.edit((p) => withPanel(p, 'door', () => ({ widthMm: -1 })))}>edit badly</button>
      <button onClick={() => job.edit((p) => withPanel(p, 'bonnet', () => ({ crownMm: 1010, crownOverMm: 1000 })))}>
        edit crown
      </button>
      <button onClick={() => void job.undo()}>undo</button>
      <button onClick={() => job.refused.forEach((e) => job.settleRefused(e.id))}>seen to</button>
      <button onClick={() => job.log({ kind: 'film_used', stockId: 'a', lengthMm: 0.04 })}>log nothing</button>
      <button onClick={() => job.log({ kind: 'note', text: 'seen' })}>log</button>
      <button onClick={() => job.settle('theirs')}>theirs</button>
      <button onClick={() => job.settle('mine')}>mine</button>
    </div>
  )
}
const ME = '00000000-0000-4000-8000-00000000aaaa'
const OTHER = '00000000-0000-4000-8000-00000000bbbb'
const show = (plan: Plan = handCar(), more = <Probe />, ledger: LogRow[] = [], member = ME, shop = catalogue) =>
  render(
    <JobProvider
      start={{
        jobId: JOB,
        number: 1,
        shopHead: 0,
        plan,
        ledger,
        catalogue: shop,
        units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' },
        member: { id: member, name: 'Tamsin Brack', role: 'lead' },
      }}
    >
      {more}
    </JobProvider>,
  )
const click = (name: string) => fireEvent.click(screen.getByText(name))
const text = (id: string) => screen.getByTestId(id).textContent
const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers({
    shouldAdvanceTime: true,
    toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'Date'],
  })
  for (const f of [saveJob, takeBackChange, answerBatch]) f.mockReset()
  localStorage.clear()
  globalThis.indexedDB = new IDBFactory()
  forgetDeviceStore()
  answerBatch.mockImplementation(all('done'))
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('what is drawn anew', () => {
  it('is what asked for a part that is another: a typed width reaches the plan, not the rights and not the ledger', async () => {
    saveJob.mockImplementation(async () => ({ ok: true, value: { kind: 'saved', number: 2, plan: null } }))
    const drawn = { plan: 0, rights: 0, ledger: 0 }
    function Watch({ part }: { part: 'plan' | 'mayPlan' | 'ledger' }) {
      useJob(part)
      // eslint-disable-next-line react-hooks/immutability -- the test counts how often this is drawn
      drawn[part === 'mayPlan' ? 'rights' : part]++
      return null
    }
    show(
      handCar(),
      <>
        <Watch part="plan" />
        <Watch part="mayPlan" />
        <Watch part="ledger" />
        <Probe />
      </>,
    )
    await later(500)
    const before = { ...drawn }
    click('edit')
    await later(2000)
    expect(text('state')).toBe('saved')
    expect(drawn.plan).toBeGreaterThan(before.plan)
    expect(drawn.rights).toBe(before.rights)
    expect(drawn.ledger).toBe(before.ledger)
    click('log')
    await later(10)
    expect(text('ledger')).toBe('1')
    expect(drawn.ledger).toBeGreaterThan(before.ledger)
    expect(drawn.rights).toBe(before.rights)
  })
})

describe('saving', () => {
  it('waits for a pause, then sends the newest once, based on the revision it stands on', async () => {
    saveJob.mockImplementation(async () => ({
      ok: true,
      value: { kind: 'saved', number: 2, plan: null, theirParts: [] },
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
  it('undo waits for the choice where two changed one thing: nobody’s change is written over by it', async () => {
    const theirs = withPanel(handCar(), 'door', () => ({ widthMm: 999 }))
    saveJob.mockImplementation(async ({ plan }: { plan: Plan }) => ({
      ok: true,
      value: {
        kind: 'clash',
        number: 5,
        theirs,
        clashes: [{ part: 'panels/door', base: handCar().panels[1], mine: plan.panels[1], theirs: theirs.panels[1] }],
        by: 'Joss Ferrin',
        summary: 'Door: width',
      },
    }))
    show()
    click('edit')
    await later(800)
    await waitFor(() => expect(text('state')).toBe('clash'))
    click('undo')
    await later(800)
    expect(takeBackChange).not.toHaveBeenCalled()
    expect(text('state')).toBe('clash')
  })
  const echo = async ({ plan, basedOn }: { plan: Plan; basedOn: number }) => ({
    ok: true,
    value: { kind: 'saved', number: basedOn + 1, plan, theirParts: [] },
  })
  it('one refused figure is held back, named with the way to it, and all others are saved', async () => {
    saveJob.mockImplementation(echo)
    show(
      handCar(),
      <>
        <Probe />
        <HeldBar />
      </>,
    )
    click('edit crown')
    click('edit')
    await later(800)
    await waitFor(() => expect(text('held-back')).toBe('panels/bonnet/crownMm crown_deeper_than_half'))
    expect((saveJob.mock.calls[0]?.[0] as { plan: Plan }).plan.panels).toMatchObject([
      { crownMm: 22 },
      { widthMm: 1111 },
      {},
    ])
    expect(text('state')).toBe('saved')
    const bar = screen.getByTestId('held')
    expect(bar.textContent).toContain('Not saved: Bonnet, crown.')
    expect(screen.getByRole('link', { name: 'Go there' }).getAttribute('href')).toBe(`/jobs/${JOB}/tape#bonnet`)
    // What is typed after it is saved all the same.
    click('edit again')
    await later(800)
    expect((saveJob.mock.calls[1]?.[0] as { plan: Plan }).plan.panels[1]?.widthMm).toBe(1222)
    expect(text('held-back')).toContain('crownMm')
  })
  it('what is typed and not saved is there again after a reload, and is saved then', async () => {
    saveJob.mockRejectedValue(new Error('network'))
    show()
    click('edit')
    await later(800)
    await waitFor(() => expect(text('state')).toBe('fault'))
    cleanup()
    saveJob.mockReset()
    saveJob.mockImplementation(echo)
    // Meanwhile somebody else saved another panel.
    show(withPanel(handCar(), 'wing', () => ({ heightMm: 650 })))
    await waitFor(() => expect([text('door'), text('wing')]).toEqual(['1111', '650']))
    await waitFor(() => expect(saveJob).toHaveBeenCalled())
    await waitFor(() => expect(text('state')).toBe('saved'))
    cleanup()
    show()
    await later(200)
    expect(text('door')).toBe('1050')
  })
  it('undo says what it took back', async () => {
    takeBackChange.mockResolvedValue({
      ok: true,
      value: { number: 4, plan: withPanel(handCar(), 'door', () => ({ widthMm: 999 })), said: 'Undo: Door: width' },
    })
    show()
    click('undo')
    await waitFor(() => expect(text('said')).toBe('Undo: Door: width'))
    expect([text('door'), text('number')]).toEqual(['999', '4'])
    expect(takeBackChange).toHaveBeenCalledWith({ jobId: JOB, which: 'undo' })
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

describe('entries of the bay', () => {
  const dead = async () => {
    throw new Error('network')
  }
  it('are shown at once and sent, with this member, device and count', async () => {
    show()
    click('log')
    click('log')
    expect(text('ledger')).toBe('2')
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect(text('ledger')).toBe('2')
    const sent = batches().flatMap((b) => b.entries)
    expect(new Set(sent.map((e) => e.n)).size).toBe(new Set(sent.map((e) => e.id)).size)
    expect(batches()[0]).toMatchObject({ member: ME })
  })
  it('stay on the device while the network is dead, also over a reload, with the same id', async () => {
    answerBatch.mockImplementation(dead)
    show()
    click('log')
    await waitFor(() => expect([text('ledger'), text('waiting'), text('fault')]).toEqual(['1', '1', 'offline']))
    const first = batches()[0]?.entries[0]?.id
    cleanup()
    forgetDeviceStore()
    answerBatch.mockReset()
    answerBatch.mockImplementation(all('again'))
    show()
    await waitFor(() => expect(answerBatch).toHaveBeenCalled())
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect(batches()[0]?.entries.map((e) => e.id)).toEqual([first])
    expect(text('ledger')).toBe('1')
  })
  it('of one person are not sent under another who opens the job on the same tablet', async () => {
    answerBatch.mockImplementation(dead)
    show()
    click('log')
    await waitFor(() => expect(text('fault')).toBe('offline'))
    cleanup()
    answerBatch.mockReset()
    answerBatch.mockImplementation(all('done'))
    show(handCar(), <Probe />, [], OTHER)
    await waitFor(() => expect(text('others')).toBe('1'))
    expect([text('ledger'), text('waiting')]).toEqual(['0', '0'])
    expect(answerBatch).not.toHaveBeenCalled()
    cleanup()
    show()
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect(batches().map((b) => b.member)).toEqual([ME])
  })
  it('of two offline tabs are all kept', async () => {
    answerBatch.mockImplementation(dead)
    show()
    show()
    for (const tab of screen.getAllByText('log')) fireEvent.click(tab)
    await waitFor(() => expect(screen.getAllByTestId('waiting').map((w) => w.textContent)).toEqual(['2', '2']), {
      timeout: 8000,
    })
  })
  it('a refused one is off the ledger, and stays with its reason until somebody has seen to it', async () => {
    answerBatch.mockImplementation(all('refused', 'not_enough_film'))
    show()
    click('log')
    await waitFor(() => expect(text('refused')).toBe('not_enough_film'))
    expect([text('ledger'), text('waiting')]).toEqual(['0', '0'])
    answerBatch.mockImplementation(all('done'))
    click('log')
    await waitFor(() => expect(text('ledger')).toBe('1'))
    expect(text('refused')).toBe('not_enough_film')
    cleanup()
    show()
    await waitFor(() => expect(text('refused')).toBe('not_enough_film'))
    click('seen to')
    await waitFor(() => expect(text('refused')).toBe(''))
  })
  it('what the schema refuses is said at once and blocks nothing', async () => {
    show()
    click('log nothing')
    expect([text('fault'), text('ledger')]).toEqual(['too_small', '0'])
    click('log')
    await waitFor(() => expect(text('waiting')).toBe('0'))
    expect(batches().flatMap((b) => b.entries)).toHaveLength(1)
  })
  it('a server that refuses one of a batch takes the others', async () => {
    answerBatch.mockImplementation(dead)
    show()
    click('log')
    click('log')
    await waitFor(() => expect(text('fault')).toBe('offline'))
    answerBatch.mockImplementation(async (batch: Batch) => ({
      outcomes: batch.entries.map(({ id }, i) => ({
        id,
        outcome: i === 0 ? 'refused' : 'done',
        ...(i === 0 ? { code: 'before_the_job' } : {}),
      })),
      head: 1,
    }))
    await later(5200)
    await waitFor(() =>
      expect([text('refused'), text('ledger'), text('waiting')]).toEqual(['before_the_job', '1', '0']),
    )
  })
})

describe('figures and findings on screen', () => {
  it('a figure opens its working: formula, numbers put in, inputs with place and standing', async () => {
    show(
      handCar(),
      <>
        <Fig id="piece/door/width" />
        <Working />
      </>,
    )
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

describe('the bay', () => {
  it('says the stop of a damp surface first, as the conditions do; a dry one has none', async () => {
    const air = (surfaceC: number) => ({
      ...catalogue,
      climate: [{ at: '2026-11-20T08:00:00.000Z', airC: 20, humidity: 0.8, surfaceC, by: 'Tamsin Brack' }],
    })
    // 20 °C at 80 % has its dew point at 16.4 °C (Magnus form with the constants of Alduchov and Eskridge 1996).
    show(handCar(), <Bay />, [], ME, air(17))
    expect(screen.getByRole('alert').textContent).toMatch(/16\.4/)
    cleanup()
    show(handCar(), <Bay />, [], ME, air(23))
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
