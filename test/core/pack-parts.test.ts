import { describe, expect, it } from 'vitest'
import { seeded, type Random } from '@/core/kit/random'
import { pack, type PackItem } from '@/core/solve/pack'
import { bandsLength, type Band } from '@/core/solve/pack/model/band'
import { bars } from '@/core/solve/pack/bound/bars'
import { dualFeasible } from '@/core/solve/pack/bound/bound'
import { CodeTable } from '@/core/solve/pack/model/code-table'
import { completed } from '@/core/solve/pack/bound/complete'
import { Exhaust } from '@/core/solve/pack/bound/exhaust'
import { kindsOf, type Kind } from '@/core/solve/pack/model/kinds'
import { Parts } from '@/core/solve/pack/bound/parts'
import { subsets } from '@/core/solve/pack/straight/subset'
import { car, van } from '../../bench/instances'
import { cutUp } from '../fixtures/cut-up'
import { asPlan, faultsOf } from '../fixtures/check-packing'

const never = () => false
const MANY = 1e9
const WIDTH = 700
const item = (id: string, copy: number, width: number, length: number, turn: PackItem['turn']): PackItem => ({
  id,
  copy,
  width,
  length,
  turn,
  group: null,
})

/** So many items, large and small, some of them alike, some that may be turned. */
function some(random: Random, n: number, share = 1): Kind[] {
  const size = (least: number, most: number) => Math.round((least + (most - least) * random()) / share) * share
  const items: PackItem[] = []
  while (items.length < n) {
    const large = random() < 0.4
    const made = item(
      `i${items.length}`,
      1,
      size(large ? 300 : 60, large ? 690 : 350),
      size(60, 600),
      random() < 0.4 ? 'quarter' : 'fixed',
    )
    items.push(made)
    if (random() < 0.3 && items.length < n) items.push({ ...made, copy: 2 })
  }
  return kindsOf(items, 0, WIDTH)
}
const everything = (kinds: readonly Kind[]) => kinds.flatMap((k, i) => k.items.map(() => i))
const relaxed = (kinds: readonly Kind[], width = WIDTH) => bars(kinds, width, dualFeasible(kinds, width))
/** The least there can be, by another search over all subsets. */
const leastOf = (kinds: readonly Kind[]) =>
  bandsLength(
    subsets({ kinds, members: everything(kinds), width: WIDTH, cap: 1e5, cuts: Infinity, spent: never }).best as Band[],
  )

function faults(bands: readonly Band[], kinds: readonly Kind[], items: readonly PackItem[], width = WIDTH) {
  const placed = asPlan(bands, kinds)
  const used = [{ binId: 'a', length: placed.reduce((far, p) => Math.max(far, p.y + p.length), 0) }]
  return faultsOf(
    { placed, unplaced: [], used, bound: 0, proven: false },
    items,
    [{ id: 'a', width, length: 1e6, lot: 'A' }],
    { gap: 0, rule: 'guillotine' },
  )
}
const overlap = (a: number[], b: number[]) =>
  (a[0] as number) < (b[1] as number) - 1e-6 && (b[0] as number) < (a[1] as number) - 1e-6

describe('a few kinds searched to the end', () => {
  it('finds the least length below the cap, or that there is none: as a search over all subsets does', () => {
    let above = 0
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed)
      const kinds = some(random, 4 + (seed % 6))
      const { price, bound } = relaxed(kinds)
      const least = leastOf(kinds)
      if (least > bound + 1) above++
      const exhaust = new Exhaust(kinds, WIDTH, price)
      expect(exhaust.bound).toBeLessThanOrEqual(bound + 1e-6)
      for (const cap of [least - 40, least, least + 1, least + 150]) {
        const got = exhaust.run(cap, MANY, never)
        expect(got.whole).toBe(true)
        expect(got.least).toBe(cap > least ? least : null)
        if (!got.plan) continue
        const bands = got.plan.map((p) => p.band)
        expect(bandsLength(bands)).toBe(least)
        expect(
          faults(
            bands,
            kinds,
            kinds.flatMap((k) => k.items),
          ),
        ).toEqual([])
      }
    }
    // In most of them the relaxation alone proves nothing.
    expect(above).toBeGreaterThan(20)
  })
  it('any sound prices do, the better ones only sooner', () => {
    for (let seed = 1; seed <= 15; seed++) {
      const kinds = some(seeded(100 + seed), 7)
      const least = leastOf(kinds)
      const flat = kinds.map((k) => k.w * k.l)
      const slow = new Exhaust(kinds, WIDTH, flat).run(least + 30, MANY, never)
      const quick = new Exhaust(kinds, WIDTH, relaxed(kinds).price).run(least + 30, MANY, never)
      expect([slow.least, quick.least]).toEqual([least, least])
      expect(new Exhaust(kinds, WIDTH, flat).run(least, MANY, never).least).toBeNull()
    }
  })
  it('sizes with nothing in common are rounded down: never above the least, and next to it', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const random = seeded(200 + seed)
      const kinds = some(random, 6).map((k) => ({ ...k, w: k.w + 0.137 * random(), l: k.l + 0.1371 * random() }))
      const least = leastOf(kinds)
      const got = new Exhaust(kinds, WIDTH, relaxed(kinds).price).run(least + 20, MANY, never)
      expect(got.least).toBeLessThanOrEqual(least)
      expect(got.least).toBeGreaterThan(least - 6 * 0.2)
    }
  })
  it('rooms are free, within their bands, and apart from each other', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const kinds = some(seeded(300 + seed), 8)
      const { plan } = new Exhaust(kinds, WIDTH, relaxed(kinds).price).run(leastOf(kinds) + 1, MANY, never)
      for (const { band, rooms } of plan ?? []) {
        const taken = band.kinds.map((k, i) => {
          const { w, l } = kinds[k] as Kind
          const [x, y] = [band.x[i] as number, band.y[i] as number]
          return { x: [x, x + (band.turned[i] ? l : w)], y: [y, y + (band.turned[i] ? w : l)] }
        })
        const free = rooms.map((r) => ({ x: [r.x, r.x + r.width], y: [r.y, r.y + r.length] }))
        const all = [...taken, ...free]
        all.forEach((a, i) =>
          all.slice(i + 1).forEach((b) => expect(overlap(a.x, b.x) && overlap(a.y, b.y)).toBe(false)),
        )
        const size = all.reduce(
          (sum, a) => sum + ((a.x[1] as number) - (a.x[0] as number)) * ((a.y[1] as number) - (a.y[0] as number)),
          0,
        )
        expect(size).toBeCloseTo(WIDTH * band.length, 3)
      }
    }
  })
  it('says nothing where it has to stop before the end', () => {
    const { items, width } = car(3)
    const kinds = kindsOf(items, 0, width).slice(0, 11)
    const { price, bound } = relaxed(kinds, width)
    const exhaust = new Exhaust(kinds, width, price)
    const nothing = { whole: false, least: null, plan: null }
    expect(exhaust.run(bound * 1.04, 40_000, never)).toMatchObject(nothing)
    let asked = 0
    expect(exhaust.run(bound * 1.04, MANY, () => ++asked > 2)).toMatchObject(nothing)
    expect(asked).toBeLessThan(6)
    expect(exhaust.run(bound * 1.04, MANY, never).whole).toBe(true)
    // More kinds than two words hold.
    const lots = Array.from({ length: 40 }, (_, i): Kind => ({
      w: 20 + i,
      l: 30,
      turn: false,
      items: [item(`k${i}`, 1, 20 + i, 30, 'fixed')],
    }))
    expect(
      new Exhaust(
        lots,
        WIDTH,
        lots.map((k) => k.w * k.l),
      ).run(1e4, MANY, never).whole,
    ).toBe(false)
  })
})

describe('bounds by parts', () => {
  const proven = (kinds: readonly Kind[], width: number, length: number, work: number) => {
    const parts = new Parts(kinds, width, relaxed(kinds, width))
    for (let done = 0; done < work;) {
      const got = parts.run(length, work - done, never)
      done += got.work
      if (!got.plan) break
    }
    return parts
  }
  it('end at the least there can be, and never go above it', () => {
    let raised = 0
    for (let seed = 1; seed <= 40; seed++) {
      const kinds = some(seeded(400 + seed), 9)
      const least = leastOf(kinds)
      // A longer plan is known: some part, at last all of it, finds the shorter one.
      const parts = new Parts(kinds, WIDTH, relaxed(kinds))
      const before = parts.bound
      for (let turn = 0; turn < 200 && parts.bound < least - 1e-6; turn++) {
        parts.run(least * 1.03, 3e6, never)
        expect(parts.bound).toBeLessThanOrEqual(least + 1e-6)
      }
      expect(parts.bound).toBeCloseTo(least, 6)
      if (parts.bound > before + 1) raised++
    }
    expect(raised).toBeGreaterThan(15)
  })
  it('never pass the length of a sheet that was cut up, with other pieces of it taken away', () => {
    for (let k = 0; k < 12; k++) {
      const sheet = cutUp(k + 1, 14 + k, 0)
      const kinds = kindsOf(sheet.items.slice(0, 11 + k), 0, sheet.width)
      const parts = proven(kinds, sheet.width, sheet.least * 1.1, 1e6)
      expect(parts.bound).toBeLessThanOrEqual(sheet.least + 1e-6)
    }
  })
  it('prove cars that the bar relaxation leaves open, with a part of their items', () => {
    // The lengths are those of plans; that no plan is shorter is what is shown.
    for (const [k, length] of [
      [30, 11_556],
      [1, 12_247],
    ] as const) {
      const { items, width } = car(k)
      const kinds = kindsOf(items, 0, width)
      expect(relaxed(kinds, width).bound).toBeLessThan(length * 0.99)
      expect(proven(kinds, width, length, 3e6).bound).toBe(length)
    }
  })
  it('repeat exactly, and stop when told', () => {
    const { items, width } = van(2)
    const kinds = kindsOf(items, 0, width)
    expect(proven(kinds, width, 29_000, 2e6).bound).toBe(proven(kinds, width, 29_000, 2e6).bound)
    const parts = new Parts(kinds, width, relaxed(kinds, width))
    let asked = 0
    const stop = () => ++asked > 40
    for (let turn = 0; turn < 50; turn++) parts.run(29_000, 1e9, stop)
    // Once in each run that follows.
    expect(asked).toBeLessThan(41 + 60)
  })
  it('raise the bound of what is packed, and find plans for it', () => {
    const { items, width } = car(1)
    const bins = [{ id: 'a', width, length: 50_000, lot: 'A' }]
    const plan = pack(items, bins, { gap: 0, random: seeded(1), budget: { rounds: 60_000 } })
    const bare = relaxed(kindsOf(items, 0, width), width).bound
    expect(plan.bound).toBeGreaterThan(bare + 100)
    expect(plan.bound).toBeLessThanOrEqual((plan.used[0] as { length: number }).length + 1e-6)
    expect(faultsOf(plan, items, bins, { gap: 0, rule: 'guillotine' })).toEqual([])
  })
})

describe('a plan of a part, completed', () => {
  it('holds every item once and is sound, with bands more where rooms are too small', () => {
    let without = 0
    for (let seed = 1; seed <= 30; seed++) {
      const random = seeded(500 + seed)
      const kinds = some(random, 12)
      const part = kinds.slice(0, kinds.length - 3)
      const { plan } = new Exhaust(part, WIDTH, relaxed(part).price).run(1e4, MANY, never)
      const begun = bandsLength((plan ?? []).map((p) => p.band))
      const bands = completed({ kinds, width: WIDTH, random, spent: never }, plan ?? [], 1e5, 50)
      expect(bands).not.toBeNull()
      expect(
        faults(
          bands ?? [],
          kinds,
          kinds.flatMap((k) => k.items),
        ),
      ).toEqual([])
      if (bandsLength(bands ?? []) < begun + 1e-6) without++
      // Nothing that is no shorter than what is known.
      expect(completed({ kinds, width: WIDTH, random, spent: never }, plan ?? [], begun, 50)).toBeNull()
    }
    expect(without).toBeGreaterThan(0)
    expect(without).toBeLessThan(30)
  })
})

it('a table of pairs of words numbers them as they come, as a map does', () => {
  const table = new CodeTable()
  for (let round = 0; round < 2; round++) {
    const random = seeded(9 + round)
    const known = new Map<string, number>()
    for (let i = 0; i < 20_000; i++) {
      const [low, high] = [Math.floor(random() * 90) << 20, Math.floor(random() * 90)]
      const key = `${low}|${high}`
      if (!known.has(key)) known.set(key, known.size)
      expect(table.put(low, high)).toBe(known.get(key))
    }
    expect(table.size).toBe(known.size)
    table.clear()
  }
})
