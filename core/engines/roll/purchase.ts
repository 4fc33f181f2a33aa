import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { handedOver } from '../../model/log/handed-over'
import { orderFor, type BoughtLine } from './buy'
import { type FilmLayout, bandLengths } from './roll-plan'
import { cutFromId } from './cut-from'

export interface Purchase {
  /** What has to be bought, mm; 0 where the shelf covers the plan. */
  orderMm: number
  units: number
  cost: number
  lines: BoughtLine[]
  /** Stock of one lot and enough width, best first. */
  shelf: StockItem[]
  covered: boolean
}

/** Order by the film's own offers, with what is set aside; nothing where the layout lies on the shelf. */
export function purchase(
  film: FilmSheet,
  layout: FilmLayout,
  stock: readonly StockItem[],
  ledger: readonly LogRow[] = [],
): Purchase {
  const shelf = stock
    .filter((s) => s.filmId === film.id && s.widthMm >= layout.rollWidthMm - 1e-6)
    .sort((a, b) => a.leftMm - b.leftMm)
  const nothing = { orderMm: 0, units: 0, cost: 0, lines: [] }
  if (layout.usedMm === 0) return { ...nothing, shelf, covered: false }
  // A new roll that was planned is on the shelf once something was cut from it; cut whole or handed over, nothing is
  // bought any more.
  const over = handedOver(ledger) !== null || (layout.usedMm > 0 && layout.doneMm >= layout.usedMm - 1)
  const news = layout.rolls.filter((r) => r.stock === null && !over && cutFromId(layout, r, ledger) === null)
  if (news.length === 0) {
    const ids = new Set(layout.rolls.map((r) => cutFromId(layout, r, ledger) ?? r.id))
    return {
      ...nothing,
      shelf: [...shelf.filter((s) => ids.has(s.id)), ...shelf.filter((s) => !ids.has(s.id))],
      covered: true,
    }
  }
  const bands = [...news.flatMap((r) => bandLengths(r.placements)), ...layout.reserveBandsMm]
  return { ...orderFor(film, news[0]?.widthMm ?? layout.rollWidthMm, bands), shelf, covered: false }
}
