import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  familyPanels,
  hardwareOf,
  keysOf,
  neverCoverOf,
  STYLES,
  usualKeys,
  type Style,
} from '@/core/model/vehicle/families'
import { outlineOf } from '@/core/model/vehicle/outline'
import { panelFindings } from '@/core/stages/tape/findings'
import { Plan } from '@/core/model/plan/schema'
import { skinOf } from '@/core/engines/skin/skin'
import { overlap } from '@/core/engines/skin/rows'
import { handCar } from '../fixtures/plans'

const styles = Object.keys(STYLES) as Style[]
/** Key lengths anywhere in a style's range, each by itself. */
const keysFor = (style: Style) =>
  fc.record(
    Object.fromEntries(
      STYLES[style].map((k) => [
        k.key,
        k.unit === 'count'
          ? fc.integer({ min: k.min, max: k.max })
          : fc.double({ min: k.min, max: k.max, noNaN: true }),
      ]),
    ),
  )
const planOf = (style: Style, keys: Record<string, number>): Plan => ({
  ...handCar(),
  vehicle: { ...handCar().vehicle, kind: style, keys, keysAssumed: [] },
  panels: familyPanels(style, keys),
  pieces: [],
})

describe('families of body styles', () => {
  it.each(styles)('%s: 1,000 random sets of key lengths pass our own checks, taped or not', (style) => {
    fc.assert(
      fc.property(keysFor(style), (keys) => {
        const plan = planOf(style, keys)
        const taped = { ...plan, panels: plan.panels.map((p) => ({ ...p, assumed: [] })) }
        const ids = plan.panels.map((p) => p.id)
        expect(new Set(ids).size).toBe(ids.length)
        // Said of a sound vehicle: that figures are assumed; and that an edge next to nothing has no name.
        expect(panelFindings(taped).map((f) => f.id)).toEqual([])
        expect(panelFindings(plan).map((f) => f.code)).toEqual(['figures_assumed'])
      }),
      { numRuns: 1000, seed: 20261123 },
    )
  })
  it.each(styles)('%s: a plan of it is a sound document, every figure assumed', (style) => {
    const plan = planOf(style, usualKeys(style))
    expect(
      Plan.safeParse({ ...plan, walkaround: { ...plan.walkaround, neverCover: neverCoverOf(plan.panels) } }).success,
    ).toBe(true)
    for (const p of plan.panels) expect(p.assumed).toEqual(expect.arrayContaining(['widthMm', 'heightMm']))
    expect(STYLES[style].length).toBeGreaterThanOrEqual(8)
    expect(STYLES[style].length).toBeLessThanOrEqual(12)
  })
  it.each(styles)('%s: every neighbour that an edge names is there', (style) => {
    const panels = familyPanels(style, usualKeys(style))
    const ids = new Set(panels.map((p) => p.id))
    for (const p of panels)
      for (const e of p.edges) if (e.neighbour) expect(ids.has(e.neighbour), `${p.id} ${e.id}`).toBe(true)
  })
  it.each(styles)('%s: on the map no panel lies on another, at the ends of its ranges too', (style) => {
    const ends = (['usual', 'min', 'max'] as const).map((end) =>
      Object.fromEntries(STYLES[style].map((k) => [k.key, k[end]])),
    )
    for (const keys of ends) {
      const skin = skinOf(familyPanels(style, keys))
      const own = skin.panels.filter((p) => p.on === null)
      for (const a of own)
        for (const b of own) {
          const over = a.id < b.id ? overlap(a.box, b.box) : null
          if (over) expect(Math.min(over.x, over.y), `${a.id} and ${b.id}`).toBeLessThan(30)
        }
    }
  })
  it('hardware is named once from what is raised on the panels, with its minutes', () => {
    const panels = familyPanels('city_car', usualKeys('city_car'))
    const list = hardwareOf(panels, [])
    expect(list.filter((h) => h.name.startsWith('Handle, ')).map((h) => [h.way, h.minutes])).toEqual(
      Array(4).fill(['remove', 15]),
    )
    expect(new Set(list.map((h) => h.id)).size).toBe(list.length)
    expect(hardwareOf(panels, list)).toEqual([])
  })
  it('typed keys are checked by name and range, the others stand as assumed', () => {
    expect(keysOf('city_car', { length: 3900 })).toMatchObject({
      ok: true,
      value: { keys: { length: 3900, wheelbase: 2450 } },
    })
    expect(keysOf('city_car', { lenght: 3900 })).toMatchObject({ error: { code: 'unknown_key', at: 'lenght' } })
    expect(keysOf('city_car', { length: 39 })).toMatchObject({ error: { code: 'key_too_small' } })
    expect(keysOf('city_car', { doors: 3.5 })).toMatchObject({ error: { code: 'bad_number' } })
    expect(keysOf('city_car', { length: Number.NaN })).toMatchObject({ error: { code: 'bad_number' } })
  })
})

/** Formulas of solids, from any table of mensuration. */
describe('families of simple solids against the solids’ own formulas', () => {
  const area = (panels: ReturnType<typeof familyPanels>) => panels.reduce((s, p) => s + outlineOf(p).areaMm2, 0)
  it('a box body’s panels add up to the box: 2·L·H + 2·W·H + L·W (the floor is not wrapped)', () => {
    fc.assert(
      fc.property(
        fc.record({
          length: fc.integer({ min: 2500, max: 13600 }),
          height: fc.integer({ min: 1600, max: 3000 }),
          width: fc.integer({ min: 1800, max: 2600 }),
          sidePanels: fc.integer({ min: 1, max: 8 }),
          roofPanels: fc.integer({ min: 1, max: 6 }),
          rearDoors: fc.integer({ min: 1, max: 2 }),
        }),
        ({ length, height, width, sidePanels, roofPanels, rearDoors }) => {
          const panels = familyPanels('box_body', {
            length,
            height,
            width,
            frame: 0,
            sidePanels,
            roofPanels,
            rearDoors,
            skirt: 0,
          })
          expect(area(panels)).toBeCloseTo(2 * length * height + 2 * width * height + length * width, 0)
        },
      ),
    )
  })
  it('a tank’s strips go once round: π·d; its ends are circles: π·d²/4; its barrel π·d·L', () => {
    for (const diameter of [900, 1900, 2500])
      for (const strips of [2, 3, 8]) {
        const panels = familyPanels('tank', { ...usualKeys('tank'), diameter, strips, rings: 2, endRim: 0 })
        const shell = panels.filter((p) => p.id.startsWith('shell-'))
        const girth = shell.filter((p) => p.id.endsWith('-1')).reduce((s, p) => s + p.heightMm, 0)
        expect(girth).toBeCloseTo(Math.PI * diameter, 6)
        expect(area(shell)).toBeCloseTo(Math.PI * diameter * 6000, 0)
        const end = panels.find((p) => p.id === 'end-front')
        expect(end && outlineOf(end).areaMm2).toBeCloseTo((Math.PI * diameter ** 2) / 4, 1)
        expect(end?.edges.reduce((s, e) => s + e.lengthMm, 0)).toBeCloseTo(Math.PI * diameter, 6)
      }
  })
  it('a tank’s crown under the straightedge is the sagitta of its circle: r − √(r² − c²/4)', () => {
    const shell = familyPanels('tank', { ...usualKeys('tank'), diameter: 2000 }).find((p) => p.id === 'shell-1-1')
    const c = shell?.crownDownOverMm ?? 0
    expect(c).toBeGreaterThan(500)
    expect(shell?.crownDownMm).toBeCloseTo(1000 - Math.sqrt(1000 ** 2 - (c / 2) ** 2), 9)
  })
})
