import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { bandsLength, type Band } from '@/core/solve/pack/model/band'
import { spread } from '@/core/solve/pack/bins/spread'
import { dualFeasible, lengthBound, longest } from '@/core/solve/pack/bound/bound'
import { kindsOf } from '@/core/solve/pack/model/kinds'
import { pack } from '@/core/solve/pack'
import type { PackItem } from '@/core/solve/pack/model/types'

const band = (length: number): Band => ({ length, kinds: [], x: [], y: [], turned: [] })
const bin = (id: string, length: number) => ({ id, width: 1500, length, lot: 'a' })
const span = (id: string, to: number) => ({ bin: bin(id, to), from: 0, to })

/** The fullest that some of these lengths make a room, by trying every choice of them. */
const fullestOf = (lengths: readonly number[], room: number): number =>
  lengths
    .reduce<number[]>((sums, l) => [...sums, ...sums.map((s) => s + l)], [0])
    .reduce((m, s) => Math.max(m, s <= room ? s : m), 0)

describe('bands onto spans', () => {
  it('each span is as full as any choice of the bands makes it, counted in four-thousandths rounded up', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 40, max: 900 }), { minLength: 3, maxLength: 11 }), (lengths) => {
        const whole = lengths.reduce((a, b) => a + b, 0)
        const room = Math.max(...lengths, 0.6 * whole)
        const cells = (l: number) => Math.ceil((l * 4000) / (room + 1e-6))
        const { at, over } = spread(lengths.map(band), [span('a', room)], 0)
        const used = at.map((x) => x.band.length)
        expect(used.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(room + 1e-6)
        if (whole > room) expect(used.reduce((a, l) => a + cells(l), 0)).toBe(fullestOf(lengths.map(cells), 4000))
        expect([...used, ...over.map((b) => b.length)].sort()).toEqual([...lengths].sort())
      }),
    )
  })
  it('bands that fill a span to the last millimetre are found, and none is laid twice', () => {
    const lengths = [700, 300, 450, 550, 620, 380, 250, 750]
    const { at, over } = spread(
      lengths.map(band),
      [span('a', 1000), span('b', 1000), span('c', 1000), span('d', 1000)],
      0,
    )
    expect(over).toEqual([])
    for (const id of ['a', 'b', 'c', 'd'])
      expect(bandsLength(at.filter((x) => x.span.bin.id === id).map((x) => x.band))).toBe(1000)
    expect(new Set(at.map((x) => x.band)).size).toBe(lengths.length)
  })
})

describe('the bound of a length', () => {
  const item = (id: number, width: number, length: number): PackItem => ({
    id: `p${id}`,
    copy: 1,
    width,
    length,
    turn: id % 2 ? 'quarter' : 'fixed',
    group: null,
  })
  const Items = fc.array(fc.tuple(fc.integer({ min: 50, max: 1500 }), fc.integer({ min: 50, max: 2000 })), {
    minLength: 1,
    maxLength: 12,
  })
  it('is the same however often and between whatever others it is asked', () => {
    fc.assert(
      fc.property(fc.array(Items, { minLength: 2, maxLength: 9 }), (lists) => {
        const asked = lists.map((list) => list.map(([w, l], i) => item(i, w, l)))
        for (const items of [...asked, ...[...asked].reverse()])
          for (const gap of [0, 5]) {
            const kinds = kindsOf(items, gap, 1500 + gap)
            const fresh = Math.max(dualFeasible(kinds, 1500 + gap).bound, longest(kinds)) - gap
            expect(lengthBound(items, 1500, gap)).toBe(fresh)
          }
      }),
    )
  })
  it('rolls more than a plan needs stay unused, and change nothing of it', () => {
    const random = seeded(4)
    const items = Array.from({ length: 90 }, (_, i) =>
      item(i, 200 + Math.floor(900 * random()), 300 + Math.floor(900 * random())),
    )
    const over = (rolls: number) =>
      pack(
        items,
        Array.from({ length: rolls }, (_, i) => bin(`r${i}`, 12_000)),
        { gap: 2, random: seeded(1), budget: { rounds: 0 } },
      )
    const [few, many] = [over(9), over(40)]
    expect(few.unplaced).toEqual([])
    expect(many.placed).toEqual(few.placed)
    expect(many.used.slice(9).every((u) => u.length === 0)).toBe(true)
  })
})
