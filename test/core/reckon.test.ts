import { describe, expect, it } from 'vitest'
import { EDGE_RULES } from '@/core/model/edge/edge-data'
import { THRIFTY } from '@/core/model/method/schema'
import { Plan } from '@/core/model/plan/schema'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { formulaWithNumbers, STANDINGS, weakest } from '@/core/model/figure/figure'
import { applyChange } from '@/core/model/plan/plan-change'
import { reckoningJson } from '@/core/reckon/output'
import { priceChange, pricedJob } from '@/core/reckon/price'
import { reckon } from '@/core/reckon/reckon'
import { orderFor } from '@/core/engines/roll/buy'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, film, handCar, row, withPanel } from '../fixtures/plans'

const value = (plan: Plan, id: string, cat = EMPTY_CATALOGUE) => reckon(plan, cat, []).figures.get(id)?.value
const codes = (plan: Plan, cat = EMPTY_CATALOGUE) => reckon(plan, cat, []).findings.map((f) => f.code)

describe('the hand-worked car (docs/worked-car.md)', () => {
  const plan = handCar()
  it.each([
    ['piece/bonnet/width', 1480],
    ['piece/bonnet/height', 1020],
    ['piece/door/width', 1150],
    ['piece/door/height', 780],
    ['piece/wing/width', 880],
    ['piece/wing/height', 740],
    ['roll/fen-satin/used', 2170],
    ['roll/fen-satin/order', 3000],
    ['roll/fen-satin/cost', 64.5],
    ['rail/edges', 10900],
    ['rail/seams', 0],
  ])('%s is %s', (id, want) => expect(value(plan, id)).toBeCloseTo(want, 6))
  it('yield is panel area over film area', () =>
    expect(value(plan, 'roll/fen-satin/yield')).toBeCloseTo(2482800 / (2170 * 1520), 9))
  it('crown of 22 under 1000 over a diagonal of 1658.6: 0.35 %', () =>
    expect(value(plan, 'stretch/bonnet/crown')).toBeCloseTo(0.003546, 5))
  it('the thrifty school: less bleed but never less than wrap-under and a grip, and the roll shrink added along the roll', () => {
    const thrifty = { ...plan, method: THRIFTY }
    // Wing: 780 + 30 + 30 lies along the roll and grows by 3 %; 640 + 30 + (25 wheel arch + 25 grip) does not.
    expect(value(thrifty, 'piece/wing/width')).toBeCloseTo(840 * 1.03, 6)
    expect(value(thrifty, 'piece/wing/height')).toBeCloseTo(720, 6)
  })
})

describe('figures', () => {
  it('stand no higher than their weakest input', () => {
    expect(weakest(['measured', 'film_sheet', 'assumed', 'published'])).toBe('assumed')
    const plan = withPanel(handCar(), 'door', () => ({ assumed: ['widthMm'] }))
    expect(reckon(plan, EMPTY_CATALOGUE, []).figures.get('piece/door/width')?.standing).toBe('assumed')
    expect(reckon(plan, EMPTY_CATALOGUE, []).figures.get('piece/door/height')?.standing).toBe('common_practice')
  })
  it('of every demo job name each input of their formula, and point at figures that exist', () => {
    for (const { make } of DEMO_JOBS) {
      const r = reckon(Plan.parse(make()), catalogue, [])
      for (const f of r.figures.values()) {
        expect(STANDINGS).toContain(f.standing)
        for (const [, key] of f.formula.matchAll(/\{([a-zA-Z0-9_]+)\}/g))
          expect(
            f.inputs.map((i) => i.key),
            f.id,
          ).toContain(key)
        for (const i of f.inputs)
          if (i.at.startsWith('figure:')) expect(r.figures.has(i.at.slice(7)), `${f.id} → ${i.at}`).toBe(true)
        expect(formulaWithNumbers(f)).not.toMatch(/\{[a-z]/)
        if (typeof f.value === 'number') expect(Number.isFinite(f.value), f.id).toBe(true)
      }
    }
  })
  it('sums equal their inputs', () => {
    const r = reckon(handCar(), EMPTY_CATALOGUE, [])
    const two = withPanel(handCar(), 'door', () => ({ filmId: 'slate-matte' }))
    const films = { ...two, film: { ...two.film, sheets: [...two.film.sheets, film('slate-matte')] } }
    for (const [of, id] of [
      [r, 'rail/edges'],
      [r, 'rail/crew_minutes'],
      [reckon(films, EMPTY_CATALOGUE, []), 'rail/film_used'],
      [reckon(films, EMPTY_CATALOGUE, []), 'rail/cost'],
    ] as const) {
      const f = of.figures.get(id)
      expect(f?.inputs.length).toBeGreaterThan(1)
      expect(f?.inputs.reduce((s, i) => s + Number(i.value), 0)).toBeCloseTo(Number(f?.value), 6)
    }
    // Of one film the sum has the film's own working: a number made of itself explains nothing.
    const { formula, inputs, value } = r.figures.get('roll/fen-satin/cost') ?? {}
    expect(r.figures.get('rail/cost')).toMatchObject({ formula, inputs, value })
  })
  it('go out by the published contract', () => {
    const json = reckoningJson(reckon(handCar(), EMPTY_CATALOGUE, []))
    expect(json.format).toBe('cuirass/reckoning@1')
    for (const f of json.figures)
      expect(Object.keys(f)).toEqual(
        expect.arrayContaining(['id', 'value', 'unit', 'formula', 'inputs', 'limit', 'standing', 'source']),
      )
  })
})

describe('edges and limits of practice', () => {
  // trade.md §4: film left, by edge. The rule has to stand inside the range, or at its figure.
  it.each([
    ['opening', 10, 10],
    ['fixed_gap', 3, 3],
    ['rubber_seal', 3, 19],
    ['window_trim', 3, 19],
    ['wheel_arch', 25, 25],
    ['drip_rail', 6, 10],
    ['bumper_underside', 6, 10],
    ['lamp', 10, 10],
  ] as const)('%s: %s–%s mm', (meets, from, to) => {
    expect(EDGE_RULES[meets].wrapUnderMm).toBeGreaterThanOrEqual(from)
    expect(EDGE_RULES[meets].wrapUnderMm).toBeLessThanOrEqual(to)
  })
  it('a bumper underside gets sealing tape, counted by its length', () => {
    const plan = Plan.parse(DEMO_JOBS[0]?.make())
    const underside = (id: string) =>
      plan.panels.find((p) => p.id === id)?.edges.find((e) => e.meets === 'bumper_underside')?.lengthMm ?? 0
    expect(underside('sill-left')).toBeGreaterThan(1000)
    expect(value(plan, 'supply/sealing')).toBe(
      underside('front-bumper') + underside('rear-bumper') + 2 * underside('sill-left'),
    )
  })
})

/** A printed job with its sides laid panel by panel, not as drops. */
const panelByPanel = (plan: Plan): Plan => ({
  ...plan,
  layout: { ...plan.layout, drops: { ...plan.layout.drops, use: false } },
})

describe('findings and ways out', () => {
  const bumper = () => {
    const plan = Plan.parse(DEMO_JOBS[0]?.make())
    const found = reckon(plan, catalogue, []).findings.find((f) => f.id === 'stretch_over_limit/rear-bumper')
    if (!found) throw new Error('no finding')
    return { plan, found }
  }
  it('a bumper past the limit says how much against which limit, and each way out becomes what it promised', () => {
    const { plan, found } = bumper()
    expect('value' in found.facts && found.facts.value).toBeGreaterThan(0.15)
    expect(found.limit).toMatchObject({ value: 0.15, standing: 'film_sheet' })
    expect(found.waysOut.length).toBeGreaterThan(1)
    for (const way of found.waysOut)
      expect(value(applyChange(plan, way.change), 'stretch/rear-bumper/worst')).toBeCloseTo(Number(way.becomes), 12)
  })
  it('a way out is priced by reckoning the whole job with it', () => {
    const { plan, found } = bumper()
    const seam = found.waysOut.find((w) => w.code === 'seam')
    if (!seam) throw new Error('no seam')
    const now = reckon(plan, catalogue, [])
    const then = reckon(applyChange(plan, seam.change), catalogue, [])
    expect(priceChange(pricedJob(plan, catalogue, []), seam.change).filmMm).toBeCloseTo(
      Number(then.figures.get('rail/film_used')?.value) - Number(now.figures.get('rail/film_used')?.value),
      9,
    )
    expect(then.findings.some((f) => f.id === found.id)).toBe(false)
  })
  it('recess: feeding from an open side takes the stretch away, a wider gap lowers it', () => {
    const recess = {
      id: 'r',
      name: 'Cup',
      mouthWidthMm: 200,
      mouthHeightMm: 100,
      depthMm: 40,
      wallDeg: 80,
      open: true,
      way: 'bridge' as const,
      gapMm: 20,
      bendRadiusMm: null,
      openAt: null,
      xMm: null,
      yMm: null,
    }
    const plan = Plan.parse(withPanel(handCar(), 'door', () => ({ recesses: [recess] })))
    const found = reckon(plan, EMPTY_CATALOGUE, []).findings.find((f) => f.code === 'stretch_over_limit')
    expect(found?.waysOut.map((w) => w.code)).toEqual(expect.arrayContaining(['feed', 'wider_gap']))
    expect(found?.waysOut.find((w) => w.code === 'feed')?.becomes).toBe(0)
    expect(found?.waysOut.find((w) => w.code === 'wider_gap')?.becomes).toBeLessThan(Number(found?.facts.value))
  })
  it('what the walkaround says rules film out, with the reason', () => {
    const plan = handCar()
    const with_ = (paint: Partial<Plan['walkaround']['paint']>) => ({
      ...plan,
      walkaround: { ...plan.walkaround, paint: { ...plan.walkaround.paint, ...paint } },
    })
    const now = { ...EMPTY_CATALOGUE, now: '2026-11-20T09:00' }
    expect(codes(with_({ origin: 'repaint', repaintedOn: '2026-11-01' }), now)).toEqual(
      expect.arrayContaining(['repaint_fresh', 'unfit_fresh_repaint', 'repaint_may_lift']),
    )
    expect(codes(with_({ origin: 'repaint', repaintedOn: '2025-11-01' }), now)).not.toContain('repaint_fresh')
    expect(codes(with_({ condition: 'rust' }))).toEqual(expect.arrayContaining(['paint_unsound', 'unfit_paint']))
    expect(codes(with_({ ageYears: 7 }))).toContain('paint_old')
    // Nothing but that nobody has read the air yet.
    expect(codes(plan)).toEqual(['no_climate'])
  })
  it('strong contrast deepens every wrap-under', () => {
    const plan = {
      ...handCar(),
      method: { ...handCar().method, bleedMm: 20 },
      vehicle: { ...handCar().vehicle, colour: { name: 'White', hex: '#ffffff' } },
    }
    expect(codes(plan)).toContain('strong_contrast')
    expect(value(plan, 'piece/bonnet/width')).toBe(1380 + 2 * (10 + 5 + 25))
  })
  it('a piece wider than the roll is named and its seam makes it fit', () => {
    const plan = panelByPanel(Plan.parse(DEMO_JOBS[2]?.make()))
    const found = reckon(plan, catalogue, []).findings.filter((f) => f.code === 'piece_wider_than_roll')
    expect(found.map((f) => f.panelId)).toContain('side-fore-left')
    const fixed = found.reduce((p, f) => applyChange(p, f.waysOut[0]?.change ?? { kind: 'drop_kept_layout' }), plan)
    expect(codes(fixed, catalogue)).not.toContain('piece_wider_than_roll')
  })
  it('while a piece fits no roll, what to order is not known, and not a wrong number', () => {
    const plan = panelByPanel(Plan.parse(DEMO_JOBS[2]?.make()))
    expect(value(plan, 'rail/film_order', catalogue)).toBeNull()
    expect(value(plan, 'rail/cost', catalogue)).toBeNull()
    expect(value(plan, 'rail/film_used', catalogue)).toBeGreaterThan(0)
  })
  it('edges that face each other and mirrored panels have to agree', () => {
    const plan = Plan.parse(DEMO_JOBS[0]?.make())
    expect(codes(plan)).not.toContain('edges_disagree')
    const off = withPanel(plan, 'front-door-left', (p) => ({
      edges: p.edges.map((e) => (e.at === 'right' ? { ...e, lengthMm: 600 } : e)),
    }))
    expect(codes(off)).toContain('edges_disagree')
    expect(codes(withPanel(plan, 'wing-left', () => ({ widthMm: 700 })))).toContain('mirror_differs')
  })
})

describe('layout and buying', () => {
  it('a kept layout stands until its pieces change', () => {
    const plan = handCar()
    const kept = {
      ...plan,
      layout: { ...plan.layout, kept: reckon(plan, EMPTY_CATALOGUE, []).layouts.map(keepLayout) },
    }
    expect(reckon(Plan.parse(kept), EMPTY_CATALOGUE, []).layouts[0]?.kept).toBe('current')
    const changed = withPanel(kept, 'door', () => ({ widthMm: 1060 }))
    expect(codes(changed)).toContain('layout_stale')
  })
  it('directional film: sides all the same way up, the bonnet may turn', () => {
    const plan = Plan.parse({ ...handCar(), film: { mainId: 'dusk-shift', sheets: [film('dusk-shift')] } })
    const turns = Object.fromEntries(reckon(plan, EMPTY_CATALOGUE, []).pieces.map((p) => [p.id, p.turn]))
    expect(turns).toEqual({ bonnet: 'quarter', door: 'fixed', wing: 'fixed' })
    const always = { ...plan, method: { ...plan.method, direction: 'always' as const } }
    expect(reckon(always, EMPTY_CATALOGUE, []).pieces.every((p) => p.turn === 'fixed')).toBe(true)
  })
  it('the order rule against trying every quantity', () => {
    for (const id of ['fen-satin', 'heron-gloss', 'reed-sheet'])
      for (const used of [1, 999, 1000, 1001, 2999.9, 3000, 3000.5, 10960]) {
        const f = film(id)
        const step = f.soldBy.unit === 'metre' ? 1000 : f.soldBy.unit === 'half_metre' ? 500 : (f.rollLengthsMm[0] ?? 0)
        let q = step
        while (q < used - 1e-6 || q < f.soldBy.minimumMm) q += step
        // In bands that no step divides for nothing: whole steps, and what is left over.
        const bands = [...Array.from({ length: Math.floor(used / step) }, () => step), used % step].filter(
          (b) => b > 1e-9,
        )
        expect(orderFor(f, f.widthsMm[0] ?? 0, bands).orderMm, `${id} ${used}`).toBe(q)
      }
  })
  it('one lot on the shelf that is long enough means nothing to buy; two lots together do not', () => {
    expect(value(handCar(), 'rail/film_order', catalogue)).toBe(0)
    const car = Plan.parse(DEMO_JOBS[0]?.make())
    expect(value(car, 'rail/film_order', catalogue)).toBeGreaterThan(8000)
    expect(codes(car, catalogue)).toContain('two_lots')
  })
})

describe('run sheet and ledger', () => {
  it('goes from preparation to handover, rear before front, with the film’s waits', () => {
    const steps = reckon(Plan.parse(DEMO_JOBS[1]?.make()), catalogue, []).steps
    const at = (id: string) => steps.findIndex((s) => s.id === id)
    expect(at('wash')).toBeLessThan(at('degrease'))
    // Washed outside, one night inside, and only then are parts taken off: one night serves drying and warming.
    expect(at('wash')).toBeLessThan(at('bring_in'))
    expect(at('bring_in')).toBeLessThan(at('hardware_off'))
    expect(
      steps.filter((s) => s.waitMin >= 600 && !['rest', 'gas_out', 'film_in'].includes(s.code)).map((s) => s.code),
    ).toEqual(['bring_in'])
    expect(at('lay:boot-lid')).toBeLessThan(at('lay:bonnet'))
    expect(at('lay:bonnet')).toBeLessThan(at('lay:front-bumper.2'))
    expect(at('degrease:bonnet')).toBe(at('lay:bonnet') - 1)
    expect(at('post_heat:bonnet')).toBe(at('trim:bonnet') + 1)
    expect(at('post_heat:bonnet')).toBeLessThan(at('hardware_on'))
    expect(at('hardware_on')).toBeLessThan(at('check_round'))
    expect(steps.at(-1)?.code).toBe('hand_over')
    expect(steps[at('lay:bonnet')]?.waitMin).toBe(30) // multi-layer film: 30 min before cutting
    expect(steps.find((s) => s.code === 'rest')?.waitMin).toBe(24 * 60)
    expect(steps[at('lay:bonnet')]?.people).toBe(2)
  })
  it('printed film stands 24–48 h before it is laminated', () =>
    expect(
      reckon(Plan.parse(DEMO_JOBS[2]?.make()), catalogue, []).steps.find((s) => s.code === 'gas_out')?.waitMin,
    ).toBe(48 * 60))
  it('readings over the film’s range are done and noted, over its heat limit they are not; bounds included', () => {
    const plan = handCar()
    const point = reckon(plan, catalogue, []).points.find((p) => p.panelId === 'bonnet')
    if (!point) throw new Error('no point')
    const read = (...temps: number[]) =>
      reckon(
        plan,
        catalogue,
        temps.map((tempC) => row({ kind: 'reading', pieceId: point.pieceId, pointId: point.id, tempC, gunAway: true })),
      ).points.find((p) => p.id === point.id)
    expect(read(55, 71)).toMatchObject({ state: 'due', readings: [{ verdict: 'under' }, { verdict: 'under' }] })
    expect(read(79.9)?.state).toBe('due')
    expect(read(80)?.state).toBe('done')
    expect(read(95)?.state).toBe('done')
    expect(read(96)).toMatchObject({ state: 'done', readings: [{ verdict: 'over' }] })
    expect(read(120)?.state).toBe('done')
    expect(read(120.5)).toMatchObject({ state: 'due', readings: [{ verdict: 'too_hot' }] })
    expect(read(55, 71, 90)?.state).toBe('done')
  })
  it('an inner part of a divided panel has no reading at edges it does not reach', () => {
    const points = reckon(Plan.parse(DEMO_JOBS[1]?.make()), catalogue, []).points.filter(
      (p) => p.panelId === 'front-bumper',
    )
    const at = (part: number) => points.filter((p) => p.pieceId === `front-bumper.${part}`).map((p) => p.name || p.kind)
    // Film of several layers is heated along every edge; corners, named by their edge, are places of their own.
    expect([at(1), at(2), at(3)]).toEqual([
      ['top', 'bottom', 'left', 'bottom'],
      ['top', 'bottom', 'overlap'],
      ['top', 'right', 'bottom', 'right', 'overlap'],
    ])
  })
  it('film cut from two lots is told', () => {
    const cut = (stockId: string) => row({ kind: 'film_used', stockId, lengthMm: 1000 })
    const [a, b] = catalogue.stock.filter((s) => s.filmId === 'fen-satin')
    const r = reckon(handCar(), catalogue, [cut(a?.id ?? ''), cut(b?.id ?? '')])
    expect(r.findings.find((f) => f.code === 'lots_mixed')?.facts.lots).toBe('T26-0417, T26-0533')
  })
  it('the recheck falls due 24 h after the rest began', () => {
    const done = row({ kind: 'step_done', stepId: 'rest' }, '2026-11-18T16:00:00.000Z')
    const r = reckon(handCar(), catalogue, [done])
    expect(r.recheckDueAt).toBe('2026-11-19T16:00')
    expect(r.findings.map((f) => f.code)).toContain('recheck_overdue')
  })
})
