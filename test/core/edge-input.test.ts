import { describe, expect, it } from 'vitest'
import { cutFaults, cutGoes, ruleCanCut } from '@/core/model/edge/cut-goes'
import { CUT_RULES } from '@/core/model/edge/cut-rules'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { SavedShop } from '@/core/model/shop/shop'
import { CUT_SIDES } from '@/core/model/vehicle/kinds'
import type { Edge, Panel } from '@/core/model/vehicle/schema'
import { reckon } from '@/core/reckon/reckon'
import { readShop, valuesOf } from '@/web/shop/shop-values'
import { findingText } from '@/web/words/findings'
import { formatter } from '@/web/words/format'
import { catalogue, handCar, withPanel } from '../fixtures/plans'

const MM = { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' } as const
/** The hand-worked car with one edge of its door as told. */
const doorWith = (at: Edge['at'], change: Partial<Edge>, more: Partial<Panel> = {}): Plan =>
  withPanel(handCar(), 'door', (p) => ({
    ...more,
    edges: p.edges.map((e) => (e.at === at ? { ...e, ...change } : e)),
  }))
const findings = (plan: Plan) => reckon(plan, catalogue, []).findings
const codes = (plan: Plan) => findings(plan).map((f) => f.code)
const decided = (plan: Plan, at: Edge['at']) =>
  reckon(plan, catalogue, []).edges.edges.find((e) => e.panelId === 'door' && e.at === at)
const issues = (plan: unknown) =>
  Plan.safeParse(plan).error?.issues.map((i) => `${i.path.join('.')}: ${i.message}`) ?? []

describe('edges that cannot be', () => {
  it('a gap of nothing is no room: the cut is made on tape on the neighbour, and nothing goes wrong', () => {
    const plan = doorWith('right', { meets: 'fixed_gap', gapMm: 0 })
    expect(issues(plan)).toEqual([])
    expect(decided(plan, 'right')).toMatchObject({ gapMm: 0, cut: 'tape_on_neighbour' })
    expect(decided(plan, 'right')?.why).toContain('gap_without_room')
  })
  it('a gap of 300 mm is refused at its place, and the words name the span', () => {
    expect(issues(doorWith('right', { gapMm: 300 }))).toEqual(['panels.1.edges.1.gapMm: a_span_is_no_gap'])
    expect(issues(doorWith('right', { spanMm: 300 }))).toEqual([])
    expect(issues(doorWith('right', { spanMm: 3 }))).toHaveLength(1)
  })
  it('more film than a tight seal takes is told with both lengths, once, and gone when less is left', () => {
    const deep = doorWith('top', { meets: 'rubber_seal', tightness: 'tight', leaveMm: 30 })
    const told = findings(deep).filter((f) => f.code === 'tuck_too_deep')
    expect(told).toHaveLength(1)
    expect(told[0]?.facts).toMatchObject({ panel: 'Door', at: 'top', leave_mm: 30, room_mm: 3 })
    expect(codes(doorWith('top', { meets: 'rubber_seal', tightness: 'tight', leaveMm: 3 }))).not.toContain(
      'tuck_too_deep',
    )
    // A loose seal takes 19 mm.
    expect(codes(doorWith('top', { meets: 'rubber_seal', tightness: 'loose', leaveMm: 19 }))).not.toContain(
      'tuck_too_deep',
    )
    expect(codes(doorWith('top', { meets: 'rubber_seal', tightness: 'loose', leaveMm: 25 }))).toContain('tuck_too_deep')
  })
  it('more film than a gap is wide cannot be cut at its far side', () => {
    const at = (gapMm: number) => doorWith('right', { meets: 'fixed_gap', gapMm, leaveMm: 12 })
    expect(codes(at(4))).toContain('tuck_too_deep')
    expect(codes(at(14))).not.toContain('tuck_too_deep')
  })
  it('an edge that lies on two parts of a panel is told once', () => {
    const deep = doorWith('right', { meets: 'rubber_seal', tightness: 'tight', leaveMm: 30 })
    const parted = { ...deep, pieces: [{ panelId: 'door', parts: 2, along: 'height' as const }] }
    const plan = Plan.parse({ ...parted, pieces: parted.pieces.map((c) => ({ ...c, preStretch: 0, bleedMm: null })) })
    expect(
      reckon(plan, catalogue, []).edges.edges.filter((e) => e.panelId === 'door' && e.at === 'right'),
    ).toHaveLength(2)
    expect(codes(plan).filter((c) => c === 'tuck_too_deep')).toHaveLength(1)
  })
  it('a flange wider than half its panel is refused at that edge', () =>
    expect(issues(doorWith('left', { leaveMm: 110 }, { widthMm: 200 }))).toEqual([
      'panels.1.edges.3.leaveMm: flange_wider_than_panel',
    ]))
  it('a corner of no radius is sharp, and is decided like any other; a negative one is refused', () => {
    const sharp = doorWith('top', { meets: 'opening', cornerRadiusMm: 0, cornerDeg: 90 }, { cornerRadiusMm: 0 })
    expect(issues(sharp)).toEqual([])
    const corners = reckon(sharp, catalogue, []).edges.corners.filter((c) => c.panelId === 'door')
    expect(corners.length).toBeGreaterThan(0)
    for (const c of corners) {
      expect(Number.isFinite(c.squeeze) && Number.isFinite(c.pull)).toBe(true)
      // Round no radius the film would have to shrink by all it has: no hook goes round that.
      if (c.radiusMm === 0) expect(c.method).not.toBe('cold_hook')
    }
    expect(issues(doorWith('top', { cornerRadiusMm: -1 }))).toHaveLength(1)
  })
  it('an edge that meets a panel which was taken out is told by the name it still has', () => {
    const plan = doorWith('left', { neighbour: 'gone' })
    expect(findings(plan).find((f) => f.code === 'neighbour_missing')?.facts).toMatchObject({
      panel: 'Door',
      neighbour: 'gone',
    })
    expect(decided(plan, 'left')).toBeDefined()
  })
})

describe('cut sides that are not there', () => {
  it('no row of the table cuts where its edges have nothing to cut, and every cut goes somewhere', () => {
    for (const rule of CUT_RULES) expect(ruleCanCut(rule, rule.cut), rule.id).toBe(true)
    for (const cut of CUT_SIDES)
      expect(
        CUT_RULES.some((r) => ruleCanCut(r, cut)),
        cut,
      ).toBe(true)
    expect(cutGoes('free', 'seal_middle')).toBe(false)
    expect(cutGoes('free', 'far_side')).toBe(false)
    expect(cutGoes('glass', 'seal_middle')).toBe(true)
  })
  it('a shop’s rule against its own edges is refused with its row, the good ones beside it are not', () => {
    expect(cutFaults({ turned_edge: 'seal_middle', arch_turned: 'flush', no_row: 'flush' })).toEqual([
      { rule: 'turned_edge', code: 'cut_not_there' },
      { rule: 'no_row', code: 'no_such_rule' },
    ])
    const read = SavedShop.safeParse({ ...DEFAULT_SHOP, edgeCut: { turned_edge: 'seal_middle', arch_turned: 'flush' } })
    expect(read.error?.issues.map((i) => [i.path, i.message])).toEqual([[['edgeCut', 'turned_edge'], 'cut_not_there']])
    expect(SavedShop.safeParse({ ...DEFAULT_SHOP, edgeCut: { arch_turned: 'flush' } }).success).toBe(true)
  })
  it('the shop’s page puts the fault at the row it was chosen in', () => {
    const values = valuesOf(DEFAULT_SHOP)
    const read = readShop({ ...values, edgeCut: { ...values.edgeCut, turned_edge: 'seal_middle' } })
    expect(read.ok ? [] : read.faults).toEqual([
      { field: 'edgeCut.turned_edge', text: expect.stringContaining('nothing of the kind to cut') },
    ])
  })
  it('an edge cut by hand where there is nothing is told in words, and is no more once it is put right', () => {
    const plan = doorWith('bottom', { meets: 'wheel_arch', cutAs: 'seal_middle' })
    const told = findings(plan).find((f) => f.code === 'cut_not_there')
    if (!told) throw new Error('not told')
    const text = findingText(told, formatter({ ...MM }))
    expect(text).toContain('Door, bottom')
    expect(text).toContain('wheel arch')
    expect(codes(doorWith('bottom', { meets: 'wheel_arch', cutAs: 'flush' }))).not.toContain('cut_not_there')
  })
})

describe('very many edges', () => {
  it('2,000 edges of one job are decided, each once', () => {
    const base = handCar()
    const panels = Array.from({ length: 500 }, (_, i) => ({
      ...(base.panels[1] as Panel),
      id: `p${i}`,
      name: `Door ${i}`,
    }))
    const plan = Plan.parse({ ...base, panels })
    const { edges } = reckon(plan, catalogue, []).edges
    expect(edges).toHaveLength(2000)
    expect(new Set(edges.map((e) => `${e.panelId}/${e.edgeId}`)).size).toBe(2000)
  })
  it('more panels than a job takes are refused with the limit', () => {
    const base = handCar()
    const panels = Array.from({ length: 501 }, (_, i) => ({ ...(base.panels[1] as Panel), id: `p${i}` }))
    expect(Plan.safeParse({ ...base, panels }).error?.issues[0]).toMatchObject({ path: ['panels'], maximum: 500 })
  })
})
