import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatLength, fromC, MM_PER, parseLength, parseTemp, toC, type LengthUnit } from '@/core/kit/units'

const mm = (text: string, bare: LengthUnit = 'mm') => {
  const r = parseLength(text, bare)
  return r.ok ? Math.round(r.value * 1e6) / 1e6 : r.error.code
}

describe('units against NIST SP 811, appendix B (exact by definition)', () => {
  it.each([
    ['in', 25.4],
    ['ft', 304.8],
    ['yd', 914.4],
    ['mil', 0.0254],
    ['um', 0.001],
    ['m', 1000],
  ] as const)('1 %s = %s mm', (unit, size) => expect(MM_PER[unit]).toBe(size))
  it('°F and °C', () => {
    expect(toC(194, 'F')).toBe(90)
    expect(toC(32, 'F')).toBe(0)
    expect(toC(-40, 'F')).toBe(-40)
    expect(fromC(100, 'F')).toBe(212)
  })
})

describe('typed lengths', () => {
  it.each([
    ['37 1/2', 'in', 952.5],
    ['37½', 'in', 952.5],
    ['37-1/2', 'in', 952.5],
    ['37.5in', 'mm', 952.5],
    ['37.5"', 'mm', 952.5],
    [`3'1"`, 'mm', 939.8],
    ['3 ft 1 1/2 in', 'mm', 952.5],
    [`3' 1`, 'mm', 939.8],
    ['95cm', 'mm', 950],
    ['95,5 cm', 'mm', 955],
    ['0.95 m', 'in', 950],
    ['1.04yd', 'mm', 950.976],
    ['3.3mil', 'mm', 0.08382],
    ['90 µm', 'mm', 0.09],
    ['1m 5cm', 'mm', 1050],
    ['  1380 ', 'mm', 1380],
    ['3/8', 'in', 9.525],
  ] as const)('%s (bare in %s) is %s mm', (text, bare, want) => expect(mm(text, bare)).toBeCloseTo(want, 6))

  it.each([
    ['', 'empty'],
    ['37 1/', 'half_typed'],
    ['37.', 'half_typed'],
    ['12 parsec', 'unknown_unit'],
    ['abc', 'bad_number'],
    ['1/0', 'bad_number'],
    ['3in 4ft', 'bad_number'],
    ['1e9', 'unknown_unit'],
    ['<script>', 'bad_number'],
    ['9'.repeat(60), 'bad_number'],
  ])('%j is refused as %s', (text, code) => expect(mm(text)).toBe(code))

  it('what is shown can be typed back, to half of what is shown', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 15000, noNaN: true }),
        fc.constantFrom('mm', 'cm', 'in', 'm', 'yd'),
        (size, unit: LengthUnit) => {
          const back = parseLength(formatLength(size, unit), unit)
          const step = { mm: 1, cm: 1, in: 25.4 / 16, m: 10, yd: 9.144 }[unit as 'mm']
          return back.ok && Math.abs(back.value - size) <= step / 2 + 1e-9
        },
      ),
    )
  })
})

describe('typed temperatures', () => {
  it.each([
    ['194F', 'C', 90],
    ['90C', 'F', 90],
    ['90 °C', 'F', 90],
    ['95', 'C', 95],
    ['203', 'F', 95],
    ['-3,5', 'C', -3.5],
  ] as const)('%s (bare %s) is %s °C', (text, bare, want) => {
    const r = parseTemp(text, bare)
    expect(r.ok && r.value).toBeCloseTo(want, 9)
  })
  it.each([
    ['', 'empty'],
    ['90.', 'half_typed'],
    ['hot', 'bad_number'],
    ['-300', 'below_absolute_zero'],
  ])('%j is refused as %s', (text, code) => {
    const r = parseTemp(text, 'C')
    expect(!r.ok && r.error.code).toBe(code)
  })
})

// trade.md §5 gives both columns; the conversion has to agree with each row to the rounding of the table.
it.each([
  [40, 104],
  [80, 175],
  [95, 203],
  [90, 194],
  [105, 221],
  [110, 230],
  [107, 225],
  [127, 260],
])('the heat table of practice: %s °C is %s °F', (c, f) => expect(Math.abs(fromC(c, 'F') - f)).toBeLessThanOrEqual(1.1))
