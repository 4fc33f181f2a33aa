import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { surfaceMap } from '@/core/engines/stretch/surface-map'
import { labelPlace } from '@/web/charts/label-place'
import { stretchBands, vertexStretch } from '@/web/charts/stretch-bands'
import { skinMarks } from '@/web/charts/skin-marks'
import { polygonContains } from 'd3'
import { Plan } from '@/core/model/plan/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { handCar, withPanel } from '../fixtures/plans'

const square = (x: number, y: number, w: number, h: number) => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
]

describe('where lettering stands in an outline', () => {
  it('in the middle of a rectangle, along its longer side', () => {
    const wide = labelPlace(square(100, 50, 600, 200))
    expect(wide).toMatchObject({ upright: false })
    expect(wide.x).toBeCloseTo(400, 0)
    expect(wide.y).toBeCloseTo(150, 0)
    expect(wide.along).toBeCloseTo(600, 6)
    expect(wide.across).toBeCloseTo(200, 0)
    expect(labelPlace(square(0, 0, 150, 700)).upright).toBe(true)
  })
  it('beside an arch that is cut out of it, not over it', () => {
    // A panel with a wheel arch out of the middle of its lower side.
    const arch = [
      { x: 0, y: 0 },
      { x: 1000, y: 0 },
      { x: 1000, y: 400 },
      { x: 700, y: 400 },
      { x: 500, y: 120 },
      { x: 300, y: 400 },
      { x: 0, y: 400 },
    ]
    const at = labelPlace(arch)
    expect(
      polygonContains(
        arch.map((p): [number, number] => [p.x, p.y]),
        [at.x, at.y],
      ),
    ).toBe(true)
    expect(at.along).toBeLessThan(1000)
  })
  it('always within the outline, with no more room than the outline is wide', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 12 }), fc.integer({ min: 1, max: 1000 }), (corners, seed) => {
        const radius = (i: number) => 100 + ((seed * (i + 7) * 37) % 300)
        const ring = Array.from({ length: corners }, (_, i) => {
          const a = (2 * Math.PI * i) / corners
          return { x: radius(i) * Math.cos(a), y: radius(i) * Math.sin(a) }
        })
        const at = labelPlace(ring)
        expect(
          polygonContains(
            ring.map((p): [number, number] => [p.x, p.y]),
            [at.x, at.y],
          ),
        ).toBe(true)
        const spread = (d: 'x' | 'y') => Math.max(...ring.map((p) => p[d])) - Math.min(...ring.map((p) => p[d]))
        expect(at.along).toBeLessThanOrEqual((at.upright ? spread('y') : spread('x')) + 1e-6)
      }),
      { numRuns: 60 },
    )
    expect(labelPlace([])).toMatchObject({ along: 0 })
  })
  it('on every demo vehicle the lettering lies within its own panel', () => {
    for (const { make } of DEMO_JOBS) {
      const plan = Plan.parse(make())
      const words = { area: String, size: () => '', material: String }
      const { marks, skin } = skinMarks(plan, 'state', words, '2026-11-20T09:00')
      for (const mark of marks) {
        const path = skin.panels.find((p) => p.id === mark.id)?.path ?? []
        expect(
          polygonContains(
            path.map((p): [number, number] => [p.x, p.y]),
            [mark.x, mark.y],
          ),
          mark.name,
        ).toBe(true)
        expect(mark.fontSize).toBeGreaterThan(0)
      }
    }
  })
})

describe('bands of a stretch map', () => {
  const panel = withPanel(handCar(), 'bonnet', () => ({ crownMm: 60, crownOverMm: 1000 })).panels[0]
  if (!panel) throw new Error('no bonnet')
  const made = surfaceMap(panel, { triangles: 400, limit: 0.1, shrink: 0, quick: true })
  if (!made.ok) throw new Error(made.error.code)
  const map = made.value
  const feel = { taken: map.stretch, band: new Uint8Array(map.stretch.length) }
  const worst = Math.max(...map.stretch)
  const least = Math.min(...map.stretch)
  const areaOf = (d: string): number =>
    d
      .split('Z')
      .filter((part) => part !== '')
      .reduce((sum, part) => {
        const points = part
          .replace('M', '')
          .split('L')
          .map((p) => p.trim().split(' ').map(Number) as [number, number])
        const twice = points.reduce((s, [x, y], i) => {
          const [nx, ny] = points[(i + 1) % points.length] ?? [x, y]
          return s + x * ny - nx * y
        }, 0)
        return sum + Math.abs(twice) / 2
      }, 0)
  it('cover the whole map, whatever the limits', () => {
    const whole = areaOf(stretchBands(map, map.seen, 1, feel, [worst + 1]).bands[0] ?? '')
    for (const share of [[0.3], [0.2, 0.5, 0.8], [0, 1]]) {
      const limits = share.map((s) => least + s * (worst - least))
      const { bands } = stretchBands(map, map.seen, 1, feel, limits)
      expect(bands).toHaveLength(limits.length + 1)
      // Corners are written with one decimal: a little is lost with each triangle.
      expect(bands.reduce((s, d) => s + areaOf(d), 0) / whole).toBeCloseTo(1, 2)
    }
  })
  it('a higher limit leaves less beyond it', () => {
    const beyond = [0.2, 0.4, 0.6, 0.8].map((s) => {
      const { bands } = stretchBands(map, map.seen, 1, feel, [least + s * (worst - least)])
      return areaOf(bands[1] ?? '')
    })
    expect([...beyond].sort((a, b) => b - a)).toEqual(beyond)
  })
  it('each limit that runs through the map has its line and its figure; one past it has neither', () => {
    const { lines } = stretchBands(map, map.seen, 1, feel, [(least + worst) / 2, worst + 1])
    expect(lines[0]?.d).toMatch(/^M/)
    expect(lines[0]?.label).not.toBeNull()
    expect(lines[1]).toMatchObject({ d: '', label: null })
  })
  it('what wrinkles is drawn whole and in no band', () => {
    const all = { ...feel, band: new Uint8Array(map.stretch.length).fill(4) }
    const { bands, wrinkles } = stretchBands(map, map.seen, 1, all, [0.05])
    expect(bands).toEqual(['', ''])
    expect(wrinkles.split('Z').length - 1).toBe(map.stretch.length)
  })
  it('at a vertex the stretch lies between that of the triangles round it', () => {
    const values = vertexStretch(map, map.stretch)
    expect(Math.min(...values)).toBeGreaterThanOrEqual(least - 1e-9)
    expect(Math.max(...values)).toBeLessThanOrEqual(worst + 1e-9)
  })
})
