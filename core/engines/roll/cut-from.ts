import type { StockItem } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import { cutKey, cutsMade } from './cutting'
import type { Cut } from './cuts'
import { withoutUndoneCuts } from '../../model/log/cut-pieces'
import { damageFromEnd, type FilmLayout, type RollPlan } from './roll-plan'

/** Film of a roll or rest that can be cut from its open end before the first damage, mm. */
export const soundLengthMm = (item: StockItem): number => Math.max(0, damageFromEnd(item)[0]?.from ?? item.leftMm)

/** Length that the cuts of a planned roll still take off it, mm: those across that are not made. */
export const stillToCutMm = (layout: FilmLayout, roll: RollPlan, ledger: readonly LogRow[]): number => {
  const made = cutsMade(ledger)
  return roll.cutting.cuts
    .filter((cut) => cut.stage === 1 && !made.has(cutKey(layout, roll, cut)))
    .reduce((sum, cut) => sum + cut.tapeMm, 0)
}

export interface CutSource {
  item: StockItem
  /**
   * enough: with the reserve beside it · no_reserve: enough for the plan alone · short: not enough for what is still
   * to be cut.
   */
  fit: 'enough' | 'no_reserve' | 'short'
  soundMm: number
  /** Another lot than the other rolls of this film that are named or begun: the shade may differ where they meet. */
  otherLot: boolean
}

/** Rolls and rests that a planned roll may be cut from, those that are long enough first, then the shortest of them. */
export function cutSources(
  layout: FilmLayout,
  roll: RollPlan,
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
): CutSource[] {
  const needMm = stillToCutMm(layout, roll, ledger)
  const lots = new Set(
    layout.rolls.flatMap((other) => {
      const id = cutFromId(layout, other, ledger) ?? (other.id === roll.id ? null : other.stock?.id)
      return stock.find((item) => item.id === id)?.lot ?? []
    }),
  )
  const rank = { enough: 0, no_reserve: 1, short: 2 } as const
  return stock
    .filter((item) => item.filmId === layout.film.id && item.widthMm >= roll.widthMm - 1 && item.leftMm > 0)
    .map((item): CutSource => {
      const soundMm = soundLengthMm(item)
      const fit = soundMm >= needMm + layout.reserveMm ? 'enough' : soundMm >= needMm ? 'no_reserve' : 'short'
      return { item, fit, soundMm, otherLot: lots.size > 0 && !lots.has(item.lot) }
    })
    .sort((a, b) => rank[a.fit] - rank[b.fit] || Number(a.otherLot) - Number(b.otherLot) || a.soundMm - b.soundMm)
}

/** The roll or rest that a planned roll was cut from last; null where nothing of it is cut. */
export function cutFromId(layout: FilmLayout, roll: RollPlan, ledger: readonly LogRow[]): string | null {
  const row = withoutUndoneCuts(ledger).findLast(
    ({ payload }) => payload.kind === 'film_used' && payload.cutKey?.startsWith(`${layout.mark}:${roll.id}:`),
  )
  return row?.payload.kind === 'film_used' ? row.payload.stockId : null
}

/**
 * The roll to offer first: the one begun, the one planned, else the first that is long enough. Nothing too short is
 * offered.
 */
export function offeredId(
  layout: FilmLayout,
  roll: RollPlan,
  stock: readonly StockItem[],
  ledger: readonly LogRow[],
): string | null {
  const sources = cutSources(layout, roll, stock, ledger)
  const good = (id: string | null | undefined) => sources.find((s) => s.item.id === id && s.fit !== 'short')?.item.id
  const begun = cutFromId(layout, roll, ledger)
  if (begun) return begun
  return good(roll.stock?.id) ?? sources.find((s) => s.fit !== 'short')?.item.id ?? null
}

/**
 * Whether the next cut can be made from a roll: a cut across needs its length off the sound end. Lengthwise ones take
 * nothing.
 */
export const canCut = (cut: Cut, item: StockItem | undefined): boolean =>
  cut.stage > 1 || (item !== undefined && soundLengthMm(item) >= cut.tapeMm - 1e-6)
