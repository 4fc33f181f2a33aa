import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { consumablesOf, primedMm2, tapeUses, wantsPrimer } from '@/core/engines/edge/consumables'
import { crownStretch } from '@/core/engines/stretch/crown-stretch'
import { EDGE_M_PER_BLADE, M2_PER_FELT, PRIMER_FROM_MM, TAPE_LEAD_MM } from '@/core/model/edge/cut-rules'
import { Plan } from '@/core/model/plan/schema'
import { newPanel } from '@/core/model/vehicle/new-panel'
import type { Panel, Recess } from '@/core/model/vehicle/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, film, handCar, withPanel } from '../fixtures/plans'

const panel = (over: Partial<Panel>): Panel => ({
  ...newPanel({ id: 'p', name: 'P', kind: 'bonnet', side: 'centre', widthMm: 1200, heightMm: 900 }),
  ...over,
})
const worst = (p: Panel, parts = 1, along: 'width' | 'height' = 'width') =>
  Number(crownStretch(p, parts, along).crown.value)

describe('a crowned panel as a cap of a sphere', () => {
  it('the sphere through the straightedge, the cap over half the diagonal: α ÷ sin α − 1 (Milnor), by a pencil', () => {
    // 22 mm over 1000: R = (1000² ÷ 4 + 22²) ÷ 44 = 5692.8; half the diagonal of 1200 × 900 is 750.
    const alpha = 750 / ((1000 ** 2 / 4 + 22 ** 2) / 44)
    expect(worst(panel({ crownMm: 22, crownOverMm: 1000 }))).toBeCloseTo(alpha / Math.sin(alpha) - 1, 12)
    // Taylor: α² ÷ 6, within α⁴.
    expect(Math.abs(worst(panel({ crownMm: 22, crownOverMm: 1000 })) - alpha ** 2 / 6)).toBeLessThan(alpha ** 4)
  })
  it('flat, or curved one way only (a cylinder lies flat without stretch: Gauss), it stretches nothing', () => {
    expect(worst(panel({ crownMm: 0, crownOverMm: 0 }))).toBe(0)
    expect(worst(panel({ crownMm: 40, crownOverMm: 800, crownDownMm: 0, crownDownOverMm: 500 }))).toBe(0)
  })
  it('both ways the same, it is the sphere of one reading', () => {
    const one = worst(panel({ crownMm: 30, crownOverMm: 600 }))
    expect(worst(panel({ crownMm: 30, crownOverMm: 600, crownDownMm: 30, crownDownOverMm: 600 }))).toBeCloseTo(one, 12)
  })
  it('two curvatures swapped are the same panel turned', () => {
    const a = worst(panel({ crownMm: 30, crownOverMm: 600, crownDownMm: 12, crownDownOverMm: 500 }))
    const b = worst(panel({ crownMm: 12, crownOverMm: 500, crownDownMm: 30, crownDownOverMm: 600 }))
    expect(a).toBeCloseTo(b, 12)
  })
  it('more crown stretches more, more parts less, whatever the panel', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 1800 }),
        fc.integer({ min: 200, max: 1500 }),
        fc.integer({ min: 2, max: 60 }),
        fc.constantFrom('width' as const, 'height' as const),
        (widthMm, heightMm, crownMm, along) => {
          const p = panel({ widthMm, heightMm, crownMm, crownOverMm: 800 })
          expect(worst({ ...p, crownMm: crownMm + 1 })).toBeGreaterThan(worst(p))
          expect(worst(p, 2, along)).toBeLessThan(worst(p))
          expect(worst(p, 3, along)).toBeLessThan(worst(p, 2, along))
        },
      ),
    )
  })
  it('a reading that no panel has comes to no more than a half sphere', () =>
    expect(worst(panel({ crownMm: 500, crownOverMm: 300 }))).toBeLessThanOrEqual(Math.PI / 2 - 1 + 1e-12))
})

describe('what is used up beside the film, by a pencil', () => {
  const r = reckon(handCar(), catalogue, [])
  const films = new Map([['fen-satin', film('fen-satin')]])
  const panels = new Map(handCar().panels.map((p) => [p.id, p]))
  const of = (
    kind: string,
    list = consumablesOf(r.edges.edges, tapeUses(r.edges.edges, r.laid, films), r.laid, panels),
  ) => list.find((c) => c.kind === kind)
  it('each tape is as long as the edges that it lies along', () => {
    const uses = tapeUses(r.edges.edges, r.laid, films)
    for (const kind of new Set(uses.map((u) => u.kind))) {
      const along = r.edges.edges
        .flatMap((e) => e.tapes.filter((t) => t.kind === kind))
        .reduce((s, t) => s + t.lengthMm, 0)
      expect(of(kind)).toMatchObject({ lengthMm: along })
    }
  })
  it('a blade point for so many metres of edge, and one for each panel at least; a felt for so many square metres', () => {
    const metres = r.edges.edges.reduce((s, e) => s + e.lengthMm, 0) / 1000
    const areaM2 = r.laid.reduce((s, p) => s + p.acrossMm * p.alongMm, 0) / 1e6
    expect(of('blades')).toMatchObject({ count: Math.max(3, Math.ceil(metres / EDGE_M_PER_BLADE)) })
    expect(of('felts')).toMatchObject({ count: Math.max(1, Math.ceil(areaM2 / M2_PER_FELT)) })
    expect(of('liner')).toMatchObject({ areaMm2: areaM2 * 1e6 })
  })
  it('a seam is trimmed on filament as long as it is, with an end to pull by; on a mirror on wire', () => {
    const plan = {
      ...handCar(),
      pieces: [
        {
          panelId: 'door',
          parts: 2,
          along: 'width',
          preStretch: 0,
          bleedMm: null,
          seamsAtMm: [],
          slits: [],
          flat: null,
        },
      ],
    } as Plan
    const seams = (filmId: string) => {
      const own = { ...plan, film: { ...plan.film, mainId: filmId, sheets: [film(filmId)] } }
      const out = reckon(own, catalogue, [])
      const seamMm = out.laid.reduce((s, p) => s + p.seamMm, 0)
      const uses = tapeUses([], out.laid, new Map([[filmId, film(filmId)]]))
      expect(uses.map((u) => u.lengthMm)).toEqual([seamMm + TAPE_LEAD_MM])
      return uses.map((u) => u.kind)
    }
    expect(seams('fen-satin')).toEqual(['filament'])
    expect(seams('mere-mirror')).toEqual(['wire'])
  })
  const recess = (over: Partial<Recess>): Recess =>
    ({
      id: 'r',
      name: 'Cup',
      mouthWidthMm: 100,
      mouthHeightMm: 60,
      depthMm: 20,
      open: null,
      way: null,
      ...over,
    }) as Recess
  it('primer goes on the walls of a deep recess without an open side: its rim by its depth', () => {
    expect(wantsPrimer(recess({ depthMm: PRIMER_FROM_MM }))).toBe(true)
    expect(wantsPrimer(recess({ depthMm: PRIMER_FROM_MM - 1 }))).toBe(false)
    expect(wantsPrimer(recess({ depthMm: 40, open: true }))).toBe(false)
    expect(wantsPrimer(recess({ depthMm: 40, way: 'inlay' }))).toBe(false)
    expect(primedMm2(recess({ depthMm: 25 }))).toBe(2 * (100 + 60) * 25)
  })
  it('nothing laid uses up nothing', () => expect(consumablesOf([], [], [], panels)).toEqual([]))
})

describe('a side laid in drops', () => {
  const van = DEMO_JOBS.map((j) => Plan.parse(j.make())).find((p) =>
    reckon(p, catalogue, []).laid.some((d) => d.covers),
  )
  if (!van) throw new Error('no side is laid in drops')
  const own = (plan: Plan) => {
    const { steps, laid } = reckon(plan, catalogue, [])
    return { side: steps.filter((s) => s.panelId?.startsWith('side:')), drops: laid.filter((p) => p.covers) }
  }
  it('is laid drop by drop, and its seams are trimmed by the metre', () => {
    const { side, drops } = own(van)
    const laid = side.filter((s) => s.code === 'lay')
    expect(drops.length).toBeGreaterThan(1)
    expect(laid.length).toBe(drops.length)
    for (const d of drops)
      expect(
        laid.some((s) => s.id === `lay:${d.id}`),
        d.id,
      ).toBe(true)
    for (const sideId of new Set(drops.map((d) => d.panelId))) {
      const seamMm = drops.filter((d) => d.panelId === sideId).reduce((s, d) => s + d.seamMm, 0)
      const seam = side.find((s) => s.id === `seam:${sideId}`)
      if (seamMm > 0) expect(seam?.facts).toMatchObject({ length_mm: seamMm })
      else expect(seam).toBeUndefined()
    }
  })
  it('a slower crew takes longer over its seams by as much', () => {
    const slow = { ...van, runSheet: { ...van.runSheet, paceFactor: 2 * van.runSheet.paceFactor } }
    const seams = (plan: Plan) =>
      own(plan)
        .side.filter((s) => s.code === 'seam')
        .reduce((s, x) => s + x.minutes, 0)
    expect(seams(van)).toBeGreaterThan(0)
    // Each is rounded up to a minute by itself.
    expect(Math.abs(seams(slow) - 2 * seams(van))).toBeLessThanOrEqual(
      own(van).side.filter((s) => s.code === 'seam').length,
    )
  })
  it('drops wait in their order: only the last one of a side has the wait of its film after it', () => {
    const { side } = own(van)
    for (const sideId of new Set(side.map((s) => s.panelId))) {
      const waits = side.filter((s) => s.panelId === sideId && s.code === 'lay').map((s) => s.waitMin)
      expect(waits.slice(0, -1).every((w) => w === 0)).toBe(true)
    }
  })
})

describe('a panel left out', () => {
  it('takes nothing: no piece, no edge, no place, no step and no film of its own', () => {
    const without = reckon(
      withPanel(handCar(), 'door', () => ({ wrap: false })),
      catalogue,
      [],
    )
    expect(without.laid.some((p) => p.panelId === 'door')).toBe(false)
    expect(without.edges.edges.some((e) => e.panelId === 'door')).toBe(false)
    expect(without.points.some((p) => p.panelId === 'door')).toBe(false)
    expect(without.steps.some((s) => s.panelId === 'door')).toBe(false)
    const used = (r: typeof without) => Number(r.figures.get('rail/film_used')?.value)
    expect(used(without)).toBeLessThan(used(reckon(handCar(), catalogue, [])))
  })
})
