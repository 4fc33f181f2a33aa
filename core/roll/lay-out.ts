import { seeded, textHash } from '../kit/random'
import { lengthBound, pack, type PackItem } from '../solve/pack'
import type { FilmSheet, StockItem } from '../film/schema'
import type { KeptLayout, Plan } from '../plan/schema'
import type { Piece } from './pieces'

export interface RollPlan {
  id: string
  widthMm: number
  usedMm: number
  placements: KeptLayout['rolls'][number]['placements']
  crossCutsMm: number[]
}
export interface FilmLayout {
  film: FilmSheet
  pieces: Piece[]
  rollWidthMm: number
  rolls: RollPlan[]
  usedMm: number
  boundMm: number
  unplaced: { piece: Piece; why: string }[]
  /** Mark of pieces, width, gap: a kept layout with another mark is out of date. */
  mark: string
  kept: 'none' | 'current' | 'stale'
}

/** Changes tried while figures are typed: enough for a good plan, few enough to stay live. Falls as pieces grow. */
const liveRounds = (pieces: number): number => (pieces > 150 ? 0 : Math.floor(15000 / Math.max(20, pieces)))
const MAX_NEW_ROLLS = 24

/** The width a job's film is laid on: the plan's choice where the film comes in it, else the widest. */
export const rollWidth = (plan: Plan, film: FilmSheet): number =>
  plan.layout.rollWidthMm !== null && film.widthsMm.includes(plan.layout.rollWidthMm)
    ? plan.layout.rollWidthMm
    : Math.max(...film.widthsMm)

/** Lays the pieces of one film on new rolls of its sheet (one lot), or reads back the layout that was kept. */
export function layOutFilm(
  plan: Plan,
  film: FilmSheet,
  pieces: Piece[],
  rounds = liveRounds(pieces.length),
): FilmLayout {
  const widthMm = rollWidth(plan, film)
  const rollMm = film.rollLengthsMm[0] ?? 25000
  const gap = plan.layout.gapMm
  const mark = textHash(
    JSON.stringify([
      widthMm,
      rollMm,
      gap,
      pieces.map((p) => [p.id, Math.round(p.acrossMm * 10), Math.round(p.alongMm * 10), p.turn]),
    ]),
  )
  const items: PackItem[] = pieces.map((p) => ({
    id: p.id,
    copy: 1,
    width: p.acrossMm,
    length: p.alongMm,
    turn: p.turn,
    group: null,
  }))
  const bound = lengthBound(
    items.filter((i) => i.width <= widthMm || (i.turn === 'quarter' && i.length <= widthMm)),
    widthMm,
    gap,
  )
  const keptPlan = plan.layout.kept.find((k) => k.filmId === film.id)
  const base = { film, pieces, rollWidthMm: widthMm, boundMm: bound, mark }
  if (keptPlan && keptPlan.mark === mark) {
    const rolls = keptPlan.rolls.map((r) => ({ ...r, crossCutsMm: crossCuts(r.placements) }))
    const placed = new Set(rolls.flatMap((r) => r.placements.map((p) => p.pieceId)))
    const unplaced = pieces.filter((p) => !placed.has(p.id)).map((piece) => ({ piece, why: 'wider_than_every_bin' }))
    return { ...base, rolls, usedMm: rolls.reduce((s, r) => s + r.usedMm, 0), unplaced, kept: 'current' }
  }
  const packing = packRolls(items, widthMm, rollMm, gap, plan.layout.seed, rounds)
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const rolls = packing.used
    .filter((u) => u.length > 0)
    .map((u) => ({
      id: u.binId,
      widthMm,
      usedMm: u.length,
      crossCutsMm: crossCuts(
        packing.placed.filter((p) => p.binId === u.binId).map((p) => ({ yMm: p.y, lengthMm: p.length })),
      ),
      placements: packing.placed
        .filter((p) => p.binId === u.binId)
        .map((p) => ({
          pieceId: p.item.id,
          xMm: p.x,
          yMm: p.y,
          widthMm: p.width,
          lengthMm: p.length,
          turnDeg: p.turned ? (90 as const) : (0 as const),
        })),
    }))
  const unplaced = packing.unplaced.flatMap((u) => {
    const piece = byId.get(u.item.id)
    return piece ? [{ piece, why: u.why }] : []
  })
  return {
    ...base,
    rolls,
    usedMm: rolls.reduce((s, r) => s + r.usedMm, 0),
    unplaced,
    kept: keptPlan ? 'stale' : 'none',
  }
}

/** As many new rolls as it takes; only one at first, since most cars need no more. */
function packRolls(items: PackItem[], width: number, length: number, gap: number, seed: number, rounds: number) {
  const need = Math.max(1, Math.ceil(lengthBound(items, width, gap) / length))
  for (let count = need; ; count = Math.min(MAX_NEW_ROLLS * 8, count * 2)) {
    const bins = Array.from({ length: count }, (_, i) => ({ id: `new-${i + 1}`, width, length, lot: 'new' }))
    const packing = pack(items, bins, { gap, random: seeded(seed), budget: { rounds } })
    if (count >= MAX_NEW_ROLLS * 8 || !packing.unplaced.some((u) => u.why === 'no_room_left')) return packing
  }
}

/** Far edges of the bands: every straight line across that no piece crosses. */
function crossCuts(placements: readonly { yMm: number; lengthMm: number }[]): number[] {
  const ends = [...new Set(placements.map((p) => p.yMm + p.lengthMm))].sort((a, b) => a - b)
  return ends.filter((y) => !placements.some((p) => p.yMm < y - 1e-6 && p.yMm + p.lengthMm > y + 1e-6))
}

export const keepLayout = (layout: FilmLayout): KeptLayout => ({
  filmId: layout.film.id,
  mark: layout.mark,
  rolls: layout.rolls.map(({ id, widthMm, usedMm, placements }) => ({ id, widthMm, usedMm, placements })),
})

export interface Purchase {
  /** What has to be bought, mm; 0 where one lot on the shelf covers the plan. */
  orderMm: number
  units: number
  cost: number
  /** Stock of one lot and enough width, best first. */
  shelf: StockItem[]
  covered: boolean
}

/** Order by the film's own rule (minimum and step, whole rolls, or sheets). One lot covers the plan or nothing does. */
export function purchase(film: FilmSheet, layout: FilmLayout, stock: readonly StockItem[]): Purchase {
  const shelf = stock
    .filter((s) => s.filmId === film.id && s.widthMm >= layout.rollWidthMm - 1e-6)
    .sort((a, b) => a.leftMm - b.leftMm)
  const rest = shelf.find((s) => layout.rolls.length === 1 && s.leftMm >= layout.usedMm)
  if (layout.usedMm === 0) return { orderMm: 0, units: 0, cost: 0, shelf, covered: false }
  const order = orderQuantity(film, layout.usedMm, layout.rolls.length)
  return rest
    ? { orderMm: 0, units: 0, cost: 0, shelf: [rest, ...shelf.filter((s) => s !== rest)], covered: true }
    : { ...order, shelf, covered: false }
}

export function orderQuantity(
  film: FilmSheet,
  usedMm: number,
  rolls: number,
): { orderMm: number; units: number; cost: number } {
  const { unit, minimumMm, price } = film.soldBy
  const rollMm = film.rollLengthsMm[0] ?? 25000
  if (unit === 'roll' || unit === 'sheet') {
    const units = Math.max(rolls, Math.ceil(usedMm / rollMm - 1e-9))
    return { orderMm: units * rollMm, units, cost: units * price }
  }
  const step = unit === 'metre' ? 1000 : 500
  const orderMm = Math.max(minimumMm, Math.ceil(usedMm / step - 1e-9) * step)
  return { orderMm, units: orderMm / step, cost: (orderMm / 1000) * price }
}
