import { describe, expect, it } from 'vitest'
import { choiceFor } from '@/core/model/plan/piece-choice'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Plan } from '@/core/model/plan/schema'
import { areaOf, topologyOf, type TriMesh } from '@/core/solve/mesh'
import { feelOf } from '@/core/engines/stretch/feel'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import { spotsOver } from '@/core/engines/stretch/spots'
import { surfaceFigures } from '@/core/stages/pieces/surface-figures'
import { surfaceMap } from '@/core/engines/stretch/surface-map'
import { familyPanels, keysOf, STYLES, usualKeys, type Style } from '@/core/model/vehicle/families'
import { PANEL_KINDS } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { filmGrid, surfaceMarks, trianglesAt } from '@/web/charts/surface-marks'
import { film } from '../fixtures/plans'

const plain = (over: Partial<Panel> = {}, w = 1200, h = 900): Panel => ({
  ...newPanel({ id: 'p', name: 'Panel', kind: 'bonnet', side: 'centre', widthMm: w, heightMm: h }),
  ...over,
})
const made = (panel: Panel, triangles = 3000) => {
  const out = panelMesh(panel, triangles)
  if (!out.ok) throw new Error(JSON.stringify(out.error))
  return out.value
}
const recess = (over: object): Panel['recesses'][number] => ({
  id: 'cup',
  name: 'Cup',
  mouthWidthMm: 200,
  mouthHeightMm: 120,
  depthMm: 20,
  wallDeg: 45,
  open: false,
  way: 'bridge',
  gapMm: 0,
  bendRadiusMm: null,
  openAt: null,
  xMm: null,
  yMm: null,
  ...over,
})

/** Length over the surface along a straight line on the tape, from one side to the other, walked over the triangles. */
function girth({ mesh, taped }: ReturnType<typeof made>, axis: 0 | 1, at: number): number {
  const { triangles, positions } = mesh
  let sum = 0
  for (let t = 0; t < triangles.length; t += 3) {
    const ends: number[][] = []
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k] as number, triangles[t + ((k + 1) % 3)] as number]
      const [p, q] = [taped[2 * a + 1 - axis] as number, taped[2 * b + 1 - axis] as number]
      if ((p - at) * (q - at) > 0 || p === q) continue
      const s = (at - p) / (q - p)
      ends.push([0, 1, 2].map((i) => (positions[3 * a + i] as number) * (1 - s) + (positions[3 * b + i] as number) * s))
    }
    if (ends.length === 2)
      sum += Math.hypot(
        ...[0, 1, 2].map((i) => ((ends[0] as number[])[i] as number) - ((ends[1] as number[])[i] as number)),
      )
  }
  return sum
}

/**
 * Sum of the angles that are missing round inner vertices, and of the turning along the rim: 2π·χ together
 * (Gauss–Bonnet).
 */
function curvature(mesh: TriMesh): { inside: number; rim: number } {
  const topology = topologyOf(mesh)
  if (!topology.ok) throw new Error(topology.error.code)
  const onRim = new Set(topology.value.loops.flat())
  const angle = new Map<number, number>()
  const place = (v: number) => [0, 1, 2].map((i) => mesh.positions[3 * v + i] as number)
  for (let t = 0; t < mesh.triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [0, 1, 2].map((i) => mesh.triangles[t + ((k + i) % 3)] as number) as [number, number, number]
      const [u, w] = [b, c].map((v) => place(v).map((x, i) => x - (place(a)[i] as number))) as [number[], number[]]
      const cos = u.reduce((s, x, i) => s + x * (w[i] as number), 0) / (Math.hypot(...u) * Math.hypot(...w))
      angle.set(a, (angle.get(a) ?? 0) + Math.acos(Math.max(-1, Math.min(1, cos))))
    }
  let [inside, rim] = [0, 0]
  for (const [v, sum] of angle)
    if (onRim.has(v)) rim += Math.PI - sum
    else inside += 2 * Math.PI - sum
  return { inside, rim }
}

describe('the mesh of a taped panel', () => {
  it('has the taped lengths over the middle of its surface, within half a per cent, whatever it has', () => {
    const shapes: Panel[] = [
      plain({ crownMm: 40, crownOverMm: 1000 }),
      plain({ crownMm: 60, crownOverMm: 800, crownDownMm: 10, crownDownOverMm: 600 }),
      plain({ nose: { at: 'bottom', radiusMm: 90, angleDeg: 80 }, crownMm: 20, crownOverMm: 900 }),
      plain({ nose: { at: 'right', radiusMm: 40, angleDeg: 120 } }),
    ]
    for (const panel of shapes) {
      const mesh = made(panel)
      expect(Math.abs(girth(mesh, 0, panel.heightMm / 2 + 1) / panel.widthMm - 1)).toBeLessThan(0.005)
      expect(Math.abs(girth(mesh, 1, panel.widthMm / 2 + 1) / panel.heightMm - 1)).toBeLessThan(0.005)
    }
  })
  it('rises as the straightedge says, and is as deep in a recess as the rule says', () => {
    const crowned = made(plain({ crownMm: 40, crownOverMm: 1000, crownDownMm: 0, crownDownOverMm: 0 }, 1000, 600))
    const z = crowned.mesh.positions.filter((_, i) => i % 3 === 2)
    // 1000 mm along the surface is a little less under the straightedge: just under 40 mm.
    expect(Math.max(...z) - Math.min(...z)).toBeGreaterThan(39)
    expect(Math.max(...z) - Math.min(...z)).toBeLessThan(40.1)
    const cup = made(plain({ recesses: [recess({ depthMm: 25 })] }))
    expect(Math.min(...cup.mesh.positions.filter((_, i) => i % 3 === 2))).toBeCloseTo(-25, 1)
  })
  it('keeps Gauss–Bonnet: angles missing inside and turning along the rim are 2π, less 2π for each hole', () => {
    const holed = plain({
      crownMm: 30,
      crownOverMm: 900,
      holes: [{ id: 'h', name: 'Filler', widthMm: 160, heightMm: 120, xMm: 400, yMm: 300 }],
    })
    for (const [panel, chi] of [
      [plain({ crownMm: 30, crownOverMm: 900 }), 1],
      [holed, 0],
    ] as const) {
      const { inside, rim } = curvature(made(panel).mesh)
      expect(inside + rim).toBeCloseTo(2 * Math.PI * chi, 6)
    }
    // ∫K over a surface bent alike both ways is about its area over R².
    const panel = plain({ crownMm: 30, crownOverMm: 900 })
    const R = (900 ** 2 / 4 + 30 ** 2) / 60
    const { mesh } = made(panel, 8000)
    const area = Array.from({ length: mesh.triangles.length / 3 }, (_, t) => areaOf(mesh, t)).reduce((s, a) => s + a, 0)
    expect(curvature(mesh).inside / (area / R ** 2)).toBeGreaterThan(0.9)
    expect(curvature(mesh).inside / (area / R ** 2)).toBeLessThan(1.1)
  })
  it('every panel of every body style is a sheet that keeps Gauss–Bonnet and, where it has no recess, its taped girths', () => {
    let seen = 0
    for (const style of Object.keys(STYLES) as Style[]) {
      const keys = keysOf(style, usualKeys(style))
      if (!keys.ok) throw new Error(keys.error.code)
      // The right side mirrors the left.
      for (const panel of familyPanels(style, keys.value.keys).filter((p) => p.side !== 'right')) {
        const out = panelMesh(panel, 700)
        if (!out.ok) throw new Error(`${style} ${panel.id}: ${JSON.stringify(out.error)}`)
        const { mesh } = out.value
        const topology = topologyOf(mesh)
        if (!topology.ok) throw new Error(`${style} ${panel.id}: ${JSON.stringify(topology.error)}`)
        expect(topology.value.parts, `${style} ${panel.id}`).toHaveLength(1)
        const { inside, rim } = curvature(mesh)
        expect(inside + rim, `${style} ${panel.id}`).toBeCloseTo(2 * Math.PI * (2 - topology.value.loops.length), 5)
        seen++
        const straight =
          panel.edges.every((e) => e.riseMm === 0 && (e.cornerDeg === null || Math.abs(e.cornerDeg - 90) < 0.01)) &&
          panel.edges.length === 4 &&
          topology.value.loops.length === 1
        if (panel.recesses.length > 0 || !straight || (panel.cornerRadiusMm ?? 0) > 0) continue
        expect(
          Math.abs(girth(out.value, 0, panel.heightMm / 2 + 0.013) / panel.widthMm - 1),
          `${style} ${panel.id}`,
        ).toBeLessThan(0.005)
        expect(
          Math.abs(girth(out.value, 1, panel.widthMm / 2 + 0.013) / panel.heightMm - 1),
          `${style} ${panel.id}`,
        ).toBeLessThan(0.005)
      }
    }
    expect(seen).toBeGreaterThan(120)
  })
  it('is one sheet for every kind of panel, about as fine as asked for, and the same each time', () => {
    for (const kind of PANEL_KINDS) {
      const { mesh } = made(
        {
          ...newPanel({ id: 'x', name: 'X', kind, side: 'left', widthMm: 700, heightMm: 400 }),
          crownMm: 8,
          crownOverMm: 400,
        },
        1500,
      )
      const topology = topologyOf(mesh)
      expect(topology.ok && [topology.value.parts.length, topology.value.loops.length]).toEqual([1, 1])
      expect(mesh.triangles.length / 3).toBeGreaterThan(1000)
      expect(mesh.triangles.length / 3).toBeLessThan(2200)
    }
    expect(made(plain())).toEqual(made(plain()))
  })
  it('says what no surface can be, and where', () => {
    const code = (panel: Panel) => {
      const out = panelMesh(panel)
      return out.ok ? 'none' : `${out.error.code} ${out.error.at}`
    }
    expect(code(plain({ crownMm: 300, crownOverMm: 500 }))).toBe('crown_too_deep crownMm')
    expect(code(plain({ recesses: [recess({ mouthWidthMm: 1300 })] }))).toBe('recess_too_wide recesses[0].mouthWidthMm')
    expect(code(plain({ recesses: [recess({ xMm: 4000 })] }))).toBe('recess_off_panel recesses[0].xMm')
    expect(code(plain({ recesses: [recess({ depthMm: 90, wallDeg: 45 })] }))).toBe(
      'recess_too_deep recesses[0].depthMm',
    )
    expect(code(plain({ nose: { at: 'top', radiusMm: 600, angleDeg: 180 } }))).toBe('nose_too_long nose')
  })
})

describe('the stretch map of a taped panel', () => {
  const options = { triangles: 900, limit: 0.1, shrink: 0 }
  const map = (panel: Panel) => {
    const out = surfaceMap(panel, options)
    if (!out.ok) throw new Error(JSON.stringify(out.error))
    return out.value
  }
  it('is nothing on a panel that is bent one way only or rolled over, and grows with the crown', () => {
    expect(
      map(plain({ crownMm: 60, crownOverMm: 900, crownDownMm: 0, crownDownOverMm: 0 })).report.stretch.max,
    ).toBeLessThan(5e-4)
    expect(map(plain({ nose: { at: 'top', radiusMm: 80, angleDeg: 90 } })).report.stretch.max).toBeLessThan(5e-3)
    const worst = [10, 30, 60].map((crownMm) => map(plain({ crownMm, crownOverMm: 900 })).report.stretch.max)
    expect(worst[0]).toBeLessThan(worst[1] as number)
    expect(worst[1]).toBeLessThan(worst[2] as number)
  })
  it('a shallow recess comes out well below a deep one; a deep one is named by its place', () => {
    const deep = map(plain({ recesses: [recess({ depthMm: 45, wallDeg: 60, xMm: 200, yMm: 150 })] }))
    const shallow = map(plain({ recesses: [recess({ depthMm: 6, wallDeg: 30, xMm: 200, yMm: 150 })] }))
    expect(shallow.report.stretch.max).toBeLessThan(0.3 * deep.report.stretch.max)
    const spots = spotsOver(deep, 0.6 * deep.report.stretch.max)
    expect(spots[0]).toMatchObject({ row: 'top', column: 'left' })
    expect(spotsOver(deep, 1)).toEqual([])
  })
  it('every demo panel has a map, and its figures open with the tape behind them', () => {
    const plan = Plan.parse(DEMO_JOBS[1]?.make())
    for (const panel of plan.panels) {
      const m = map(panel)
      const [sheet, choice, method] = [
        film('mere-mirror'),
        choiceFor(plan, panel, film('mere-mirror')),
        { ...plan.method, tension: 'triangles' as const },
      ]
      const feel = feelOf({ map: m, panel, film: sheet, choice: { ...choice, preStretch: 0 }, method })
      const figures = surfaceFigures(panel, sheet, m, feel, {
        pull: 'tightest',
        choice: { ...choice, preStretch: 0 },
        method,
      })
      expect(figures.find((f) => f.id.endsWith('/worst'))?.value).toBeCloseTo(Math.max(0, m.report.stretch.max), 12)
      for (const f of figures) expect(f.inputs.length).toBeGreaterThan(0)
    }
  })
  it('its drawing has each triangle in one band, finds the triangle under a place, and bends the film’s grid', () => {
    const m = map(plain({ crownMm: 60, crownOverMm: 900 }))
    const marks = surfaceMarks(m, m.seen, 400, (t) => ((m.stretch[t] as number) > 0.005 ? 1 : 0))
    expect(marks.bands.join('').match(/M/g)).toHaveLength(m.triangles.length / 3)
    for (const t of [0, 17, 333]) {
      const { x, y } = marks.middle(t)
      expect(trianglesAt(m, m.seen, marks.scale, x, y)).toBe(t)
    }
    expect(trianglesAt(m, m.seen, marks.scale, -1e5, 0)).toBeNull()
    expect(filmGrid(m, m.seen, 1).match(/M/g)?.length).toBeGreaterThan(100)
  })
})
