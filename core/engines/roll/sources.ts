import { nth } from '../../kit/known'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import { lengthBound, type PackBin, type Packing } from '../../solve/pack'
import { orderFor } from './buy'
import { bandLengths, damageFromEnd, type LotJoin, type Source } from './roll-plan'
import type { Piece } from '../pieces/pieces'
import { itemsFor } from './units'
import { shareLots } from './zones'

/** Pieces laid together on bins of one lot. */
export interface Part {
  lot: string
  bins: PackBin[]
  pieces: readonly Piece[]
}
export interface FilmSource {
  source: Source
  parts: Part[]
  /** How the pieces of each part were laid when this source was looked at: a search never leaves more of them out. */
  packings: Packing[]
  join: LotJoin | null
}
export interface SourceAsk {
  film: FilmSheet
  plan: Plan
  pieces: readonly Piece[]
  stock: readonly StockItem[]
  /** A quick layout; `hard` where one lot might just cover all. */
  lay: (part: Part, hard?: boolean) => Packing
  /** Lengths of the reserve's pieces, mm. */
  reserve: readonly number[]
  /** Stands in until it is searched: a lot that is too short is not tried, and no join unless it was asked for. */
  standIn?: { joins: boolean } | null
}

/** Rolls of the first try, as a multiple of the least: a quick plan loses more than the bound, and rolls too many stay unused. */
const FIRST_TRY = 1.4
const MOST_NEW_ROLLS = 192
/** Share of a lot's length that its part of a join is held to take, tried one after the other. */
const JOIN_FILL = [0.93, 0.8]
/** Joins are looked for between so many of the largest lots. */
const JOIN_LOTS = 2

const usedOf = (packing: Packing): number => packing.used.reduce((t, u) => t + u.length, 0)
const bandsOf = (packing: Packing): number[] =>
  packing.used.flatMap((u) =>
    bandLengths(packing.placed.filter((p) => p.binId === u.binId).map((p) => ({ yMm: p.y, lengthMm: p.length }))),
  )
const roomOf = (bins: readonly PackBin[]): number =>
  bins.reduce((t, b) => t + b.length - (b.blocked ?? []).reduce((s, x) => s + Math.min(b.length, x.to) - x.from, 0), 0)

/**
 * Every lot on the shelf, every width that is sold, and joins of two lots; what covers the plan at least cost first.
 */
export function sourcesOf(ask: SourceAsk): FilmSource[] {
  const { film, plan, pieces, stock } = ask
  const width = plan.layout.rollWidthMm
  const own = stock.filter(
    (s) =>
      s.filmId === film.id &&
      s.leftMm > 0 &&
      (width === null || !film.widthsMm.includes(width) || s.widthMm >= width - 1e-6),
  )
  const shelf = [...new Set(own.map((s) => s.lot))].map((lot) => shelfSource(ask, lot, own))
  const widths = width !== null && film.widthsMm.includes(width) ? [width] : film.widthsMm
  const news = widths.map((w) => newSource(ask, pieces, w))
  const out = [...shelf, ...news]
  // Two lots only where none covers the plan alone: a shade may differ, so that is never taken unasked.
  if (!shelf.some((w) => w.source.covers) && ask.standIn?.joins !== false) out.push(...joins(ask, shelf, news))
  // What covers all before what does not; one lot before two; then the cheapest; what leaves least of a begun lot; the
  // widest.
  const rank = (w: FilmSource) => (w.source.covers ? 0 : 2) + (w.source.kind === 'join' ? 1 : 0)
  return out.sort(
    (a, b) =>
      rank(a) - rank(b) ||
      a.source.cost - b.source.cost ||
      (a.source.kind === 'shelf' && b.source.kind === 'shelf' ? a.source.leavesMm - b.source.leavesMm : 0) ||
      b.source.widthMm - a.source.widthMm,
  )
}

const lacksOf = (packing: Packing, leavesMm: number, reserveMm: number): Source['lacks'] =>
  packing.unplaced.length > 0 ? 'pieces' : leavesMm < reserveMm - 1e-6 ? 'reserve' : 'nothing'

function shelfSource(ask: SourceAsk, lot: string, own: readonly StockItem[]): FilmSource {
  const { plan, pieces } = ask
  const { gapMm, trimMm } = plan.layout
  // Rests first, then the roll that is nearest its end.
  const items = own
    .filter((s) => s.lot === lot)
    .sort((a, b) => (a.kind === b.kind ? a.leftMm - b.leftMm : a.kind === 'rest' ? -1 : 1))
  const bins = items.map((s): PackBin => ({
    id: s.id,
    width: s.widthMm - 2 * trimMm,
    length: s.leftMm,
    lot,
    blocked: damageFromEnd(s),
  }))
  const part: Part = { lot, bins, pieces }
  const room = roomOf(bins)
  const mayFit = (): boolean => {
    const whole = itemsFor(plan, pieces).map((u) => u.item)
    return lengthBound(whole, Math.max(...bins.map((b) => b.width)), gapMm) <= room
  }
  let packing = ask.standIn && !mayFit() ? null : ask.lay(part)
  const noRoom = packing?.unplaced.filter((u) => u.why === 'no_room_left').length ?? 0
  if (packing && !ask.standIn && noRoom > 0 && noRoom === packing.unplaced.length && mayFit())
    packing = ask.lay(part, true)
  const usedMm = packing ? usedOf(packing) : room
  const lacks = packing ? lacksOf(packing, room - usedMm, sum(ask.reserve)) : 'pieces'
  return {
    parts: [part],
    packings: packing ? [packing] : [],
    join: null,
    source: {
      id: `lot:${lot}`,
      kind: 'shelf',
      lot,
      joined: null,
      widthMm: Math.max(...items.map((s) => s.widthMm)),
      covers: lacks === 'nothing',
      lacks,
      usedMm,
      orderMm: 0,
      units: 0,
      cost: 0,
      leavesMm: room - usedMm,
    },
  }
}

/** New rolls of one width, as many as the pieces take. */
export function newPart(
  ask: Omit<SourceAsk, 'stock' | 'reserve'>,
  pieces: readonly Piece[],
  widthMm: number,
): { part: Part; packing: Packing } {
  const { film, plan } = ask
  const { gapMm, trimMm } = plan.layout
  const rollMm = film.rollLengthsMm[0] ?? 25000
  const inner = widthMm - 2 * trimMm
  const items = itemsFor(plan, pieces).map((u) => u.item)
  const need = Math.max(1, Math.ceil((lengthBound(items, inner, gapMm) * FIRST_TRY) / rollMm))
  for (let count = need; ; count = Math.min(MOST_NEW_ROLLS, count * 2)) {
    const bins = Array.from({ length: count }, (_, i) => ({
      id: `new-${i + 1}`,
      width: inner,
      length: rollMm,
      lot: 'new',
    }))
    const part: Part = { lot: 'new', bins, pieces }
    const packing = ask.lay(part)
    if (count >= MOST_NEW_ROLLS || !packing.unplaced.some((u) => u.why === 'no_room_left')) return { part, packing }
  }
}

function newSource(ask: SourceAsk, pieces: readonly Piece[], widthMm: number): FilmSource {
  const { part, packing } = newPart(ask, pieces, widthMm)
  const usedMm = usedOf(packing)
  const order = orderFor(ask.film, widthMm, usedMm > 0 ? [...bandsOf(packing), ...ask.reserve] : [])
  const lacks = packing.unplaced.length > 0 ? 'pieces' : 'nothing'
  return {
    parts: [part],
    packings: [packing],
    join: null,
    source: {
      id: `new:${widthMm}`,
      kind: 'new',
      lot: null,
      joined: null,
      widthMm,
      covers: lacks === 'nothing',
      lacks,
      usedMm,
      orderMm: order.orderMm,
      units: order.units,
      cost: order.cost,
      leavesMm: order.orderMm - usedMm,
    },
  }
}

/** Two lots of the shelf, or one and what is bought beside it: pieces shared out so that the join shows least. */
function joins(ask: SourceAsk, shelf: readonly FilmSource[], news: readonly FilmSource[]): FilmSource[] {
  const lots = [...shelf].sort((a, b) => room(b) - room(a)).slice(0, JOIN_LOTS)
  const cheapest = [...news]
    .filter((w) => w.source.lacks === 'nothing')
    .sort((a, b) => a.source.cost - b.source.cost)[0]
  return lots.flatMap((a, i) =>
    [...lots.slice(i + 1), ...(cheapest ? [cheapest] : [])].flatMap((b) => joinOfTwo(ask, a, b) ?? []),
  )
}

const widthOf = (w: FilmSource): number => Math.max(...nth(w.parts, 0).bins.map((b) => b.width))
const room = (w: FilmSource): number => roomOf(nth(w.parts, 0).bins)

/** Two sources used together, filled until their layouts are full; null where they hold too little. */
function joinOfTwo(ask: SourceAsk, a: FilmSource, b: FilmSource): FilmSource | null {
  const { plan, pieces } = ask
  const bound = (some: readonly Piece[], width: number): number =>
    lengthBound(
      itemsFor(plan, some).map((u) => u.item),
      width,
      plan.layout.gapMm,
    )
  for (const fill of JOIN_FILL) {
    const fits = (lot: 0 | 1, some: readonly Piece[]): boolean => {
      const from = lot === 0 ? a : b
      if (some.length === 0) return false
      if (from.source.kind === 'new') return true
      // The bare area first: it is cheap, and rules most ways out.
      const most = fill * room(from)
      const area = some.reduce((s, p) => s + p.acrossMm * p.alongMm, 0)
      return area / widthOf(from) <= most && bound(some, widthOf(from)) <= most
    }
    const shared = shareLots(plan, pieces, fits)
    if (!shared) return null
    const join = laidJoin(ask, a, b, shared)
    if (join) return join
  }
  return null
}

type Shared = NonNullable<ReturnType<typeof shareLots>>

/** The pieces of two lots laid out, each on its own; null where some find no place. */
function laidJoin(ask: SourceAsk, a: FilmSource, b: FilmSource, shared: Shared): FilmSource | null {
  const first: Part = { ...nth(a.parts, 0), pieces: shared.first }
  const rest = b.source.kind === 'new' ? newPart(ask, shared.second, b.source.widthMm) : null
  const second: Part = rest?.part ?? { ...nth(b.parts, 0), pieces: shared.second }
  const [p, q] = [ask.lay(first), rest?.packing ?? ask.lay(second)]
  if (p.unplaced.length + q.unplaced.length > 0) return null
  const order = rest ? orderFor(ask.film, b.source.widthMm, [...bandsOf(q), ...ask.reserve]) : null
  const leavesMm = room(a) - usedOf(p) + (order ? order.orderMm - usedOf(q) : room(b) - usedOf(q))
  const lacks = !order && leavesMm < sum(ask.reserve) ? 'reserve' : 'nothing'
  const joined = b.source.lot ?? 'new'
  const { lot } = a.source
  if (lot === null) return null
  const { panels, seams, lengthMm } = shared
  return {
    parts: [first, second],
    packings: [p, q],
    join: { first: lot, second: joined, panels, seams, lengthMm },
    source: {
      id: `join:${lot}+${joined}`,
      kind: 'join',
      lot,
      joined,
      widthMm: Math.max(a.source.widthMm, b.source.widthMm),
      covers: lacks === 'nothing',
      lacks,
      usedMm: usedOf(p) + usedOf(q),
      orderMm: order?.orderMm ?? 0,
      units: order?.units ?? 0,
      cost: order?.cost ?? 0,
      leavesMm,
    },
  }
}
const sum = (list: readonly number[]): number => list.reduce((s, x) => s + x, 0)
