import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackItem, type Packing } from '@/core/solve/pack'
import { METHODS, runPortfolio, type Method, type MethodName } from '@/core/solve/pack/model/method'
import { faultsOf } from '../fixtures/check-packing'

const items = (n: number, seed: number): PackItem[] => {
  const random = seeded(seed)
  return Array.from({ length: n }, (_, i) => ({
    id: `p${i}`,
    copy: 1,
    width: Math.round(120 + random() * 1100),
    length: Math.round(120 + random() * 1100),
    turn: random() < 0.5 ? 'fixed' : 'quarter',
    group: null,
  }))
}
const BINS = [{ id: 'roll', width: 1520, length: 1_000_000, lot: 'A' }]
const total = (plan: Packing): number => plan.used.reduce((sum, u) => sum + u.length, 0)

describe('a portfolio of methods', () => {
  const made = (steps: Record<string, number[]>) => {
    let length = 100
    let turns = 0
    const methods: Method[] = Object.entries(steps).map(([name, gains]) => ({
      name: name as MethodName,
      share: 0.5,
      applies: (turn) => gains[turn] !== undefined,
      step: (turn) => {
        turns = Math.max(turns, turn + 1)
        length -= gains[turn] ?? 0
      },
    }))
    return { methods, length: () => length, done: () => turns >= 3 || length <= 90 }
  }
  it('deals out turns in the order of the list and counts what each gained', () => {
    const told: [string, number][] = []
    const gains = runPortfolio({ ...made({ orders: [3, 0, 1], batches: [2] }), gained: (n, by) => told.push([n, by]) })
    expect(gains.get('orders')).toEqual({ steps: 3, length: 4 })
    expect(gains.get('batches')).toEqual({ steps: 1, length: 2 })
    expect(told).toEqual([
      ['orders', 3],
      ['batches', 2],
      ['orders', 1],
    ])
  })
  it('ends as soon as all is done, also in the middle of a turn', () => {
    const gains = runPortfolio(made({ orders: [10], batches: [5] }))
    expect(gains.get('batches')).toBeUndefined()
  })
  it('leaves out what it is told to; with none left it does nothing', () => {
    const gains = runPortfolio({ ...made({ orders: [1, 1, 1], batches: [2, 2, 2] }), without: new Set(['orders']) })
    expect([...gains.keys()]).toEqual(['batches'])
    expect(runPortfolio({ ...made({ orders: [1] }), without: new Set(METHODS) }).size).toBe(0)
  })
})

describe('packing without one of its methods', () => {
  const cases = [
    { name: 'straight cuts', n: 16, rule: 'guillotine' as const, rounds: 4000 },
    { name: 'many pieces', n: 80, rule: 'guillotine' as const, rounds: 4000 },
    { name: 'free placement', n: 18, rule: 'free' as const, rounds: 3000 },
  ]
  it.each(cases)(
    '$name: whatever is left out, every plan is sound and no shorter than the bound',
    ({ n, rule, rounds }) => {
      const list = items(n, n)
      for (const name of METHODS) {
        const plan = pack(list, BINS, { gap: 3, rule, random: seeded(1), budget: { rounds }, without: new Set([name]) })
        expect(faultsOf(plan, list, BINS, { rule, gap: 3 }), name).toEqual([])
        expect(total(plan), name).toBeGreaterThanOrEqual(plan.bound - 1e-6)
      }
    },
  )
  it('with all of them it is no longer than with orders alone, and what each gained adds up', () => {
    const list = items(20, 7)
    const ask = { gap: 0, random: seeded(1), budget: { rounds: 20_000 } }
    const others = new Set(METHODS.filter((m) => m !== 'orders'))
    const alone = pack(list, BINS, { ...ask, random: seeded(1), without: others })
    const gained = new Map<MethodName, number>()
    const whole = pack(list, BINS, { ...ask, random: seeded(1), gained: (m, by) => gained.set(m, by) })
    expect(total(whole)).toBeLessThanOrEqual(total(alone) + 1e-6)
    for (const by of gained.values()) expect(by).toBeGreaterThan(0)
  })
  it('repeats for a seed, with and without a method', () => {
    const list = items(14, 3)
    for (const without of [new Set<MethodName>(), new Set<MethodName>(['recombine'])]) {
      const run = () => pack(list, BINS, { gap: 0, random: seeded(5), budget: { rounds: 3000 }, without })
      expect(run().placed).toEqual(run().placed)
    }
  })
})
