import { describe, expect, test } from 'vitest'
import { reliefPlaces } from '@/core/engines/stretch/relief-places'
import { waysOutFor } from '@/core/engines/stretch/ways'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { solvedText } from '@/web/words/stretch-words'
import { formatter } from '@/web/words/format'
import { handCar } from '../fixtures/plans'

const meeting = (
  panel: Panel,
  meets: Partial<Record<Panel['edges'][number]['at'], Panel['edges'][number]['meets']>>,
) => ({
  ...panel,
  edges: panel.edges.map((e) => ({ ...e, meets: meets[e.at] ?? e.meets })),
})
const wing = (over: Partial<Panel> = {}): Panel => ({
  ...meeting(newPanel({ id: 'w', name: 'Wing', kind: 'wing', side: 'left', widthMm: 900, heightMm: 600 }), {
    bottom: 'wheel_arch',
    left: 'lamp',
  }),
  ...over,
})

describe('places where hands make relief cuts', () => {
  test('lie at both ends of the arch and of the lamp, and point into the panel halfway between its edges', () => {
    const of = new Map(reliefPlaces(wing()).map((g) => [g.where, g.places]))
    expect([...of.keys()].sort()).toEqual(['arch_ends', 'lamp_ends'])
    const at = (where: 'arch_ends' | 'lamp_ends') =>
      (of.get(where) ?? []).map(({ at: p, inward: v }) => [p.x, p.y, Math.round(v.x * 100), Math.round(v.y * 100)])
    expect(at('arch_ends')).toEqual([
      [900, 600, -71, -71],
      [0, 600, 71, -71],
    ])
    expect(at('lamp_ends')).toEqual([
      [0, 600, 71, -71],
      [0, 0, 71, 71],
    ])
  })
  test('of a door lie at its front, which is the other side on the other side of the car', () => {
    const door = newPanel({ id: 'd', name: 'Door', kind: 'door', side: 'left', widthMm: 800, heightMm: 500 })
    const x = (panel: Panel) =>
      reliefPlaces(panel)
        .filter((g) => g.where === 'door_front')
        .flatMap((g) => g.places.map((p) => p.at.x))
    expect(x(door)).toEqual([0, 0])
    expect(x({ ...door, side: 'right' })).toEqual([800, 800])
    expect(x({ ...door, kind: 'roof', side: 'centre' })).toEqual([])
  })
  test('of every demo vehicle stand on the outline, and a short way in is inside its box', () => {
    const found = DEMO_JOBS.flatMap((job) =>
      job.make().panels.flatMap((panel) =>
        reliefPlaces(panel).flatMap(({ places }) =>
          places.map(({ at, inward }) => {
            const { edges, widthMm, heightMm } = outlineOf(panel)
            const [sx, sy] = [panel.widthMm / widthMm, panel.heightMm / heightMm]
            expect(
              edges.some(({ from }) => Math.abs(from.x * sx - at.x) < 0.01 && Math.abs(from.y * sy - at.y) < 0.01),
            ).toBe(true)
            expect(Math.hypot(inward.x, inward.y)).toBeCloseTo(1, 9)
            const [x, y] = [at.x + 20 * inward.x, at.y + 20 * inward.y]
            expect(x > -0.01 && x < panel.widthMm + 0.01 && y > -0.01 && y < panel.heightMm + 0.01).toBe(true)
            return at
          }),
        ),
      ),
    )
    expect(found.length).toBeGreaterThan(40)
  })
  test('become ways out that are solved on the surface, with place and length, in words', () => {
    const plan = {
      ...handCar(),
      // Film turns over the rolled lower edge and round the lamp's side: what is cut there need not stretch.
      panels: [
        wing({
          crownMm: 20,
          crownOverMm: 700,
          wraps: [
            { at: 'bottom', radiusMm: 90, angleDeg: 70 },
            { at: 'left', radiusMm: 90, angleDeg: 70 },
          ],
        }),
      ],
      pieces: [],
    }
    const out = waysOutFor(plan, 'w', { triangles: 400 })
    if (!out.ok) throw new Error(out.error.code)
    const cuts = out.value.ways.filter((w) => w.code === 'slits' && w.facts.where === 'arch_ends')
    expect(cuts.length).toBeGreaterThan(0)
    const before = out.value.now?.worst ?? 0
    for (const way of cuts) expect(way.worst).toBeLessThan(before)
    const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
    expect(cuts.map((w) => solvedText(w, fmt)).join()).toMatch(/2 relief cuts of \d+ mm at the ends of the wheel arch/)
    const change = cuts[0]?.change
    expect(change?.kind === 'piece' && change.set.slits?.every((s) => s.fromYMm === 600 && s.toYMm < 600)).toBe(true)
  })
})
