import fc from 'fast-check'
import polygonClipping, { type Polygon } from 'polygon-clipping'
import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { nest, type NestPlaced, type NestShape } from '@/core/solve/pack'

type Points = { x: number; y: number }[]
const box = (points: Points) => ({
  width: Math.max(...points.map((p) => p.x)),
  length: Math.max(...points.map((p) => p.y)),
})
const turned = (points: Points): Points => points.map((p) => ({ x: box(points).length - p.y, y: p.x }))
const shape = (id: string, points: Points, turns: (0 | 90 | 180 | 270)[] = [0]): NestShape => ({
  id,
  lies: turns.map((turnDeg) => {
    let at = points
    for (let t = 0; t < turnDeg; t += 90) at = turned(at)
    return { turnDeg, points: at, ...box(at) }
  }),
})
const ring = (p: NestPlaced): Polygon => [p.lie.points.map((q): [number, number] => [q.x + p.x, q.y + p.y])]
/** Area that two placed shapes have in common, by a clipper that the solver does not use. */
function shared(a: NestPlaced, b: NestPlaced): number {
  return polygonClipping
    .intersection(ring(a), ring(b))
    .flat()
    .reduce(
      (sum, r) =>
        sum +
        Math.abs(
          r.reduce((s, [x, y], i) => {
            const [u, v] = r[(i + 1) % r.length] as [number, number]
            return s + (x * v - u * y) / 2
          }, 0),
        ),
      0,
    )
}
const ell = (w: number, l: number, arm: number): Points => [
  { x: 0, y: 0 },
  { x: w, y: 0 },
  { x: w, y: arm },
  { x: arm, y: arm },
  { x: arm, y: l },
  { x: 0, y: l },
]

describe('outlines interlocked', () => {
  it('two L shapes go into one another: shorter than their rectangles ever lie', () => {
    const shapes = [shape('a', ell(1000, 1000, 250), [0, 180]), shape('b', ell(1000, 1000, 250), [0, 180])]
    const out = nest(shapes, [{ id: 'r', width: 1300, length: 9000 }], {
      gap: 0,
      random: seeded(1),
      budget: { rounds: 60 },
    })
    // Two rectangles of 1000 on a strip of 1300 take 2000; interlocked, one arm lies within the other.
    expect(out?.used).toBeLessThan(1400)
    expect(out && shared(out.placed[0] as NestPlaced, out.placed[1] as NestPlaced)).toBeLessThan(1e-6)
  })
  it('a small piece goes into the hollow of a large one', () => {
    const arch: Points = [
      { x: 0, y: 0 },
      { x: 600, y: 0 },
      { x: 600, y: 300 },
      { x: 200, y: 300 },
      { x: 200, y: 700 },
      { x: 600, y: 700 },
      { x: 600, y: 1000 },
      { x: 0, y: 1000 },
    ]
    const out = nest(
      [
        shape('wing', arch),
        shape('handle', [
          { x: 0, y: 0 },
          { x: 380, y: 0 },
          { x: 380, y: 380 },
          { x: 0, y: 380 },
        ]),
      ],
      [{ id: 'r', width: 600, length: 5000 }],
      { gap: 0, random: seeded(1), budget: { rounds: 5 } },
    )
    expect(out?.used).toBe(1000)
  })
  it('is sound by another clipper, for any shapes, gaps, turns and blocked stretches', () => {
    const points = fc
      .array(fc.tuple(fc.integer({ min: 5, max: 40 }), fc.integer({ min: 60, max: 300 })), {
        minLength: 3,
        maxLength: 8,
      })
      .map((spokes) => {
        const sum = spokes.reduce((s, [a]) => s + a, 0)
        let at = 0
        const raw = spokes.map(([a, r]) => {
          at += (a / sum) * 2 * Math.PI
          return { x: r * Math.cos(at), y: r * Math.sin(at) }
        })
        const [x0, y0] = [Math.min(...raw.map((p) => p.x)), Math.min(...raw.map((p) => p.y))]
        return raw.map((p) => ({ x: p.x - x0, y: p.y - y0 }))
      })
    fc.assert(
      fc.property(fc.array(points, { minLength: 2, maxLength: 7 }), fc.constantFrom(0, 12), (list, gap) => {
        const blocked = [{ from: 200, to: 260 }]
        const shapes = list.map((p, i) => shape(`s${i}`, p, [0, 90, 180, 270]))
        const out = nest(shapes, [{ id: 'r', width: 900, length: 20_000, blocked }], {
          gap,
          random: seeded(3),
          budget: { rounds: 4 },
        })
        if (!out) throw new Error('room for all')
        expect(out.placed.map((p) => p.id).sort()).toEqual(shapes.map((s) => s.id).sort())
        for (const p of out.placed) {
          expect(p.x).toBeGreaterThanOrEqual(0)
          expect(p.x + p.lie.width).toBeLessThanOrEqual(900 + 1e-6)
          const bar: Polygon = [
            [
              [0, 200],
              [900, 200],
              [900, 260],
              [0, 260],
            ],
          ]
          expect(polygonClipping.intersection(ring(p), bar)).toEqual([])
        }
        for (const [i, a] of out.placed.entries())
          for (const b of out.placed.slice(i + 1)) {
            expect(shared(a, b)).toBeLessThan(1e-6)
            if (gap > 0) expect(nearest(a, b)).toBeGreaterThanOrEqual(gap - 1e-6)
          }
      }),
      { numRuns: 40, seed: 12 },
    )
  })
  it('what stays lies where it was, and a bin too small gives nothing', () => {
    const still = [{ binId: 'r', points: ell(500, 500, 200) }]
    const square = shape('q', [
      { x: 0, y: 0 },
      { x: 290, y: 0 },
      { x: 290, y: 290 },
      { x: 0, y: 290 },
    ])
    const out = nest([square], [{ id: 'r', width: 500, length: 2000 }], {
      gap: 0,
      random: seeded(1),
      budget: { rounds: 0 },
      still,
    })
    expect(out?.used).toBeLessThanOrEqual(510)
    expect(
      nest([square], [{ id: 'r', width: 200, length: 2000 }], { gap: 0, random: seeded(1), budget: { rounds: 0 } }),
    ).toBeNull()
  })
})
function nearest(a: NestPlaced, b: NestPlaced): number {
  const seg = (p: NestPlaced) =>
    p.lie.points.map(
      (q, i) =>
        [q, p.lie.points[(i + 1) % p.lie.points.length] as typeof q].map((s) => ({ x: s.x + p.x, y: s.y + p.y })) as [
          typeof q,
          typeof q,
        ],
    )
  const toPoint = (q: { x: number; y: number }, [s, e]: [typeof q, typeof q]) => {
    const [dx, dy] = [e.x - s.x, e.y - s.y]
    const t = Math.max(0, Math.min(1, ((q.x - s.x) * dx + (q.y - s.y) * dy) / (dx * dx + dy * dy || 1)))
    return Math.hypot(q.x - s.x - t * dx, q.y - s.y - t * dy)
  }
  let least = Infinity
  for (const s of seg(a)) for (const t of seg(b)) least = Math.min(least, toPoint(s[0], t), toPoint(t[0], s))
  return least
}
