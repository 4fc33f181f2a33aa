import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mergePlans } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import { parseLength, parseTemp } from '@/core/kit/units'
import { clashRows } from '@/web/words/clash'
import { formatter, knownTimeZone, signed, type MemberUnits } from '@/web/words/format'
import { handCar, withPanel } from '../fixtures/plans'

const METRIC: MemberUnits = {
  lengthUnit: 'mm',
  tempUnit: 'C',
  locale: 'en-GB',
  currency: 'EUR',
  timeZone: 'Europe/Dublin',
}
const INCHES: MemberUnits = {
  lengthUnit: 'in',
  tempUnit: 'F',
  locale: 'en-US',
  currency: 'USD',
  timeZone: 'America/New_York',
}
const metric = formatter(METRIC)
const inches = formatter(INCHES)

describe('numbers as the member reads them', () => {
  it.each([
    [1380, '1380 mm', '54 5/16″'],
    [25.4, '25 mm', '1″'],
    [9.525, '10 mm', '3/8″'],
  ])('%s mm is %s, and %s', (mm, here, there) => {
    expect(metric.text(metric.length(mm))).toBe(here)
    expect(inches.text(inches.length(mm))).toBe(there)
  })
  it('a length shown can be typed back, to half a millimetre, or half of a sixteenth', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 6000, noNaN: true }), (mm) => {
        for (const [f, unit, half] of [
          [metric, 'mm', 0.501],
          [inches, 'in', 25.4 / 16 / 2 + 0.01],
        ] as const) {
          const read = parseLength(f.length(mm).text, unit)
          expect(read.ok && Math.abs(read.value - mm)).toBeLessThanOrEqual(half)
        }
      }),
    )
  })
  it('a temperature shown can be typed back to a twentieth of a degree', () => {
    fc.assert(
      fc.property(fc.integer({ min: -400, max: 4000 }), (tenths) => {
        const c = tenths / 10
        for (const [f, unit] of [
          [metric, 'C'],
          [inches, 'F'],
        ] as const) {
          const read = parseTemp(f.temp(c).text.replaceAll(',', ''), unit)
          expect(read.ok && Math.abs(read.value - c)).toBeLessThanOrEqual(0.051)
        }
      }),
    )
  })
  it('film is ordered by the metre here, by the yard there (1 yd = 914.4 mm)', () => {
    expect(metric.text(metric.longLength(12_345))).toBe('12.35 m')
    expect(inches.text(inches.longLength(914.4 * 7.5))).toBe('7.50 yd')
  })
  it('an area small enough for a handle does not read as nothing', () => {
    expect(metric.text(metric.area(220 * 42))).toBe('92 cm²')
    expect(metric.text(metric.area(1_269_600))).toBe('1.27 m²')
    expect(inches.text(inches.area(25.4 * 25.4 * 3))).toBe('3.0 in²')
    expect(inches.text(inches.area(304.8 * 304.8 * 10))).toBe('10.0 ft²')
  })
  it.each([
    [0, '0 min'],
    [59.4, '59 min'],
    [59.6, '1:00 h'],
    [61, '1:01 h'],
    [1505, '25:05 h'],
  ])('%s minutes read %s', (min, text) => expect(metric.text(metric.minutes(min))).toBe(text))
  it('money is the shop’s, as the member writes it', () => {
    expect(metric.text(metric.money(1234.5))).toBe('€1,234.50')
    expect(inches.text(inches.money(1234.5))).toBe('$1,234.50')
  })
  it('every unit of a figure has its words, and nothing is a dash', () => {
    const units = [
      'mm',
      'mm2',
      'rad',
      'fraction',
      'C',
      'min',
      's',
      'mm_s',
      'w_m2k',
      'money',
      'price_per_m',
      'delta_e',
      'count',
    ] as const
    for (const unit of units) {
      expect(metric.quantity(null, unit)).toEqual({ text: '–', unit: '' })
      for (const f of [metric, inches]) expect(f.text(f.quantity(12.5, unit)), unit).toMatch(/\d/)
    }
  })
  it('a difference has its sign once, and both where there is none', () => {
    expect(signed(1.5, '1.5')).toBe('+1.5')
    expect(signed(-1.5, metric.number(1.5, 1))).toBe('−1.5')
    expect(signed(0, '0')).toBe('±0')
    for (const f of [metric, inches]) expect(signed(-1.5, f.number(-1.5, 1))).toBe('−1.5')
  })
})

describe('moments on the shop’s clock', () => {
  it('summer and winter have their own hour; the zone is the shop’s, not the machine’s', () => {
    expect(metric.clock('2026-07-01T10:00:00Z')).toBe('11:00')
    expect(metric.clock('2026-12-01T10:00:00Z')).toBe('10:00')
    expect(inches.clock('2026-07-01T10:00:00Z')).toBe('06:00 AM')
  })
  it('a wall time is what stands on the wall, whatever the zone', () => {
    expect(metric.text(metric.wallTime('2026-11-30T07:45'))).toBe('Mon 30 Nov, 07:45')
    expect(inches.text(inches.wallTime('2026-11-30T19:45'))).toBe('Mon, Nov 30, 07:45 PM')
  })
  it('a day alone is that day in every zone', () => {
    for (const timeZone of ['Pacific/Auckland', 'Pacific/Honolulu', 'UTC'])
      expect(formatter({ ...METRIC, timeZone }).day('2026-03-29')).toBe('Sun 29 Mar')
  })
  it('what is no moment stands as it is, and no zone is UTC', () => {
    expect(metric.moment('soon')).toBe('soon')
    expect(metric.day('soon')).toBe('soon')
    expect(metric.text(metric.wallTime('soon'))).toBe('soon')
    expect(knownTimeZone('Middle/Earth')).toBe('UTC')
    expect(formatter({ ...METRIC, timeZone: 'Middle/Earth' }).clock('2026-07-01T10:00:00Z')).toBe('10:00')
  })
})

describe('what two people changed differently, in words', () => {
  const base = handCar()
  const rows = (mine: Plan, theirs: Plan) => {
    const out = mergePlans(base, mine, theirs)
    if (out.clean) throw new Error('nothing clashes')
    return out.clashes.flatMap((c) => clashRows(c, base, metric))
  }
  it('a size: the panel, the field, and the three figures with their unit', () => {
    const width = (mm: number) => withPanel(base, 'door', () => ({ widthMm: mm }))
    const [row, ...more] = rows(width(1000), width(1100))
    expect(more).toEqual([])
    expect(row).toMatchObject({ before: '1050 mm', mine: '1000 mm', theirs: '1100 mm' })
    expect(row?.what).toMatch(/^Door: /)
  })
  it('only the fields that differ', () => {
    const found = rows(
      withPanel(base, 'door', () => ({ widthMm: 1000, note: 'mine', heightMm: 700 })),
      withPanel(base, 'door', () => ({ widthMm: 1100, note: 'theirs', heightMm: 700 })),
    )
    expect(found.length).toBe(2)
    expect(found.map((r) => [r.mine, r.theirs])).toContainEqual(['mine', 'theirs'])
  })
  it('a panel taken away by one and changed by the other', () => {
    const gone: Plan = { ...base, panels: base.panels.filter((p) => p.id !== 'door') }
    const [row] = rows(
      gone,
      withPanel(base, 'door', () => ({ widthMm: 1100 })),
    )
    expect(row).toMatchObject({ what: 'Door', mine: 'taken away', theirs: 'changed' })
  })
  it('what stands in a list is told by its own name', () => {
    const recess = (depthMm: number): Plan =>
      withPanel(base, 'door', () => ({
        recesses: [
          {
            id: 'r',
            name: 'Cup',
            xMm: 500,
            yMm: 300,
            mouthWidthMm: 100,
            mouthHeightMm: 60,
            depthMm,
            wallDeg: 90,
            open: null,
            way: null,
          },
        ] as never,
      }))
    for (const r of rows(recess(20), recess(30))) {
      expect(r.what).not.toMatch(/undefined|\[object/)
      expect([r.before, r.mine, r.theirs].join()).not.toMatch(/undefined|\[object|NaN/)
    }
  })
  it('a film is told by its name, not by its id', () => {
    const film = (filmId: string | null) => withPanel(base, 'door', () => ({ filmId }))
    const found = rows(film('fen-satin'), film('other'))
    expect(found[0]?.mine).toBe('Fen satin green')
    expect(found[0]?.before).toBe('none')
  })
})
