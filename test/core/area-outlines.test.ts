import { describe, expect, test } from 'vitest'
import { areaOutlines } from '@/core/engines/stretch/area-outlines'
import { polygonAreaMm2, within } from '@/core/kit/plane'
import { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { solveLack } from '@/core/reckon/solve-lack'
import { reckon } from '@/core/reckon/reckon'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import { pointMarks } from '@/web/charts/point-marks'
import { catalogue, handCar } from '../fixtures/plans'

const areaOf = (ring: readonly { x: number; y: number }[]) => Math.abs(polygonAreaMm2([...ring]))

/** A flat sheet of squares of 20 mm, two triangles each. */
function grid(columns: number, rows: number) {
  const taped = new Float64Array(2 * (columns + 1) * (rows + 1))
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i <= columns; i++) taped.set([20 * i, 20 * j], 2 * (j * (columns + 1) + i))
  const triangles: number[] = []
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const a = j * (columns + 1) + i
      const c = a + columns + 1
      triangles.push(a, a + 1, c + 1, a, c + 1, c)
    }
  const map = { taped, triangles: Uint32Array.from(triangles) }
  /** The middle of a triangle. */
  const at = (t: number) => {
    const v = [0, 1, 2].map((k) => triangles[3 * t + k] ?? 0)
    const mean = (d: number) => v.reduce((sum, i) => sum + (taped[2 * i + d] ?? 0) / 3, 0)
    return { x: mean(0), y: mean(1) }
  }
  return { map, at, count: triangles.length / 3 }
}

describe('outlines of places on a map', () => {
  const { map, at, count } = grid(60, 40)
  const all = Array.from({ length: count }, (_, t) => at(t))
  test('a disc: its area within the size of its triangles, and every triangle well inside it lies within', () => {
    const isIn = (p: { x: number; y: number }, r: number) => Math.hypot(p.x - 500, p.y - 400) < r
    const [ring, more] = areaOutlines(map, (t) => isIn(at(t), 250))
    expect(more).toBeUndefined()
    expect(areaOf(ring ?? []) / (Math.PI * 250 ** 2)).toBeGreaterThan(0.95)
    expect(areaOf(ring ?? []) / (Math.PI * 250 ** 2)).toBeLessThan(1.05)
    expect(ring?.length).toBeLessThanOrEqual(40)
    for (const p of all) {
      if (isIn(p, 220)) expect(within(ring ?? [], p.x, p.y)).toBe(true)
      if (!isIn(p, 280)) expect(within(ring ?? [], p.x, p.y)).toBe(false)
    }
  })
  test('a rectangle is told by its four corners; two places are two outlines, the larger first', () => {
    const box = (p: { x: number; y: number }, x0: number, y0: number, x1: number, y1: number) =>
      p.x > x0 && p.x < x1 && p.y > y0 && p.y < y1
    const rings = areaOutlines(map, (t) => box(at(t), 100, 100, 200, 200) || box(at(t), 400, 100, 800, 300))
    expect(rings.map((r) => areaOf(r))).toEqual([400 * 200, 100 * 100])
    expect(rings.map((r) => r.length)).toEqual([4, 4])
  })
  test('a ring round a hole is told by its outside; nothing, or next to nothing, has none', () => {
    const r = (t: number) => Math.hypot(at(t).x - 500, at(t).y - 400)
    const rings = areaOutlines(map, (t) => r(t) < 250 && r(t) > 100)
    expect(rings).toHaveLength(1)
    expect(areaOf(rings[0] ?? [])).toBeGreaterThan(0.9 * Math.PI * 250 ** 2)
    expect(areaOutlines(map, () => false)).toEqual([])
    expect(areaOutlines(map, (t) => t === 7)).toEqual([])
  })
})

describe('a panel that is stretched past its film’s post-heat threshold', () => {
  const panel = {
    ...newPanel({ id: 'cap', name: 'Cap', kind: 'bonnet', side: 'centre', widthMm: 900, heightMm: 700 }),
    crownMm: 110,
    crownOverMm: 700,
    crownDownMm: 110,
    crownDownOverMm: 600,
  }
  const plan = { ...handCar(), panels: [panel], pieces: [] }
  test('has its outline where it was solved; the point lies within it, on the drawing too; until then it has none', () => {
    const before = reckon(plan, { ...catalogue, solutions: NO_SOLUTIONS }, [])
    const lack = before.settling.lacks.find((l) => l.kind === 'stretch')
    if (!lack) throw new Error('nothing to solve')
    expect(before.points.find((p) => p.kind === 'area')?.outlines).toBeUndefined()
    const shop = { ...catalogue, solutions: NO_SOLUTIONS }
    const made = solveLack({ plan, catalogue: shop, ledger: [], scanOf: () => null }, lack)
    const value = SolvedStretch.parse(made.find((s) => s.key === lack.key)?.value)
    const solved = { ...NO_SOLUTIONS, stretch: { [lack.key]: value } }
    const point = reckon(plan, { ...catalogue, solutions: solved }, []).points.find((p) => p.kind === 'area')
    const rings = point?.outlines ?? []
    const area = rings.reduce((sum, r) => sum + areaOf(r), 0)
    expect(area).toBeGreaterThan(0.5 * value.toPostHeatMm2)
    expect(area).toBeLessThan(1.2 * value.toPostHeatMm2)
    if (!point) throw new Error('no point')
    const [mark] = pointMarks(panel, [point])
    expect(mark?.rings.length).toBe(rings.length)
    expect(mark && within(mark.rings[0] ?? [], mark.at.x, mark.at.y)).toBe(true)
  })
})
