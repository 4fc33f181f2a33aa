import { describe, expect, it } from 'vitest'
import { filmFitness } from '@/core/stages/film/fitness'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { standsAt } from '@/core/reckon/stages'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { handoverOf } from '@/core/stages/handover/handover'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, film, handCar, row, withPanel } from '../fixtures/plans'

const NOW = '2026-11-20T09:00'
const recess = {
  id: 'r',
  name: 'Cup',
  mouthWidthMm: 200,
  mouthHeightMm: 100,
  depthMm: 40,
  wallDeg: 60,
  open: false,
  way: 'bridge' as const,
  gapMm: 100,
  bendRadiusMm: null,
  openAt: null,
  xMm: null,
  yMm: null,
}
const PIN = { sizeMm: null, xMm: null, yMm: null, photoIds: [], waived: null }
const flat = (): Plan => ({
  ...handCar(),
  film: { mainId: null, sheets: [] },
  panels: [newPanel({ id: 'side', name: 'Box side', kind: 'box_side', side: 'left', widthMm: 3000, heightMm: 1400 })],
})
const bumper = (): Plan => ({
  ...flat(),
  panels: [
    {
      ...newPanel({ id: 'b', name: 'Front bumper', kind: 'front_bumper', side: 'front', widthMm: 1800, heightMm: 560 }),
      crownMm: 60,
      crownOverMm: 1000,
    },
  ],
})
const dented = (): Plan => ({
  ...flat(),
  panels: [
    {
      ...newPanel({ id: 'd', name: 'Door', kind: 'door', side: 'left', widthMm: 1000, heightMm: 700 }),
      recesses: [recess],
    },
  ],
})
const unfit = (id: string, plan: Plan) => filmFitness(film(id), plan, NOW).map((u) => u.code)

describe('which film goes on what (trade.md §2.2: flat or simple folds, calendered will do; compound curves, cast)', () => {
  it.each([
    ['fen-satin', [], [], []],
    ['slate-matte', [], [], []],
    ['quay-orange', [], ['unfit_calendered_curves'], ['unfit_calendered_curves', 'unfit_deep_recess']],
    ['reed-sheet', [], ['unfit_sheet_curves'], ['unfit_sheet_curves', 'unfit_deep_recess']],
    [
      'mere-mirror',
      ['chrome_law', 'short_warranty'],
      ['chrome_needs_seams', 'chrome_law', 'short_warranty'],
      ['chrome_needs_seams', 'chrome_law', 'unfit_deep_recess', 'short_warranty'],
    ],
    ['folio-print', ['print_gas_out'], ['print_gas_out'], ['print_gas_out']],
    ['dusk-shift', [], [], []],
  ])('%s: flat %j, compound %j, deep recess %j', (id, onFlat, onCompound, onRecess) => {
    const known = (codes: string[]) => codes.filter((c) => c !== 'short_warranty' || id === 'mere-mirror')
    expect(known(unfit(id, flat()))).toEqual(onFlat)
    expect(known(unfit(id, bumper()))).toEqual(onCompound)
    expect(known(unfit(id, dented()))).toEqual(onRecess)
  })
  it('chrome’s warranty is a year or two; horizontal surfaces get less than vertical ones', () => {
    for (const f of DEMO_FILMS)
      for (const zone of ['mild', 'hot'] as const) {
        const months = (surface: 'vertical' | 'horizontal') =>
          f.warrantyMonths.find((w) => w.zone === zone && w.surface === surface)?.months ?? NaN
        expect(months('horizontal'), f.id).toBeLessThanOrEqual(months('vertical'))
        if (f.kind === 'hybrid_chrome' && zone === 'mild') expect(months('vertical')).toBeLessThanOrEqual(24)
      }
  })
  it('the demo rack keeps to the temperatures of practice (trade.md §5), kind by kind', () => {
    const range = {
      cast: [80, 95],
      colour_shift: [80, 95],
      printed_cast: [80, 95],
      hybrid_chrome: [90, 100],
      calendered: [105, 110],
      sheet_goods: [105, 115],
    }
    for (const f of DEMO_FILMS) expect([f.postHeatC.min, f.postHeatC.max], f.id).toEqual(range[f.kind])
    for (const f of DEMO_FILMS.filter((x) => x.kind === 'calendered' || x.kind === 'hybrid_chrome')) {
      expect(f.waitBeforeCutMin, f.id).toBe(30)
      expect([f.postHeatFromMin, f.postHeatUntilMin], f.id).toEqual([30, 1440])
    }
  })
})

describe('walkaround', () => {
  const found = (over: Partial<Plan['walkaround']>) => {
    const plan = { ...handCar(), walkaround: { ...handCar().walkaround, ...over } }
    return reckon(plan, { ...catalogue, now: NOW }, [])
      .findings.filter((f) => f.stage === 'walkaround')
      .map((f) => `${f.level} ${f.code}`)
  }
  const paint = handCar().walkaround.paint
  it.each([
    [{ paint: { ...paint, origin: 'unknown' as const } }, ['warn paint_unknown']],
    [{ paint: { ...paint, condition: 'unknown' as const } }, ['warn condition_unknown']],
    [{ paint: { ...paint, origin: 'repaint' as const } }, ['warn repaint_undated', 'warn repaint_may_lift']],
    [
      { paint: { ...paint, origin: 'repaint' as const, repaintedOn: '2027-01-01' } },
      ['warn repaint_in_future', 'warn repaint_may_lift'],
    ],
    [
      { paint: { ...paint, origin: 'repaint' as const, repaintedOn: '2026-10-20' } },
      ['stop repaint_fresh', 'warn repaint_may_lift'],
    ],
    [{ paint: { ...paint, ageYears: 4.9 } }, []],
    [{ paint: { ...paint, ageYears: 5 } }, ['note paint_old']],
    [{ paint: { ...paint, condition: 'dull' as const } }, ['note paint_dull']],
    [{ paint: { ...paint, condition: 'peeling' as const } }, ['stop paint_unsound']],
    [{ damage: [{ id: 'd', panelId: 'door', kind: 'chip' as const, note: '', ...PIN }] }, ['note damage_recorded']],
    [
      { damage: [{ id: 'd', panelId: 'door', kind: 'rust' as const, note: '', ...PIN }] },
      ['stop damage_blocks', 'note damage_recorded'],
    ],
    [
      { hardware: [{ id: 'h', name: 'Badge', way: 'remove' as const, minutes: 0, who: '' }] },
      ['note hardware_without_minutes'],
    ],
  ])('%j says %j', (over, want) => expect(found(over)).toEqual(want))
})

describe('panels against themselves', () => {
  const codes = (plan: Plan) =>
    reckon(plan, catalogue, [])
      .findings.filter((f) => f.stage === 'tape')
      .map((f) => f.code)
  it('a size no such panel has', () =>
    expect(codes(withPanel(handCar(), 'door', () => ({ widthMm: 3600 })))).toEqual(
      expect.arrayContaining(['panel_too_large']),
    ))
  it('an edge that does not go with the size', () =>
    expect(
      codes(
        withPanel(handCar(), 'door', (p) => ({
          edges: p.edges.map((e) => (e.at === 'top' ? { ...e, lengthMm: 1500 } : e)),
        })),
      ),
    ).toEqual(['edge_against_size']))
  it('a side without an edge', () =>
    expect(
      codes(
        withPanel(handCar(), 'door', (p) => ({
          edges: p.edges.map((e) => (e.at === 'left' ? { ...e, at: 'right' as const, lengthMm: 10 } : e)),
        })),
      ),
    ).toContain('edge_missing'))
  it('a neighbour that is not there', () =>
    expect(
      codes(withPanel(handCar(), 'door', (p) => ({ edges: p.edges.map((e) => ({ ...e, neighbour: 'ghost' })) }))),
    ).toContain('neighbour_missing'))
  it('none at all', () => expect(codes({ ...handCar(), panels: [] })).toEqual(['no_panels']))
  it('the demo’s measured vehicles are consistent', () => {
    for (const { make } of DEMO_JOBS)
      expect(codes(Plan.parse(make())).filter((c) => c !== 'figures_assumed' && c !== 'no_panels')).toEqual([])
  })
})

describe('stages', () => {
  const at = (plan: Plan, ledger: Parameters<typeof reckon>[2] = []) => {
    const r = reckon(plan, { ...catalogue, now: NOW }, ledger)
    return { stands: standsAt(r.stages), all: Object.fromEntries(r.stages.map((s) => [s.stage, s.state])) }
  }
  it('a job walks from stage to stage as each is settled', () => {
    const fresh = {
      ...handCar(),
      walkaround: {
        ...handCar().walkaround,
        paint: { origin: 'unknown' as const, ageYears: null, repaintedOn: null, condition: 'unknown' as const },
      },
    }
    expect(at(fresh).stands).toMatchObject({ stage: 'walkaround', state: 'missing' })
    expect(at({ ...handCar(), film: { mainId: null, sheets: [] } }).stands).toMatchObject({
      stage: 'film',
      state: 'missing',
    })
    expect(at({ ...handCar(), panels: [] }).stands).toMatchObject({ stage: 'tape', state: 'missing' })
    expect(at(handCar()).stands).toMatchObject({ stage: 'roll', state: 'open', why: 'layout_not_kept' })
    const kept = {
      ...handCar(),
      layout: { ...handCar().layout, kept: reckon(handCar(), catalogue, []).layouts.map(keepLayout) },
    }
    expect(at(kept).stands).toMatchObject({ stage: 'run-sheet', state: 'open', why: 'no_start' })
    const dated = { ...kept, runSheet: { ...kept.runSheet, startAt: '2026-11-20T08:00' } }
    expect(at(dated).stands).toMatchObject({ stage: 'bay', state: 'missing' })
    expect(at(dated, [row({ kind: 'step_started', stepId: 'wash' })]).stands).toMatchObject({
      stage: 'bay',
      state: 'open',
    })
    // A change after cutting breaks what was kept.
    expect(at(withPanel(dated, 'door', () => ({ widthMm: 1100 }))).all.roll).toBe('broken')
  })
  it('a finished job waits for its recheck, then is handed over', () => {
    const r = reckon(handCar(), catalogue, [])
    const work = r.steps
      .filter((s) => !['recheck', 'hardware_on', 'hand_over'].includes(s.code))
      .map((s) => row({ kind: 'step_done', stepId: s.id }, '2026-11-19T16:00:00.000Z'))
    const heat = r.points.map((p) =>
      row({ kind: 'reading', pieceId: p.pieceId, pointId: p.id, tempC: 90, gunAway: true }),
    )
    const done = [...work, ...heat]
    expect(at(handCar(), done).stands).toMatchObject({ stage: 'handover', why: 'recheck_waits' })
    expect(
      at(handCar(), [
        ...done,
        row({ kind: 'step_done', stepId: 'recheck' }),
        row({ kind: 'step_done', stepId: 'hand_over' }),
      ]).stands,
    ).toMatchObject({ stage: 'handover', state: 'settled' })
  })
})

describe('handover', () => {
  const of = (ledger: Parameters<typeof reckon>[2]) =>
    handoverOf(handCar(), reckon(handCar(), catalogue, ledger), catalogue.stock, ledger)
  const point = reckon(handCar(), catalogue, []).points[0]
  it('of a job not begun says all that is open', () => {
    const h = of([])
    expect(h.open).toEqual(['steps', 'heat_points', 'recheck', 'lots'])
    expect(h.readings.every((r) => r.tempC === null)).toBe(true)
    expect(h.films).toMatchObject([
      { lots: [], usedMm: 0, panels: ['Bonnet', 'Door', 'Wing'], surfaces: ['horizontal', 'vertical'] },
    ])
  })
  it('shows the good reading where there is one, else the last', () => {
    const read = (tempC: number) =>
      row({ kind: 'reading', pieceId: point?.pieceId ?? '', pointId: point?.id ?? '', tempC, gunAway: true })
    expect(of([read(60), read(88), read(99)]).readings[0]).toMatchObject({
      tempC: 88,
      verdict: 'good',
      by: 'Joss Ferrin',
    })
    expect(of([read(60), read(71)]).readings[0]).toMatchObject({ tempC: 71, verdict: 'under' })
  })
  it('adds up film by lot, and names defects by panel', () => {
    const [a, b] = catalogue.stock.filter((s) => s.filmId === 'fen-satin')
    const h = of([
      row({ kind: 'film_used', stockId: a?.id ?? '', lengthMm: 1500 }),
      row({ kind: 'film_used', stockId: b?.id ?? '', lengthMm: 700 }),
      row({ kind: 'defect', panelId: 'door', defect: 'fingers', note: 'relaid' }),
    ])
    expect(h.films[0]).toMatchObject({ lots: ['T26-0417', 'T26-0533'], usedMm: 2200 })
    expect(h.defects).toMatchObject([{ panel: 'Door', defect: 'fingers', note: 'relaid' }])
  })
})
