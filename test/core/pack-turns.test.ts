import { describe, expect, it, vi } from 'vitest'
import { seeded } from '@/core/kit/random'
import { layoutByContract, type LayoutInput } from '@/core/engines/roll/contract'
import { Decoder } from '@/core/solve/pack/straight/decode'
import { faults } from '../fixtures/check-plan'

/** Pieces and rolls of chance sizes, as many as are wanted. */
function request(
  pieces: number,
  rolls: number,
  over: Partial<LayoutInput> & { lotOf?: (i: number) => string; groups?: number } = {},
): LayoutInput {
  const { lotOf, groups, ...rest } = over
  const random = seeded(7)
  const size = (least: number, most: number) => Math.round(least + random() * (most - least))
  return {
    format: 'cuirass/layout@1',
    cutting: 'guillotine',
    gap_mm: 5,
    seconds: 1,
    seed: 1,
    stock: Array.from({ length: rolls }, (_, i) => ({
      id: `r${i}`,
      width_mm: 1520,
      length_mm: size(4000, 25_000),
      ...(lotOf ? { lot: lotOf(i) } : {}),
    })),
    pieces: Array.from({ length: pieces }, (_, i) => ({
      id: `p${i}`,
      width_mm: size(80, 1400),
      height_mm: size(80, 900),
      count: 1,
      turn: 'quarter' as const,
      ...(groups ? { group: `g${i % groups}` } : {}),
    })),
    ...rest,
  }
}

/** A clock that moves on whenever it is asked: budgets are counted in questions, so a slow machine changes nothing. */
const clock = (stepMs: number) => {
  let now = 0
  return () => (now += stepMs)
}
const lay = (input: LayoutInput, stepMs = 0.05) => {
  const out = layoutByContract(input, clock(stepMs))
  if (!out.ok) throw new Error(out.error.code)
  return out.value
}

describe('what has no group knows no lot', () => {
  it.each(['free', 'guillotine'] as const)('%s: a stock of many lots is laid as the same stock of one', (cutting) => {
    const one = lay(request(165, 12, { cutting, lotOf: () => 'A' }))
    const many = lay(request(165, 12, { cutting, lotOf: (i) => `L${i}` }))
    const none = lay(request(165, 12, { cutting }))
    expect(many).toEqual(one)
    expect(none).toEqual(one)
  })
  it('a group still comes from one lot', () => {
    const input = request(60, 8, { groups: 5, lotOf: (i) => `L${i % 4}` })
    expect(faults(input, lay(input))).toEqual([])
  })
})

describe('very many pieces and rolls', () => {
  it.each([
    ['each roll its own lot', {}],
    ['sixty groups over them', { groups: 60 }],
    ['eight lots', { groups: 60, lotOf: (i: number) => `L${i % 8}` }],
    ['any placement', { cutting: 'free' as const }],
  ])(
    'come out sound when the time is over before the first plan: %s',
    (_, over) => {
      const input = request(1500, 600, over)
      // Every question to the clock takes a fifth of the budget.
      const plan = lay(input, 200)
      expect(faults(input, plan)).toEqual([])
      const placed = plan.stock.reduce((s, x) => s + x.placements.length, 0)
      expect(placed + plan.unplaced.length).toBe(1500)
      expect(placed).toBeGreaterThan(1200)
    },
    60_000,
  )
})

it('groups that go from lot to lot take no more than their share of the time: each lot is then laid a few times, no more', () => {
  const runs = vi.spyOn(Decoder.prototype, 'run')
  const tight = request(600, 24, { groups: 40, lotOf: (i) => `L${i % 8}` })
  const input = { ...tight, stock: tight.stock.map((s) => ({ ...s, length_mm: 4000 + (s.length_mm ?? 0) / 5 })) }
  // A third of the time has gone by when the groups have been shared out for the first time.
  const plan = lay(input, 6)
  expect(faults(input, plan)).toEqual([])
  // Eight lots: looks at whether each holds all, its plan, and what is laid beside it. Without the share, 170.
  expect(runs.mock.calls.length).toBeLessThanOrEqual(5 * 8)
  runs.mockRestore()
})

it('no pieces make an empty plan', () =>
  expect(lay(request(0, 2))).toEqual({
    format: 'cuirass/layout-plan@1',
    used_mm: 0,
    bound_mm: 0,
    proven: true,
    unplaced: [],
    stock: [
      { id: 'r0', used_mm: 0, placements: [] },
      { id: 'r1', used_mm: 0, placements: [] },
    ],
  }))
