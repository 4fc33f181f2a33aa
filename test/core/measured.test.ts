import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dewPointC, timeConstantMin, warmingMinutes } from '@/core/engines/conditions/air'
import { costTogether, panelFitness } from '@/core/stages/film/fitness'
import { filmsFromTable, filmTable } from '@/core/model/film/film-table'
import { civilToMinutes, minutesToCivil } from '@/core/kit/civil'
import { arcLengthMm, chordMm, segmentAreaMm2 } from '@/core/kit/plane'
import { readTable, safeCell } from '@/core/kit/table'
import { vetoes } from '@/core/stages/film/vetoes'
import { CAREFUL } from '@/core/model/method/schema'
import { mergePlans } from '@/core/model/plan/merge'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { SEALS } from '@/core/model/edge/cut-rules'
import { reckon } from '@/core/reckon/reckon'
import { sagittaRadiusMm } from '@/core/engines/stretch/closed-forms'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import { mirrorPanel } from '@/core/model/vehicle/mirror'
import { outlineOf, panelAreaMm2 } from '@/core/model/vehicle/outline'
import { panelsFromTable, panelTable } from '@/core/stages/tape/panel-table'
import { slipOf } from '@/core/stages/tape/suspects'
import { setSize } from '@/core/model/vehicle/resize'
import { fromSkin, skinOf, toSkin } from '@/core/engines/skin/skin'
import { panelAcross } from '@/core/engines/skin/walk'
import { answerSeal, answerTape, questionsOf, sameAsOtherSide, withMeasure } from '@/core/stages/tape/tape-answer'
import { offBy, tapeList, walkingOrder } from '@/core/stages/tape/tape-list'
import { signedMark } from '@/core/model/plan/signed-mark'
import { DEMO_FILMS } from '@/db/demo/films'
import { readCsv, writeCsv } from '@/web/kit/csv'
import { tableFaults } from '@/web/words/table'
import { catalogue, film, handCar, withPanel } from '../fixtures/plans'

const hatch = (): Plan => ({ ...handCar(), panels: familyPanels('city_car', usualKeys('city_car')), pieces: [] })
const panelOf = (plan: Plan, id: string) => {
  const found = plan.panels.find((p) => p.id === id)
  if (!found) throw new Error(id)
  return found
}
const codes = (plan: Plan) => reckon(plan, catalogue, []).findings

describe('arcs (sagitta formulas of any handbook of geometry)', () => {
  it('a half circle and a quarter circle', () => {
    expect(arcLengthMm(200, 100)).toBeCloseTo(Math.PI * 100, 9)
    expect(arcLengthMm(100 * Math.SQRT2, 100 * (1 - Math.SQRT1_2))).toBeCloseTo((Math.PI * 100) / 2, 9)
    expect(segmentAreaMm2(200, 100)).toBeCloseTo((Math.PI * 100 ** 2) / 2, 6)
    expect(sagittaRadiusMm(100, 200)).toBeCloseTo(100, 9)
  })
  it('the chord comes back from the arc', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 5000, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (c, share) => {
          expect(chordMm(arcLengthMm(c, c * share), c * share)).toBeCloseTo(c, 3)
        },
      ),
    ))
  it('a rise of more than a half circle has no chord', () => expect(chordMm(300, 100)).toBeNull())
})

describe('dew point (Magnus form)', () => {
  // Dew points of DIN 4108-3 (from memory; the table gives tenths of a degree).
  it.each([
    [30, 0.3, 10.5],
    [30, 0.5, 18.4],
    [30, 0.8, 26.2],
    [25, 0.4, 10.5],
    [25, 0.5, 13.9],
    [25, 0.6, 16.7],
    [25, 0.8, 21.3],
    [20, 0.3, 1.9],
    [20, 0.4, 6.0],
    [20, 0.5, 9.3],
    [20, 0.6, 12.0],
    [20, 0.7, 14.4],
    [20, 0.8, 16.4],
    [20, 0.9, 18.3],
    [15, 0.5, 4.7],
    [15, 0.8, 11.6],
    [10, 0.6, 2.6],
    [10, 0.9, 8.4],
  ])('%d °C at %d of full humidity: %d °C', (air, humidity, dew) =>
    expect(Math.abs(dewPointC(air, humidity) - dew)).toBeLessThan(0.11),
  )
  it('saturated air is at its dew point', () => expect(dewPointC(17, 1)).toBeCloseTo(17, 9))
})

describe('warming by lumped capacity', () => {
  it('after one time constant 63.2 % of the way is done, after three 95.0 %', () => {
    expect(warmingMinutes(0, 20, 20 * (1 - Math.exp(-1)), 60)).toBeCloseTo(60, 9)
    expect(warmingMinutes(0, 20, 20 * 0.9502, 60)).toBeCloseTo(180, 0)
    expect(timeConstantMin(1000, 500, 8, 20)).toBeCloseTo((1000 * 500) / 160 / 60, 9)
  })
  it('a room never brings a body past itself; a warm one needs no time', () => {
    expect(warmingMinutes(5, 15, 15.5, 60)).toBeNull()
    expect(warmingMinutes(18, 20, 15.5, 60)).toBe(0)
  })
  it('a cold vehicle has to be in the day before, and the working adds up', () => {
    const plan: Plan = {
      ...handCar(),
      conditions: { vehicleC: 4, massKg: 1200, wet: true, airC: 20, humidity: 0.5 },
      runSheet: { ...handCar().runSheet, startAt: '2026-11-25T08:00' },
    }
    const { figures } = reckon(plan, catalogue, [])
    const get = (k: string) => figures.get(`conditions/${k}`)?.value
    expect(get('target')).toBe(15.5)
    const tau = get('tau') as number
    expect(get('warming')).toBeCloseTo(tau * Math.log((20 - 4) / (20 - 15.5)), 6)
    expect(get('lead')).toBeCloseTo((get('warming') as number) + 720, 6)
    // Washed on Wednesday at eight, brought in, stood twelve hours: work goes on on Thursday at eight, and reckons back from
    // there.
    expect(get('in_by')).toBe(
      minutesToCivil(Math.floor((civilToMinutes('2026-11-26T08:00') ?? 0) - (get('lead') as number))),
    )
    const skipped = reckon({ ...plan, runSheet: { ...plan.runSheet, skip: ['bring_in'] } }, catalogue, [])
    expect(String(skipped.figures.get('conditions/in_by')?.value) < '2026-11-24T20:00').toBe(true)
    expect(codes(plan).map((f) => f.code)).toContain('vehicle_sweats')
  })
  it('a surface within 3 °C of the dew point stops the job (ISO 8502-4)', () => {
    const climate = (surfaceC: number) => ({
      ...catalogue,
      climate: [{ at: '2026-11-20T08:00:00Z', airC: 20, humidity: 0.8, surfaceC, by: 'x' }],
    })
    const stops = (c: number) => reckon(handCar(), climate(c), []).findings.map((f) => f.code)
    expect(stops(19)).toContain('surface_near_dew')
    expect(stops(19.6)).not.toContain('surface_near_dew')
  })
})

describe('outlines', () => {
  it('edges and angles of a right-angled figure give its corners and area', () => {
    const p = { ...newPanel({ id: 'p', name: 'P', kind: 'door', side: 'left', widthMm: 400, heightMm: 300 }) }
    const square = { ...p, edges: p.edges.map((e) => ({ ...e, cornerDeg: 90 })) }
    expect(outlineOf(square)).toMatchObject({
      measured: true,
      closureMm: expect.closeTo(0, 6),
      areaMm2: expect.closeTo(120000, 3),
      widthMm: expect.closeTo(400, 6),
    })
  })
  it('a panel’s area is that within its outline, stretched to its sizes, less its holes', () => {
    const p = newPanel({ id: 'p', name: 'P', kind: 'door', side: 'left', widthMm: 400, heightMm: 300 })
    expect(panelAreaMm2(p)).toBe(120000)
    // A right-angled triangle with its corner cut off is half its box and a little more: legs 400 and 300, hypotenuse
    // 500.
    const cut = {
      ...p,
      edges: p.edges.map((e, i) => ({
        ...e,
        lengthMm: [1e-6, 500, 400, 300][i] ?? 0,
        cornerDeg: [180 - 53.13010235, 36.86989765, 90, 90][i] ?? 90,
      })),
    }
    expect(panelAreaMm2(cut) / 120000).toBeCloseTo(0.5, 2)
    expect(
      panelAreaMm2({ ...p, holes: [{ id: 'h', name: 'H', widthMm: 100, heightMm: 50, xMm: null, yMm: null }] }),
    ).toBe(115000)
    const wing = panelOf(hatch(), 'wing-left')
    const area = reckon(hatch(), catalogue, []).figures.get('panel/wing-left/area')
    expect(area?.value).toBeCloseTo(outlineOf(wing).areaMm2, 3)
    expect(area?.value).toBeLessThan(wing.widthMm * wing.heightMm * 0.85)
  })
  it('one that does not close is stopped, with the edge that is probably wrong and what would close it', () => {
    const plan = hatch()
    const door = panelOf(plan, 'front-door-left')
    const bottom = door.edges.find((e) => e.at === 'bottom')?.lengthMm ?? 0
    const wrong = withPanel(plan, 'front-door-left', (p) => ({
      assumed: [],
      edges: p.edges.map((e) => (e.at === 'bottom' ? { ...e, lengthMm: e.lengthMm - 120 } : e)),
    }))
    const found = codes(wrong).find((f) => f.code === 'outline_open')
    expect(found).toMatchObject({ level: 'stop', panelId: 'front-door-left', facts: { at: 'bottom' } })
    expect(Math.abs((found?.facts.likely_mm as number) - bottom)).toBeLessThan(2)
    expect(found?.facts.gap_mm).toBeCloseTo(120, 3)
  })
  it('an edge longer than all others together cannot close', () => {
    const plan = withPanel(handCar(), 'door', (p) => ({
      edges: p.edges.map((e) => (e.at === 'top' ? { ...e, lengthMm: 5000 } : e)),
    }))
    expect(codes(plan).map((f) => f.code)).toContain('outline_impossible')
  })
  it('a curve that is no curve', () => {
    const plan = withPanel(handCar(), 'door', (p) => ({
      edges: p.edges.map((e) => (e.at === 'top' ? { ...e, riseMm: 600 } : e)),
    }))
    expect(codes(plan).map((f) => f.code)).toContain('rise_too_large')
  })
  it('turned over twice, a panel is itself; once, it keeps area, girth and corner sum', () => {
    for (const p of familyPanels('suv', usualKeys('suv')).filter((x) => x.side === 'left')) {
      const m = mirrorPanel(p)
      expect(mirrorPanel(m).edges.map((e) => [e.id, e.at, e.lengthMm, e.cornerDeg])).toEqual(
        p.edges.map((e) => [e.id, e.at, e.lengthMm, e.cornerDeg]),
      )
      expect(outlineOf(m).areaMm2).toBeCloseTo(outlineOf(p).areaMm2, 3)
      expect(outlineOf(m).closureMm).toBeLessThan(1e-6)
      const sum = m.edges.reduce((s, e) => s + (e.cornerDeg ?? 0), 0)
      expect(sum).toBeCloseTo((m.edges.length - 2) * 180, 6)
    }
  })
  it('a typed size stretches what is assumed and closes; taped edges stay', () => {
    const p = panelOf(hatch(), 'wing-left')
    const wider = setSize(p, 'widthMm', p.widthMm + 70)
    expect(outlineOf(wider).closureMm).toBeLessThan(1e-6)
    expect(outlineOf(wider).widthMm).toBeCloseTo(p.widthMm + 70, 6)
    expect(wider.assumed).not.toContain('widthMm')
    const fixed = { ...p, assumed: p.assumed.filter((f) => f !== 'edges.top') }
    expect(setSize(fixed, 'widthMm', 900).edges.find((e) => e.id === 'top')?.lengthMm).toBe(p.edges[0]?.lengthMm)
  })
})

describe('the figure that is probably wrong', () => {
  it('of two facing edges the assumed one, else the one its mirror does not share', () => {
    const plan = { ...hatch(), panels: hatch().panels.map((p) => ({ ...p, assumed: [] })) }
    const off = withPanel(plan, 'rear-door-left', (p) => ({
      edges: p.edges.map((e) => (e.neighbour === 'front-door-left' ? { ...e, lengthMm: e.lengthMm + 60 } : e)),
    }))
    expect(codes(off).find((f) => f.code === 'edges_disagree')?.facts).toMatchObject({ wrong: 'Rear door left' })
  })
  it('a slip is recognised: nought, inches, digits', () => {
    expect([
      slipOf(68, 680, 15),
      slipOf(6800, 680, 15),
      slipOf(41.4, 1050, 15),
      slipOf(869, 896, 2),
      slipOf(700, 680, 15),
    ]).toEqual(['tenth', 'tenfold', 'inches', 'digits', null])
  })
  it('a size against the taped key lengths, with the slip', () => {
    const plan: Plan = {
      ...hatch(),
      vehicle: { ...handCar().vehicle, kind: 'city_car', keys: usualKeys('city_car'), keysAssumed: [] },
    }
    const typed = answerTape(plan, 'roof', 'widthMm', 112)
    expect(codes(typed).find((f) => f.code === 'against_style')?.facts).toMatchObject({
      field: 'widthMm',
      slip: 'tenth',
    })
  })
  it('a side longer than the vehicle names the panel that grew', () => {
    const plan: Plan = {
      ...hatch(),
      vehicle: { ...handCar().vehicle, kind: 'city_car', keys: usualKeys('city_car'), keysAssumed: [] },
    }
    const long = {
      ...plan,
      panels: plan.panels.map((p) => ({ ...(p.id === 'quarter-left' ? setSize(p, 'widthMm', 1900) : p), assumed: [] })),
    }
    expect(codes(long).find((f) => f.code === 'girth_impossible')?.facts).toMatchObject({
      side: 'left',
      panel: 'Quarter left',
    })
  })
  it('the tolerance is the vehicle’s own', () => {
    const plan = { ...hatch(), panels: hatch().panels.map((p) => ({ ...p, assumed: [] })) }
    const off = withPanel(plan, 'front-door-left', (p) => ({
      edges: p.edges.map((e) => (e.at === 'right' ? { ...e, lengthMm: e.lengthMm + 20 } : e)),
    }))
    const loose = { ...off, vehicle: { ...off.vehicle, toleranceMm: 30 } }
    expect(codes(off).map((f) => f.code)).toContain('edges_disagree')
    expect(codes(loose).map((f) => f.code)).not.toContain('edges_disagree')
  })
  it('what lies off its panel, a straightedge longer than it, a hole as large as it', () => {
    const bad = withPanel(handCar(), 'door', (p) => ({
      crownMm: 5,
      crownOverMm: 3000,
      raised: [
        {
          id: 'h',
          name: 'Handle',
          kind: 'handle' as const,
          widthMm: 200,
          heightMm: 40,
          xMm: 1040,
          yMm: 100,
          removable: true,
          minutes: 5,
          riseMm: null,
          behind: 'tucked' as const,
        },
      ],
      holes: [{ id: 'o', name: 'Hole', widthMm: p.widthMm, heightMm: p.heightMm, xMm: null, yMm: null }],
    }))
    expect(codes(bad).map((f) => f.code)).toEqual(
      expect.arrayContaining(['feature_off_panel', 'straightedge_too_long', 'holes_take_all']),
    )
  })
})

describe('what to tape first', () => {
  it('is ranked by what it does to film and stretch, worst first, and says both', () => {
    const list = tapeList(hatch())
    expect(list.length).toBeGreaterThan(60)
    for (let i = 1; i < list.length; i++) expect(list[i]?.stakeMm2).toBeLessThanOrEqual(list[i - 1]?.stakeMm2 ?? 0)
    // A roof's width moves more film than a handle's.
    const at = (id: string, field: string) => list.findIndex((i) => i.panelId === id && i.field === field)
    expect(at('roof', 'widthMm')).toBeLessThan(at('front-handle-left', 'widthMm'))
    // Right panels are asked for through their left fellows.
    expect(list.some((i) => i.panelId.endsWith('-right'))).toBe(false)
  })
  it('its working holds every number that the rank rests on, and gives the stake', () => {
    for (const item of tapeList(hatch()).slice(0, 30)) {
      const v = Object.fromEntries(item.figure.inputs.map((i) => [i.key, Number(i.value)]))
      const own =
        Math.abs(v.film_high! - v.film_low!) +
        ((v.stretch_high! - v.stretch_low!) / v.limit!) * (v.film! / 2) +
        (item.decides ? v.film! : 0)
      expect(item.figure.value).toBeCloseTo(own, 3)
      expect(item.stakeMm2).toBeCloseTo(own * (item.also ? 2 : 1), 3)
      expect(item.figure.standing).toBe('assumed')
    }
  })
  it('its film figure is the difference that reckoning the moved panel again gives', () => {
    const plan = hatch()
    const item = tapeList(plan).find((i) => i.panelId === 'roof' && i.field === 'widthMm')
    const cut = (factor: number) => {
      const r = reckon(
        { ...plan, panels: plan.panels.map((p) => (p.id === 'roof' ? offBy(p, 'widthMm', factor) : p)) },
        catalogue,
        [],
      )
      return r.pieces.filter((p) => p.panelId === 'roof').reduce((s, p) => s + p.cutWidthMm * p.cutHeightMm, 0)
    }
    expect(item?.filmMm2).toBeCloseTo(cut(1.08) - cut(0.92), -2)
  })
  it('an answer settles both mirrored panels, once; a taped one is not touched', () => {
    const plan = answerTape(hatch(), 'wing-left', 'widthMm', 820)
    expect(panelOf(plan, 'wing-right').widthMm).toBe(820)
    const again = answerTape(plan, 'wing-left', 'widthMm', 830)
    expect(panelOf(again, 'wing-right').widthMm).toBe(820)
    const same = sameAsOtherSide(again, 'wing-right')
    expect(panelOf(same, 'wing-right').widthMm).toBe(830)
    expect(panelOf(same, 'wing-right').edges.find((e) => e.neighbour === 'front-door-right')).toBeDefined()
  })
  it('every assumed figure with a question can be answered, and is then no longer assumed', () => {
    for (const p of hatch().panels)
      for (const q of questionsOf(p)) {
        const after = answerTape(hatch(), p.id, q.field, q.mm)
        expect(panelOf(after, p.id).assumed).not.toContain(q.field)
      }
  })
  it('a seal is felt for both sides, by a word; what it takes under it follows, on that edge alone', () => {
    const sealed = (plan: Plan, id: string) => panelOf(plan, id).edges.filter((e) => SEALS.includes(e.meets))
    const door = 'front-door-left'
    const asked = questionsOf(panelOf(hatch(), door)).filter((q) => q.ask === 'seal')
    expect(asked.map((q) => q.about)).toEqual(sealed(hatch(), door).map((e) => e.id))
    const [first] = asked
    if (!first) throw new Error('no seal')
    expect(first).toMatchObject({ assumed: true, words: { chosen: null } })
    const tuck = (plan: Plan, id: string) =>
      reckon(plan, catalogue, []).edges.edges.filter((e) => e.panelId === id && e.edgeId === first.about)[0]?.tuckMm
    const loose = answerSeal(hatch(), door, first.field, 'loose')
    expect([tuck(answerSeal(hatch(), door, first.field, 'tight'), door), tuck(loose, door)]).toEqual([3, 19])
    expect(sealed(loose, 'front-door-right').find((e) => e.id === first.about)?.tightness).toBe('loose')
    expect(questionsOf(panelOf(loose, door)).find((q) => q.field === first.field)?.assumed).toBe(false)
    // The other side keeps what was felt there; nothing else of the panel is touched.
    const again = answerSeal(loose, door, first.field, 'brittle')
    expect(sealed(again, 'front-door-right').find((e) => e.id === first.about)?.tightness).toBe('loose')
    expect({ ...panelOf(again, door), edges: [] }).toEqual({ ...panelOf(hatch(), door), edges: [] })
  })
  it('a gap is gauged for both sides; one as wide as a window is a span; the usual one stands until then', () => {
    const wing = panelOf(hatch(), 'wing-left')
    const [first] = questionsOf(wing).filter((q) => q.ask === 'gap')
    if (!first) throw new Error('no gap')
    const edgeOf = (plan: Plan, id: string) => panelOf(plan, id).edges.find((e) => e.id === first.about)
    expect(first).toMatchObject({ field: `gaps.${first.about}`, assumed: true })
    expect(first.mm).toBeGreaterThan(0)
    const plan = answerTape(hatch(), 'wing-left', first.field, 3.5)
    expect(edgeOf(plan, 'wing-left')).toMatchObject({ gapMm: 3.5, spanMm: null })
    expect(edgeOf(plan, 'wing-right')?.gapMm).toBe(3.5)
    expect(questionsOf(panelOf(plan, 'wing-left')).find((q) => q.field === first.field)).toMatchObject({
      mm: 3.5,
      assumed: false,
    })
    // The other side keeps what was gauged there.
    const again = answerTape(plan, 'wing-left', first.field, 4)
    expect(edgeOf(again, 'wing-right')?.gapMm).toBe(3.5)
    const wide = answerTape(hatch(), 'wing-left', first.field, 380)
    expect(edgeOf(wide, 'wing-left')).toMatchObject({ gapMm: null, spanMm: 380 })
    // Glass and wheels are no gaps.
    const meets = (q: { about: string }) => wing.edges.find((e) => e.id === q.about)?.meets
    expect(questionsOf(wing).flatMap((q) => (q.ask === 'gap' ? [meets(q)] : []))).not.toContain('wheel_arch')
  })
  it('sizes of what is on a panel are typed by name, and are then taped', () => {
    const door = panelOf(hatch(), 'front-door-left')
    const typed = withMeasure(door, 'recesses.cup.mouthWidthMm', 141)
    expect(typed.recesses[0]?.mouthWidthMm).toBe(141)
    expect(typed.assumed).not.toContain('recesses.cup')
    expect(withMeasure(door, 'nothing.at.all', 1)).toBe(door)
  })
  it('one walks front, left, rear, right, top', () =>
    expect([...new Set(walkingOrder(hatch().panels).map((p) => p.side))]).toEqual([
      'front',
      'left',
      'rear',
      'right',
      'centre',
    ]))
})

describe('the skin', () => {
  const skin = skinOf(hatch().panels)
  it('places on a panel go to the map and back', () => {
    for (const p of hatch().panels) {
      const at = skin.panels.find((s) => s.id === p.id)
      if (!at) throw new Error(p.id)
      const back = fromSkin(at, p, toSkin(at, p, p.widthMm * 0.3, p.heightMm * 0.8))
      expect([back.xMm, back.yMm]).toEqual([Math.round(p.widthMm * 0.3), Math.round(p.heightMm * 0.8)])
    }
  })
  it('is true to scale: every outline keeps its area and edges', () => {
    for (const s of skin.panels) {
      const p = panelOf(hatch(), s.id)
      const sum = s.edges.reduce((t, e) => t + Math.hypot(e.to.x - e.from.x, e.to.y - e.from.y), 0)
      const own = outlineOf(p).edges.reduce((t, e) => t + Math.hypot(e.to.x - e.from.x, e.to.y - e.from.y), 0)
      expect(sum).toBeCloseTo(own, 6)
    }
  })
  it('an arrow goes across the edge pressed', () => {
    expect(panelAcross(skin, 'front-door-left', 'right')).toBe('rear-door-left')
    expect(panelAcross(skin, 'front-door-left', 'left')).toBe('wing-left')
    expect(panelAcross(skin, 'front-door-left', 'down')).toBe('sill-left')
    expect(panelAcross(skin, 'front-door-right', 'up')).toBe('sill-right')
    expect(panelAcross(skin, 'bonnet', 'left')).toBe('front-bumper')
  })
  it('from any panel the arrows reach every other', () => {
    for (const start of skin.panels) {
      const seen = new Set([start.id])
      const queue = [start.id]
      for (let id = queue.pop(); id; id = queue.pop())
        for (const toward of ['up', 'down', 'left', 'right'] as const) {
          const next = panelAcross(skin, id, toward)
          if (next && !seen.has(next)) {
            seen.add(next)
            queue.push(next)
          }
        }
      expect(skin.panels.filter((p) => !seen.has(p.id) && p.on === null).map((p) => p.id)).toEqual([])
    }
  })
})

describe('the measurement sheet as CSV', () => {
  const round = (plan: Plan) => panelsFromTable(readOk(writeCsv(panelTable(plan.panels))), plan.panels)
  const readOk = (text: string) => {
    const rows = readCsv(text)
    if (!rows.ok) throw new Error('csv')
    return rows.value
  }
  const said = (text: string, plan = handCar()) => {
    const rows = readCsv(text)
    const out = rows.ok ? panelsFromTable(rows.value, plan.panels) : rows
    return out.ok ? ['taken'] : tableFaults(out.error)
  }
  it('goes out and comes in as the same panels', () => {
    const plan = {
      ...hatch(),
      panels: hatch().panels.map((p) => ({ ...p, note: 'with "quotes", commas;\nand a break' })),
    }
    const out = round(plan)
    expect(out.ok && out.value.panels.map((p) => [p.id, p.assumed, p.recesses.length, p.note])).toEqual(
      plan.panels.map((p) => [p.id, p.assumed, p.recesses.length, p.note]),
    )
    if (out.ok)
      for (const [i, p] of out.value.panels.entries()) expect(p.widthMm).toBeCloseTo(plan.panels[i]?.widthMm ?? 0, 1)
  })
  it('reads decimal commas, a byte order mark, semicolons, and other units by column or cell', () => {
    const out = panelsFromTable(
      readOk(
        '\uFEFFname;width_cm;height_in;crown_mm;crown_over_mm\r\nDoor;95,5;37 1/2;;\r\nNew;0.95 m;24;12,5;600\r\n',
      ),
      handCar().panels,
    )
    if (!out.ok) throw new Error(JSON.stringify(out.error))
    const door = out.value.panels.find((p) => p.name === 'Door')
    expect([door?.widthMm, door?.heightMm]).toEqual([955, 952.5])
    expect(out.value).toMatchObject({ changed: 1, added: 1 })
    expect(out.value.panels.at(-1)).toMatchObject({ name: 'New', widthMm: 950, crownMm: 12.5 })
  })
  it.each([
    ['name,width_mm\nDoor,1', 'Line 1, height_mm: These columns are missing.'],
    ['name,width_mm,height_mm,girth\nDoor,1,1,1', 'Line 1, girth: This column is not known'],
    ['name,width_mm,height_mm\nDoor,12 parsec,700', 'Line 2, width_mm: “parsec” is no unit'],
    ['name,width_mm,height_mm\nDoor,1050,700\nWing,780,-4', 'Line 3, height_mm: Too small'],
    ['name,width_mm,height_mm\n"Do\nor",1050,700\nWing,780,x', 'Line 4, height_mm'],
    ['name,width_mm,height_mm,kind\nDoor,1050,700,dour', 'Line 2, kind: “dour” is not one of'],
    ['name,width_mm,height_mm\nDoor,1050,700\nDoor,1060,700', 'Line 3, name: The same as in line 2'],
    ['name,width_mm,height_mm\nDoor,1050', 'Line 2: This row has 2 cells'],
    ['name,width_mm,height_mm\nDoor,"1050,700', 'A quoted cell is not closed'],
    ['name,width_mm,height_mm,recesses\nDoor,1050,700,Cup: 2000 x 70 x 22', 'Line 2, recesses: A recess is larger'],
    ['', 'There are no rows'],
  ])('%j is refused by line and column', (text, want) => {
    const out = said(text)
    expect(out[0]).toContain(want)
  })
  it('50,000 rows are refused, and nothing is half taken', () => {
    const text = `name,width_mm,height_mm\n${Array.from({ length: 50_000 }, (_, i) => `P${i},100,100`).join('\n')}`
    expect(said(text)[0]).toContain('50000 rows are too many (limit 500)')
  })
  it('cells that a spreadsheet would take for a formula are neutralised, and read back as they were', () => {
    const names = ['=cmd|calc', '+1', '-2+3', '@SUM(A1)', '\tx']
    for (const n of names) expect(safeCell(n).startsWith("'")).toBe(true)
    expect([safeCell('-12.5'), safeCell(-3), safeCell('Door')]).toEqual(['-12.5', '-3', 'Door'])
    const plan = withPanel(handCar(), 'door', () => ({ name: '=HYPERLINK("x")', note: '@evil' }))
    const text = writeCsv(panelTable(plan.panels))
    expect(text).not.toMatch(/(^|,|")[=@+]/m)
    const back = panelsFromTable(readOk(text), plan.panels)
    expect(back.ok && back.value.panels.find((p) => p.id === 'door')).toMatchObject({
      name: '=HYPERLINK("x")',
      note: '@evil',
    })
  })
  it('any table at all is an answer, never an exception', () =>
    fc.assert(
      fc.property(fc.array(fc.array(fc.string(), { maxLength: 6 }), { maxLength: 6 }), (rows) => {
        expect(typeof panelsFromTable(rows, handCar().panels).ok).toBe('boolean')
        expect(typeof filmsFromTable(rows).ok).toBe('boolean')
        expect(typeof readTable(rows, { known: () => true, required: [] }).ok).toBe('boolean')
      }),
    ))
  it('films go out and come in with every field', () => {
    const out = filmsFromTable(readOk(writeCsv(filmTable(DEMO_FILMS))))
    expect(out).toEqual({ ok: true, value: DEMO_FILMS })
  })
})

describe('two people measuring one car', () => {
  const base = hatch()
  it('figures of one panel taped by both go together; the same figure taped differently is shown', () => {
    const mine = answerTape(base, 'roof', 'widthMm', 1140)
    const theirs = answerTape(answerTape(base, 'roof', 'crownMm', 14), 'roof', 'heightMm', 1555)
    const out = mergePlans(base, mine, theirs)
    if (!out.clean) throw new Error('clash')
    const roof = panelOf(out.plan, 'roof')
    expect([roof.widthMm, roof.heightMm, roof.crownMm]).toEqual([1140, 1555, 14])
    for (const f of ['widthMm', 'heightMm', 'crownMm']) expect(roof.assumed).not.toContain(f)
    expect(outlineOf(roof).closureMm).toBeLessThan(1e-6)
    expect(mergePlans(base, mine, answerTape(base, 'roof', 'widthMm', 1150)).clean).toBe(false)
  })
  it('nothing that either taped is lost, whatever they taped', () =>
    fc.assert(
      fc.property(fc.array(fc.nat(400), { maxLength: 8 }), fc.array(fc.nat(400), { maxLength: 8 }), (a, b) => {
        const all = base.panels.flatMap((p) => questionsOf(p).map((q) => ({ id: p.id, ...q })))
        const tape = (list: number[], by: number) =>
          list.reduce((plan, n) => {
            const q = all[n % all.length]
            return q ? answerTape(plan, q.id, q.field, Math.max(1, q.mm) + by) : plan
          }, base)
        const [mine, theirs] = [
          tape(a, 3),
          tape(
            b.filter(
              (n) =>
                !a.some(
                  (m) =>
                    all[m % all.length]?.id === all[n % all.length]?.id &&
                    all[m % all.length]?.field === all[n % all.length]?.field,
                ),
            ),
            5,
          ),
        ]
        const out = mergePlans(base, mine, theirs)
        if (!out.clean) return
        for (const p of out.plan.panels)
          for (const side of [mine, theirs])
            for (const f of panelOf(base, p.id).assumed)
              if (!panelOf(side, p.id).assumed.includes(f)) expect(p.assumed).not.toContain(f)
        expect(Plan.safeParse(out.plan).success).toBe(true)
      }),
      { numRuns: 60, seed: 7 },
    ))
  it('what both found at the walkaround is kept', () => {
    const find = (id: string): Plan => ({
      ...base,
      walkaround: {
        ...base.walkaround,
        damage: [
          {
            id,
            panelId: 'roof',
            kind: 'chip',
            note: id,
            sizeMm: null,
            xMm: null,
            yMm: null,
            photoIds: [],
            waived: null,
          },
        ],
      },
    })
    const out = mergePlans(base, find('a1'), find('b1'))
    expect(out.clean && out.plan.walkaround.damage.map((d) => d.id)).toEqual(['a1', 'b1'])
  })
})

describe('inspection', () => {
  const damaged = (waived: Plan['walkaround']['damage'][number]['waived']): Plan => ({
    ...handCar(),
    walkaround: {
      ...handCar().walkaround,
      damage: [
        { id: 'd', panelId: 'door', kind: 'rust', note: '', sizeMm: 20, xMm: 10, yMm: 10, photoIds: [], waived },
      ],
    },
  })
  it('rust blocks its panel until it is waived with a reason; later stages are stopped meanwhile', () => {
    const stops = (p: Plan) =>
      codes(p)
        .filter((f) => f.level === 'stop')
        .map((f) => `${f.stage} ${f.code}`)
    expect(stops(damaged(null))).toEqual(
      expect.arrayContaining(['walkaround damage_blocks', 'pieces panels_blocked', 'bay panels_blocked']),
    )
    expect(stops(damaged({ reason: 'Customer repairs later', by: 'T', at: '2026-11-20T08:00:00Z' }))).toEqual([])
    const off = withPanel(damaged(null), 'door', () => ({ wrap: false }))
    expect(stops(off)).toEqual(['walkaround damage_blocks'])
  })
  it('a repainted panel gasses out by its own date', () => {
    const plan = (on: string | null): Plan => ({
      ...handCar(),
      walkaround: { ...handCar().walkaround, repaints: [{ id: 'r', panelId: 'wing', on, note: '' }] },
    })
    const found = (on: string | null) => codes(plan(on)).find((f) => f.id === 'panel_repaint/r')
    expect(found('2026-11-10')).toMatchObject({
      code: 'panel_repaint_fresh',
      level: 'stop',
      facts: { days: 10, wait: 50 },
    })
    expect(found('2026-01-10')).toMatchObject({ code: 'panel_repaint_may_lift' })
    expect(found(null)).toMatchObject({ code: 'panel_repaint_undated' })
  })
  it('a signature tells when something was changed after it', () => {
    const plan = damaged(null)
    const signed: Plan = {
      ...plan,
      walkaround: {
        ...plan.walkaround,
        signature: {
          name: 'C',
          how: 'typed',
          strokes: [],
          at: '2026-11-20T08:00:00Z',
          takenBy: 'T',
          mark: signedMark(plan),
        },
      },
    }
    expect(codes(signed).map((f) => f.code)).not.toContain('signed_before_change')
    const later = { ...signed, walkaround: { ...signed.walkaround, note: 'more' } }
    expect(codes(later).map((f) => f.code)).toContain('signed_before_change')
  })
})

describe('films panel by panel', () => {
  const fit = (id: string, plan: Plan, panelId: string, cat = catalogue) =>
    panelFitness(film(id), panelOf(plan, panelId), plan, cat).reasons.map((r) => r.code)
  it('says what speaks against each: curves, width, direction, air, blocked, warranty', () => {
    const plan = hatch()
    expect(fit('quay-orange', plan, 'front-bumper')).toContain('fit_calendered_curve')
    expect(fit('reed-sheet', plan, 'bonnet')).toContain('fit_sheet_curve')
    expect(fit('dusk-shift', plan, 'wing-left')).toContain('fit_direction')
    expect(fit('dusk-shift', plan, 'bonnet')).not.toContain('fit_direction')
    expect(
      fit(
        'fen-satin',
        withPanel(plan, 'roof', () => ({ widthMm: 2600, heightMm: 2600 })),
        'roof',
      ),
    ).toContain('fit_width')
    const cold = {
      ...catalogue,
      climate: [{ at: '2026-11-20T08:00:00Z', airC: 9, humidity: null, surfaceC: null, by: 'x' }],
    }
    expect(fit('fen-satin', plan, 'roof', cold)).toContain('fit_air')
    expect(fit('quay-orange', plan, 'front-bumper')).toContain('fit_plastic_heat')
  })
  it('a fresh repaint or loose paint stops every film on every panel', () => {
    const over = (paint: Partial<Plan['walkaround']['paint']>): Plan => ({
      ...handCar(),
      walkaround: { ...handCar().walkaround, paint: { ...handCar().walkaround.paint, ...paint } },
    })
    expect(fit('fen-satin', over({ origin: 'repaint', repaintedOn: '2026-11-01' }), 'door')).toContain(
      'unfit_fresh_repaint',
    )
    expect(fit('fen-satin', over({ condition: 'rust' }), 'door')).toContain('unfit_paint')
    expect(fit('mere-mirror', handCar(), 'door')).toContain('chrome_law')
  })
  it('a panel curved one way only lies without stretch, also for calendered film', () => {
    const rolled = withPanel(handCar(), 'bonnet', () => ({
      crownMm: 40,
      crownOverMm: 900,
      crownDownMm: 0,
      crownDownOverMm: 600,
    }))
    expect(panelFitness(film('quay-orange'), panelOf(rolled, 'bonnet'), rolled, catalogue).stretch).toBe(0)
    expect(fit('quay-orange', rolled, 'bonnet')).toEqual(['fit_contrast'])
  })
  it('what a film costs on a panel opens to its cut sizes and price, and adds up', () => {
    const plan = hatch()
    const parts = plan.panels.map((p) => panelFitness(film('quay-orange'), p, plan, catalogue))
    const sum = costTogether('quay-orange', parts)
    expect(sum.value).toBeCloseTo(
      parts.reduce((s, p) => s + p.cost, 0),
      9,
    )
    const roof = parts.find((p) => p.panelId === 'roof')?.figures.find((f) => f.id === 'fitness/quay-orange/roof/cost')
    const v = Object.fromEntries((roof?.inputs ?? []).map((i) => [i.key, Number(i.value)]))
    expect(roof?.value).toBeCloseTo(((v.w1! * v.h1!) / 1e6) * (v.price! / (v.width! / 1000)), 9)
    for (const i of roof?.inputs ?? [])
      if (i.at.startsWith('figure:'))
        expect(parts.flatMap((p) => p.figures).some((f) => f.id === i.at.slice(7))).toBe(true)
  })
  it('two crowns stretch as the sphere of the same product of curvatures', () => {
    const both = (down: number | null) =>
      withPanel(handCar(), 'bonnet', () => ({
        crownMm: 22,
        crownOverMm: 1000,
        crownDownMm: down,
        crownDownOverMm: 1000,
      }))
    const radius = (p: Plan) => reckon(p, catalogue, []).figures.get('stretch/bonnet/radius')?.value as number
    expect(radius(both(22))).toBeCloseTo(radius(both(null)), 9)
    expect(radius(both(5))).toBeCloseTo(Math.sqrt(sagittaRadiusMm(22, 1000) * sagittaRadiusMm(5, 1000)), 6)
  })
  it('a school changes hands, minutes and the surface to reach of a laying', () => {
    // Panel by panel: as drops the door would be a part of its side.
    const car = handCar()
    const panels = { ...car, layout: { ...car.layout, drops: { ...car.layout.drops, use: false } } }
    const plan = withPanel(panels, 'door', () => ({
      recesses: panelOf(hatch(), 'front-door-left').recesses,
      raised: panelOf(hatch(), 'front-door-left').raised,
    }))
    const sheet = { ...film('folio-print') }
    const step = (over: Partial<Plan['method']>, id: string) => {
      const steps = reckon(
        { ...plan, film: { mainId: sheet.id, sheets: [sheet] }, method: { ...CAREFUL, ...over } },
        catalogue,
        [],
      ).steps
      return steps.find((s) => s.id === id)
    }
    expect(step({ layWarm: 'channel_65' }, 'lay:door')?.range).toEqual({ min: 65, max: 82 })
    expect(step({}, 'lay:bonnet')?.people).toBe(2)
    expect(step({ liner: 'halves' }, 'lay:bonnet')?.people).toBe(1)
    expect(step({ liner: 'halves' }, 'lay:bonnet')?.minutes).toBeGreaterThan(step({}, 'lay:bonnet')?.minutes ?? 0)
    expect(step({ hardware: 'wrap_round' }, 'trim:door')?.minutes).toBe((step({}, 'trim:door')?.minutes ?? 0) + 8)
  })
  it('the film’s sheet rules a school out, with the reason', () => {
    const out = (id: string, over: object) => vetoes({ ...CAREFUL, ...over }, film(id)).map((v) => v.said.code)
    expect(out('fen-satin', { heatSource: 'torch' })).toEqual(['torch_gloss_only'])
    expect(out('heron-gloss', { heatSource: 'torch' })).toEqual([])
    expect(out('quay-orange', { edges: 'press_then_heat' })).toEqual(['veto_edges'])
    expect(out('fen-satin', { layWarm: 'channel_65' })).toEqual(['veto_too_warm'])
    expect(out('folio-print', { layWarm: 'warm_40' })).toEqual(['veto_too_cool'])
    expect(out('mere-mirror', { tension: 'relax_first' })).toEqual(['veto_nothing_to_relax'])
    expect(out('fen-satin', {})).toEqual([])
  })
})
