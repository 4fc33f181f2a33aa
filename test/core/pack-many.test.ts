import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackItem } from '@/core/solve/pack'
import { scoreOf } from '@/core/solve/pack/tidy'
import { kindsOf } from '@/core/solve/pack/kinds'
import { faultsOf } from '../fixtures/check-packing'

const bin = (width: number) => [{ id: 'a', width, length: 1e6, lot: 'A' }]
const used = (p: ReturnType<typeof pack>) => p.used.reduce((s, u) => s + u.length, 0)

/** Wheels within wheels: each sheet is cut into five round a middle, none of which straight cuts part. */
function wheels(width: number, length: number, seed: number, deep: number): PackItem[] {
  const random = seeded(seed)
  const out: PackItem[] = []
  const cut = (w: number, l: number, depth: number) => {
    if (depth === 0) {
      out.push({ id: `r${out.length}`, copy: 1, width: w, length: l, turn: 'fixed', group: null })
      return
    }
    const at = (side: number, from: number) => Math.round(side * (from + 0.2 * random()))
    const [x1, x2, y1, y2] = [at(w, 0.2), at(w, 0.6), at(l, 0.2), at(l, 0.6)] as [number, number, number, number]
    cut(x2, y1, depth - 1)
    cut(w - x2, y2, 0)
    cut(w - x1, l - y2, 0)
    cut(x1, l - y1, depth - 1)
    cut(x2 - x1, y2 - y1, 0)
  }
  cut(width, length, deep)
  return out
}

describe('many items', () => {
  it('wheels of five, one within another, come together again with nothing lost; straight cuts never claim it', () => {
    for (const deep of [2, 4]) {
      const items = wheels(1500, 4000, 3, deep)
      const free = pack(items, bin(1500), { gap: 0, rule: 'free', random: seeded(1), budget: { rounds: 200_000 } })
      expect(used(free)).toBe(4000)
      expect(free.proven).toBe(true)
      expect(faultsOf(free, items, bin(1500), { rule: 'free' })).toEqual([])
    }
    const items = wheels(1500, 4000, 3, 2)
    const straight = pack(items, bin(1500), { gap: 0, random: seeded(1), budget: { rounds: 20_000 } })
    expect(used(straight)).toBeGreaterThan(4000)
    expect(straight.proven && used(straight) > straight.bound + 1e-6).toBe(false)
  })
  it('a hundred differing items are sound and near their bound', () => {
    const random = seeded(8)
    const items = Array.from({ length: 100 }, (_, i): PackItem => ({ id: `p${i}`, copy: 1, width: Math.round(150 + 900 * random()), length: Math.round(150 + 900 * random()), turn: random() < 0.5 ? 'fixed' : 'quarter', group: null })) // prettier-ignore
    const plan = pack(items, bin(1520), { gap: 3, cuts: 3, random: seeded(1), budget: { rounds: 60_000 } })
    expect(faultsOf(plan, items, bin(1520), { gap: 3, stages: 3 })).toEqual([])
    expect(used(plan) / plan.bound).toBeLessThan(1.12)
  })
})

describe('among plans as long', () => {
  const items: PackItem[] = [
    ['a', 1000, 800], ['b', 300, 380], ['c', 300, 380], ['d', 1200, 500], ['e', 200, 200], ['f', 200, 200],
  ].map(([id, width, length]) => ({ id: id as string, copy: 1, width: width as number, length: length as number, turn: 'fixed', group: null })) // prettier-ignore
  it('the larger left-overs are taken, then the fewer cuts: never less than the first plan has', () => {
    const kinds = kindsOf(items, 0, 1520)
    const one = { length: 800, kinds: [0, 1, 2], x: [0, 1000, 1000], y: [0, 0, 400], turned: [false, false, false] }
    const tidy = { length: 800, kinds: [0, 1, 2], x: [0, 1000, 1000], y: [0, 0, 380], turned: [false, false, false] }
    const of = (b: typeof one) => scoreOf({ ...b, kinds: b.kinds.map((k) => kinds.findIndex((x) => x.items.some((i) => i.id === 'abc'[k]))) }, kinds, 1520, 152) // prettier-ignore
    // Beside the stack 220 × 800 is left either way; pieces apart cost one cut more.
    expect(of(tidy).rests).toBeGreaterThanOrEqual(of(one).rests)
    expect(of(tidy).cuts).toBeLessThan(of(one).cuts)
  })
  it('a tidied plan is as long as one that is not, and repeats for its seed', () => {
    const run = (rounds: number) => pack(items, bin(1520), { gap: 0, cuts: 3, random: seeded(2), budget: { rounds } })
    expect(used(run(4000))).toBeLessThanOrEqual(used(run(0)))
    expect(run(4000)).toEqual(run(4000))
    expect(faultsOf(run(4000), items, bin(1520), { stages: 3 })).toEqual([])
  })
})
