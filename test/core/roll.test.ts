import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { StockItem } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { dropAt, nudge, obstacle, placed, toRoll, turnOn } from '@/core/engines/roll/arrange'
import { buyBands, orderFor, type Offer } from '@/core/engines/roll/buy'
import { cutEntry, cutKey, cutsMade } from '@/core/engines/roll/cutting'
import { cutPlan, type OnRoll } from '@/core/engines/roll/cuts'
import { dropPlan, registrationMarks, type DropTask } from '@/core/engines/pieces/drops'
import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { turnsOf } from '@/core/engines/roll/roll-plan'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { restsOf } from '@/core/engines/roll/rests'
import { EXPOSED_SETBACK_MM, shingles } from '@/core/engines/sheets/shingles'
import type { Plan } from '@/core/model/plan/schema'
import { film, handCar } from '../fixtures/plans'

const stock = (id: string, over: Partial<StockItem>): StockItem => ({
  id,
  filmId: 'fen-satin',
  kind: 'roll',
  label: id.toUpperCase(),
  lot: 'L1',
  widthMm: 1520,
  leftMm: 25000,
  damage: [],
  strips: [],
  ...over,
})
const lay = (plan: Plan, shelf: StockItem[] = [], ledger: LogRow[] = []) => {
  const r = reckon(plan, { ...EMPTY_CATALOGUE, stock: shelf }, ledger)
  const layout = r.layouts[0]
  if (!layout) throw new Error('no layout')
  return { r, layout }
}
const kept = (plan: Plan, layout: FilmLayout): Plan => ({
  ...plan,
  layout: { ...plan.layout, kept: [keepLayout(layout)] },
})

describe('cutting order', () => {
  const rect = (pieceId: string, xMm: number, yMm: number, widthMm: number, lengthMm: number): OnRoll => ({
    pieceId,
    xMm,
    yMm,
    widthMm,
    lengthMm,
  })
  it('frees every piece, each cut from edge to edge of one part, distances as the tape reads them', () => {
    const pieces = [
      rect('a', 0, 0, 900, 700),
      rect('b', 900, 0, 600, 300),
      rect('c', 900, 300, 600, 400),
      rect('d', 0, 700, 1500, 500),
    ]
    const { cuts, knots, offcuts } = cutPlan(pieces, 1520)
    expect(knots).toEqual([])
    expect(cuts.map((c) => [c.runs, c.stage, Math.round(c.tapeMm)])).toEqual([
      ['across', 1, 700],
      ['lengthwise', 2, 900],
      ['lengthwise', 2, 600],
      ['across', 3, 300],
      ['across', 1, 500],
      ['lengthwise', 2, 1500],
    ])
    expect(cuts.flatMap((c) => c.done).sort()).toEqual(['a', 'b', 'c', 'd'])
    expect(offcuts.reduce((s, o) => s + o.widthMm * o.lengthMm, 0)).toBeCloseTo(20 * 1200, 6)
  })
  it('names the pieces that no straight cut parts', () => {
    // The pinwheel: five pieces round one another.
    const wheel = [
      rect('a', 0, 0, 2, 1),
      rect('b', 2, 0, 1, 2),
      rect('c', 1, 2, 2, 1),
      rect('d', 0, 1, 1, 2),
      rect('e', 1, 1, 1, 1),
    ]
    expect(cutPlan(wheel, 3).knots.map((k) => [...k].sort())).toEqual([['a', 'b', 'c', 'd', 'e']])
  })
  it('area is kept: pieces and left-overs fill the length used', () => {
    const { layout } = lay(handCar())
    for (const roll of layout.rolls) {
      const pieces = roll.placements.reduce((s, p) => s + p.widthMm * p.lengthMm, 0)
      const left = roll.cutting.offcuts.reduce((s, o) => s + o.widthMm * o.lengthMm, 0)
      expect(pieces + left).toBeCloseTo(roll.usedMm * roll.widthMm, 0)
      expect(new Set(roll.cutting.cuts.flatMap((c) => c.done)).size).toBe(roll.placements.length)
      expect(Math.max(...roll.cutting.cuts.map((c) => c.stage))).toBeLessThanOrEqual(4) // three stages and a trim
    }
  })
})

describe('buying', () => {
  const offers: Offer[] = [
    { id: 'metre', widthMm: 1520, minimumMm: 3000, stepMm: 1000, stepPrice: 21.5, whole: false },
    { id: 'half', widthMm: 1520, minimumMm: 1000, stepMm: 500, stepPrice: 12, whole: false },
    { id: 'roll', widthMm: 1520, minimumMm: 22000, stepMm: 22000, stepPrice: 380, whole: true },
  ]
  it('is the cheapest of all purchases that hold every band whole: an exhaustive search agrees', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 100, max: 2400 }), { minLength: 1, maxLength: 6 }),
        fc.record({
          min: fc.constantFrom(500, 1000, 3000),
          step: fc.constantFrom(500, 1000),
          price: fc.integer({ min: 5, max: 60 }),
        }),
        fc.option(fc.record({ length: fc.constantFrom(2500, 4000, 7000), price: fc.integer({ min: 20, max: 200 }) })),
        (bands, cut, roll) => {
          const some: Offer[] = [
            { id: 'cut', widthMm: 1520, minimumMm: cut.min, stepMm: cut.step, stepPrice: cut.price, whole: false },
            ...(roll
              ? [
                  {
                    id: 'roll',
                    widthMm: 1520,
                    minimumMm: roll.length,
                    stepMm: roll.length,
                    stepPrice: roll.price,
                    whole: true,
                  },
                ]
              : []),
          ]
          expect(buyBands(some, bands)?.cost).toBeCloseTo(exhaustive(some, bands), 6)
        },
      ),
      { numRuns: 150, seed: 4 },
    )
  })
  it('takes a whole roll where that is cheaper than its metres, and rolls of two lengths where those are', () => {
    const bands = Array.from({ length: 19 }, () => 1000)
    expect(buyBands(offers, bands)?.lines).toEqual([{ offerId: 'roll', lengthMm: 22000, cost: 380 }])
    expect(buyBands(offers, [1500, 1500, 1200])?.lines).toEqual([{ offerId: 'metre', lengthMm: 5000, cost: 107.5 }])
    expect(buyBands(offers, [1500, 1500])?.lines).toEqual([{ offerId: 'metre', lengthMm: 3000, cost: 64.5 }])
    const whole = [10_000, 4000].map((l) => ({
      id: `r${l}`,
      widthMm: 1520,
      minimumMm: l,
      stepMm: l,
      stepPrice: l / 50,
      whole: true,
    }))
    expect(
      buyBands(whole, bands.slice(0, 13))
        ?.lines.map((l) => l.lengthMm)
        .sort(),
    ).toEqual([10_000, 4000])
    expect(buyBands(whole, [11_000])).toBeNull()
  })
  it('a width with offers of its own is bought by these', () => {
    const f = {
      ...film('slate-matte'),
      offers: [{ widthMm: 1220, unit: 'half_metre' as const, lengthMm: null, minimumMm: 1000, price: 10 }],
    }
    expect(orderFor(f, 1220, [1400, 700])).toMatchObject({ orderMm: 2500, cost: 25 })
    expect(orderFor(f, 1520, [1400, 700])).toMatchObject({ orderMm: 3000, cost: 64.5 })
  })
  it('reckons by the sheet’s minimum and step', () => {
    const f = { ...film('fen-satin'), soldBy: { unit: 'half_metre' as const, minimumMm: 3000, price: 20 } }
    expect(orderFor(f, 1520, [1200])).toMatchObject({ orderMm: 3000, units: 6, cost: 60 })
    expect(orderFor(f, 1520, [1420, 2500, 2500])).toMatchObject({ orderMm: 6500, units: 13, cost: 130 })
  })
})

/** Every number of rolls, and every choice of putting each band on one of them or on the length that is cut. */
function exhaustive([cut, roll]: Offer[], bands: number[]): number {
  let best = Infinity
  const price = (left: number) =>
    left <= 0 || !cut
      ? 0
      : Math.max(Math.ceil(left / cut.stepMm), Math.ceil(cut.minimumMm / cut.stepMm)) * cut.stepPrice
  for (let n = 0; n <= (roll ? bands.length : 0); n++) {
    const room = Array.from({ length: n }, () => roll?.stepMm ?? 0)
    const walk = (i: number, left: number) => {
      if (i === bands.length) {
        best = Math.min(best, n * (roll?.stepPrice ?? 0) + price(left))
        return
      }
      const b = bands[i] as number
      walk(i + 1, left + b)
      room.forEach((r, k) => {
        if (r < b) return
        room[k] = r - b
        walk(i + 1, left)
        room[k] = r
      })
    }
    walk(0, 0)
  }
  return best
}

describe('where the film comes from', () => {
  it('the shelf first, where one lot covers the plan; else what is cheapest to buy', () => {
    const plan = handCar()
    const { layout: bought } = lay(plan)
    expect(bought.source).toMatchObject({ kind: 'new', covers: true })
    const short = lay(plan, [stock('r1', { leftMm: 1500 }), stock('r2', { lot: 'L2', leftMm: 1800 })])
    expect(short.layout.source?.kind).toBe('new')
    const { layout: shelf, r } = lay(plan, [stock('r1', { leftMm: 20_000 }), stock('r2', { lot: 'L2', leftMm: 5000 })])
    expect(shelf.source).toMatchObject({ kind: 'shelf', cost: 0, lot: 'L2' })
    expect(shelf.rolls.map((x) => x.stock?.id)).toEqual(['r2'])
    expect(r.figures.get('roll/fen-satin/order')?.value).toBe(0)
  })
  it('two rests of one lot serve one plan; two lots never do', () => {
    const plan = handCar()
    const { layout } = lay(plan, [
      stock('a', { kind: 'rest', leftMm: 1200 }),
      stock('b', { kind: 'rest', leftMm: 1400 }),
    ])
    expect(layout.rolls.every((x) => x.stock?.lot === 'L1')).toBe(true)
    expect(layout.rolls).toHaveLength(2)
    const apart = lay(plan, [
      stock('a', { kind: 'rest', leftMm: 1200 }),
      stock('b', { kind: 'rest', leftMm: 1400, lot: 'L2' }),
    ])
    expect(apart.layout.source?.kind).toBe('new')
  })
  it('the source that the plan names is taken', () => {
    const plan = handCar()
    const named = { ...plan, layout: { ...plan.layout, sources: [{ filmId: 'fen-satin', source: 'lot:L1' }] } }
    const shelf = [stock('r1', { leftMm: 20_000 }), stock('r2', { lot: 'L2', leftMm: 5000 })]
    expect(lay(named, shelf).layout.source?.lot).toBe('L1')
  })
})

describe('moving pieces by hand', () => {
  const plan = { ...handCar(), layout: { ...handCar().layout, stages: 4 } }
  const { layout } = lay(plan)
  const roll = layout.rolls[0]
  if (!roll) throw new Error('no roll')
  const spot = (id: string) => {
    const p = roll.placements.find((x) => x.pieceId === id)
    if (!p) throw new Error(id)
    return p
  }
  it('refuses what lies on another piece, off the roll, past its end, and says which', () => {
    const [a, b] = [spot('bonnet'), spot('door')]
    expect(obstacle(layout, plan, roll.id, { ...b, xMm: a.xMm, yMm: a.yMm })).toMatchObject({
      code: 'lies_on',
      facts: { other: 'Bonnet' },
    })
    expect(obstacle(layout, plan, roll.id, { ...a, xMm: 200 })?.code).toBe('off_the_roll')
    expect(obstacle(layout, plan, roll.id, { ...a, yMm: 24_900 })?.code).toBe('past_the_end')
    expect(obstacle(layout, plan, 'nowhere', a)?.code).toBe('no_such_roll')
    for (const p of roll.placements) expect(obstacle(layout, plan, roll.id, p)).toBeNull()
  })
  it('snaps to the nearest edges, and goes from edge to edge by the arrow keys', () => {
    const a = roll.placements.reduce((far, p) => (p.yMm + p.lengthMm > far.yMm + far.lengthMm ? p : far))
    const out = dropAt(layout, plan, roll.id, { ...a, yMm: roll.usedMm + 20, xMm: 12 })
    expect(out.ok && out.value.xMm).toBe(0)
    const right = nudge(layout, plan, roll.id, a, 'right')
    if (right.ok) {
      const moved = placed(layout, roll.id, right.value)
      expect(nudge(moved, plan, roll.id, right.value, 'left').ok).toBe(true)
    } else expect(right.error.code).toBe('nowhere_further')
  })
  it('turns only as the piece may', () => {
    const directional = {
      ...plan,
      film: { ...plan.film, sheets: plan.film.sheets.map((s) => ({ ...s, directional: true })) },
    }
    const { layout: l } = lay(directional)
    const door = l.pieces.find((p) => p.id === 'door')
    const bonnet = l.pieces.find((p) => p.id === 'bonnet')
    expect(door && turnsOf(door)).toEqual([0])
    expect(bonnet && turnsOf(bonnet)).toEqual([0, 90, 180, 270])
    const r0 = l.rolls[0]
    const at = r0?.placements.find((p) => p.pieceId === 'door')
    expect(r0 && at && turnOn(l, directional, r0.id, at)).toMatchObject({ ok: false, error: { code: 'may_not_turn' } })
    const always = lay({ ...directional, method: { ...directional.method, direction: 'always' } }).layout.pieces
    expect(always.every((p) => turnsOf(p).length === 1)).toBe(true)
  })
  it('locked pieces stay when the rest is laid anew, and a piece goes to another roll', () => {
    const two = lay(plan, [stock('a', { kind: 'rest', leftMm: 1300 }), stock('b', { kind: 'rest', leftMm: 1500 })])
    const [first, second] = two.layout.rolls
    if (!first || !second) throw new Error('two rolls wanted')
    const piece = first.placements[0]
    if (!piece) throw new Error('empty')
    const out = toRoll(two.layout, plan, second.id, piece)
    expect(out.ok || ['past_the_end', 'lies_on', 'no_straight_cut', 'too_many_stages'].includes(out.error.code)).toBe(
      true,
    )
  })
})

describe('what is cut is real', () => {
  const plan = handCar()
  const shelf = [stock('r1', { leftMm: 5000 })]
  const { layout } = lay(plan, shelf)
  const roll = layout.rolls[0]
  const first = roll?.cutting.cuts[0]
  if (!roll || !first) throw new Error('no cut')
  const row = (payload: LogRow['payload'], n = 1): LogRow => ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    at: '2026-11-20T08:00:00Z',
    by: 'x',
    payload,
  })
  const entry = cutEntry(layout, roll, first, 'r1')
  it('a cut across takes its length off the stock and names its pieces', () => {
    expect(entry).toMatchObject({ kind: 'film_used', stockId: 'r1', cutKey: cutKey(layout, roll, first) })
    expect(entry.kind === 'film_used' && entry.lengthMm).toBeCloseTo(first.tapeMm, 1)
    expect(cutsMade([row(entry)]).has(cutKey(layout, roll, first))).toBe(true)
  })
  it('the kept plan stays current; a larger panel spoils what is cut and says so; a piece not cut does not', () => {
    const keptPlan = kept(plan, layout)
    const after = lay(keptPlan, [stock('r1', { leftMm: 5000 - first.tapeMm })], [row(entry)])
    expect(after.layout.kept).toBe('current')
    expect(after.r.findings.some((f) => f.code === 'cut_spoiled' || f.code === 'stock_short')).toBe(false)
    const id = first.pieceIds[0] as string
    const grown = {
      ...keptPlan,
      panels: keptPlan.panels.map((p) => (p.id === id ? { ...p, widthMm: p.widthMm + 40 } : p)),
    }
    const spoiled = lay(grown, shelf, [row(entry)])
    expect(spoiled.r.findings.filter((f) => f.code === 'cut_spoiled').map((f) => f.id)).toEqual([`cut_spoiled/${id}`])
    expect(spoiled.layout.rolls.flatMap((x) => x.placements.map((p) => p.pieceId))).toContain(id)
    const smaller = { ...plan, panels: plan.panels.map((p) => (p.id === id ? { ...p, widthMm: p.widthMm - 40 } : p)) }
    const fine = lay(smaller, shelf, [row(entry)])
    expect(fine.layout.spoiled).toEqual([])
    expect(fine.layout.rolls.flatMap((x) => x.placements.map((p) => p.pieceId))).not.toContain(id)
    const gone = {
      ...plan,
      panels: plan.panels.filter((p) => p.id !== id),
      pieces: plan.pieces.filter((p) => p.panelId !== id),
    }
    expect(lay(gone, shelf, [row(entry)]).layout.spoiled.map((c) => c.id)).toEqual([id])
  })
  it('somebody else’s cut from the same roll is told', () => {
    const less = lay(kept(plan, layout), [stock('r1', { leftMm: 900 })])
    expect(less.r.findings.some((f) => f.code === 'stock_short')).toBe(true)
  })
  it('rests worth keeping are within the length used and lie on no piece', () => {
    for (const rest of restsOf(layout)) expect(Math.min(rest.widthMm, rest.lengthMm)).toBeGreaterThanOrEqual(150)
  })
})

describe('drops of a print', () => {
  const task = (over: Partial<DropTask>): DropTask => ({
    sideMm: 3000,
    heightMm: 1200,
    printableMm: 1300,
    overlapMm: 13,
    bleedMm: 30,
    zones: [],
    distanceMm: 50,
    leastMm: 100,
    ...over,
  })
  it('fewest drops, then the best seams: an exhaustive search agrees', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 90 }),
        fc.integer({ min: 18, max: 40 }),
        fc.array(
          fc.record({
            at: fc.integer({ min: 0, max: 90 }),
            w: fc.integer({ min: 0, max: 6 }),
            weight: fc.constantFrom('never' as const, 3, -2),
          }),
          { maxLength: 5 },
        ),
        (sideMm, printableMm, list) => {
          const t = task({
            sideMm,
            printableMm,
            overlapMm: 2,
            bleedMm: 1,
            distanceMm: 1,
            leastMm: 4,
            zones: list.map((z) => ({ fromMm: z.at, toMm: z.at + z.w, weight: z.weight })),
          })
          const plan = dropPlan(t)
          const twin = everyDrop(t)
          expect(plan.ok).toBe(twin !== null)
          if (plan.ok && twin) {
            expect(plan.value.drops.length).toBe(twin.drops)
            expect(plan.value.weight).toBeCloseTo(twin.weight, 9)
          }
        },
      ),
      { numRuns: 80, seed: 9 },
    )
  })
  it('covers the side without a hole, each drop within the printable width, overlaps as the film’s sheet says', () => {
    const out = dropPlan(task({ zones: [{ fromMm: 1200, toMm: 1330, weight: 'never' }] }))
    if (!out.ok) throw new Error(out.error.code)
    const { drops, seamsMm } = out.value
    expect(drops).toHaveLength(3)
    expect([drops[0]?.fromMm, drops.at(-1)?.toMm]).toEqual([-30, 3030])
    for (const d of drops) expect(d.widthMm).toBeLessThanOrEqual(1300)
    for (let i = 1; i < drops.length; i++)
      expect((drops[i - 1]?.toMm ?? 0) - (drops[i]?.fromMm ?? 0)).toBeCloseTo(13, 9)
    for (const s of seamsMm) expect(s < 1150 || s > 1380).toBe(true)
    expect(drops[0] && registrationMarks(drops[0])).toHaveLength(4)
  })
  it('says when no seam keeps clear, or a drop would be all overlap', () => {
    expect(dropPlan(task({ zones: [{ fromMm: 0, toMm: 3000, weight: 'never' }] }))).toMatchObject({
      ok: false,
      error: { code: 'no_seam_place' },
    })
    expect(dropPlan(task({ printableMm: 100 }))).toMatchObject({ ok: false, error: { code: 'drop_too_narrow' } })
    expect(dropPlan(task({ sideMm: 0 }))).toMatchObject({ ok: false, error: { code: 'bad_size' } })
  })
})

function everyDrop(t: DropTask): { drops: number; weight: number } | null {
  let best: { drops: number; weight: number } | null = null
  const seamOk = (s: number) =>
    s + t.overlapMm <= t.sideMm &&
    !t.zones.some((z) => z.weight === 'never' && s >= z.fromMm - t.distanceMm && s <= z.toMm + t.distanceMm)
  const at = (s: number) =>
    t.zones.reduce((w, z) => (z.weight !== 'never' && s >= z.fromMm && s <= z.toMm ? w + z.weight : w), 0)
  const walk = (from: number, n: number, weight: number) => {
    if (best && n > best.drops) return
    for (let s = from + Math.min(t.leastMm, t.sideMm); s <= t.sideMm; s++) {
      const w = s - from + (from === 0 ? t.bleedMm : 0) + (s === t.sideMm ? t.bleedMm : t.overlapMm)
      if (w > t.printableMm) break
      if (s === t.sideMm) {
        if (!best || n + 1 < best.drops || (n + 1 === best.drops && weight < best.weight))
          best = { drops: n + 1, weight }
      } else if (seamOk(s) && n < 5) walk(s, n + 1, weight + at(s))
    }
  }
  walk(0, 0, 0)
  return best
}

describe('sheets as shingles', () => {
  it('stop 13 mm short of what meets the flow, overlap fore over aft, and cover the rest', () => {
    const out = shingles({
      lengthMm: 5000,
      heightMm: 800,
      sheetMm: { width: 1000, length: 1200 },
      rips: 2,
      overlapMm: 25,
      exposed: { fore: true, aft: false, top: true, bottom: false },
    })
    if (!out.ok) throw new Error(out.error.code)
    const { laid, sheets } = out.value
    expect(EXPOSED_SETBACK_MM).toBe(13)
    expect(Math.max(...laid.map((s) => s.fromAftMm + s.lengthMm))).toBeCloseTo(5000 - 13, 9)
    expect(Math.max(...laid.map((s) => s.fromBottomMm + s.heightMm))).toBeCloseTo(800 - 13, 9)
    const rows = [...new Set(laid.map((s) => s.fromBottomMm))]
    for (const y of rows) {
      const row = laid.filter((s) => s.fromBottomMm === y)
      for (let i = 1; i < row.length; i++)
        expect(
          (row[i - 1]?.fromAftMm ?? 0) + (row[i - 1]?.lengthMm ?? 0) - (row[i]?.fromAftMm ?? 0),
        ).toBeGreaterThanOrEqual(25 - 1e-9)
    }
    expect(sheets * 1000 * 1200).toBeGreaterThanOrEqual(4987 * 787)
    expect(
      shingles({
        lengthMm: 10,
        heightMm: 800,
        sheetMm: { width: 1000, length: 1200 },
        rips: 2,
        overlapMm: 600,
        exposed: { fore: true, aft: true, top: true, bottom: true },
      }).ok,
    ).toBe(false)
  })
})

it('a print is laminated after it has gassed out, before it is cut: minutes by its area', () => {
  const print = film('folio-print')
  const plan = { ...handCar(), film: { mainId: print.id, sheets: [print] } }
  const { r } = lay(plan)
  const codes = r.steps.map((s) => s.code)
  const [gas, laminate, cut] = ['gas_out', 'laminate', 'cut'].map((c) => codes.indexOf(c)) as [number, number, number]
  expect(gas).toBeGreaterThan(-1)
  expect(laminate).toBe(gas + 1)
  expect(cut).toBeGreaterThan(laminate)
  const areaM2 = r.pieces.reduce((s, p) => s + (p.cutWidthMm * p.cutHeightMm) / 1e6, 0)
  expect(r.steps[laminate]?.minutes).toBe(Math.round(15 + 1.5 * areaM2))
})
