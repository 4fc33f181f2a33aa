import { describe, expect, it } from 'vitest'
import { panelStretch, worstByRule } from '@/core/engines/stretch/panel-stretch'
import type { WayOut } from '@/core/model/finding/finding'
import { applyChange } from '@/core/model/plan/plan-change'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { priceChange, pricedJob } from '@/core/reckon/price'
import { catalogue, film, handCar, withPanel } from '../fixtures/plans'

const findingsOf = (plan: Plan) => reckon(Plan.parse(plan), catalogue, []).findings
const recess = {
  id: 'cup',
  name: 'Cup',
  mouthWidthMm: 120,
  mouthHeightMm: 80,
  depthMm: 40,
  wallDeg: 75,
  open: true,
  way: 'bridge',
  gapMm: 20,
  xMm: null,
  yMm: null,
}
/** A plan, the finding it brings, and every way out that is offered for it. */
const CASES: { name: string; plan: Plan; code: string; expect: WayOut['code'][] }[] = [
  {
    name: 'a deep recess, open on one side',
    plan: withPanel(handCar(), 'door', () => ({
      recesses: [Plan.shape.panels.element.shape.recesses.element.parse(recess)],
    })),
    code: 'stretch_over_limit',
    expect: ['feed', 'inlay'],
  },
  {
    name: 'a bonnet crowned like a ball',
    plan: withPanel(handCar(), 'bonnet', () => ({ crownMm: 150, crownOverMm: 1000 })),
    code: 'stretch_over_limit',
    expect: ['seam'],
  },
  {
    name: 'a side wider than the roll',
    plan: {
      ...handCar(),
      panels: [newPanel({ id: 'side', name: 'Side', kind: 'van_side', side: 'left', widthMm: 2400, heightMm: 1900 })],
    },
    code: 'piece_wider_than_roll',
    expect: ['seam'],
  },
]

describe('ways out', () => {
  it.each(CASES)(
    '$name: each removes its finding, or makes the figure what it promised',
    ({ plan, code, expect: codes }) => {
      const found = findingsOf(plan).find((f) => f.code === code)
      expect(found, code).toBeDefined()
      for (const want of codes) expect(found?.waysOut.map((w) => w.code)).toContain(want)
      for (const way of found?.waysOut ?? []) {
        const after = findingsOf(applyChange(plan, way.change))
        const left = after.find((f) => f.id === found?.id)
        if (way.becomes === null) expect(left, `${way.code} fits then`).toBeUndefined()
        else if (left && found?.limit) expect(way.becomes, way.code).toBeGreaterThan(found.limit.value)
        else expect(way.becomes).toBeLessThanOrEqual(found?.limit?.value ?? Infinity)
      }
    },
  )
  it('are sorted: those that answer first, then by the stretch that is left', () => {
    const found = findingsOf(CASES[0]?.plan ?? handCar()).find((f) => f.code === 'stretch_over_limit')
    const limit = found?.limit?.value ?? 0
    const keys = (found?.waysOut ?? []).map((w) => [Number((w.becomes ?? 0) > limit), w.becomes ?? 0] as const)
    expect(keys.length).toBeGreaterThan(1)
    expect([...keys].sort((a, b) => a[0] - b[0] || a[1] - b[1])).toEqual(keys)
  })
  it('what a way out costs is the difference of two whole reckonings', () => {
    const plan = CASES[2]?.plan ?? handCar()
    const before = reckon(plan, catalogue, [])
    for (const way of before.findings.flatMap((f) => f.waysOut)) {
      const after = reckon(applyChange(plan, way.change), catalogue, [])
      const diff = (id: string) =>
        Number(after.figures.get(id)?.value ?? 0) - Number(before.figures.get(id)?.value ?? 0)
      const price = priceChange(pricedJob(plan, catalogue, []), way.change)
      expect(price.filmMm).toBeCloseTo(diff('rail/film_used'), 6)
      expect(price.minutes).toBeCloseTo(diff('rail/crew_minutes'), 6)
    }
  })
  it('lay it out again: a kept layout that no longer fits goes, and its finding with it', () => {
    const plan = handCar()
    const kept = { ...plan, layout: { ...plan.layout, kept: [{ filmId: 'fen-satin', mark: 'old', rolls: [] }] } }
    const stale = reckon(Plan.parse({ ...plan, layout: { ...plan.layout, kept: [] } }), catalogue, [])
    expect(stale.findings.some((f) => f.code === 'layout_stale')).toBe(false)
    const gone = applyChange(kept as unknown as Plan, { kind: 'drop_kept_layout' })
    expect(gone.layout.kept).toEqual([])
  })
  it('both bumpers from one length: the note goes once they are taken together', () => {
    const plan = Plan.parse({
      ...handCar(),
      panels: [
        newPanel({
          id: 'front-bumper',
          name: 'Front bumper',
          kind: 'front_bumper',
          side: 'front',
          widthMm: 1700,
          heightMm: 450,
        }),
        newPanel({
          id: 'rear-bumper',
          name: 'Rear bumper',
          kind: 'rear_bumper',
          side: 'rear',
          widthMm: 1650,
          heightMm: 470,
        }),
      ],
    })
    const note = findingsOf(plan).find((f) => f.code === 'bumpers_together')
    expect(note?.waysOut.map((w) => w.code)).toEqual(['one_length'])
    const [way] = note?.waysOut ?? []
    if (way) expect(findingsOf(applyChange(plan, way.change)).some((f) => f.code === 'bumpers_together')).toBe(false)
  })
})

describe('stretch of a panel', () => {
  const fen = film('fen-satin')
  it('by the rule is what the whole figure says while nothing is solved', () => {
    for (const { plan } of CASES.slice(0, 2))
      for (const panel of plan.panels)
        expect(worstByRule(plan, panel, fen)).toBe(panelStretch(plan, panel, fen).worst.value)
  })
  it('grows with the crown, and a seam through its middle makes none worse', () => {
    const of = (crownMm: number, parts = 1) => {
      const plan = withPanel(handCar(), 'bonnet', () => ({ crownMm, crownOverMm: 1000 }))
      const cut = applyChange(plan, { kind: 'piece', panelId: 'bonnet', set: { parts, along: 'width' } })
      const panel = cut.panels.find((p) => p.id === 'bonnet')
      return panel ? worstByRule(cut, panel, fen) : NaN
    }
    const crowns = [0, 10, 25, 60, 120]
    const grown = crowns.map((c) => of(c))
    expect([...grown].sort((a, b) => a - b)).toEqual(grown)
    for (const c of crowns) expect(of(c, 2)).toBeLessThanOrEqual(of(c) + 1e-12)
    expect(of(0)).toBe(0)
  })
  it('a recess that is fed or inlaid takes none; bridged it takes less, the wider the gap', () => {
    const shape = Plan.shape.panels.element.shape.recesses.element
    const of = (over: object) => {
      const plan = withPanel(handCar(), 'door', () => ({ recesses: [shape.parse({ ...recess, ...over })] }))
      const door = plan.panels.find((p) => p.id === 'door')
      return door ? worstByRule(plan, door, fen) : NaN
    }
    expect(of({ way: 'feed' })).toBe(0)
    expect(of({ way: 'inlay' })).toBe(0)
    const gaps = [5, 20, 60, 200].map((gapMm) => of({ gapMm }))
    expect([...gaps].sort((a, b) => b - a)).toEqual(gaps)
  })
})
