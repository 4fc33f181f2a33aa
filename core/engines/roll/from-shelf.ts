import type { StockItem } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { cutFromId, stillToCutMm } from './cut-from'
import type { FilmLayout } from './roll-plan'

export interface FromShelf {
  label: string
  lot: string
  /** What is left on it once the plan is cut, mm. */
  leftAfterMm: number
}

/** The rolls and rests of the shelf that a layout is cut from, with what is left of each when all of it is cut. */
export function fromShelf(layout: FilmLayout, stock: readonly StockItem[], ledger: readonly LogRow[]): FromShelf[] {
  const toCut = new Map<string, number>()
  for (const roll of layout.rolls) {
    const begun = cutFromId(layout, roll, ledger)
    const id = begun ?? roll.stock?.id
    if (id === undefined) continue
    // By machine there are no cuts to count: the roll's whole length, until something of it is cut.
    const byHand = roll.cutting.cuts.some((c) => c.stage === 1)
    const mm = byHand ? stillToCutMm(layout, roll, ledger) : begun ? 0 : roll.usedMm
    toCut.set(id, (toCut.get(id) ?? 0) + mm)
  }
  return [...toCut].flatMap(([id, mm]) => {
    const item = stock.find((s) => s.id === id)
    return item ? [{ label: item.label, lot: item.lot, leftAfterMm: Math.max(0, item.leftMm - mm) }] : []
  })
}
