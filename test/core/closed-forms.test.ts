import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bridgeStrain,
  capStretch,
  cornerSqueeze180,
  cornerSqueeze90,
  recessProfileMm,
  sagittaRadiusMm,
} from '@/core/engines/stretch/closed-forms'
import { polygonAreaMm2, upToLine } from '@/core/kit/plane'

describe('spherical cap, least worst stretch (Milnor 1969)', () => {
  // α / sin α − 1 at angles whose sine is known exactly.
  it.each([
    [Math.PI / 6, Math.PI / 3 - 1],
    [Math.PI / 2, Math.PI / 2 - 1],
    [Math.PI / 4, (Math.PI / 4) * Math.SQRT2 - 1],
  ])('α = %s', (alpha, want) => expect(capStretch(alpha)).toBeCloseTo(want, 12))
  it('starts as α²/6 (Taylor) and grows', () => {
    expect(capStretch(0)).toBe(0)
    expect(capStretch(0.05) / (0.05 ** 2 / 6)).toBeCloseTo(1, 3)
  })
})

describe('bridged recess', () => {
  it('a recess of 100 with upright walls 20 deep and no gap: profile 140, strain 40 %', () => {
    expect(recessProfileMm(100, 20, 90)).toBeCloseTo(140, 9)
    expect(bridgeStrain(140, 100, 0)).toBeCloseTo(0.4, 12)
    expect(bridgeStrain(140, 100, 200)).toBeCloseTo(540 / 500 - 1, 12)
  })
  it('walls of 45° by Pythagoras', () =>
    expect(recessProfileMm(100, 20, 45)).toBeCloseTo(60 + 2 * Math.hypot(20, 20), 9))
  it('walls that meet make a V', () => expect(recessProfileMm(60, 40, 45)).toBeCloseTo(2 * Math.hypot(30, 40), 9))
  it('agrees with the length of the polyline walked in small steps', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 1000 }),
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 10, max: 89 }),
        (mouth, depth, wall) => {
          const run = Math.min(depth / Math.tan((wall * Math.PI) / 180), mouth / 2)
          const y = (x: number) => -depth * Math.min(1, Math.min(x, mouth - x) / run)
          let length = 0
          const knots = [0, run, mouth - run, mouth]
          for (let k = 1; k < knots.length; k++) {
            const [a, b] = [knots[k - 1] as number, knots[k] as number]
            for (let i = 0; i < 50; i++)
              length += Math.hypot((b - a) / 50, y(a + ((b - a) * (i + 1)) / 50) - y(a + ((b - a) * i) / 50))
          }
          return Math.abs(length - recessProfileMm(mouth, depth, wall)) < 1e-6 * length + 1e-6
        },
      ),
    )
  })
  it('a wider gap never strains more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 300, noNaN: true }),
        (mouth, extra, gap) => bridgeStrain(mouth + extra, mouth, gap + 10) < bridgeStrain(mouth + extra, mouth, gap),
      ),
    )
  })
})

it('corner flange: squeeze is the arc lost by going inward from r + w to r', () => {
  // Turned in 90°, a quarter ring's outer arc (r + w)·π/2 has to become r·π/2.
  const [r, w] = [30, 10]
  expect(cornerSqueeze90(w, r)).toBeCloseTo(1 - (r * Math.PI) / 2 / (((r + w) * Math.PI) / 2), 12)
  // Under by 180°, its edge comes to lie at r − w.
  expect(cornerSqueeze180(w, r)).toBeCloseTo(1 - (r - w) / (r + w), 12)
})

it('sagitta: the radius puts the straightedge ends and the crown on one circle', () => {
  const radius = sagittaRadiusMm(22, 1000)
  expect(Math.hypot(500, radius - 22)).toBeCloseTo(radius, 6)
})

describe('a polygon up to a line', () => {
  const areaTo = (points: { x: number; y: number }[], axis: 'x' | 'y', at: number) =>
    Math.abs(polygonAreaMm2(upToLine(points, axis, at)))
  it('half of a triangle’s area lies within 1/√2 of its height from the tip', () => {
    const triangle = [
      { x: 300, y: 0 },
      { x: 700, y: 500 },
      { x: 0, y: 500 },
    ]
    expect(areaTo(triangle, 'y', 500 / Math.SQRT2)).toBeCloseTo((700 * 500) / 4, 6)
  })
  it('both arms of a U are counted, and what lies between them is not', () => {
    const u = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
      { x: 100, y: 200 },
      { x: 300, y: 200 },
      { x: 300, y: 0 },
      { x: 400, y: 0 },
      { x: 400, y: 300 },
      { x: 0, y: 300 },
    ]
    expect(areaTo(u, 'y', 150)).toBeCloseTo(2 * 100 * 150, 6)
    expect(areaTo(u, 'x', 200)).toBeCloseTo(100 * 300 + 100 * 100, 6)
  })
  it('the parts on both sides of any line make the whole', () => {
    const number = fc.double({ min: -1000, max: 1000, noNaN: true })
    fc.assert(
      fc.property(fc.array(fc.record({ x: number, y: number }), { minLength: 3, maxLength: 9 }), number, (ring, at) => {
        const mirrored = ring.map((p) => ({ ...p, x: -p.x }))
        // Mirrored, a ring runs the other way round.
        const parts = polygonAreaMm2(upToLine(ring, 'x', at)) - polygonAreaMm2(upToLine(mirrored, 'x', -at))
        expect(parts).toBeCloseTo(polygonAreaMm2(ring), 3)
      }),
    )
  })
})
