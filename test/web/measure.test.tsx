import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { useEffect, useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SCHOOLS } from '@/core/model/method/method-data'
import type { Plan } from '@/core/model/plan/schema'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import { toSkin } from '@/core/engines/skin/skin'
import { climateMarks } from '@/web/charts/climate-marks'
import { outlineOf } from '@/core/model/vehicle/outline'
import { questionsOf } from '@/core/stages/tape/tape-answer'
import { panelMarks } from '@/web/charts/panel-marks'
import { LAYERS, skinMarks } from '@/web/charts/skin-marks'
import { FitnessTable } from '@/web/film/fitness-table'
import { Working } from '@/web/job/working'
import { JobProvider } from '@/web/job/job-state'
import { MethodPlate } from '@/web/method/method-plate'
import { chooseFilm, chooseFor } from '@/web/film/choose'
import { readCsv } from '@/web/kit/csv'
import { FILM_FIELDS } from '@/web/rack/film-fields'
import { FilmEditor } from '@/web/rack/film-editor'
import { GuidedTape } from '@/web/tape/guided-tape'
import { MeasureGrid } from '@/web/tape/measure-grid'
import { PanelLarge } from '@/web/tape/panel-large'
import { TapeFirst } from '@/web/tape/tape-first'
import { fillRight } from '@/web/tape/tape'
import { StartWith, type Start } from '@/web/yard/start-with'
import { formatter, type MemberUnits } from '@/web/words/format'
import { STANDED_FIELDS } from '@/core/model/film/kinds'
import { catalogue, film, handCar } from '../fixtures/plans'

const putFilm = vi.fn()
vi.mock('@/web/actions/rack', () => ({ putFilm: (x: unknown) => putFilm(x) as unknown }))
vi.mock('@/web/actions/jobs', () => ({ saveJob: vi.fn(), takeBackChange: vi.fn() }))
vi.mock('@/web/actions/vehicles', () => ({ keepVehicle: vi.fn() }))
vi.mock('next/navigation', () => ({ usePathname: () => '/jobs/x/tape', useSearchParams: () => new URLSearchParams() }))
vi.mock('@/web/actions/shop', () => ({ setShopMethod: vi.fn() }))
vi.stubGlobal('matchMedia', () => ({
  matches: false,
  addListener: () => {},
  removeListener: () => {},
  addEventListener: () => {},
  removeEventListener: () => {},
}))
afterEach(cleanup)

const MM: MemberUnits = { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' }
const IN: MemberUnits = { ...MM, lengthUnit: 'in', tempUnit: 'F', locale: 'en-US' }
const hatch = (): Plan => ({ ...handCar(), panels: familyPanels('city_car', usualKeys('city_car')), pieces: [] })
const at = (plan: Plan, id: string) => {
  const p = plan.panels.find((x) => x.id === id)
  if (!p) throw new Error(id)
  return p
}
/** The plan as it stands on screen. */
let latest: Plan
/** A plan that a view edits, watched. */
function Held({
  start,
  view,
}: {
  start: Plan
  view: (plan: Plan, edit: (f: (p: Plan) => Plan) => void) => React.ReactNode
}) {
  const [plan, setPlan] = useState(start)
  useEffect(() => void (latest = plan), [plan])
  return view(plan, setPlan)
}
const inJob = (plan: Plan, view: React.ReactNode) => (
  <JobProvider
    start={{
      jobId: '00000000-0000-4000-8000-000000000abc',
      number: 1,
      shopHead: 0,
      plan,
      ledger: [],
      catalogue,
      units: MM,
      member: { id: '00000000-0000-4000-8000-00000000aaaa', name: 'T', role: 'lead' },
    }}
  >
    {view}
    <Working />
  </JobProvider>
)
const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name)
const clipboard = (text: string) => ({ clipboardData: { getData: () => text, setData: vi.fn() } })

describe('the sheet as a grid', () => {
  const grid = (units = MM) =>
    render(
      <Held
        start={hatch()}
        view={(plan, edit) => (
          <MeasureGrid plan={plan} edit={edit} fmt={formatter(units)} picked={null} onPick={() => {}} />
        )}
      />,
    )
  it('takes a block from a spreadsheet at the cell, in the member’s unit', () => {
    grid(IN)
    fireEvent.paste(field('Wing left, width'), clipboard('32\t25 1/2\r\n33\t26\r\n'))
    expect(at(latest, 'wing-left').widthMm).toBeCloseTo(32 * 25.4, 9)
    expect(at(latest, 'wing-left').heightMm).toBeCloseTo(25.5 * 25.4, 9)
    expect(at(latest, 'wing-right').widthMm).toBeCloseTo(33 * 25.4, 9)
    expect(at(latest, 'wing-left').assumed).not.toContain('heightMm')
  })
  it.each([
    ['1000\tlong', 'Front bumper, width', /Nothing pasted.*Front bumper, height/],
    [`${'1\t1\n'.repeat(40)}`, 'Front bumper, width', /40 rows were copied, but only 24 panels follow/],
    ['1\t2\t3\t4\t5\t6\t7\t8\t9\t10', 'Front bumper, width', /More columns/],
    ['Bonnet\tbonet', 'Name of Front bumper', /“bonet” is not one of/],
  ])('refuses the whole of %j', (text, cell, why) => {
    grid()
    const before = latest
    fireEvent.paste(field(cell), clipboard(text))
    expect(latest).toBe(before)
    expect(screen.getByRole('status').textContent).toMatch(why)
  })
  it('gives a marked block to the clipboard', () => {
    grid()
    const cell = field('Bonnet, width')
    cell.focus()
    fireEvent.keyDown(cell, { key: 'ArrowRight', shiftKey: true })
    fireEvent.keyDown(cell, { key: 'ArrowDown', shiftKey: true })
    const data = clipboard('')
    fireEvent.copy(cell, data)
    expect(data.clipboardData.setData).toHaveBeenCalledWith(
      'text/plain',
      expect.stringMatching(/^1530\t860\n\d+\t\d+$/),
    )
  })
  it('shows what was understood', () => {
    grid()
    fireEvent.change(field('Roof, width'), { target: { value: `3'8"` } })
    expect(screen.getByText('= 1118 mm')).toBeTruthy()
  })
  it('a crown typed without its straightedge gets one, assumed', () => {
    grid()
    fireEvent.change(field('Sill left, crown'), { target: { value: '3' } })
    expect(at(latest, 'sill-left')).toMatchObject({ crownMm: 3 })
    expect(at(latest, 'sill-left').assumed).not.toContain('crownMm')
  })
  it('the assumed figure typed again is taped', () => {
    grid()
    const cell = field('Roof, width')
    expect(at(latest, 'roof').assumed).toContain('widthMm')
    fireEvent.change(cell, { target: { value: '1120 mm' } })
    fireEvent.blur(cell)
    expect(at(latest, 'roof')).toMatchObject({ widthMm: 1120 })
    expect(at(latest, 'roof').assumed).not.toContain('widthMm')
  })
  it('fills the right side from the left, neighbours turned over', () => {
    const plan = fillRight({
      ...hatch(),
      panels: hatch().panels.map((p) => (p.id === 'wing-left' ? { ...p, widthMm: 777, note: 'left only' } : p)),
    })
    expect(at(plan, 'wing-right')).toMatchObject({ widthMm: 777, note: '', side: 'right', name: 'Wing right' })
    expect(at(plan, 'wing-right').edges.map((e) => e.neighbour)).toContain('front-door-right')
  })
})

describe('what to tape first, and guided tape', () => {
  it('an answer goes out when the hand leaves it, to both sides', () => {
    render(
      inJob(
        hatch(),
        <Held
          start={hatch()}
          view={(plan, edit) => <TapeFirst plan={plan} edit={edit} fmt={formatter(MM)} onPick={() => {}} />}
        />,
      ),
    )
    const first = screen.getAllByRole('textbox')[0] as HTMLInputElement
    expect(first.placeholder).toMatch(/^\d+ \?$/)
    const name = first.getAttribute('aria-label') ?? ''
    fireEvent.change(first, { target: { value: '1499' } })
    expect(latest.panels.some((p) => p.widthMm === 1499 || p.heightMm === 1499)).toBe(false)
    fireEvent.blur(first)
    expect(latest.panels.some((p) => p.widthMm === 1499 || p.heightMm === 1499)).toBe(true)
    expect(screen.queryByLabelText(name)).toBeNull()
  })
  const guided = (units: MemberUnits) =>
    render(
      <Held
        start={hatch()}
        view={(plan, edit) => <GuidedTape plan={plan} edit={edit} fmt={formatter(units)} onClose={() => {}} />}
      />,
    )
  const press = (...keys: string[]) => keys.forEach((k) => fireEvent.click(screen.getByRole('button', { name: k })))
  it('begins at the front, takes inches with fractions, goes on, and back', () => {
    guided(IN)
    expect(screen.getByRole('heading').textContent).toBe('Front bumper')
    press('8', '0', '1/2')
    press('Take 80 1/2″')
    expect(at(latest, 'front-bumper').widthMm).toBeCloseTo(80.5 * 25.4, 9)
    press('Back')
    expect(screen.getByText(/taped 80 1\/2″/)).toBeTruthy()
    press('Skip')
  })
  it('a size no panel has is not taken', () => {
    guided(MM)
    press('9', '9', '9', '9', '9')
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Type the figure' }).disabled).toBe(true)
    expect(screen.getByRole('status').textContent).toContain('No panel has that size')
  })
  it('the keyboard does what the keypad does', () => {
    guided(MM)
    const region = screen.getByRole('region', { name: 'Guided tape' })
    for (const key of '2033') fireEvent.keyDown(region, { key })
    fireEvent.keyDown(region, { key: 'Backspace' })
    fireEvent.keyDown(region, { key: '9' })
    fireEvent.keyDown(region, { key: 'Enter' })
    expect(at(latest, 'front-bumper').widthMm).toBe(2039)
  })
})

describe('a panel opened large', () => {
  it('has every measure on it, each to be pressed and typed', () => {
    const door = at(hatch(), 'front-door-left')
    render(
      <Held
        start={hatch()}
        view={(plan, edit) => <PanelLarge panel={at(plan, 'front-door-left')} edit={edit} fmt={formatter(MM)} />}
      />,
    )
    // Two sizes, two crowns, five edges, a recess with three, a body line, a handle.
    expect(screen.getAllByRole('button').length).toBeGreaterThanOrEqual(2 + 2 + door.edges.length + 3 + 1 + 1)
    fireEvent.click(screen.getByRole('button', { name: /^Handle cup width, 130 mm/ }))
    fireEvent.change(field('Front door left, Handle cup width'), { target: { value: '142' } })
    expect(at(latest, 'front-door-left').recesses[0]?.mouthWidthMm).toBe(142)
    fireEvent.keyDown(field('Front door left, Handle cup width'), { key: 'Enter' })
    fireEvent.click(screen.getByRole('button', { name: /^bottom edge, / }))
    fireEvent.change(field('Front door left, bottom edge'), { target: { value: '801' } })
    expect(at(latest, 'front-door-left').edges.find((e) => e.id === 'bottom')?.lengthMm).toBe(801)
  })
  it('draws no measure outside its picture', () => {
    for (const p of hatch().panels) {
      const m = panelMarks(p)
      for (const { at: q } of [...m.dimensions, ...m.sizes]) {
        expect(q.x).toBeGreaterThan(m.view.x)
        expect(q.x).toBeLessThan(m.view.x + m.view.w)
        expect(q.y).toBeGreaterThan(m.view.y)
        expect(q.y).toBeLessThan(m.view.y + m.view.h)
      }
    }
  })
})

describe('what a question is drawn as', () => {
  it('every question but a panel’s own says where on the panel it is asked, within the picture', () => {
    for (const p of hatch().panels)
      for (const q of questionsOf(p)) {
        const { dimensions, sizes, view } = panelMarks(p, q.field)
        expect(sizes).toEqual([])
        expect(
          dimensions.map((d) => d.question.field),
          `${p.id} ${q.field}`,
        ).toEqual([q.field])
        for (const { at: place } of dimensions) {
          expect(Math.abs(place.x - view.x - view.w / 2)).toBeLessThan(view.w / 2)
          expect(Math.abs(place.y - view.y - view.h / 2)).toBeLessThan(view.h / 2)
        }
      }
  })
  it('a gap and a seal are drawn along their edge, and only where they alone are asked for', () => {
    for (const p of hatch().panels) {
      const asked = questionsOf(p).filter((q) => ['gap', 'seal'].includes(q.ask))
      const whole = panelMarks(p).dimensions.map((d) => d.question.field)
      for (const q of asked) {
        expect(whole).not.toContain(q.field)
        const side = outlineOf(p).edges.find((e) => e.edge.id === q.field.split('.')[1])
        expect(panelMarks(p, q.field).dimensions[0]).toMatchObject({ from: side?.from, to: side?.to })
      }
    }
  })
})

describe('the map in marks', () => {
  const words = {
    area: String,
    size: (w: number, h: number) => `${w}×${h}`,
    material: (c: string) => c,
    stretch: () => ({ value: 0.12, text: '12 %' }),
  }
  it.each([...LAYERS])('layer %s: every panel stands in the legend’s fills, with words', (layer) => {
    const { marks, legend } = skinMarks(hatch(), layer, words, '2026-11-20T09:00')
    expect(marks).toHaveLength(24)
    for (const m of marks) {
      expect(m.note).not.toBe('')
      if (layer !== 'edges' && m.key !== 'none') expect(legend.map((l) => l.key)).toContain(m.key)
      for (const e of m.edges) expect(legend.map((l) => l.key)).toContain(e.key)
    }
    expect(new Set(legend.map((l) => `${l.fill}${l.dash ?? ''}`)).size).toBe(legend.length)
  })
  it('a blocked panel, one left out, one taped and one assumed look different', () => {
    const plan = hatch()
    const mixed: Plan = {
      ...plan,
      panels: plan.panels.map((p) =>
        p.id === 'roof' ? { ...p, assumed: [] } : p.id === 'hatch' ? { ...p, wrap: false } : p,
      ),
      walkaround: {
        ...plan.walkaround,
        damage: [
          {
            id: 'd',
            panelId: 'bonnet',
            kind: 'rust',
            note: '',
            sizeMm: null,
            xMm: 10,
            yMm: 10,
            photoIds: [],
            waived: null,
          },
        ],
      },
    }
    const key = (id: string) => skinMarks(mixed, 'state', words, '2026-11-20T09:00').marks.find((m) => m.id === id)?.key
    expect([key('roof'), key('hatch'), key('bonnet'), key('wing-left')]).toEqual(['taped', 'off', 'blocked', 'assumed'])
  })
  it('a pin at a panel’s corner is at that corner of its drawing', () => {
    const { skin } = skinMarks(hatch(), 'state', words, '2026-11-20T09:00')
    const left = skin.panels.find((p) => p.id === 'front-door-left')
    const right = skin.panels.find((p) => p.id === 'front-door-right')
    if (!left || !right) throw new Error('no door')
    const near = (p: { x: number; y: number }, x: number, y: number) =>
      expect(Math.hypot(p.x - x, p.y - y)).toBeLessThan(1e-6)
    near(toSkin(left, at(hatch(), 'front-door-left'), 0, 0), left.box.left, left.box.top)
    // The right side is folded up, so its top left corner lies at the lower right.
    near(toSkin(right, at(hatch(), 'front-door-right'), 0, 0), right.box.right, right.box.bottom)
  })
  it('readings of the air become three lines over their times', () => {
    const marks = climateMarks(
      [
        { at: '2026-11-20T08:00:00Z', airC: 18, humidity: 0.5, surfaceC: 16, by: 'x' },
        { at: '2026-11-20T12:00:00Z', airC: 21, humidity: null, surfaceC: null, by: 'x' },
      ],
      { min: 16, max: 25 },
    )
    expect(marks.lines.map((l) => [l.key, l.points.length])).toEqual([
      ['air', 2],
      ['surface', 1],
      ['dew', 1],
    ])
    const air = marks.lines[0]?.points ?? []
    expect(air[1]?.x).toBeGreaterThan(air[0]?.x ?? 0)
    expect(air[1]?.y).toBeLessThan(air[0]?.y ?? 0)
    expect(climateMarks([], null).lines.every((l) => l.points.length === 0)).toBe(true)
  })
})

describe('films', () => {
  it('a film for some panels joins the plan, and leaves it when nothing uses it', () => {
    const two = chooseFor(handCar(), film('slate-matte'), ['door'])
    expect(two.film.sheets.map((s) => s.id).sort()).toEqual(['fen-satin', 'slate-matte'])
    expect(two.panels.find((p) => p.id === 'door')?.filmId).toBe('slate-matte')
    const back = chooseFor(two, film('fen-satin'), ['door'])
    expect([back.film.sheets.map((s) => s.id), back.panels.find((p) => p.id === 'door')?.filmId]).toEqual([
      ['fen-satin'],
      null,
    ])
    const all = chooseFilm(two, film('slate-matte'))
    expect([all.film.mainId, all.film.sheets.map((s) => s.id), all.panels.map((p) => p.filmId)]).toEqual([
      'slate-matte',
      ['slate-matte'],
      [null, null, null],
    ])
  })
  it('the editor has every field that carries a standing', () => {
    const shown = new Set(FILM_FIELDS.flatMap((g) => g.fields.map((f) => f.field)))
    expect(STANDED_FIELDS.filter((f) => f !== 'colour' && !shown.has(f))).toEqual([])
  })
  it('a field is typed in the member’s units and saved in ours', async () => {
    putFilm.mockResolvedValue({ ok: true, value: null })
    const done = vi.fn()
    render(<FilmEditor start={film('fen-satin')} basedOn={3} taken={[]} fmt={formatter(IN)} onDone={done} />)
    fireEvent.change(field('Least surface, °F'), { target: { value: '60' } })
    fireEvent.change(field('Overlap'), { target: { value: '3/8' } })
    fireEvent.change(field('Stretch limit, per cent'), { target: { value: '12.5' } })
    fireEvent.change(screen.getByLabelText('Stretch limit, standing'), { target: { value: 'assumed' } })
    fireEvent.change(field('Roll widths, parted by semicolons'), { target: { value: '48; 60' } })
    fireEvent.click(screen.getByRole('button', { name: 'Save the sheet' }))
    await vi.waitFor(() => expect(done).toHaveBeenCalledWith(true))
    const sent = (putFilm.mock.calls[0]?.[0] as { sheet: ReturnType<typeof film>; basedOn: number }) ?? null
    expect(sent.basedOn).toBe(3)
    expect(sent.sheet.surfaceMinC).toBeCloseTo((60 - 32) / 1.8, 9)
    expect(sent.sheet.overlapMm).toBeCloseTo(9.525, 9)
    expect(sent.sheet.widthsMm[0]).toBeCloseTo(1219.2, 9)
    expect([sent.sheet.stretchLimit, sent.sheet.standings.stretchLimit]).toEqual([0.125, 'assumed'])
  })
})

describe('numbers open their working, also those of a film or method not chosen', () => {
  it('cost, stretch and contrast of another film', () => {
    render(inJob(hatch(), <FitnessTable films={[film('quay-orange')]} retired={[]} scope={[]} />))
    fireEvent.click(screen.getByRole('button', { name: /^Film cost of all panels together: €/ }))
    const panel = () => screen.getByRole('dialog')
    fireEvent.click(within(panel()).getByRole('button', { name: 'Roof: film cost' }))
    expect(panel().textContent).toMatch(/× .*price.* ÷ .*width/)
    expect(panel().textContent).toContain('film sheet')
    fireEvent.click(within(panel()).getByRole('button', { name: /^Roof: cut width/ }))
    expect(panel().textContent).toContain('assumed')
  })
  it('film, stretch and hours under another school', () => {
    render(inJob(hatch(), <MethodPlate />))
    fireEvent.click(screen.getAllByRole('button', { name: 'On this job' })[1] as HTMLElement)
    expect(screen.getAllByRole('button', { name: /^Worst stretch: .* Show the working/ })).toHaveLength(
      SCHOOLS.tension.length,
    )
  })
})

describe('starting a job', () => {
  it('asks for the key lengths of the body chosen; what is left out stays assumed', () => {
    let start: Start = { from: 'style', keys: {} }
    const view = (kind: string) => (
      <StartWith kind={kind} start={start} onStart={(s) => (start = s)} vehicles={[]} units={IN} />
    )
    const { rerender } = render(view('tank'))
    const inputs = within(screen.getByRole('group')).getAllByRole('textbox')
    expect(inputs.length).toBeGreaterThanOrEqual(8)
    fireEvent.change(screen.getByLabelText('Diameter'), { target: { value: '75' } })
    expect(start).toEqual({ from: 'style', keys: { diameter: 75 * 25.4 } })
    fireEvent.change(screen.getByLabelText('Diameter'), { target: { value: '7' } })
    expect(screen.getByRole('alert').textContent).toContain('Too small')
    rerender(view('other'))
    expect(screen.queryByLabelText('the body’s usual ones')).toBeNull()
  })
})

it('CSV of any separator, quoted line breaks, and a quote left open', () => {
  expect(readCsv('a;b\n1;"2,3"\n')).toEqual({
    ok: true,
    value: [
      ['a', 'b'],
      ['1', '2,3'],
    ],
  })
  expect(readCsv('a\tb\n1\t2')).toEqual({
    ok: true,
    value: [
      ['a', 'b'],
      ['1', '2'],
    ],
  })
  expect(readCsv('a,b\n"x\ny",2')).toEqual({
    ok: true,
    value: [
      ['a', 'b'],
      ['x\ny', '2'],
    ],
  })
  expect(readCsv('a,b\n"x,2').ok).toBe(false)
})
