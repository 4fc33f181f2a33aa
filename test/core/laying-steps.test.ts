import { describe, expect, it } from 'vitest'
import { jobSchedule } from '@/core/engines/schedule/job-schedule'
import { ROUGH_LEAVE_MM, roughCuts } from '@/core/engines/run-sheet/rough-cuts'
import { arcPoints } from '@/core/kit/plane'
import { outlineOf } from '@/core/model/vehicle/outline'
import { pointWindow } from '@/core/engines/heat/point-window'
import { lotResidue, sheetOfLot, stripLoss } from '@/core/model/film/strip-test'
import { StockItem, StripTest, type FilmSheet } from '@/core/model/film/schema'
import { stretchKey } from '@/core/model/catalogue/stretch-key'
import type { LogRow } from '@/core/model/log/schema'
import { applyChange } from '@/core/model/plan/plan-change'
import { Plan } from '@/core/model/plan/schema'
import { hoursOf, DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_MORE_JOBS } from '@/db/demo/more-jobs'
import { catalogue, choiceOf, film as filmCalled, handCar, row } from '../fixtures/plans'

const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const stepsOf = (plan: Plan, ledger: LogRow[] = []) => reckon(plan, catalogue, ledger).steps
const ofPanel = (plan: Plan, panelId: string, ledger: LogRow[] = []) =>
  stepsOf(plan, ledger).filter((s) => s.panelId === panelId)
const inParts = (plan: Plan, panelId: string, parts: number, along: 'width' | 'height'): Plan => ({
  ...plan,
  pieces: [...plan.pieces.filter((c) => c.panelId !== panelId), { ...choiceOf(plan, panelId), parts, along }],
})
const by = (plan: Plan, method: Partial<Plan['method']>): Plan => ({ ...plan, method: { ...plan.method, ...method } })
const withFilm = (plan: Plan, over: Partial<FilmSheet>): Plan => ({
  ...plan,
  film: { ...plan.film, sheets: plan.film.sheets.map((s) => (s.id === plan.film.mainId ? { ...s, ...over } : s)) },
})
const doneRow = (stepId: string, at: string): LogRow => row({ kind: 'step_done', stepId }, at)

describe('steps of a panel of several pieces', () => {
  const door = hatch.panels.find((p) => p.kind === 'door' && p.side === 'left')?.id ?? ''
  const right = hatch.panels.find((p) => p.kind === 'door' && p.side === 'right')?.id ?? ''

  it('one piece is one step, by the panel’s own id; parts are steps in the order in which they are laid', () => {
    expect(ofPanel(hatch, door).map((s) => s.id)).toContain(`lay:${door}`)
    const laid = (plan: Plan, of: string) =>
      ofPanel(plan, of)
        .filter((s) => s.code === 'lay')
        .map((s) => s.id)
    // The lower part first: its lap then faces down.
    expect(laid(inParts(hatch, door, 2, 'height'), door)).toEqual([`lay:${door}.2`, `lay:${door}.1`])
    // The rear part first: on the left it is the right-hand one as one looks at the door, on the right the left-hand one.
    expect(laid(inParts(hatch, door, 3, 'width'), door)).toEqual([3, 2, 1].map((n) => `lay:${door}.${n}`))
    expect(laid(inParts(hatch, right, 3, 'width'), right)).toEqual([1, 2, 3].map((n) => `lay:${right}.${n}`))
  })

  it('the seam is a step of its own after the last piece, by its metres; nothing is cut before that piece lies', () => {
    const split = inParts(withFilm(hatch, { waitBeforeCutMin: 30 }), door, 2, 'height')
    const own = ofPanel(split, door)
    expect(own.map((s) => s.code)).toEqual(['degrease_panel', 'lay', 'lay', 'seam', 'trim', 'post_heat'])
    expect(own.filter((s) => s.code === 'lay').map((s) => s.waitMin)).toEqual([0, 30])
    const width = hatch.panels.find((p) => p.id === door)?.widthMm ?? NaN
    expect(Number(own.find((s) => s.code === 'seam')?.facts.length_mm)).toBeCloseTo(width, 0)
  })

  it('laying is shared out by film: two parts take what one takes and one more dry fit and seam', () => {
    const sum = (plan: Plan) =>
      ofPanel(plan, door).reduce((total, s) => (s.code === 'lay' ? total + s.minutes : total), 0)
    const more = sum(inParts(hatch, door, 2, 'height')) - sum(hatch)
    expect(more).toBeGreaterThanOrEqual(2)
    expect(more).toBeLessThanOrEqual(5)
  })

  it('what was logged for the whole panel counts for its pieces, and a left-out laying leaves them all out', () => {
    const split = inParts(hatch, door, 2, 'height')
    const old = ofPanel(split, door, [doneRow(`lay:${door}`, '2026-11-24T10:00:00.000Z')])
    expect(old.filter((s) => /lay|seam|degrease/.test(s.code)).every((s) => s.state === 'done')).toBe(true)
    const skipped = { ...split, runSheet: { ...split.runSheet, skip: [`lay:${door}`] } }
    expect(
      ofPanel(skipped, door)
        .filter((s) => s.state === 'skipped')
        .map((s) => s.code),
    ).toEqual(['degrease_panel', 'lay', 'lay', 'seam'])
  })

  it('a window counts from the laying of each piece: the first one closes it', () => {
    const sheet = { postHeatFromMin: 30, postHeatUntilMin: 600 }
    const split = inParts(withFilm(hatch, sheet), door, 2, 'height')
    const ledger = [
      doneRow(`lay:${door}.2`, '2026-11-24T08:00:00.000Z'),
      doneRow(`lay:${door}.1`, '2026-11-24T09:00:00.000Z'),
    ]
    const { points, steps } = reckon(split, catalogue, ledger)
    const until = (piece: string) => {
      const point = points.find((p) => p.pieceId === piece)
      return point && pointWindow(point, sheet, ledger, '2026-11-24T10:00').until
    }
    expect(until(`${door}.2`)).toBe('2026-11-24T18:00:00Z')
    expect(until(`${door}.1`)).toBe('2026-11-24T19:00:00Z')
    const heat = steps.find((s) => s.id === `post_heat:${door}`)
    expect(heat?.waits.filter((w) => w.mostMin === 600).map((w) => w.id)).toEqual([`lay:${door}.2`, `lay:${door}.1`])
    const clock = { hours: hoursOf(DEFAULT_SHOP), timeZone: 'UTC', last: null, ready: 'recheck' as const }
    const start = { ...split, runSheet: { ...split.runSheet, startAt: '2026-11-23T08:00' } }
    expect(jobSchedule(start, stepsOf(start), clock)?.missesWindow).toBe(false)
  })

  it('sheets of a hull are laid aft to fore, the lowest row first, each as a step', () => {
    const boat = DEMO_MORE_JOBS.map((j) => Plan.parse(j.make())).find((p) => p.vehicle.kind === 'boat')
    const sheets = boat ? stepsOf(boat).filter((s) => s.code === 'lay' && /\.s\d+$/.test(s.id)) : []
    expect(sheets.length).toBeGreaterThan(3)
    for (const id of new Set(sheets.map((s) => s.panelId))) {
      const numbers = sheets.filter((s) => s.panelId === id).map((s) => Number(/\.s(\d+)$/.exec(s.id)?.[1]))
      expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
    }
  })
})

describe('schools of tension', () => {
  it('relax first is a step before the last degrease, with the cap sheet off; where nothing is to relax, none', () => {
    const relaxed = withFilm(by(hatch, { tension: 'relax_first' }), { rollResidue: 0.04, capSheet: true })
    const own = ofPanel(relaxed, 'bonnet')
    expect(own[0]).toMatchObject({ id: 'relax:bonnet', code: 'relax', facts: { cap: 1, residue: 0.04 } })
    expect(own[1]?.code).toBe('degrease_panel')
    expect(own[1]?.waits.map((w) => w.id)).toEqual(['relax:bonnet'])
    expect(ofPanel(withFilm(relaxed, { rollResidue: 0 }), 'bonnet')[0]?.code).toBe('degrease_panel')
    expect(ofPanel(hatch, 'bonnet')[0]?.code).toBe('degrease_panel')
  })

  it('the rim tacked and slack shrunk out: longer, warm, by the gun; its stretch is that of triangles', () => {
    const shrunk = by(hatch, { tension: 'rim_shrunk' })
    const [tri, rim] = [by(hatch, { tension: 'triangles' }), shrunk].map((p) =>
      ofPanel(p, 'bonnet').find((s) => s.code === 'lay'),
    )
    expect(rim?.minutes).toBeGreaterThan(tri?.minutes ?? Infinity)
    expect(rim?.tools).toContain('gun')
    expect(rim?.range).toEqual(hatch.film.sheets.find((s) => s.id === hatch.film.mainId)?.shapingC)
    const panel = hatch.panels.find((p) => p.id === 'bonnet')
    const sheet = hatch.film.sheets[0]
    if (!panel || !sheet) throw new Error('no bonnet')
    const key = (tension: Plan['method']['tension']) => stretchKey(by(hatch, { tension }), panel, sheet)
    expect(key('rim_shrunk')).toBe(key('triangles'))
    expect(key('relax_first')).not.toBe(key('triangles'))
  })

  it('a film that hardly shrinks rules it out, and says why', () => {
    const codes = (heatShrink: number) =>
      reckon(withFilm(by(handCar(), { tension: 'rim_shrunk' }), { heatShrink }), catalogue, []).findings.map(
        (f) => f.code,
      )
    expect(codes(0.02)).toContain('veto_slack_stays')
    expect(codes(0.06)).not.toContain('veto_slack_stays')
  })
})

const film = filmCalled('fen-satin')

describe('strip tests', () => {
  const strip = (beforeMm: number, afterMm: number, over: object = {}): StripTest =>
    StripTest.parse({
      id: crypto.randomUUID(),
      beforeMm,
      afterMm,
      acrossBeforeMm: null,
      acrossAfterMm: null,
      at: '2026-11-20T08:00:00Z',
      by: 'Tamsin Brack',
      ...over,
    })
  const roll = (lot: string, strips: StripTest[]) =>
    StockItem.parse({
      id: `roll-${lot}`,
      filmId: 'fen-satin',
      kind: 'roll',
      label: lot,
      lot,
      widthMm: 1520,
      leftMm: 25_000,
      strips,
    })

  it('what a strip lost is its share: 1,000 mm that draw back to 962 held 3.8 %', () => {
    expect(stripLoss(strip(1000, 962)).along).toBeCloseTo(0.038, 12)
    expect(stripLoss(strip(1000, 962)).across).toBeNull()
    expect(stripLoss(strip(1000, 962, { acrossBeforeMm: 100, acrossAfterMm: 99 })).across).toBeCloseTo(0.01, 12)
  })

  it('a lot is the middle of its strips over all of its rolls; another lot’s do not count', () => {
    const stock = [roll('A', [strip(1000, 960)]), roll('A', [strip(500, 475)]), roll('B', [strip(1000, 990)])]
    expect(lotResidue(stock, 'fen-satin', 'A')).toEqual({ residue: 0.045, tests: 2 })
    expect(lotResidue(stock, 'fen-satin', 'B')?.residue).toBeCloseTo(0.01, 12)
    expect(lotResidue(stock, 'fen-satin', 'C')).toBeNull()
    expect(lotResidue(stock, 'another', 'A')).toBeNull()
  })

  it('a strip that grew, lost a fifth, or was measured across but once is refused at its field', () => {
    const at = (over: object) => {
      const out = StripTest.safeParse({ ...strip(1000, 960), ...over })
      return out.success ? null : [out.error.issues[0]?.message, out.error.issues[0]?.path[0]]
    }
    expect(at({ afterMm: 1001 })).toEqual(['strip_grew', 'afterMm'])
    expect(at({ afterMm: 800 })).toEqual(['strip_past_belief', 'afterMm'])
    expect(at({ acrossBeforeMm: 100 })).toEqual(['strip_half_measured', 'acrossAfterMm'])
    expect(at({})).toBeNull()
  })

  it('a job that relaxes first and is cut from a tested lot is told, takes it by one click, and is told no more', () => {
    const plan = by(handCar(), { tension: 'relax_first' })
    const stock = [roll('K-7', [strip(1000, 948)])]
    const at = (p: Plan) => reckon(p, { ...catalogue, stock }, [])
    const named: Plan = { ...plan, layout: { ...plan.layout, sources: [{ filmId: film.id, source: 'lot:K-7' }] } }
    const told = at(named).findings.find((f) => f.code === 'lot_residue')
    expect(told?.facts).toMatchObject({ lot: 'K-7', residue: 0.052, sheet: film.rollResidue, tests: 1 })
    const change = told?.waysOut[0]?.change
    if (!change) throw new Error('no way out')
    const taken = applyChange(named, change)
    expect(at(taken).findings.some((f) => f.code === 'lot_residue')).toBe(false)
    expect(Plan.safeParse(taken).success).toBe(true)
    // Cut sizes along the roll grow by the lot's own tension, and say that it was measured.
    const width = at(taken).pieces[0]?.figures
    const residue = [width?.width, width?.height].flatMap((f) => f?.inputs ?? []).find((i) => i.key === 'residue')
    expect(residue).toMatchObject({ value: 0.052, standing: 'measured' })
    // By triangles it changes nothing, so nothing is said.
    expect(at(by(named, { tension: 'triangles' })).findings.some((f) => f.code === 'lot_residue')).toBe(false)
    expect(sheetOfLot(film, 0.01)).toMatchObject({ rollResidue: 0.01, standings: { rollResidue: 'measured' } })
  })
})

describe('rough cut-outs', () => {
  const panels = DEMO_JOBS.flatMap((j) => Plan.parse(j.make()).panels)
  const arched = panels.filter((p) => p.edges.some((e) => e.meets === 'wheel_arch' && e.riseMm < -100))

  it('follow a wheel arch at what is left beyond it, within the piece, and only where film stands over', () => {
    expect(arched.length).toBeGreaterThan(0)
    for (const panel of arched) {
      const outline = outlineOf(panel)
      const cuts = roughCuts(panel, 50).filter((c) => c.meets === 'wheel_arch')
      for (const { line, edgeId } of cuts) {
        const side = outline.edges.find((e) => e.edge.id === edgeId)
        if (!side) throw new Error(edgeId)
        const arch = [side.from, ...arcPoints(side.from, side.to, side.edge.riseMm, 400)]
        for (const p of line) {
          const away = Math.min(...arch.map((a) => Math.hypot(a.x - p.x, a.y - p.y)))
          expect(away).toBeGreaterThan(ROUGH_LEAVE_MM - 4)
          expect(away).toBeLessThan(ROUGH_LEAVE_MM + 2)
          expect(p.y).toBeLessThanOrEqual(outline.heightMm + 50)
        }
      }
    }
    expect(arched.some((p) => roughCuts(p, 50).length > 0)).toBe(true)
  })

  it('a straight edge at the rim of the piece has none: nothing stands over by so much', () => {
    const bonnet = hatch.panels.find((p) => p.id === 'bonnet')
    if (!bonnet) throw new Error('no bonnet')
    const straight = { ...bonnet, edges: bonnet.edges.map((e) => ({ ...e, meets: 'lamp' as const, riseMm: 0 })) }
    expect(roughCuts(straight, 50)).toEqual([])
    // With film enough beyond it there is something to cut.
    expect(roughCuts(straight, 150).length).toBeGreaterThan(0)
    expect(
      roughCuts({ ...straight, edges: straight.edges.map((e) => ({ ...e, meets: 'opening' as const })) }, 150),
    ).toEqual([])
  })

  it('are told with the step that they come before', () => {
    const plans = DEMO_JOBS.map((j) => Plan.parse(j.make()))
    const told = plans.flatMap((plan) =>
      stepsOf(plan).flatMap((s) => {
        const panel = plan.panels.find((p) => p.id === s.panelId)
        return s.code === 'lay' && panel ? [{ s, cuts: roughCuts(panel, plan.method.bleedMm).length }] : []
      }),
    )
    expect(told.some((t) => t.cuts > 0)).toBe(true)
    for (const { s, cuts } of told.filter((t) => !t.s.facts.inlay)) expect(s.facts.rough ?? 0, s.id).toBe(cuts)
  })
})
