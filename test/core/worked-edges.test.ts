import { describe, expect, it } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { reckon } from '@/core/reckon/reckon'
import { catalogue, film, handCar } from '../fixtures/plans'

/** The hand sums of docs/worked-car.md. */
describe('edges, corners and hours reckoned by hand', () => {
  const r = reckon(handCar(), catalogue, [])
  const edges = (panel: string) => r.edges.edges.filter((e) => e.panelId === panel)
  const minutes = (id: string) => r.steps.find((s) => s.id === id)?.minutes

  it('the bonnet', () => {
    expect(edges('bonnet').map((e) => [e.at, e.cut, e.leaveMm, e.tapes.length])).toEqual([
      ['top', 'own_underside', 15, 0],
      ['right', 'own_underside', 10, 0],
      ['bottom', 'own_underside', 10, 0],
      ['left', 'own_underside', 10, 0],
    ])
    const corners = r.edges.corners.filter((c) => c.panelId === 'bonnet')
    expect(corners.map((c) => c.method)).toEqual(['cold_hook', 'cold_hook', 'cold_hook', 'cold_hook'])
    expect(corners[0]?.squeeze).toBeCloseTo(0.1395, 4)
    expect(corners[0]?.pull).toBeCloseTo(0.0712, 4)
    expect([minutes('trim:bonnet'), minutes('post_heat:bonnet')]).toEqual([25, 15])
    expect(r.points.filter((p) => p.panelId === 'bonnet')).toHaveLength(8)
  })

  it('the door', () => {
    expect(edges('door').map((e) => [e.cut, e.tuckMm])).toEqual([
      ['seal_middle', 10],
      ['own_underside', 10],
      ['own_underside', 10],
      ['own_underside', 10],
    ])
    expect(edges('door')[0]?.tapes).toEqual([{ kind: 'masking', lengthMm: 1100 }])
    expect(minutes('trim:door')).toBe(18)
  })

  it('a bumper in mirror film', () => {
    const mirror = film('mere-mirror')
    const car = Plan.parse({
      ...handCar(),
      film: { mainId: mirror.id, sheets: [mirror] },
      panels: [
        newPanel({
          id: 'bumper',
          name: 'Front bumper',
          kind: 'front_bumper',
          side: 'front',
          widthMm: 1700,
          heightMm: 520,
        }),
      ],
    })
    const own = reckon(car, catalogue, [])
    const [top, right, under, left] = own.edges.edges
    expect(top?.tapes).toEqual([
      { kind: 'wire', lengthMm: 1800 },
      { kind: 'masking', lengthMm: 1750 },
    ])
    // Mirror over green stands out: 5 mm more are turned in everywhere.
    expect([right?.leaveMm, under?.leaveMm, left?.leaveMm]).toEqual([25 + 5, 8 + 5, 25 + 5])
    expect(under?.tapes).toEqual([{ kind: 'sealing', lengthMm: 1700 }])
    expect(own.edges.corners.map((c) => [c.method, c.pull > c.limit])).toEqual([
      ['relief', true],
      ['relief', true],
    ])
    expect(own.edges.edges.every((e) => e.heat === 'point')).toBe(true)
  })
})
