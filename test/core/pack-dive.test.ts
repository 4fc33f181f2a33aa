import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackItem } from '@/core/solve/pack'
import { bandsLength, type Band } from '@/core/solve/pack/model/band'
import { dive } from '@/core/solve/pack/straight/dive'
import type { Kind } from '@/core/solve/pack/model/kinds'
import { BandPool } from '@/core/solve/pack/straight/recombine'
import { fleet } from '../../bench/instances'
import { faultsOf } from '../fixtures/check-packing'

const never = () => false
const WIDTH = 1000
const item = (id: number, copy: number): PackItem => ({
  id: `k${id}`,
  copy,
  width: 250,
  length: 400,
  turn: 'fixed',
  group: null,
})

/** Kinds of which each lies alone in 400. */
const kindsFor = (n: number, copies: number): Kind[] =>
  Array.from({ length: n }, (_, i) => ({
    w: 250,
    l: 400,
    turn: false,
    items: Array.from({ length: copies }, (_, c) => item(i, c + 1)),
  }))
const band = (length: number, kinds: number[]): Band => ({
  length,
  kinds,
  x: kinds.map((_, i) => 250 * i),
  y: kinds.map(() => 0),
  turned: kinds.map(() => false),
})
const mark = (kinds: readonly number[]) => [...kinds].sort((a, b) => a - b).reduce((m, k) => m * 61 + k + 1, 0)
const put = (pool: BandPool, b: Band) => pool.put(mark(b.kinds), b, 0)

/** Bands of four that hold every item once in 400 each, hidden among many that are longer. */
function hidden(n: number, copies: number, seed: number) {
  const random = seeded(seed)
  const pool = new BandPool()
  const order = Array.from({ length: n * copies }, (_, i) => i % n)
  for (let i = order.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[order[i], order[j]] = [order[j] as number, order[i] as number]
  }
  const plan = Array.from({ length: order.length / 4 }, (_, b) => band(400, order.slice(4 * b, 4 * b + 4)))
  for (let i = 0; i < 3000; i++) {
    const kinds = Array.from({ length: 1 + Math.floor(random() * 4) }, () => Math.floor(random() * n))
    put(pool, band(kinds.length * 100 + 20 + Math.floor(random() * 200), kinds))
  }
  for (const b of plan) put(pool, b)
  return { kinds: kindsFor(n, copies), pool, least: 100 * order.length }
}
const ask = (pool: BandPool, kinds: readonly Kind[], more: Partial<Parameters<typeof dive>[0]> = {}) =>
  dive({
    pool,
    kinds,
    width: WIDTH,
    price: new Float64Array(kinds.length),
    known: [],
    rest: 0,
    layRest: () => null,
    spent: never,
    ...more,
  })
const held = (bands: readonly Band[], n: number) => {
  const counts = new Array<number>(n).fill(0)
  for (const b of bands) for (const k of b.kinds) counts[k] = (counts[k] as number) + 1
  return counts
}

describe('a plan out of bands known', () => {
  it('finds the bands that leave nothing over among thousands, each item once', () => {
    for (const [n, copies, seed] of [
      [24, 1, 1],
      [60, 1, 2],
      [20, 4, 3],
    ] as const) {
      const { kinds, pool, least } = hidden(n, copies, seed)
      const price = new Float64Array(n)
      const bands = ask(pool, kinds, { price })
      // With copies several mixtures of those bands are as good for the linear program, not all of them whole.
      expect(bandsLength(bands as Band[])).toBeLessThan(least * (copies === 1 ? 1 + 1e-9 : 1.05))
      expect(held(bands as Band[], n)).toEqual(new Array(n).fill(copies))
      // Items are worth no more than any band that holds them costs, and all of them what the plan takes.
      for (const b of pool.within(Int32Array.from(kinds, () => copies)))
        expect(b.kinds.reduce((sum, k) => sum + (price[k] as number), 0)).toBeLessThanOrEqual(b.length + 1e-6)
      expect(price.reduce((sum, p) => sum + p * copies, 0)).toBeCloseTo(least, 6)
    }
  })
  it('leaves what no band holds to be laid anew, and what is wanted of it is just that', () => {
    const kinds = kindsFor(9, 1)
    const pool = new BandPool()
    put(pool, band(400, [0, 1, 2, 3]))
    put(pool, band(400, [4, 5, 6, 7]))
    let asked: number[] = []
    const bands = ask(pool, kinds, {
      layRest: (left) => {
        asked = [...left]
        return [band(400, [8])]
      },
    })
    expect(asked).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 1])
    expect(bandsLength(bands as Band[])).toBe(1200)
    expect(ask(pool, kinds)).toBeNull()
  })
  it('begins from a plan known, and ends at once when time is over', () => {
    const { kinds, pool, least } = hidden(40, 1, 5)
    const known = pool.within(Int32Array.from(kinds, () => 1)).filter((b) => b.length === 400 && b.kinds.length === 4)
    expect(bandsLength(ask(pool, kinds, { known }) as Band[])).toBeCloseTo(least, 6)
    expect(ask(pool, kinds, { spent: () => true })).toBeNull()
  })
  it('bands that hold too much of a kind stay out; those that lose most are forgotten first', () => {
    const pool = new BandPool()
    for (const b of [band(400, [0, 0]), band(410, [0, 1]), band(300, [1]), band(900, [2])]) put(pool, b)
    expect(pool.within(Int32Array.of(1, 1, 0)).map((b) => b.length)).toEqual([410, 300])
    pool.keepLeast(2, Float64Array.of(200, 200, 200))
    expect(pool.within(Int32Array.of(9, 9, 9)).map((b) => b.length)).toEqual([400, 410])
  })
  it('a longer band never takes the place of the shorter one that holds the same', () => {
    const pool = new BandPool()
    const [short, long] = [band(400, [0, 1]), band(450, [0, 1])]
    expect(pool.shortest(mark(short.kinds), short)).toBe(short)
    expect(pool.shortest(mark(long.kinds), long)).toBe(short)
    expect(pool.within(Int32Array.of(1, 1))).toEqual([short])
    const shorter = band(390, [0, 1])
    expect(pool.shortest(mark(shorter.kinds), shorter)).toBe(shorter)
    expect(pool.within(Int32Array.of(1, 1))).toEqual([shorter])
  })
  it('a fleet laid with them is sound, and the same again for a seed', () => {
    const { items, width } = fleet(4, 31, false)
    const bins = [{ id: 'a', width, length: 1e6, lot: 'A' }]
    const run = () => pack(items, bins, { gap: 3, random: seeded(2), budget: { rounds: 60_000 } })
    const plan = run()
    expect(faultsOf(plan, items, bins, { gap: 3 })).toEqual([])
    expect(plan.unplaced).toEqual([])
    expect(run().placed).toEqual(plan.placed)
  })
})
