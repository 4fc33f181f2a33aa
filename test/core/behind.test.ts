import DxfParser from 'dxf-parser'
import { describe, expect, test } from 'vitest'
import { BEHIND_LAP_MM, BEHIND_MM, footOutline, inlayTemplates } from '@/core/engines/pieces/behind'
import { layoutSvg } from '@/core/engines/roll/drawing'
import { templateDrawing } from '@/core/engines/roll/template-drawing'
import { GRIP_MM } from '@/core/model/edge/edge-data'
import { stretchKey } from '@/core/model/catalogue/stretch-key'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { Plan } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { reckon } from '@/core/reckon/reckon'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { catalogue, fixedHandle, handCar, withPanel } from '../fixtures/plans'

type Raised = Panel['raised'][number]
const car = (over: Partial<Raised> = {}): Plan =>
  Plan.parse(withPanel(handCar(), 'door', () => ({ raised: [fixedHandle(over)] })))
const of = (plan: Plan) => reckon(plan, catalogue, [])

describe('film behind a fixed handle', () => {
  test('is a small piece of its own, as large as the handle, what shows beyond it and a grip, with its working', () => {
    const { pieces, figures, layouts } = of(car())
    const piece = pieces.find((p) => p.id === 'door.b-handle')
    expect([piece?.cutWidthMm, piece?.cutHeightMm]).toEqual([
      220 + 2 * (BEHIND_MM + GRIP_MM),
      40 + 2 * (BEHIND_MM + GRIP_MM),
    ])
    expect(figures.get('piece/door.b-handle/width')?.inputs.map((i) => i.key)).toEqual(['object', 'beyond', 'grip'])
    expect(
      layouts.flatMap((l) => l.rolls.flatMap((r) => r.placements)).some((p) => p.pieceId === 'door.b-handle'),
    ).toBe(true)
    // Two straight sides of 180 and a round end of 20 + 17 mm at either side, where the laps meet.
    const r = 20 + BEHIND_MM - BEHIND_LAP_MM
    expect(piece?.seamMm).toBeGreaterThan(2 * 180 + 2 * Math.PI * r - 1)
    expect(piece?.seamMm).toBeLessThan(2 * 180 + 2 * Math.PI * r + 1e-9)
  })
  test('comes off: no piece; wrapped round although it comes off: one; tucked: none', () => {
    const has = (plan: Plan) => of(plan).pieces.some((p) => p.id === 'door.b-handle')
    expect(has(car())).toBe(true)
    expect(has(car({ removable: true }))).toBe(false)
    const round = car({ removable: true })
    expect(has({ ...round, method: { ...round.method, hardware: 'wrap_round' } })).toBe(true)
    expect(has(car({ behind: 'tucked' }))).toBe(false)
  })
  test('an inlay is laid before its panel’s film, an overlay after it', () => {
    const order = (behind: Raised['behind']) =>
      of(car({ behind })).steps.flatMap((s) => (s.code === 'lay' && s.panelId === 'door' ? [s.id] : []))
    expect(order('inlay')).toEqual(['lay:door.b-handle', 'lay:door'])
    expect(order('overlay')).toEqual(['lay:door', 'lay:door.b-handle'])
  })
  test('its lap is a heat point, and nothing of the panel’s own edges is', () => {
    const points = of(car()).points.filter((p) => p.pieceId === 'door.b-handle')
    expect(points.map((p) => p.kind)).toEqual(['overlap'])
  })
  test('changes nothing of the panel’s stretch, and is kept by a job file; an old file has none', () => {
    const film = car().film.sheets[0]
    const door = (plan: Plan) => plan.panels.find((p) => p.id === 'door') as Panel
    if (!film) throw new Error('no film')
    expect(stretchKey(car(), door(car()), film)).toBe(stretchKey(car(), door(car({ behind: 'tucked' })), film))
    const back = readPlan(writePlan(car()))
    expect(back.ok && door(back.value).raised[0]?.behind).toBe('inlay')
    const old = readPlan(writePlan(car()).replaceAll(/,?\s*"behind": ?"inlay"/g, ''))
    expect(old.ok && door(old.value).raised[0]?.behind).toBe('tucked')
  })
})

describe('its template', () => {
  const plan = car()
  const templates = inlayTemplates(plan.panels, plan.method, of(plan).pieces)
  const box = (points: readonly { x: number; y: number }[]) => {
    const [x, y] = [points.map((p) => p.x), points.map((p) => p.y)]
    return [Math.max(...x) - Math.min(...x), Math.max(...y) - Math.min(...y)]
  }
  test('has the foot, the small piece round it and the edge of the panel’s film 3 mm inside that', () => {
    const [only, more] = templates
    expect(more).toBeUndefined()
    const size = Object.fromEntries(only?.rings.map((r) => [r.id, box(r.points)]) ?? [])
    expect(size.object?.[0]).toBeCloseTo(220, 9)
    expect(size.object?.[1]).toBeCloseTo(40, 9)
    expect(size.piece?.[0]).toBeCloseTo(220 + 2 * BEHIND_MM, 9)
    expect(size.main?.[0]).toBeCloseTo(220 + 2 * (BEHIND_MM - BEHIND_LAP_MM), 9)
    // Every point of the foot is as far from the piece's rim as is said.
    const object = only?.rings.find((r) => r.id === 'object')?.points ?? []
    const rim = only?.rings.find((r) => r.id === 'piece')?.points ?? []
    for (const p of object) {
      const near = Math.min(...rim.map((q) => Math.hypot(p.x - q.x, p.y - q.y)))
      expect(near).toBeGreaterThan(BEHIND_MM - 0.01)
      expect(near).toBeLessThan(BEHIND_MM + 0.5)
    }
  })
  test('a badge is cut with turned corners, whatever its size', () => {
    for (const [widthMm, heightMm] of [
      [100, 60],
      [8, 8],
      [400, 5],
    ] as const) {
      const [w, h] = box(footOutline({ kind: 'badge', widthMm, heightMm }, 10))
      expect(w).toBeCloseTo(widthMm + 20, 9)
      expect(h).toBeCloseTo(heightMm + 20, 9)
    }
  })
  test('is the same size in the drawing files, read back by other readers', () => {
    const drawing = templateDrawing(templates)
    const dxf = new DxfParser().parseSync(layoutDxf(drawing))
    const lines = (dxf?.entities ?? []).flatMap((e) =>
      e.type === 'LWPOLYLINE' && e.layer === 'pieces'
        ? [(e as unknown as { vertices: { x: number; y: number }[] }).vertices]
        : [],
    )
    expect(lines).toHaveLength(1)
    const [w, h] = box(lines[0] ?? [])
    expect(w).toBeCloseTo(220 + 2 * BEHIND_MM, 3)
    expect(h).toBeCloseTo(40 + 2 * BEHIND_MM, 3)
    expect(layoutSvg(drawing)).toContain(`width="${220 + 2 * BEHIND_MM}mm"`)
  })
})
