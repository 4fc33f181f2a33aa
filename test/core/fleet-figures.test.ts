import { describe, expect, it } from 'vitest'
import { formulaWithNumbers } from '@/core/model/figure/figure'
import { fleetFigures } from '@/core/stages/roll/fleet-figures'
import { layoutByContract, type LayoutInput } from '@/core/engines/roll/contract'

const request = (lengthMm: number, count: number): LayoutInput => ({
  format: 'cuirass/layout@1',
  cutting: 'guillotine',
  gap_mm: 0,
  seconds: 1,
  seed: 1,
  stock: ['a', 'b', 'c'].map((id) => ({ id, width_mm: 1500, length_mm: lengthMm, lot: 'L' })),
  pieces: [{ id: 'door', width_mm: 1000, height_mm: 800, count, turn: 'fixed' }],
})

describe('figures of a fleet’s layout', () => {
  it('follow by hand from the pieces: doors that never lie side by side', () => {
    const ask = request(1700, 4)
    const made = layoutByContract(ask, () => performance.now())
    if (!made.ok) throw new Error(made.error.code)
    const by = new Map(fleetFigures(ask, made.value).map((f) => [f.id.slice(6), f]))
    // Two doors of 800 mm on each of two rolls; 4 × 800 at least; 1000 of 1500 mm of the width becomes doors.
    expect(by.get('used')?.value).toBe(3200)
    expect(by.get('used')?.inputs.map((i) => i.value)).toEqual([1600, 1600])
    expect(by.get('bound')?.value).toBe(3200)
    expect(by.get('above')?.value).toBe(0)
    expect(by.get('yield')?.value).toBeCloseTo(1000 / 1500, 12)
    expect(formulaWithNumbers(by.get('yield') as never)).toBe('3200000 ÷ 4800000')
    expect(by.get('bound')?.standing).toBe('published')
  })
  it('count only what is placed, and an empty layout has no yield', () => {
    const ask = request(900, 5)
    const made = layoutByContract(ask, () => performance.now())
    if (!made.ok) throw new Error(made.error.code)
    expect(made.value.unplaced).toHaveLength(2)
    const by = new Map(fleetFigures(ask, made.value).map((f) => [f.id.slice(6), f]))
    expect(by.get('bound')?.inputs.find((i) => i.key === 'pieces')?.value).toBe(3)
    expect(by.get('used')?.value).toBe(2400)
    const none = fleetFigures(ask, { ...made.value, used_mm: 0, bound_mm: 0, stock: [] })
    expect(none.filter((f) => f.value === null).map((f) => f.id)).toEqual(['fleet/above', 'fleet/yield'])
  })
})
