import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackItem, type Packing } from '@/core/solve/pack'
import { splitIntoBands } from '@/core/solve/pack/model/band'
import { kindsOf } from '@/core/solve/pack/model/kinds'
import { faultsOf } from '../fixtures/check-packing'
import { cutUp } from '../fixtures/cut-up'

const bin = (width: number) => [{ id: 'a', width, length: 1e6, lot: 'A' }]
const used = (p: Packing) => p.used.reduce((s, u) => s + u.length, 0)

describe('a sheet of known length, cut up at random, is put together again', () => {
  it.each([
    ['straight cuts, fixed', 71, 70, 0],
    ['straight cuts, may turn', 72, 100, 0],
    ['with pinwheels, fixed', 73, 80, 3],
    ['with pinwheels, may turn', 74, 100, 3],
  ])('%s: within 3 per cent, sound, never shorter than it was', (_, seed, n, wheels) => {
    const { items, width, least, rule } = cutUp(seed, n, wheels)
    const plan = pack(items, bin(width), { gap: 0, rule, random: seeded(1), budget: { rounds: 20_000 } })
    expect(faultsOf(plan, items, bin(width), { rule })).toEqual([])
    expect(used(plan)).toBeGreaterThanOrEqual(least - 1e-6)
    expect(used(plan) / least).toBeLessThan(1.03)
    expect(plan.bound).toBeLessThanOrEqual(least + 1e-6)
  })
  it('sizes that are multiples of nothing stay sound, with gaps too', () => {
    const random = seeded(5)
    const items = Array.from({ length: 40 }, (_, i): PackItem => ({
      id: `p${i}`,
      copy: 1,
      width: 100 + 700 * random(),
      length: 100 + 700 * random(),
      turn: i % 2 ? 'fixed' : 'quarter',
      group: null,
    }))
    for (const rule of ['guillotine', 'free'] as const) {
      const plan = pack(items, bin(1520), { gap: 2.5, rule, random: seeded(1), budget: { rounds: 20_000 } })
      expect(faultsOf(plan, items, bin(1520), { rule, gap: 2.5 })).toEqual([])
      expect(plan.placed).toHaveLength(40)
    }
  })
})

it('a band falls apart where a straight line across meets nothing, and only there', () => {
  const items = [
    ['a', 600, 500],
    ['b', 400, 500],
    ['c', 1000, 300],
    ['d', 500, 200],
    ['e', 500, 400],
  ].map(([id, width, length]): PackItem => ({
    id: id as string,
    copy: 1,
    width: width as number,
    length: length as number,
    turn: 'fixed',
    group: null,
  }))
  const kinds = kindsOf(items, 0, 1000)
  const of = (id: string) => kinds.findIndex((k) => k.items.some((i) => i.id === id))
  const band = {
    length: 1200,
    kinds: ['d', 'c', 'b', 'a', 'e'].map(of),
    x: [0, 0, 600, 0, 500],
    y: [800, 500, 0, 0, 800],
    turned: [false, false, false, false, false],
  }
  const parts = splitIntoBands(band, kinds)
  expect(parts.map((p) => p.length)).toEqual([500, 300, 400])
  expect(parts.map((p) => p.kinds.map((k) => kinds[k]?.items[0]?.id).sort())).toEqual([['a', 'b'], ['c'], ['d', 'e']])
  expect(parts.every((p) => Math.min(...p.y) === 0)).toBe(true)
})
