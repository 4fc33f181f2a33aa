import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackBin, type PackItem, type PackOptions, type Packing } from '@/core/solve/pack'
import { bars } from '@/core/solve/pack/bound/bars'
import { dualFeasible } from '@/core/solve/pack/bound/bound'
import { kindsOf } from '@/core/solve/pack/model/kinds'
import { faultsOf } from '../fixtures/check-packing'

const item = (
  id: string,
  width: number,
  length: number,
  turn: PackItem['turn'] = 'fixed',
  group: string | null = null,
): PackItem => ({
  id,
  copy: 1,
  width,
  length,
  turn,
  group,
})
const bin = (width: number, length = 1e5, over: Partial<PackBin> = {}): PackBin => ({
  id: 'a',
  width,
  length,
  lot: 'A',
  ...over,
})
const run = (items: PackItem[], bins: PackBin[], over: Partial<PackOptions> & { rounds?: number } = {}): Packing => {
  const { rounds = 40_000, ...rest } = over
  return pack(items, bins, { gap: 0, random: seeded(1), budget: { rounds }, ...rest })
}
const total = (p: Packing) => p.used.reduce((s, u) => s + u.length, 0)

/** A sheet cut at random by straight cuts: its least length is known. */
function cutUp(seed: number, n: number, width = 1520, length = 4000): PackItem[] {
  const random = seeded(seed)
  const rects: [number, number][] = [[width, length]]
  while (rects.length < n) {
    const i = rects.map(([w, l], k) => ({ k, a: w * l * random() })).sort((a, b) => b.a - a.a)[0]?.k ?? 0
    const [w, l] = rects[i] as [number, number]
    const lengthwise = random() < w / (w + l)
    const side = lengthwise ? w : l
    if (side < 40) continue
    const at = Math.round(side * (0.15 + 0.7 * random()))
    rects.splice(
      i,
      1,
      ...((lengthwise
        ? [
            [at, l],
            [w - at, l],
          ]
        : [
            [w, at],
            [w, l - at],
          ]) as [number, number][]),
    )
  }
  return rects.map(([w, l], i) => item(`r${i}`, w, l, seed % 2 ? 'fixed' : 'quarter'))
}

// A. J. W. Duijvestijn, "Simple perfect squared square of lowest order", J. Combin. Theory B 25 (1978): side 112.
const SQUARED_SQUARE = [50, 42, 37, 35, 33, 29, 27, 25, 24, 19, 18, 17, 16, 15, 11, 9, 8, 7, 6, 4, 2]
// Z. Moroń (1925): nine squares tile 33 x 32 (docs/sources.md, from memory; the areas add up).
const SQUARED_RECTANGLE = [18, 15, 14, 10, 9, 8, 7, 4, 1]
// E. Hopper, B. C. H. Turton, European J. Operational Research 128 (2001), class C1: width 20, optimum 20 (sizes from
// memory; the areas add up).
const C1 = [
  [
    [2, 12],
    [7, 12],
    [8, 6],
    [3, 6],
    [3, 5],
    [5, 5],
    [3, 12],
    [3, 7],
    [5, 7],
    [2, 6],
    [3, 2],
    [4, 2],
    [3, 4],
    [4, 4],
    [9, 2],
    [11, 2],
  ],
  [
    [4, 1],
    [4, 5],
    [9, 4],
    [3, 5],
    [3, 9],
    [1, 4],
    [5, 3],
    [4, 1],
    [5, 5],
    [7, 2],
    [9, 3],
    [3, 13],
    [2, 8],
    [15, 4],
    [5, 4],
    [10, 6],
    [7, 2],
  ],
  [
    [4, 14],
    [5, 2],
    [2, 2],
    [9, 7],
    [5, 5],
    [2, 5],
    [7, 7],
    [3, 5],
    [6, 5],
    [3, 2],
    [6, 2],
    [4, 6],
    [6, 3],
    [10, 3],
    [6, 3],
    [10, 3],
  ],
] as const

describe('published packings', () => {
  const squares = (sides: readonly number[]) => sides.map((s, i) => item(`s${i}`, s, s))
  it('the squared square of order 21 is found by free placement', () => {
    const items = squares(SQUARED_SQUARE)
    expect(SQUARED_SQUARE.reduce((s, a) => s + a * a, 0)).toBe(112 ** 2)
    const plan = run(items, [bin(112)], { rule: 'free', rounds: 400_000 })
    expect(total(plan)).toBe(112)
    expect(plan.proven).toBe(true)
    expect(faultsOf(plan, items, [bin(112)], { rule: 'free' })).toEqual([])
  })
  it('the 33 x 32 rectangle of nine squares too; straight cuts never claim it', () => {
    const items = squares(SQUARED_RECTANGLE)
    expect(SQUARED_RECTANGLE.reduce((s, a) => s + a * a, 0)).toBe(33 * 32)
    expect(total(run(items, [bin(33)], { rule: 'free' }))).toBe(32)
    expect(total(run(items, [bin(32)], { rule: 'free' }))).toBe(33)
    const cut = run(items, [bin(33)])
    expect(total(cut)).toBeGreaterThan(32)
    expect(faultsOf(cut, items, [bin(33)])).toEqual([])
    const square = squares(SQUARED_SQUARE)
    const cutSquare = run(square, [bin(112)])
    expect(total(cutSquare)).toBeGreaterThan(112)
    expect(faultsOf(cutSquare, square, [bin(112)])).toEqual([])
  })
  it.each([0, 1, 2])('class C1 problem %i: 20 by free placement with turns', (n) => {
    const items = (C1[n] ?? []).map(([w, l], i) => item(`p${i}`, w, l, 'quarter'))
    expect(items.reduce((s, i) => s + i.width * i.length, 0)).toBe(400)
    const plan = run(items, [bin(20)], { rule: 'free', rounds: 2_000_000 })
    expect(total(plan)).toBe(20)
    expect(faultsOf(plan, items, [bin(20)], { rule: 'free' })).toEqual([])
  })
})

describe('sheets cut up at random come together again', () => {
  it.each([8, 11, 14, 17, 20, 23, 26, 29, 30])('%i pieces, by straight cuts, at their least', (n) => {
    const items = cutUp(n, n)
    const plan = run(items, [bin(1520)], { rounds: 100_000 })
    expect(total(plan)).toBe(4000)
    expect(plan.proven).toBe(true)
    expect(faultsOf(plan, items, [bin(1520)])).toEqual([])
  })
})

const anyItems = (most: number) =>
  fc.array(
    fc.record({
      w: fc.integer({ min: 30, max: 1000 }),
      l: fc.integer({ min: 30, max: 1500 }),
      turn: fc.constantFrom('fixed' as const, 'quarter' as const),
      group: fc.constantFrom(null, 'g', 'h'),
    }),
    { minLength: 1, maxLength: most },
  )

describe('any plan', () => {
  it('is sound by an independent check: gap, turns, lots, blocked spans, stages, bound', () => {
    fc.assert(
      fc.property(
        anyItems(24),
        fc.constantFrom(0, 3, 12.5),
        fc.constantFrom(2, 3, 4, Infinity),
        fc.constantFrom('guillotine' as const, 'free' as const),
        (list, gap, cuts, rule) => {
          const items = list.map((i, k) => item(`i${k}`, i.w, i.l, i.turn, i.group))
          const bins = [
            bin(1520, 9000, { blocked: [{ from: 1200, to: 1500 }] }),
            bin(1520, 7000, { id: 'b' }),
            bin(1220, 12000, { id: 'c', lot: 'C' }),
          ]
          const plan = run(items, bins, { gap, cuts, rule, rounds: 300 })
          expect(faultsOf(plan, items, bins, { gap, rule, stages: rule === 'free' ? Infinity : cuts })).toEqual([])
          expect(total(plan)).toBeGreaterThanOrEqual(plan.bound - 2 * gap - 1e-6)
        },
      ),
      { numRuns: 120, seed: 11 },
    )
  })
  it('never beats the bounds, and the sharper bound is never the lower one', () => {
    fc.assert(
      fc.property(anyItems(9), (list) => {
        const items = list.map((i, k) => item(`i${k}`, i.w, i.l, i.turn))
        const kinds = kindsOf(items, 0, 1520)
        const quick = dualFeasible(kinds, 1520)
        const sharp = bars(kinds, 1520, quick)
        expect(sharp.bound).toBeGreaterThanOrEqual(quick.bound - 1e-9)
        const best = total(run(items, [bin(1520)], { rule: 'free', rounds: 6000 }))
        expect(best).toBeGreaterThanOrEqual(sharp.bound - 1e-6)
      }),
      { numRuns: 80, seed: 5 },
    )
  })
  it('with few items is the least of all plans by straight cuts: a slow twin agrees', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ w: fc.integer({ min: 1, max: 9 }), l: fc.integer({ min: 1, max: 9 }), q: fc.boolean() }), {
          minLength: 1,
          maxLength: 4,
        }),
        (list) => {
          const items = list.map((i, k) => item(`i${k}`, i.w, i.l, i.q ? 'quarter' : 'fixed'))
          const plan = run(items, [bin(10)], { rounds: 3000 })
          expect(total(plan)).toBe(leastByCuts(items, 10))
          expect(plan.bound).toBe(total(plan))
        },
      ),
      { numRuns: 60, seed: 3 },
    )
  })
  it('keeps locked items where they are and lays the rest round them', () => {
    const items = [item('a', 700, 900), item('b', 600, 800), item('c', 1400, 500), item('d', 300, 300, 'quarter')]
    const lockedItem = items[0] as PackItem
    const locked = [{ item: lockedItem, binId: 'a', x: 100, y: 1000, width: 700, length: 900, turned: false }]
    const plan = run(items, [bin(1520, 20_000)], { locked, gap: 5 })
    expect(faultsOf(plan, items, [bin(1520, 20_000)], { gap: 5, rule: 'free' })).toEqual([])
    expect(plan.placed.find((p) => p.item.id === 'a')).toMatchObject({ x: 100, y: 1000 })
    // What fits beside it goes there, within the stages of cuts that are allowed.
    const three = run(items, [bin(1520, 20_000)], { locked, gap: 5, cuts: 3 })
    expect(faultsOf(three, items, [bin(1520, 20_000)], { gap: 5, stages: 3 })).toEqual([])

    expect(plan.placed.find((p) => p.item.id === 'b')).toMatchObject({ y: 1000 })
  })
  it('repeats exactly for a seed and gives each better plan once', () => {
    const items = cutUp(77, 34).map((i) => ({ ...i, width: i.width - 3 }))
    const seen: number[] = []
    const a = run(items, [bin(1520)], { rounds: 5000, better: (p) => seen.push(total(p)) })
    const b = run(items, [bin(1520)], { rounds: 5000 })
    expect(a).toEqual(b)
    for (let i = 1; i < seen.length; i++) expect(seen[i]).toBeLessThan(seen[i - 1] as number)
  })
  it('stops soon after it is told to, with a whole plan in hand', () => {
    const items = cutUp(5, 60).map((i) => ({ ...i, width: i.width - 3 }))
    let looks = 0
    const plan = run(items, [bin(1520)], { rounds: 1e9, budget: { rounds: 1e9, spent: () => ++looks > 40 } })
    expect(plan.placed).toHaveLength(60)
    expect(looks).toBeLessThan(200)
  })
})

/** All plans of a few items by straight cuts, tried one by one: least length on a strip. */
function leastByCuts(items: PackItem[], width: number): number {
  const fits = (sizes: [number, number][], w: number): number => {
    // Least length of a rectangle of width w that holds these sizes.
    if (sizes.length === 0) return 0
    if (sizes.length === 1) return (sizes[0] as [number, number])[0] <= w ? (sizes[0] as [number, number])[1] : Infinity
    let least = Infinity
    for (let mask = 1; mask < (1 << sizes.length) - 1; mask++) {
      const a = sizes.filter((_, i) => mask & (1 << i))
      const b = sizes.filter((_, i) => !(mask & (1 << i)))
      least = Math.min(least, fits(a, w) + fits(b, w))
      for (let at = 1; at < w; at++) least = Math.min(least, Math.max(fits(a, at), fits(b, w - at)))
    }
    return least
  }
  let least = Infinity
  for (let turns = 0; turns < 1 << items.length; turns++) {
    if (items.some((i, k) => turns & (1 << k) && i.turn === 'fixed')) continue
    least = Math.min(
      least,
      fits(
        items.map((i, k): [number, number] => (turns & (1 << k) ? [i.length, i.width] : [i.width, i.length])),
        width,
      ),
    )
  }
  return least
}
