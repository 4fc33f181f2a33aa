import type { FilmSheet, StockItem } from '../../model/film/schema'
import { err, ok, type Result } from '../../kit/result'
import { LayoutInput, MOST_FLEET_PIECES } from './contract'
import { damageFromEnd } from './roll-plan'
import type { Piece } from '../pieces/pieces'

export interface FleetCar {
  name: string
  pieces: readonly Piece[]
  /** So many vehicles alike. */
  count: number
}
export interface FleetAsk {
  film: FilmSheet
  cars: readonly FleetCar[]
  stock: readonly StockItem[]
  /** Rolls to be bought beside what is on the shelf; each of its own lot unless one delivery is of one. */
  newRolls: number
  widthMm: number
  cutting: 'guillotine' | 'free'
  gapMm: number
  seconds: number
  seed?: number
}

/** Free stretches of a roll or rest: damage parts it into several. */
function stretches(item: StockItem): { id: string; length_mm: number }[] {
  const out: number[] = []
  let at = 0
  for (const d of damageFromEnd(item)) {
    if (d.from > at) out.push(d.from - at)
    at = Math.max(at, d.to)
  }
  if (item.leftMm > at) out.push(item.leftMm - at)
  return out.map((length_mm, i) => ({
    id: out.length === 1 ? item.label : `${item.label}, stretch ${i + 1}`,
    length_mm,
  }))
}

/**
 * Pieces of many vehicles as one layout by the published contract: every vehicle is a group of its own, so that it
 * comes from one lot; rolls of the shelf with their lots, then new ones. Errors: no_pieces, too_many_pieces, no_stock.
 */
export function fleetInput(ask: FleetAsk): Result<LayoutInput> {
  const pieces: LayoutInput['pieces'] = []
  let car = 0
  for (const { name, pieces: own, count } of ask.cars)
    for (let copy = 0; copy < count; copy++) {
      car++
      const group = `${car} ${name}`.slice(0, 120)
      for (const p of own)
        pieces.push({
          id: `${group} / ${p.id}`.slice(0, 200),
          width_mm: p.acrossMm,
          height_mm: p.alongMm,
          count: 1,
          turn: p.turn,
          group,
        })
      if (pieces.length > MOST_FLEET_PIECES)
        return err({ code: 'too_many_fleet_pieces', facts: { limit: MOST_FLEET_PIECES } })
    }
  if (pieces.length === 0) return err({ code: 'no_pieces' })
  const shelf = ask.stock
    .filter((s) => s.filmId === ask.film.id && s.leftMm > 0)
    .sort((a, b) => (a.kind === b.kind ? a.leftMm - b.leftMm : a.kind === 'rest' ? -1 : 1))
    .flatMap((s) => stretches(s).map((part) => ({ ...part, width_mm: s.widthMm, lot: s.lot })))
  const rollMm = ask.film.rollLengthsMm[0] ?? 25000
  const bought = Array.from({ length: ask.newRolls }, (_, i) => ({
    id: `new roll ${i + 1}`,
    width_mm: ask.widthMm,
    length_mm: rollMm,
    lot: 'to be bought',
  }))
  const stock = [...shelf, ...bought]
  if (stock.length === 0) return err({ code: 'no_stock' })
  return ok({
    format: 'cuirass/layout@1',
    cutting: ask.cutting,
    gap_mm: ask.gapMm,
    seconds: ask.seconds,
    seed: ask.seed ?? 1,
    stock,
    pieces,
  })
}
