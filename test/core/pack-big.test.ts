import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { pack, type PackItem } from '@/core/solve/pack'
import { bandsLength, type Band } from '@/core/solve/pack/model/band'
import { BigFirst } from '@/core/solve/pack/straight/big-first'
import { FillTable } from '@/core/solve/pack/straight/fill-table'
import { smallKinds } from '@/core/solve/pack/straight/small-kinds'
import { FillView } from '@/core/solve/pack/straight/fill-view'
import { aloneInBand, kindsOf, type Kind } from '@/core/solve/pack/model/kinds'
import { BandPool } from '@/core/solve/pack/straight/recombine'
import { subsets } from '@/core/solve/pack/straight/subset'
import { car, van } from '../../bench/instances'
import { cutUp } from '../fixtures/cut-up'
import { asPlan, faultsOf } from '../fixtures/check-packing'

const never = () => false
const bin = (width: number) => [{ id: 'a', width, length: 1e6, lot: 'A' }]
const item = (id: string, copy: number, width: number, length: number, turn: PackItem['turn']): PackItem => ({
  id,
  copy,
  width,
  length,
  turn,
  group: null,
})

/** Six small items or so, two of them alike. */
function few(seed: number): Kind[] {
  const random = seeded(seed)
  const size = () => Math.round(60 + 300 * random())
  const items = Array.from({ length: 5 }, (_, i) => item(`i${i}`, 1, size(), size(), i % 2 ? 'quarter' : 'fixed'))
  return kindsOf([...items, { ...(items[0] as PackItem), copy: 2 }], 0, 700)
}
const tableOf = (kinds: readonly Kind[], room: number, stages = Infinity, width = room) =>
  new FillTable({ small: smallKinds(kinds, width), width, room, length: 1e5, waste: Infinity, stages, spent: never })
const everything = (kinds: readonly Kind[]) => kinds.flatMap((k, i) => k.items.map(() => i))

describe('the table of small items', () => {
  it('knows the shortest block of every selection, as a search over all subsets does', () => {
    for (const seed of [1, 2, 3, 4]) {
      const kinds = few(seed)
      for (const stages of [Infinity, 3]) {
        const table = tableOf(kinds, 700, stages)
        expect(table.whole).toBe(true)
        const exact = subsets({ kinds, members: everything(kinds), width: 700, cap: 1e5, cuts: stages, spent: never })
        // One block that falls apart lengthwise first, for three stages; any block else. Bands behind each other are
        // blocks too where cuts are free.
        const all = table.shortest(table.all)
        if (stages === Infinity) expect(all?.length).toBeCloseTo(bandsLength(exact.best as Band[]), 6)
        exact.each((members, length) => {
          const rest = members.reduce((sum, k) => sum + oneOf(table, kinds, k), 0)
          expect(table.shortest(rest)?.length).toBeCloseTo(length, 6)
        })
      }
    }
  })
  it('puts a sheet together again from what was cut from it', () => {
    for (const seed of [3, 5, 8]) {
      const sheet = cutUp(seed, 8, 0)
      const kinds = kindsOf(sheet.items, 0, sheet.width)
      const table = tableOf(kinds, sheet.width)
      expect(table.shortest(table.all)?.length).toBeCloseTo(sheet.least, 6)
    }
  })
  it('lays a selection within its rectangle, each item once and none over another', () => {
    const kinds = few(6)
    const table = tableOf(kinds, 700)
    const over = table.shortest(table.all)
    const band: Band = { length: over?.length as number, kinds: [], x: [], y: [], turned: [] }
    for (const p of over?.parts ?? [])
      table.lay(p.entry, p.x, p.y, (kind, x, y, turned) => {
        band.kinds.push(kind)
        band.x.push(x)
        band.y.push(y)
        band.turned.push(turned)
      })
    const items = kinds.flatMap((k) => k.items)
    const placed = asPlan([band], kinds)
    const plan = { placed, unplaced: [], used: [{ binId: 'a', length: band.length }], bound: 0, proven: false }
    expect(faultsOf(plan, items, bin(700))).toEqual([])
  })
  it('fills a room with the largest selection that fits and is still there', () => {
    const kinds = few(9)
    const table = tableOf(kinds, 700)
    const view = new FillView(table, table.area)
    for (const [w, l] of [
      [200, 300],
      [350, 350],
      [700, 150],
      [90, 900],
      [50, 50],
    ] as const)
      for (const rest of [table.all, table.all - oneOf(table, kinds, 0)]) {
        // By hand: every selection there is, whether one of its rectangles fits.
        let most = 0
        for (let e = 0; e < table.W.length; e++) {
          const holds = table.holds(e)
          const there = ((rest | table.guards) - holds) & table.guards
          if (there === table.guards && (table.W[e] as number) <= w && (table.L[e] as number) <= l)
            most = Math.max(most, table.areaOf(holds))
        }
        const entry = view.fill(w, l, rest, 0)
        expect(entry < 0 ? 0 : table.areaOf(table.holds(entry))).toBe(most)
      }
  })
  it('takes the narrowest kinds, and no more than can be gone through', () => {
    const { items, width } = car(34)
    const kinds = kindsOf(items, 0, width)
    const small = smallKinds(kinds, width * 0.36)
    const narrow = (k: { w: number; l: number; turn: boolean }) => (k.turn ? Math.min(k.w, k.l) : k.w)
    expect(Math.max(...small.map(narrow))).toBeLessThanOrEqual(width * 0.36)
    const many = kindsOf(
      Array.from({ length: 40 }, (_, i) => item(`m${i}`, 1, 50 + i, 300 - i, 'fixed')),
      0,
      width,
    )
    expect(smallKinds(many, width).length).toBeLessThan(14)
  })
  it('says when it was stopped before it was whole', () => {
    const { items, width } = car(34)
    const small = smallKinds(kindsOf(items, 0, width), width * 0.36)
    expect(
      new FillTable({ small, width, room: 800, length: 1e5, waste: 1e6, stages: Infinity, spent: () => true }).whole,
    ).toBe(false)
  })
})

/** One item of a kind as the table counts it. */
function oneOf(table: FillTable, kinds: readonly Kind[], kind: number): number {
  const at = table.small.findIndex((s) => s.kind === kind)
  return table.packed[table.small.slice(0, at).reduce((p, s) => p * (s.count + 1), 1)] as number
}

describe('big items first', () => {
  it('every plan and every band it finds is sound: an independent check, any cuts and three stages', () => {
    for (const cuts of [Infinity, 3])
      for (const { items, width } of [car(1), car(34), car(42), van(0), van(3)]) {
        const kinds = kindsOf(items, 0, width)
        const pool = new BandPool()
        const price = Float64Array.from(kinds, (kind) => (kind.w * kind.l) / width)
        const chance = seeded(7)
        const code = Float64Array.from(kinds, () => Math.floor(chance() * 2 ** 45))
        const big = new BigFirst({
          kinds,
          width,
          known: 40_000,
          cuts,
          random: seeded(7),
          spent: never,
          price,
          code,
          pool,
          small: smallKinds(kinds, width * 0.36),
        })
        const plan = big.run(4000, 150, 400, never)
        big.find(price, 500, 150, 400, never)
        expect(plan).not.toBeNull()
        expect(pool.size).toBeGreaterThan(20)
        const check = (bands: readonly Band[], whole: boolean) => {
          const placed = asPlan(bands, kinds)
          const laid = whole ? items : placed.map((p) => p.item)
          const made = {
            placed,
            unplaced: [],
            used: [{ binId: 'a', length: bandsLength(bands) }],
            bound: 0,
            proven: false,
          }
          expect(faultsOf(made, laid, bin(width), { stages: cuts })).toEqual([])
        }
        check(plan as Band[], true)
        const need = Int32Array.from(kinds, (kind) => kind.items.length)
        const alone = Float64Array.from(kinds, (kind) => kind.l)
        for (const { band } of pool.prices(need, alone).taken) check([band], false)
      }
  })
  it('knows what can have a band of its own: nothing long or wide has room beside it', () => {
    const kinds = kindsOf(
      [
        item('side', 1, 1400, 900, 'fixed'),
        item('door', 1, 1200, 1000, 'fixed'),
        item('handle', 1, 120, 300, 'quarter'),
        item('sill', 1, 300, 1700, 'fixed'),
      ],
      0,
      1520,
    )
    const at = (id: string) => kinds.findIndex((k) => k.items[0]?.id === id)
    const small = new Set([at('handle'), at('sill')])
    const alone = (id: string, width: number) => aloneInBand(kinds, at(id), width, small)
    // 120 are left beside the side: the handle goes there. Beside the door there is room for the sill, longer than it.
    expect(alone('side', 1520)).toBe(true)
    expect(aloneInBand(kinds, at('side'), 1520, new Set())).toBe(false)
    expect(alone('door', 1520)).toBe(false)
    expect(alone('door', 1499)).toBe(true)
    // The door fits beside the sill and is shorter, but no small thing.
    expect(alone('sill', 1520)).toBe(false)
    expect(alone('sill', 1400)).toBe(true)
    // The bonnet has no room beside it as it comes, but turned it has, for what is longer.
    const two = kindsOf([item('bonnet', 1, 1450, 1100, 'quarter'), item('rear', 1, 300, 1500, 'fixed')], 0, 1520)
    expect(two.map((_, i) => aloneInBand(two, i, 1520, new Set([0, 1])))).toEqual([false, true])
  })
  it('cars whose bound is the length of what never lies side by side are laid in that length, and so proven', () => {
    for (const k of [34, 68])
      for (const cuts of [Infinity, 3]) {
        const { items, width } = car(k)
        const plan = pack(items, bin(width), { gap: 0, cuts, random: seeded(1), budget: { rounds: 60_000 } })
        expect(faultsOf(plan, items, bin(width), { stages: cuts })).toEqual([])
        expect(plan.proven).toBe(true)
        expect(plan.used[0]?.length).toBeCloseTo(plan.bound, 6)
      }
  })
  it('repeats exactly for a seed', () => {
    const { items, width } = car(42)
    const run = () => pack(items, bin(width), { gap: 2, random: seeded(5), budget: { rounds: 25_000 } }).placed
    expect(run()).toEqual(run())
  })
})

describe('bands put together', () => {
  const band = (length: number, kinds: number[]): Band => ({
    length,
    kinds,
    x: kinds.map((_, i) => 10 * i),
    y: kinds.map(() => 0),
    turned: kinds.map(() => false),
  })
  it('a band may leave out what is laid already, where it is asked to', () => {
    const pool = new BandPool()
    ;[band(5, [0, 1]), band(6, [1, 2])].forEach((b, i) => pool.put(i + 1, b, 0))
    const need = Int32Array.from([1, 1, 1])
    const price = Float64Array.from([3, 2, 4])
    expect(pool.recombine({ need, price, length: 20, nodes: 100, spent: never }).bands).toBeNull()
    const { bands, whole } = pool.recombine({ need, price, length: 20, nodes: 100, spent: never, trim: true })
    expect(whole).toBe(true)
    expect(bandsLength(bands as Band[])).toBe(11)
    expect((bands as Band[]).flatMap((b) => b.kinds).sort()).toEqual([0, 1, 2])
    // What is left keeps its place.
    const second = (bands as Band[]).find((b) => b.kinds.includes(2)) as Band
    expect(second.x[second.kinds.indexOf(2)]).toBe(10)
  })
})
