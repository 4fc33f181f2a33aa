import 'fake-indexeddb/auto'
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { readingTable } from '@/core/stages/bay/reading-table'
import type { LogPayload, LogRow } from '@/core/model/log/schema'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { Handover } from '@/web/handover/handover'
import { ReadingsIn } from '@/web/handover/readings-in'
import { Calibrate } from '@/web/shop/calibrate'
import { writeCsv } from '@/web/kit/csv'
import { Signature } from '@/web/walkaround/signature'
import { word } from '@/web/words/names'
import { stubBrowser } from '../fixtures/browser'
import { openJob } from '../fixtures/open-job'
import { handCar, row, withPanel } from '../fixtures/plans'
import { button, tap, type } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/handover',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] })
  vi.setSystemTime(new Date('2026-11-22T09:00:00.000Z'))
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

/** Everything done on the car but the last steps, every place read hot enough. */
function finished(): LogRow[] {
  const open = openJob(<div />)
  const { steps, points } = open.job().reckoning
  cleanup()
  const at = '2026-11-20T15:00:00.000Z'
  const last = ['recheck', 'hardware_on', 'hand_over']
  const entries: LogPayload[] = [
    ...plannedSteps(steps)
      .filter((s) => !last.includes(s.code))
      .flatMap((s): LogPayload[] => [
        { kind: 'step_started', stepId: s.id },
        { kind: 'step_done', stepId: s.id },
      ]),
    ...points.map((p): LogPayload => ({
      kind: 'reading',
      pieceId: p.pieceId,
      pointId: p.id,
      tempC: p.range.min + 2,
      gunAway: true,
    })),
  ]
  return entries.map((p) => row(p, at))
}

describe('the last steps at the desk', () => {
  it('a car not begun says what is open, and every way of handing it over asks first', () => {
    const o = openJob(<Handover />)
    expect(document.body.textContent).toContain('Still open: ')
    tap('Hand over done')
    const dialog = screen.getByRole('alertdialog')
    expect(dialog.textContent).toMatch(/still open/)
    fireEvent.click(within(dialog).getByRole('button', { name: 'Back' }))
    expect(o.logged()).toEqual([])
  })
  it('gone past with a reason, the reason stands in the record before the step does', () => {
    const o = openJob(<Handover />)
    tap('Hand over done')
    fireEvent.click(within(screen.getByRole('alertdialog')).getByRole('button', { name: 'Customer waits' }))
    const kinds = o.logged().map((p) => p.kind)
    expect(kinds.at(-1)).toBe('step_done')
    expect(kinds.slice(0, -1).every((k) => k === 'guard_passed')).toBe(true)
    expect(kinds.length).toBeGreaterThan(1)
    for (const p of o.logged()) if (p.kind === 'guard_passed') expect(p.reason).toBe('Customer waits')
  })
  it('a finished car is rechecked and handed over without a word', () => {
    const o = openJob(<Handover />, { ledger: finished() })
    tap('Recheck done')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    if (screen.queryByRole('button', { name: 'Hardware on done' })) tap('Hardware on done')
    tap('Hand over done')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    expect(o.logged().map((p) => p.kind)).toEqual(o.logged().map(() => 'step_done'))
    expect(document.body.textContent).toContain('Handed over ')
  })
  it('a recheck before its day asks, and says how long it is still', () => {
    vi.setSystemTime(new Date('2026-11-20T16:00:00.000Z'))
    const o = openJob(<Handover />, { ledger: finished() })
    tap('Recheck done')
    expect(screen.getByRole('alertdialog').textContent).toMatch(/The recheck is due in 2\d:\d\d h/)
    expect(o.logged()).toEqual([])
  })
  it('what was handed over stands: a plan changed afterwards does not change the paper', () => {
    const ledger = finished()
    const done = openJob(<Handover />, { ledger })
    for (const code of ['recheck', 'hardware_on', 'hand_over']) {
      const s = done.job().reckoning.steps.find((x) => x.code === code)
      if (s) ledger.push(row({ kind: 'step_done', stepId: s.id }, '2026-11-22T10:00:00.000Z'))
    }
    cleanup()
    const plan = handCar()
    openJob(<Handover />, {
      plan: withPanel(plan, 'door', () => ({ name: 'Gate' })),
      handedOver: plan,
      ledger,
    })
    const applied = screen.getByRole('heading', { name: 'Applied' }).parentElement
    expect(applied?.textContent).toContain('Door')
    expect(applied?.textContent).not.toContain('Gate')
  })
  it('every place has its row: what was read, what was wanted, the verdict, by whom', () => {
    const o = openJob(<Handover />, { ledger: finished() })
    const rows = screen.getAllByRole('row').length - 1
    expect(rows).toBe(o.job().reckoning.points.length)
    expect(screen.getAllByText(word('verdict', 'good')).length).toBe(rows)
    expect(screen.getAllByText('Joss Ferrin').length).toBeGreaterThanOrEqual(rows)
  })
})

describe('a place read while the gun blew', () => {
  it('stands with what was read and that the gun was on; the car is not said to be heated there', () => {
    const open = openJob(<div />)
    const [point] = open.job().reckoning.points
    cleanup()
    if (!point) throw new Error('no place')
    const read = {
      kind: 'reading',
      pieceId: point.pieceId,
      pointId: point.id,
      tempC: point.range.max,
      gunAway: false,
    } as const
    openJob(<Handover />, { ledger: [row(read)] })
    expect(screen.getAllByText(word('verdict', 'gun_on')).length).toBe(1)
    expect(screen.queryByText(word('verdict', 'good'))).toBeNull()
    expect(document.body.textContent).toContain('Still open: ')
  })
})

describe('readings out of a file', () => {
  const bring = (text: string) =>
    fireEvent.change(screen.getByLabelText('Readings from a CSV file'), {
      target: { files: [new File([text], 'readings.csv', { type: 'text/csv' })] },
    })
  const HEAD = 'point,temp_c,gun_away,at_utc'
  const point = () => {
    const o = openJob(<div />)
    const [first] = o.job().reckoning.points
    cleanup()
    if (!first) throw new Error('no place')
    return first
  }
  it('are entries with their own moments; brought twice they are there once', async () => {
    const p = point()
    const o = openJob(<ReadingsIn />)
    const text = `${HEAD}\n${p.id},${p.range.min + 1},yes,2026-11-21T10:00:00Z\n`
    bring(text)
    await screen.findByText('1 reading taken in.')
    expect(o.job().ledger.at(-1)).toMatchObject({ at: '2026-11-21T10:00:00.000Z', payload: { tempC: p.range.min + 1 } })
    bring(text)
    await screen.findByText('0 readings taken in, 1 there already.')
    expect(o.logged().length).toBe(1)
  })
  it('a bad row is left out with its line and reason; the good ones are taken', async () => {
    const p = point()
    const o = openJob(<ReadingsIn />)
    bring(
      [
        HEAD,
        `${p.id},91,yes,2026-11-21T10:00:00Z`,
        `nowhere,91,yes,2026-11-21T10:01:00Z`,
        `${p.id},hot,yes,2026-11-21T10:02:00Z`,
        `${p.id},91,perhaps,2026-11-21T10:03:00Z`,
        `${p.id},91,no,yesterday`,
        `${p.id},900,yes,2026-11-21T10:05:00Z`,
      ].join('\n'),
    )
    await screen.findByText('1 reading taken in, 5 left out.')
    const said = screen.getByRole('alert').textContent ?? ''
    for (const line of [3, 4, 5, 6, 7]) expect(said).toMatch(new RegExp(`\\b${line}\\b`))
    expect(o.logged().length).toBe(1)
  })
  it.each([
    ['no column of places', 'temp_c,gun_away,at_utc\n91,yes,2026-11-21T10:00:00Z'],
    ['nothing at all', ''],
    ['a quote that is not closed', `${HEAD}\n"bonnet`],
  ])('%s: nothing is taken in, and why is said', async (_, text) => {
    const o = openJob(<ReadingsIn />)
    bring(text)
    await screen.findByText('Nothing was taken in.')
    expect(screen.getByRole('alert').textContent?.length).toBeGreaterThan(30)
    expect(o.logged()).toEqual([])
  })
  it('what goes out comes in again as nothing new, places never read left out', async () => {
    const ledger = finished().slice(0, -2)
    const o = openJob(<ReadingsIn />, { ledger })
    const { points } = o.job().reckoning
    bring(writeCsv(readingTable(points, ledger, (id) => id)))
    await screen.findByText(/^0 readings taken in, \d+ there already\.$/)
    expect(o.logged()).toEqual([])
  })
})

describe('the customer signs', () => {
  beforeEach(() => {
    SVGSVGElement.prototype.setPointerCapture = () => {}
  })
  it('by a typed name; what is changed afterwards is said, and signed again', () => {
    const o = openJob(<Signature />)
    expect(button('Sign with the typed name').disabled).toBe(true)
    type('Name', '  A. Marsh ')
    tap('Sign with the typed name')
    expect(o.job().plan.walkaround.signature).toMatchObject({ name: 'A. Marsh', how: 'typed', takenBy: 'Tamsin Brack' })
    expect(document.body.textContent).not.toContain('was changed since')
    cleanup()
    const changed = openJob(<Signature />, {
      plan: {
        ...o.job().plan,
        walkaround: { ...o.job().plan.walkaround, paint: { ...o.job().plan.walkaround.paint, condition: 'dull' } },
      },
    })
    expect(document.body.textContent).toContain('was changed since')
    tap('Sign again')
    expect(changed.job().plan.walkaround.signature).toBeNull()
  })
  it('by a drawn one, within the box; wiped, it is typed again', () => {
    const o = openJob(<Signature />)
    type('Name', 'A. Marsh')
    const box = screen.getByRole('img', { name: 'Draw the name here' })
    const draw = () => {
      fireEvent.pointerDown(box, { pointerId: 1, clientX: 10, clientY: 10 })
      fireEvent.pointerMove(box, { pointerId: 1, clientX: 500, clientY: 40 })
      fireEvent.pointerUp(box, { pointerId: 1 })
      // The finger is off: this draws nothing.
      fireEvent.pointerMove(box, { pointerId: 1, clientX: 900, clientY: 40 })
    }
    draw()
    tap('Wipe')
    expect(button('Sign with the typed name')).toBeTruthy()
    draw()
    draw()
    tap('Sign with the drawn name')
    const { signature } = o.job().plan.walkaround
    expect(signature?.how).toBe('drawn')
    expect(signature?.strokes.map((s) => s.length)).toEqual([2, 2])
    for (const [x, y] of signature?.strokes.flat() ?? []) {
      expect(x).toBeGreaterThanOrEqual(0)
      expect(x).toBeLessThanOrEqual(1000)
      expect(y).toBeLessThanOrEqual(1000)
    }
    expect(screen.getByRole('img', { name: 'Drawn signature of A. Marsh' })).toBeTruthy()
  })
  it('an installer takes no signature', () => {
    const o = openJob(<Signature />, { role: 'installer' })
    type('Name', 'A. Marsh')
    expect(button('Sign with the typed name').disabled).toBe(!o.job().mayWalkaround)
  })
})

describe('a gun measured in the shop', () => {
  const asked: unknown[] = []
  let answer: ((data: unknown) => void) | null = null
  beforeEach(() => {
    asked.length = 0
    vi.stubGlobal(
      'Worker',
      class {
        onmessage: ((e: { data: unknown }) => void) | null = null
        postMessage(ask: unknown) {
          asked.push(ask)
          answer = (data) => this.onmessage?.({ data })
        }
        terminate() {}
      },
    )
  })
  const take = vi.fn()
  const trial = (n: number, pace: string, temp: string) => {
    type(`Pace, mm/s, trial ${n}`, pace)
    type(`Reading, °C, trial ${n}`, temp)
  }
  const ready = () => openJob(<Calibrate displayC={350} sigmaMm={15} onTake={take} />)
  it('wants two readings, fits them, says by how much it misses, and hands on what it found', async () => {
    ready()
    expect(button('Fit').disabled).toBe(true)
    trial(1, '10', '92')
    expect(button('Fit').disabled).toBe(true)
    trial(2, '20', '64')
    tap('Fit')
    expect(asked[0]).toMatchObject({
      displayC: 350,
      sigmaMm: 15,
      readings: [
        { paceMmS: 10, tempC: 92, afterS: 5, material: 'steel' },
        { paceMmS: 20, tempC: 64 },
      ],
    })
    expect(screen.getByRole('status').textContent).toContain('Fitting')
    answer?.({ ok: true, value: { airC: 321.4, coefficient: 98.6, predictedC: [91.8, 64.3], residualC: 0.24 } })
    await waitFor(() => expect(screen.getByRole('status').textContent).toContain('Air 321 °C at the film'))
    expect(screen.getByRole('status').textContent).toContain('off by 0.2 °C')
    expect(document.body.textContent).toContain('92 °C')
    tap('Take it')
    expect(take).toHaveBeenCalledWith({ airC: 321, coefficient: 99, sigmaMm: 15 })
  })
  it('what cannot be fitted is said, and nothing is handed on', async () => {
    ready()
    trial(1, '10', '92')
    trial(2, '20', '300')
    tap('Fit')
    answer?.({ ok: false, error: { code: 'too_few_readings', facts: { least: 2 } } })
    await waitFor(() => expect(screen.getByRole('status').textContent?.length).toBeGreaterThan(5))
    expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull()
  })
  it('one more trial is one more row; one left empty is not sent', () => {
    ready()
    tap('One more trial')
    trial(1, '10', '92')
    trial(3, '20', '64')
    tap('Fit')
    expect((asked[0] as { readings: unknown[] }).readings.length).toBe(2)
  })
})
