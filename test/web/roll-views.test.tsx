import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { useEffect, useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { Working } from '@/web/job/working'
import { forgetDeviceStore } from '@/web/job/device-store'
import { JobProvider, useJob } from '@/web/job/job-state'
import { Damage } from '@/web/rack/damage'
import { Offers } from '@/web/rack/offers'
import { Compare } from '@/web/roll/compare'
import { CuttingPage } from '@/web/roll/cutting'
import { CuttingTable } from '@/web/roll/cutting-table'
import { Drops } from '@/web/roll/drops'
import { Rests } from '@/web/roll/rests'
import { Shingles } from '@/web/roll/shingles'
import { Sources } from '@/web/roll/sources'
import { formatter } from '@/web/words/format'
import { Queries } from '@/web/kit/query'
import { Fleet } from '@/web/fleet/fleet'
import { FleetResult } from '@/web/fleet/fleet-result'
import { catalogue, film, handCar } from '../fixtures/plans'

const actions = vi.hoisted(() => ({
  setDamage: vi.fn(),
  receiveStock: vi.fn(),
  sendToTable: vi.fn(),
  startFleet: vi.fn(),
  startFleetFile: vi.fn(),
  cancelFleet: vi.fn(),
  read: vi.fn(),
  push: vi.fn(),
}))
vi.mock('@/web/actions/shop', () => ({ setDamage: actions.setDamage, receiveStock: actions.receiveStock }))
vi.mock('@/web/actions/cutting-table', () => ({ sendToTable: actions.sendToTable }))
// A job that is compared with nothing.
vi.mock('@/web/kit/read', () => ({
  read: (path: string, ...rest: unknown[]) =>
    path.endsWith('/compared') ? Promise.resolve([]) : actions.read(path, ...rest),
}))
vi.mock('@/web/actions/fleet', () => ({
  startFleet: actions.startFleet,
  startFleetFile: actions.startFleetFile,
  cancelFleet: actions.cancelFleet,
}))
vi.mock('@/web/actions/jobs', () => ({
  saveJob: async () => ({ ok: true, value: { kind: 'unchanged', number: 1 } }),
  takeBackChange: vi.fn(),
}))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/roll',
  useRouter: () => ({ refresh: () => {}, push: actions.push }),
}))
// No network: what is logged stays on the page.
vi.stubGlobal('fetch', async () => Promise.reject(new Error('no network')))
vi.stubGlobal('matchMedia', () => ({
  matches: false,
  addListener: () => {},
  removeListener: () => {},
  addEventListener: () => {},
  removeEventListener: () => {},
}))
afterEach(() => {
  cleanup()
  localStorage.clear()
  forgetDeviceStore()
  for (const f of Object.values(actions)) f.mockReset()
})

const units = { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' } as const
const fmt = formatter(units)
const show = (plan: Plan, what: React.ReactNode, stock: readonly StockItem[] = catalogue.stock) =>
  render(
    <JobProvider
      start={{
        jobId: '00000000-0000-4000-8000-000000000abc',
        number: 1,
        shopHead: 0,
        plan,
        ledger: [],
        catalogue: { ...catalogue, stock },
        units,
        member: { id: '00000000-0000-4000-8000-00000000aaaa', name: 'Tamsin Brack', role: 'lead' },
      }}
    >
      {what}
      <Working />
    </JobProvider>,
  )
/** What needs the job's first layout. */
function WithLayout({
  children,
}: {
  children: (layout: ReturnType<typeof useJob>['reckoning']['layouts'][number]) => React.ReactNode
}) {
  const layout = useJob().reckoning.layouts[0]
  return layout ? children(layout) : null
}
const type = (label: string | RegExp, value: string) => {
  const box = screen.getByLabelText(label)
  fireEvent.change(box, { target: { value } })
  fireEvent.blur(box)
}

describe('the rack', () => {
  const item: StockItem = {
    ...(catalogue.stock[0] as StockItem),
    id: '00000000-0000-4000-8000-000000000001',
    label: 'R-9',
    leftMm: 9000,
    damage: [],
  }
  it('damage is typed from the open end and kept from the core; past the end it is refused; it can be taken out', async () => {
    actions.setDamage.mockResolvedValue({ ok: true, value: null })
    const { rerender } = render(<Damage item={item} fmt={fmt} may />)
    fireEvent.click(screen.getByText('Note damage'))
    type(/R-9, from the open end/, '8900')
    type(/R-9, over/, '200')
    expect(screen.getByText('That is past the end of this roll.')).toBeTruthy()
    type(/R-9, over/, '60')
    fireEvent.click(screen.getByText('Keep it out of layouts'))
    await waitFor(() =>
      expect(actions.setDamage).toHaveBeenCalledWith({
        itemId: item.id,
        damage: [{ fromCoreMm: 40, lengthMm: 60, note: '' }],
      }),
    )
    rerender(<Damage item={{ ...item, damage: [{ fromCoreMm: 40, lengthMm: 60, note: '' }] }} fmt={fmt} may />)
    fireEvent.click(screen.getByLabelText('Damage 1 of R-9 is none'))
    await waitFor(() => expect(actions.setDamage).toHaveBeenLastCalledWith({ itemId: item.id, damage: [] }))
  })
  it('offers of a width: added, changed to whole rolls, taken out', () => {
    const seen: FilmSheet[] = []
    const last = () => seen.at(-1) as FilmSheet
    function Host() {
      const [s, set] = useState<FilmSheet>(film('slate-matte'))
      useEffect(() => void seen.push(s), [s])
      return <Offers sheet={s} set={(part) => set((was) => ({ ...was, ...part }))} fmt={fmt} />
    }
    render(<Host />)
    fireEvent.click(screen.getByText('Add an offer for one width'))
    expect(last().offers).toHaveLength(1)
    fireEvent.change(screen.getByLabelText('Offer 1, sold by'), { target: { value: 'roll' } })
    expect(last().offers[0]).toMatchObject({ unit: 'roll', lengthMm: 25000 })
    type('Offer 1, price', '410')
    expect(last().offers[0]?.price).toBe(410)
    fireEvent.click(screen.getByLabelText('Take out offer 1'))
    expect(last().offers).toEqual([])
  })
})

describe('the roll', () => {
  it('each source of film opens its working', async () => {
    show(handCar(), <WithLayout>{(l) => <Sources layout={l} />}</WithLayout>)
    const row = screen.getAllByRole('row').find((r) => /Buy, 1520/.test(r.textContent ?? '')) as HTMLElement
    fireEvent.click(within(row).getAllByRole('button', { name: /Show the working/ })[0] as HTMLElement)
    expect((await screen.findAllByText(/a first plan of all/)).length).toBeGreaterThan(0)
  })
  it('a rest opens its working, and two plans are compared by figures of their own', async () => {
    const plan = Plan.parse(DEMO_JOBS[0]?.make())
    show(
      plan,
      <WithLayout>
        {(l) => (
          <>
            <Rests layout={l} />
            <Compare layout={l} />
          </>
        )}
      </WithLayout>,
    )
    expect(screen.getAllByRole('button', { name: /rest .*area/ }).length).toBeGreaterThan(0)
    fireEvent.change(screen.getByLabelText('Compare with'), { target: { value: 'stages-5' } })
    const other = await screen.findByRole('row', { name: /^5 stages of cuts/ })
    fireEvent.click(within(other).getAllByRole('button')[0] as HTMLElement)
    expect(await screen.findByText('With the numbers put in')).toBeTruthy()
  })
  it('a second tap is the same cut; cuts made by mistake are taken back, several at once', async () => {
    const roll: StockItem = {
      ...(catalogue.stock[0] as StockItem),
      id: 'r',
      filmId: 'fen-satin',
      lot: 'L',
      label: 'R',
      widthMm: 1520,
      leftMm: 20_000,
    }
    function KeepFirst() {
      const { edit, reckoning } = useJob()
      return (
        <button
          onClick={() =>
            edit((p) => ({
              ...p,
              layout: {
                ...p.layout,
                kept: reckoning.layouts.map((l) => ({
                  filmId: l.film.id,
                  mark: l.mark,
                  boundMm: l.boundMm,
                  rolls: l.rolls.map(({ id, widthMm, usedMm, placements }) => ({ id, widthMm, usedMm, placements })),
                })),
              },
            }))
          }
        >
          keep
        </button>
      )
    }
    show(
      handCar(),
      <>
        <KeepFirst />
        <CuttingPage />
      </>,
      [roll],
    )
    fireEvent.click(screen.getByText('keep'))
    expect(await screen.findByText(/^0 of \d+ cuts made/)).toBeTruthy()
    const tick = async () => {
      await waitFor(() => expect(screen.getByText('Cut made').closest('button')?.disabled).toBe(false), {
        timeout: 3000,
      })
      fireEvent.click(screen.getByText('Cut made'))
    }
    await tick()
    fireEvent.click(screen.getByText('Cut made'))
    expect(await screen.findByText(/^1 of/)).toBeTruthy()
    await tick()
    await tick()
    expect(await screen.findByText(/^3 of/)).toBeTruthy()
    fireEvent.click(screen.getByText('Before'))
    await waitFor(() => expect(screen.getByText('Not cut after all').closest('button')?.disabled).toBe(false), {
      timeout: 3000,
    })
    fireEvent.click(screen.getByText('Before'))
    fireEvent.click(screen.getByText('Take back the last 2 cuts'))
    expect(await screen.findByText(/^1 of/)).toBeTruthy()
  })
  it('drops: as many as need be, the way they run is a choice, lettering keeps seams away', () => {
    const plan = Plan.parse(DEMO_JOBS[2]?.make())
    const print = plan.film.sheets[0] as FilmSheet
    show(plan, <Drops film={print} />)
    const count = () => screen.getAllByRole('img', { name: /drops/ }).map((i) => i.getAttribute('aria-label'))
    const before = count()
    fireEvent.change(screen.getByLabelText('Strips'), { target: { value: 'upright' } })
    expect(count().join()).toContain('upright')
    fireEvent.change(screen.getByLabelText('Strips'), { target: { value: 'fewest' } })
    expect(count()).toEqual(before)
    type('New lettering', 'Harbour library')
    fireEvent.click(screen.getByText('Keep seams off it'))
    expect(screen.getByLabelText('Harbour library, from the front')).toBeTruthy()
    fireEvent.click(screen.getByLabelText('Take out Harbour library'))
    expect(screen.queryByLabelText('Harbour library, from the front')).toBeNull()
    type('Printable width', '100')
    expect(screen.getAllByText(/leaves no room beside the overlap/).length).toBeGreaterThan(0)
  })
  it('sheets as shingles: fewer strips a sheet, fewer edges exposed; too wide an overlap is said', () => {
    const sheets = film('reed-sheet')
    const plan = Plan.parse({
      ...handCar(),
      film: { mainId: sheets.id, sheets: [sheets] },
      panels: [newPanel({ id: 'hull', name: 'Hull', kind: 'hull_side', side: 'left', widthMm: 4200, heightMm: 700 })],
    })
    show(plan, <Shingles film={sheets} />)
    expect(screen.getByRole('img', { name: /strips on Hull/ })).toBeTruthy()
    const first = screen.getByRole('img', { name: /strips on Hull/ }).getAttribute('aria-label')
    fireEvent.change(screen.getByLabelText('Strips from a sheet'), { target: { value: '6' } })
    expect(screen.getByRole('img', { name: /strips on Hull/ }).getAttribute('aria-label')).not.toBe(first)
    fireEvent.change(screen.getByLabelText('Strips from a sheet'), { target: { value: '12' } })
    type('Overlap of sheets', '200')
    expect(screen.queryByRole('img', { name: /strips on Hull/ })).toBeNull()
  })
  it('the cutting table: sends what is kept, tells how far it is, says why it refuses', async () => {
    const plan = { ...handCar(), layout: { ...handCar().layout, cutting: 'free' as const } }
    actions.read.mockResolvedValue(null)
    show(
      plan,
      <Queries>
        <WithLayout>{(l) => <CuttingTable layout={l} />}</WithLayout>
      </Queries>,
    )
    expect(await screen.findByText(/No cutting table is set up/)).toBeTruthy()
    cleanup()
    const own = reckon(plan, catalogue, []).layouts[0]
    const file = `x_fen-satin_${own?.rolls[0]?.id}_${own?.mark}.svg`
    actions.read.mockResolvedValue([
      {
        file,
        state: 'rejected',
        reason: 'not an SVG drawing',
        pieces: 0,
        cutMm: 0,
        doneMm: 0,
        at: '2026-11-20T08:00:00Z',
      },
    ])
    show(
      plan,
      <Queries>
        <WithLayout>{(l) => <CuttingTable layout={l} />}</WithLayout>
      </Queries>,
    )
    expect(await screen.findByText('Not taken: not an SVG drawing.')).toBeTruthy()
    expect(screen.getByText('Send to the cutting table').closest('button')?.disabled).toBe(true)
    expect(screen.getByText(/Keep this layout first/)).toBeTruthy()
  })
})

describe('fleets', () => {
  const head = {
    id: 'f',
    name: 'Pool cars',
    state: 'running' as const,
    cancelAsked: false,
    attempt: 2,
    share: 0.4,
    usedMm: 20_000,
    boundMm: 19_500,
    pieces: 52,
    fault: null,
    by: 'Tamsin Brack',
    at: '2026-11-20T08:00:00Z',
    endedAt: null,
    silent: false,
  }
  it('vehicles are picked and counted, sent, and the page goes to the layout; a refusal is said', async () => {
    actions.startFleet.mockResolvedValueOnce({ ok: false, error: { code: 'no_pieces' } })
    render(
      <Queries>
        <Fleet
          rows={[]}
          jobs={[{ id: 'j', name: 'To green', vehicle: 'Pip' }]}
          films={[film('fen-satin')]}
          stock={[]}
          units={units}
          mayStart
        />
      </Queries>,
    )
    expect(screen.getByText(/Nothing has been laid out for a fleet/)).toBeTruthy()
    await waitFor(() => expect(screen.getByLabelText('Film').closest('fieldset')?.disabled).toBe(false))
    expect(screen.getByText('Lay them out').closest('button')?.disabled).toBe(true)
    fireEvent.click(screen.getByRole('checkbox', { name: /Pip/ }))
    type('Pip, vehicles alike', '5')
    fireEvent.click(screen.getByText('Lay them out'))
    expect(await screen.findByText(/None of these vehicles has a piece/)).toBeTruthy()
    actions.startFleet.mockResolvedValueOnce({ ok: true, value: { id: 'new' } })
    actions.read.mockResolvedValue([])
    fireEvent.click(screen.getByText('Lay them out'))
    await waitFor(() => expect(actions.push).toHaveBeenCalledWith('/fleet/new'))
    expect(actions.startFleet.mock.calls[1]?.[0]).toMatchObject({
      filmId: 'fen-satin',
      cars: [{ jobId: 'j', count: 5 }],
      stages: 3,
    })
  })
  it('what runs shows how far it is and who took it up again, and can be cancelled', async () => {
    actions.cancelFleet.mockResolvedValue({ ok: true, value: null })
    actions.read.mockResolvedValue([{ ...head, cancelAsked: true }])
    render(
      <Queries>
        <Fleet rows={[head]} jobs={[]} films={[film('fen-satin')]} stock={[]} units={units} mayStart />
      </Queries>,
    )
    expect(screen.getByText(/being laid out, taken up again \(2\)/)).toBeTruthy()
    expect(screen.getByRole('progressbar').getAttribute('value')).toBe('0.4')
    expect(screen.getByText('2.6 %')).toBeTruthy()
    fireEvent.click(screen.getByLabelText('Cancel Pool cars'))
    expect(await screen.findByText(/stopping/)).toBeTruthy()
    cleanup()
    render(
      <Queries>
        <Fleet
          rows={[{ ...head, silent: true }]}
          jobs={[]}
          films={[film('fen-satin')]}
          stock={[]}
          units={units}
          mayStart
        />
      </Queries>,
    )
    expect(screen.getByText(/being laid out, no word from its worker/)).toBeTruthy()
  })
  it('a result shows its rolls, finds a vehicle, opens its working, and lists what is not placed with the reason', async () => {
    const request = {
      format: 'cuirass/layout@1' as const,
      cutting: 'guillotine' as const,
      gap_mm: 0,
      seconds: 1,
      seed: 1,
      stock: [
        { id: 'R-1', width_mm: 1520, length_mm: 9000, lot: 'L' },
        { id: 'R-2', width_mm: 1520, length_mm: 9000, lot: 'L' },
      ],
      pieces: [
        { id: '1 Pip / bonnet', width_mm: 1400, height_mm: 1100, count: 1, turn: 'fixed' as const },
        { id: '1 Pip / sign', width_mm: 1900, height_mm: 1100, count: 1, turn: 'fixed' as const },
      ],
    }
    const result = {
      format: 'cuirass/layout-plan@1' as const,
      used_mm: 1100,
      bound_mm: 1100,
      proven: true,
      stock: [
        {
          id: 'R-1',
          used_mm: 1100,
          placements: [{ piece: '1 Pip / bonnet', copy: 1, x_mm: 0, y_mm: 0, turn_deg: 0 as const }],
        },
        { id: 'R-2', used_mm: 0, placements: [] },
      ],
      unplaced: [{ piece: '1 Pip / sign', copy: 1, why: 'wider_than_every_bin' as const }],
    }
    const { container } = render(
      <Queries>
        <FleetResult
          file={{ ...head, state: 'done', usedMm: 1100, boundMm: 1100, request, stages: 3, result }}
          units={units}
          mayStart
        />
      </Queries>,
    )
    expect(screen.getByText('1 roll')).toBeTruthy()
    expect(screen.getByText(/1 Pip \/ sign \(wider than every roll\)/)).toBeTruthy()
    expect(screen.getByText(/proven the least/)).toBeTruthy()
    // 1.4 m × 1.1 m of pieces on 1.52 m × 1.1 m of film.
    fireEvent.click(screen.getByLabelText('Film that becomes pieces: 92.1 %. Show the working'))
    const sheet = await screen.findByRole('dialog')
    expect(sheet.textContent).toContain('1.54 m² ÷ 1.67 m² = 92.1 %')
    expect(sheet.textContent).toContain('pieces that are placed')
    fireEvent.click(screen.getByLabelText('Above the least possible: 0.0 %. Show the working', { selector: 'button' }))
    fireEvent.click(await screen.findByText('Least possible on one endless roll', { selector: 'td button' }))
    expect((await screen.findByRole('dialog')).textContent).toContain('Scheithauer: LP-based bounds')
    type('Find a vehicle or piece', 'bonnet')
    expect(container.querySelectorAll('rect[fill="var(--brass)"]')).toHaveLength(1)
  })
})
