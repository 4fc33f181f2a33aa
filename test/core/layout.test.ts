import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { layoutByContract, LayoutInput, type LayoutPlan } from '@/core/engines/roll/contract'
import { lengthBound, type PackItem } from '@/core/solve/pack'
import { fallsApart, faults } from '../fixtures/check-plan'

/** A clock that jumps a little at every look, so that budgets end without waiting. */
const fastClock = () => {
  let t = 0
  return () => (t += 5)
}
const base = { format: 'cuirass/layout@1', cutting: 'guillotine', gap_mm: 0, seconds: 1, seed: 1 }
const lay = (over: object): { input: LayoutInput; plan: LayoutPlan } => {
  const input = LayoutInput.parse({ ...base, ...over })
  const r = layoutByContract(input, fastClock())
  if (!r.ok) throw new Error(JSON.stringify(r.error))
  return { input, plan: r.value }
}
const roll = (id: string, width_mm: number, length_mm: number, lot = 'A') => ({ id, width_mm, length_mm, lot })
const piece = (id: string, width_mm: number, height_mm: number, over: object = {}) => ({
  id,
  width_mm,
  height_mm,
  count: 1,
  turn: 'fixed',
  ...over,
})

describe('roll layout by the contract', () => {
  it('a piece that fills the roll is proven', () => {
    const { plan } = lay({ stock: [roll('a', 1520, 25000)], pieces: [piece('roof', 1520, 1750)] })
    expect(plan).toMatchObject({ used_mm: 1750, bound_mm: 1750, proven: true, unplaced: [] })
  })
  it('turns a piece only where it may', () => {
    const { plan } = lay({
      stock: [roll('a', 1520, 25000)],
      pieces: [piece('bumper', 1900, 600, { turn: 'quarter' }), piece('sign', 1900, 600)],
    })
    expect(plan.stock[0]?.placements).toMatchObject([{ piece: 'bumper', turn_deg: 90 }])
    expect(plan.unplaced).toEqual([{ piece: 'sign', copy: 1, why: 'wider_unless_turned' }])
  })
  it('keeps a group within one lot, and says so where no lot holds it', () => {
    const stock = [roll('a', 1000, 1500, 'A'), roll('b', 1000, 1500, 'B')]
    const one = lay({
      stock,
      pieces: [piece('x', 1000, 700, { count: 2, group: 'body' }), piece('y', 1000, 700, { count: 2, group: 'roof' })],
    })
    expect(faults(one.input, one.plan)).toEqual([])
    expect(one.plan.unplaced).toEqual([])
    const two = lay({ stock, pieces: [piece('x', 1000, 700, { count: 3, group: 'body' })] })
    expect(two.plan.unplaced).toEqual([{ piece: 'x', copy: 3, why: 'no_lot_holds_group' }])
  })
  it('repeats exactly for a seed', () => {
    const pieces = Array.from({ length: 14 }, (_, i) =>
      piece(`p${i}`, 200 + ((i * 137) % 700), 150 + ((i * 211) % 600), { turn: 'quarter' }),
    )
    expect(lay({ stock: [roll('a', 1520, 25000)], pieces }).plan).toEqual(
      lay({ stock: [roll('a', 1520, 25000)], pieces }).plan,
    )
  })
  it('every plan is sound by an independent checker', () => {
    const size = fc.integer({ min: 20, max: 1600 })
    const anyPiece = fc.record({
      width_mm: size,
      height_mm: size,
      count: fc.integer({ min: 1, max: 3 }),
      turn: fc.constantFrom('fixed', 'quarter'),
      group: fc.constantFrom('body', 'roof', undefined),
    })
    const anyRoll = fc.record({
      width_mm: fc.constantFrom(600, 1220, 1520),
      length_mm: fc.integer({ min: 300, max: 8000 }),
      lot: fc.constantFrom('A', 'B', undefined),
    })
    fc.assert(
      fc.property(
        fc.array(anyPiece, { minLength: 1, maxLength: 10 }),
        fc.array(anyRoll, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 0, max: 12 }),
        (ps, rs, gap_mm) => {
          const clean = <T extends object>(o: T) =>
            Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined))
          const { input, plan } = lay({
            gap_mm,
            stock: rs.map((r, i) => ({ id: `r${i}`, ...clean(r) })),
            pieces: ps.map((p, i) => ({ id: `p${i}`, ...clean(p) })),
          })
          expect(faults(input, plan)).toEqual([])
        },
      ),
      { numRuns: 150 },
    )
  })
  it('never claims the squared rectangle of Moroń (33 x 32, nine squares), which no straight cuts give', () => {
    const squares = [18, 15, 14, 10, 9, 8, 7, 4, 1]
    expect(squares.reduce((s, a) => s + a * a, 0)).toBe(33 * 32)
    const { input, plan } = lay({ stock: [roll('a', 33, 1000)], pieces: squares.map((a) => piece(`s${a}`, a, a)) })
    expect(faults(input, plan)).toEqual([])
    expect(plan.used_mm).toBeGreaterThan(32)
    expect(plan.proven).toBe(false)
  })
  it('the checker itself sees a pinwheel', () => {
    const r = (x: number, y: number, w: number, h: number) => ({ x, y, w, h, piece: '' })
    expect(fallsApart([r(0, 0, 2, 1), r(2, 0, 1, 2), r(1, 2, 2, 1), r(0, 1, 1, 2), r(1, 1, 1, 1)])).toBe(false)
    expect(fallsApart([r(0, 0, 2, 1), r(2, 0, 1, 1), r(0, 1, 3, 2)])).toBe(true)
  })
})

describe('the bound', () => {
  /** Least length by trying every order and turn with the bottom-left rule on a unit grid: slow and obvious. */
  const leastLength = (items: [number, number][], width: number): number => {
    let best = Infinity
    const place = (grid: boolean[][], left: [number, number][], used: number) => {
      if (used >= best) return
      if (left.length === 0) {
        best = used
        return
      }
      for (let i = 0; i < left.length; i++) {
        const [w, h] = left[i] as [number, number]
        for (let y = 0; y < 12; y++)
          for (let x = 0; x + w <= width; x++) {
            let free = true
            for (let a = 0; a < h && free; a++)
              for (let b = 0; b < w && free; b++) if (grid[y + a]?.[x + b]) free = false
            if (!free) continue
            const next = grid.map((row) => [...row])
            for (let a = 0; a < h; a++) for (let b = 0; b < w; b++) (next[y + a] as boolean[])[x + b] = true
            place(next, [...left.slice(0, i), ...left.slice(i + 1)], Math.max(used, y + h))
          }
      }
    }
    place(
      Array.from({ length: 30 }, () => Array(width).fill(false) as boolean[]),
      items,
      0,
    )
    return best
  }
  it('is never above the true least length of small instances', () => {
    const side = fc.integer({ min: 1, max: 4 })
    fc.assert(
      fc.property(fc.array(fc.tuple(side, side), { minLength: 1, maxLength: 3 }), (items) => {
        const packed: PackItem[] = items.map(([width, length], i) => ({
          id: `${i}`,
          copy: 1,
          width,
          length,
          turn: 'fixed',
          group: null,
        }))
        return lengthBound(packed, 4, 0) <= leastLength(items, 4) + 1e-9
      }),
      { numRuns: 60 },
    )
  })
  it('sees that two pieces wider than half the roll never lie side by side', () => {
    const wide = (id: string): PackItem => ({ id, copy: 1, width: 800, length: 500, turn: 'fixed', group: null })
    expect(lengthBound([wide('a'), wide('b'), wide('c')], 1520, 0)).toBe(1500)
  })
})

describe('bad input', () => {
  it.each([
    [{ stock: [], pieces: [piece('a', 1, 1)] }, 'stock'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [piece('a', -1, 1)] }, 'pieces[0].width_mm'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [piece('a', 0, 1)] }, 'pieces[0].width_mm'],
    [{ stock: [roll('a', 0, 1000)], pieces: [piece('a', 1, 1)] }, 'stock[0].width_mm'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [piece('a', 1, 1), piece('a', 2, 2)] }, 'pieces[1].id'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [{ ...piece('a', 1, 1), color: 'red' }] }, 'pieces[0].color'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [piece('a', 1, 1, { count: 1e9 })] }, 'pieces[0].count'],
    [{ stock: [roll('a', 1520, 1000)], pieces: [piece('a', 1, 1)], speed: 3 }, 'speed'],
  ])('%j is refused at %s', (over, at) => {
    const r = layoutByContract({ ...base, ...over }, fastClock())
    expect(!r.ok && r.error.at).toBe(at)
  })
})
