import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { StockItem } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { filmAreaMm2 } from '@/core/stages/roll/figures'
import { reckon } from '@/core/reckon/reckon'
import { canCut, cutFromId, cutSources, offeredId, soundLengthMm, stillToCutMm } from '@/core/engines/roll/cut-from'
import { stockAfter } from '@/core/model/log/cut-pieces'
import { cutEntry, cutKey } from '@/core/engines/roll/cutting'
import { fromShelf } from '@/core/engines/roll/from-shelf'
import { labelsOf } from '@/core/engines/roll/labels'
import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { handCar, row } from '../fixtures/plans'

const stock = (id: string, over: Partial<StockItem> = {}): StockItem => ({
  id,
  filmId: 'fen-satin',
  kind: 'roll',
  label: id.toUpperCase(),
  lot: 'L1',
  widthMm: 1520,
  leftMm: 25_000,
  damage: [],
  strips: [],
  ...over,
})

/** The hand car's layout on a new roll, kept, and read against another shelf. */
function kept(shelf: StockItem[], ledger: LogRow[] = []): FilmLayout {
  const made = reckon(handCar(), EMPTY_CATALOGUE, []).layouts[0]
  if (!made) throw new Error('no layout')
  const plan = { ...handCar(), layout: { ...handCar().layout, kept: [keepLayout(made)] } }
  const layout = reckon(plan, { ...EMPTY_CATALOGUE, stock: shelf }, ledger).layouts[0]
  if (!layout) throw new Error('no layout')
  return layout
}
const rollOf = (layout: FilmLayout) => {
  const roll = layout.rolls[0]
  if (!roll) throw new Error('no roll')
  return roll
}
const usedMm = rollOf(kept([])).usedMm

describe('what a planned roll is cut from', () => {
  it('nothing too short is offered: the shortest that holds plan and reserve, else none', () => {
    const offered = (...shelf: StockItem[]) => {
      const layout = kept(shelf)
      return offeredId(layout, rollOf(layout), shelf, [])
    }
    const [short, fits, long] = [
      stock('short', { leftMm: usedMm - 1 }),
      stock('fits', { leftMm: usedMm + 3000 }),
      stock('long'),
    ]
    expect(offered(short)).toBeNull()
    expect(offered(short, long, fits)).toBe('fits')
    expect(offered(stock('narrow', { widthMm: 900 }), long)).toBe('long')
  })
  it('counts film up to the first damage only', () => {
    const damaged = stock('d', { leftMm: 20_000, damage: [{ fromCoreMm: 19_000, lengthMm: 200, note: '' }] })
    expect(soundLengthMm(damaged)).toBe(800)
    const layout = kept([damaged])
    expect(cutSources(layout, rollOf(layout), [damaged], [])).toMatchObject([{ fit: 'short', soundMm: 800 }])
  })
  it('says where the reserve would be gone, and where another lot is', () => {
    const layout = { ...kept([]), reserveMm: 5000 }
    const tight = stock('t', { leftMm: usedMm + 10 })
    expect(cutSources(layout, rollOf(layout), [tight, stock('l')], []).map((s) => s.fit)).toEqual([
      'enough',
      'no_reserve',
    ])
    const first = rollOf(layout).cutting.cuts[0]
    if (!first) throw new Error('no cut')
    const ledger = [row(cutEntry(layout, rollOf(layout), first, 't'))]
    const after = cutSources(layout, rollOf(layout), [tight, stock('other', { lot: 'L2' })], ledger)
    expect(after.find((s) => s.item.id === 'other')?.otherLot).toBe(true)
    expect(after.find((s) => s.item.id === 't')?.otherLot).toBe(false)
  })
  it('goes on with the roll begun, which may run short; the rest goes on another', () => {
    const layout = kept([])
    const roll = rollOf(layout)
    const [first, ...rest] = roll.cutting.cuts.filter((c) => c.stage === 1)
    if (!first || rest.length === 0) throw new Error('two bands wanted')
    const ledger = [row(cutEntry(layout, roll, first, 'a'))]
    const shelf = [stock('a', { leftMm: 50 }), stock('b')]
    expect(cutFromId(layout, roll, ledger)).toBe('a')
    expect(offeredId(layout, roll, shelf, ledger)).toBe('a')
    expect(stillToCutMm(layout, roll, ledger)).toBeCloseTo(
      rest.reduce((s, c) => s + c.tapeMm, 0),
      6,
    )
    const next = rest[0]
    if (!next) throw new Error('no cut')
    expect([canCut(next, shelf[0]), canCut(next, shelf[1]), canCut(next, undefined)]).toEqual([false, true, false])
    // A cut within a part that is off the roll takes none.
    expect(canCut({ ...next, stage: 2 }, shelf[0])).toBe(true)
    ledger.push(row(cutEntry(layout, roll, next, 'b')))
    expect(cutFromId(layout, roll, ledger)).toBe('b')
  })
  it('the rack falls with the cuts it does not know of yet, and rises with those taken back', () => {
    const layout = kept([])
    const roll = rollOf(layout)
    const cut = roll.cutting.cuts[0]
    if (!cut) throw new Error('no cut')
    const made = row(cutEntry(layout, roll, cut, 'a'))
    const back = row({ kind: 'cut_taken_back', cutKey: cutKey(layout, roll, cut) })
    const left = (ledger: LogRow[], known: LogRow[] = []) =>
      stockAfter([stock('a')], ledger, (r) => !known.includes(r))[0]?.leftMm
    expect(left([made])).toBeCloseTo(25_000 - cut.tapeMm, 1)
    expect(left([made], [made])).toBe(25_000)
    expect(left([made, back])).toBeCloseTo(25_000, 6)
    expect(left([made, back], [made])).toBeCloseTo(25_000 + cut.tapeMm, 1)
  })
})

describe('labels', () => {
  it('carry the lot once a piece is cut, also where the plan had a new roll; rests carry their roll’s', () => {
    const shelf = [stock('a', { label: 'R-07', lot: 'K9' })]
    const layout = kept(shelf)
    const roll = rollOf(layout)
    expect(labelsOf(layout, shelf, []).every((l) => l.from === null)).toBe(true)
    const ledger = roll.cutting.cuts.map((c) => row(cutEntry(layout, roll, c, 'a')))
    const cut = kept(shelf, ledger)
    const labels = labelsOf(cut, shelf, ledger)
    expect(labels.length).toBeGreaterThan(3)
    expect(new Set(labels.map((l) => l.from?.lot))).toEqual(new Set(['K9']))
    expect(labels.filter((l) => l.kind === 'rest').every((l) => l.name.startsWith('Rest R-07-'))).toBe(true)
    // Nothing is left to buy then.
    const plan = { ...handCar(), layout: { ...handCar().layout, kept: [keepLayout(layout)] } }
    expect(reckon(plan, { ...EMPTY_CATALOGUE, stock: shelf }, ledger).purchases.get('fen-satin')).toMatchObject({
      covered: true,
      cost: 0,
    })
  })
})

describe('any rack', () => {
  const anyItem = fc.record({
    kind: fc.constantFrom('roll' as const, 'rest' as const),
    lot: fc.constantFrom('A', 'B'),
    widthMm: fc.constantFrom(600, 760, 1220, 1520),
    leftMm: fc.integer({ min: 300, max: 12_000 }),
  })
  it('no more film is used than there is, no yield passes one, and order and shelf cover plan and reserve', () => {
    fc.assert(
      fc.property(
        fc.array(anyItem, { maxLength: 6 }),
        fc.constantFrom(0, 5),
        fc.boolean(),
        (items, gapMm, byMachine) => {
          const shelf = items.map((x, i) => stock(`s${i}`, x))
          const plan = {
            ...handCar(),
            layout: { ...handCar().layout, gapMm, cutting: byMachine ? ('free' as const) : ('crosscut' as const) },
          }
          const { layouts, figures, purchases } = reckon(plan, { ...EMPTY_CATALOGUE, stock: shelf }, [])
          const [layout] = layouts
          const bought = purchases.get('fen-satin')
          if (!layout || !bought) throw new Error('no layout')
          const yields = [figures.get('roll/fen-satin/yield')?.value, figures.get('rail/yield')?.value] as number[]
          for (const y of yields) {
            expect(y).toBeGreaterThan(0)
            expect(y).toBeLessThanOrEqual(1)
          }
          expect(filmAreaMm2(layout)).toBeLessThanOrEqual(layout.usedMm * layout.rollWidthMm + 1e-3)
          const rolls = layout.rolls.length
          expect(layout.usedMm).toBeGreaterThanOrEqual(layout.boundMm - Math.max(0, rolls - 1) * gapMm - 1e-6)
          const onShelf = layout.rolls.reduce((s, r) => s + (r.stock?.leftMm ?? 0), 0)
          const covers = layout.source?.covers === true
          if (covers && rolls === 1)
            expect(bought.orderMm + onShelf).toBeGreaterThanOrEqual(layout.usedMm + layout.reserveMm - 1e-6)
          for (const r of layout.rolls) if (r.stock) expect(r.usedMm).toBeLessThanOrEqual(r.stock.leftMm + 1e-6)
          for (const left of fromShelf(layout, shelf, [])) expect(left.leftAfterMm).toBeGreaterThanOrEqual(0)
        },
      ),
      { numRuns: 60 },
    )
  })
})
