import type { FilmSheet, StockItem } from '../film/schema'
import type { Budget } from '../kit/budget'
import { seeded, textHash } from '../kit/random'
import type { KeptLayout, Plan } from '../plan/schema'
import {
  lengthBound,
  pack,
  type PackBin,
  type PackItem,
  type Packing,
  type Placed,
  type PackOptions,
} from '../solve/pack'
import { orderQuantity } from './buy'
import { cutPlan, type CutPlan } from './cuts'
import type { Piece } from './pieces'

export interface RollPlan {
  /** The roll or rest on the rack, or `new-1` … */
  id: string
  stock: StockItem | null
  widthMm: number
  /** Film on it, mm. */
  lengthMm: number
  usedMm: number
  placements: KeptLayout['rolls'][number]['placements']
  crossCutsMm: number[]
  cutting: CutPlan
}
/** One way of getting the film: off one lot on the shelf, or bought. */
export interface Source {
  id: string
  kind: 'shelf' | 'new'
  lot: string | null
  widthMm: number
  covers: boolean
  usedMm: number
  orderMm: number
  units: number
  cost: number
  /** Shelf film left after it, mm of length. */
  leavesMm: number
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
  /** Ways of getting the film, the cheapest first; the one taken is `source`. */
  sources: Source[]
  source: Source | null
  /** Length set aside for doing pieces twice, mm, and which. */
  reserveMm: number
  reserveFor: { pieceId: string; risk: number }[]
  /** Pieces cut already, as they were cut. */
  cut: CutPiece[]
  /** Of those, the ones that the plan no longer fits. */
  spoiled: CutPiece[]
}
export interface CutPiece {
  id: string
  acrossMm: number
  alongMm: number
  stockId: string
}
export interface LayOutContext {
  stock: readonly StockItem[]
  cut: readonly CutPiece[]
  /** Chance of doing a piece twice, 0 to 1, by piece. */
  risk: ReadonlyMap<string, number>
  /** Taken off each roll by this job so far, mm. */
  taken: ReadonlyMap<string, number>
}
export const NO_CONTEXT: LayOutContext = { stock: [], cut: [], risk: new Map(), taken: new Map() }

/** Changes tried while figures are typed: enough for a good plan, few enough to stay live. Falls as pieces grow. */
const liveRounds = (pieces: number): number => (pieces > 150 ? 0 : Math.floor(15000 / Math.max(20, pieces)))
const MAX_NEW_ROLLS = 24
const TRY_SHELF_ROUNDS = 400
const TRY_SHELF_SHARE = 0.35
/** A cut piece still serves where the plan asks for no more than this beyond it, mm. */
const SPOIL_TOLERANCE_MM = 1
/** From this chance on a piece gets film for a second try; common practice, no source. */
const RESERVE_FROM = 0.25

/** The width a job's film is bought in: the plan's choice where the film comes in it, else the widest. */
export const rollWidth = (plan: Plan, film: FilmSheet): number =>
  plan.layout.rollWidthMm !== null && film.widthsMm.includes(plan.layout.rollWidthMm)
    ? plan.layout.rollWidthMm
    : Math.max(...film.widthsMm)

/** How a piece may lie on the roll. 180° turns its arrow; a quarter turn swaps its sides. */
export const turnsOf = (piece: Piece): (0 | 90 | 180 | 270)[] =>
  piece.turn === 'quarter' ? [0, 90, 180, 270] : piece.upsideDown ? [0, 180] : [0]

export interface SearchOptions {
  rounds?: number
  spent?: () => boolean
  elapsed?: () => number
  /** Placements that stay where they are. */
  locked?: { rollId: string; placement: RollPlan['placements'][number] }[]
  better?: (usedMm: number, boundMm: number) => void
}

/**
 * Lays the pieces of one film: on one lot of the shelf where one covers them, else on new rolls, whichever is cheaper;
 * or on the source the plan names; or reads back the layout that was kept. Pieces already cut are not laid again.
 */
export function layOutFilm(
  plan: Plan,
  film: FilmSheet,
  pieces: Piece[],
  context: LayOutContext = NO_CONTEXT,
  options: SearchOptions = {},
): FilmLayout {
  const { gapMm: gap, trimMm, cutting, stages } = plan.layout
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const cut = context.cut.filter(
    (c) => context.stock.find((s) => s.id === c.stockId)?.filmId === film.id || byId.has(c.id),
  )
  const spoiled = cut.filter((c) => spoils(c, byId.get(c.id)))
  const real = new Set(cut.filter((c) => !spoiled.includes(c)).map((c) => c.id))
  const toLay = pieces.filter((p) => !real.has(p.id))
  const wanted = plan.layout.sources.find((s) => s.filmId === film.id)?.source ?? null
  const width = rollWidth(plan, film)
  const mark = textHash(
    JSON.stringify([
      width, film.rollLengthsMm[0], gap, trimMm, cutting, stages, wanted,
      pieces.map((p) => [p.id, Math.round(p.acrossMm * 10), Math.round(p.alongMm * 10), p.turn]),
    ]),
  ) // prettier-ignore
  const lay = (bins: PackBin[], over: Partial<PackOptions>, some: readonly Piece[] = toLay): Packing =>
    pack(some.map(asItem), bins, {
      gap, random: seeded(plan.layout.seed), budget: { rounds: 0 },
      rule: cutting === 'free' ? 'free' : 'guillotine', cuts: cutting === 'free' ? Infinity : stages, ...over,
    }) // prettier-ignore
  // A lot that might just cover the plan is tried harder: a little while figures are typed, for a third of a real search.
  const { spent, elapsed } = options
  const harder: Budget =
    elapsed && options.rounds !== undefined
      ? {
          rounds: options.rounds,
          spent: () => spent?.() === true || elapsed() > TRY_SHELF_SHARE,
          elapsed: () => Math.min(1, elapsed() / TRY_SHELF_SHARE),
        }
      : { rounds: toLay.length > 30 ? 0 : TRY_SHELF_ROUNDS }
  const ways = sourcesOf(
    film,
    plan,
    toLay,
    context.stock,
    (bins, some, hard) => lay(bins, hard ? { budget: harder } : {}, some),
    gap,
    trimMm,
  )
  const sources = ways.map((o) => o.source)
  const taken =
    (wanted && ways.find((o) => o.source.id === wanted)) ||
    ways.find((o) => o.source.covers) ||
    ways.find((o) => o.source.kind === 'new')
  const keptPlan = plan.layout.kept.find((k) => k.filmId === film.id)
  const risky = [...context.risk].filter(([id, r]) => byId.has(id) && !real.has(id) && r >= RESERVE_FROM)
  const reserveFor = plan.layout.reserve
    ? risky.map(([pieceId, risk]) => ({ pieceId, risk })).sort((a, b) => b.risk - a.risk)
    : []
  const base = { film, pieces, mark, sources, source: taken?.source ?? null, cut, spoiled, reserveFor }
  const reserveMm = reserveLength(reserveFor, byId, taken?.bins[0]?.width ?? width, gap)
  const items = pieces.map(asItem)
  if (keptPlan && keptPlan.mark === mark && spoiled.length === 0) {
    const rolls = keptPlan.rolls.map((r) =>
      asRoll(r.id, r.widthMm, r.usedMm, r.placements, context.stock, film, cutting),
    )
    const placed = new Set(rolls.flatMap((r) => r.placements.map((p) => p.pieceId)))
    const unplaced = toLay.filter((p) => !placed.has(p.id)).map((piece) => ({ piece, why: 'wider_than_every_bin' }))
    const widest = Math.max(width, ...rolls.map((r) => r.widthMm))
    const boundMm =
      keptPlan.boundMm ??
      lengthBound(
        items.filter((i) => placed.has(i.id)),
        widest,
        gap,
      )
    const lot = rolls.find((r) => r.stock)?.stock?.lot
    const from = sources.find((x) => x.id === (lot ? `lot:${lot}` : `new:${rolls[0]?.widthMm ?? width}`)) ?? base.source
    return {
      ...base,
      source: from,
      rollWidthMm: rolls[0]?.widthMm ?? width,
      boundMm,
      rolls,
      usedMm: sum(rolls),
      unplaced,
      kept: 'current',
      reserveMm,
    }
  }
  const rounds = options.rounds ?? liveRounds(toLay.length)
  const bins = taken?.bins ?? []
  const locked: Placed[] = (options.locked ?? []).flatMap(({ rollId, placement: p }) => {
    const piece = byId.get(p.pieceId)
    return piece && bins.some((b) => b.id === rollId)
      ? [
          {
            item: asItem(piece),
            binId: rollId,
            x: p.xMm - trimMm,
            y: p.yMm,
            width: p.widthMm,
            length: p.lengthMm,
            turned: p.turnDeg % 180 === 90,
          },
        ]
      : []
  })
  const packing =
    bins.length === 0
      ? {
          placed: [],
          unplaced: toLay.map((p) => ({ item: asItem(p), why: 'no_room_left' as const })),
          used: [],
          bound: 0,
          proven: false,
        }
      : lay(bins, {
          locked,
          budget: {
            rounds,
            ...(options.spent ? { spent: options.spent } : {}),
            ...(options.elapsed ? { elapsed: options.elapsed } : {}),
          },
          ...(options.better
            ? {
                better: (p: Packing) =>
                  options.better?.(
                    p.used.reduce((s, u) => s + u.length, 0),
                    p.bound,
                  ),
              }
            : {}),
        })
  const turnOf = (p: Placed): 0 | 90 | 180 | 270 => {
    const was = options.locked?.find((l) => l.placement.pieceId === p.item.id)
    return was ? was.placement.turnDeg : p.turned ? 90 : 0
  }
  const rolls = packing.used
    .filter((u) => u.length > 0)
    .map((u) =>
      asRoll(
        u.binId,
        (bins.find((b) => b.id === u.binId)?.width ?? 0) + 2 * trimMm,
        u.length,
        packing.placed
          .filter((p) => p.binId === u.binId)
          .map((p) => ({
            pieceId: p.item.id, xMm: p.x + trimMm, yMm: p.y, widthMm: p.width, lengthMm: p.length, turnDeg: turnOf(p),
            locked: options.locked?.some((l) => l.placement.pieceId === p.item.id && l.placement.locked) ?? false,
          })),
        context.stock, film, cutting,
      ),
    ) // prettier-ignore
  const unplaced = packing.unplaced.flatMap((u) => {
    const piece = byId.get(u.item.id)
    return piece ? [{ piece, why: u.why }] : []
  })
  return {
    ...base, rollWidthMm: (bins[0]?.width ?? width - 2 * trimMm) + 2 * trimMm, boundMm: packing.bound, rolls, usedMm: sum(rolls), unplaced,
    kept: keptPlan ? 'stale' : 'none', reserveMm,
  } // prettier-ignore
}

const asItem = (p: Piece): PackItem => ({
  id: p.id,
  copy: 1,
  width: p.acrossMm,
  length: p.alongMm,
  turn: p.turn,
  group: null,
})
const sum = (rolls: readonly RollPlan[]): number => rolls.reduce((s, r) => s + r.usedMm, 0)

function asRoll(
  id: string,
  widthMm: number,
  usedMm: number,
  placements: RollPlan['placements'],
  stock: readonly StockItem[],
  film: FilmSheet,
  cutting: Plan['layout']['cutting'],
): RollPlan {
  const item = stock.find((s) => s.id === id) ?? null
  const plan = cutting === 'free' ? { cuts: [], offcuts: [], knots: [] } : cutPlan(placements, widthMm, usedMm)
  const crossCutsMm = plan.cuts.filter((c) => c.stage === 1).map((c) => c.from.yMm)
  return {
    id,
    stock: item,
    widthMm,
    lengthMm: item?.leftMm ?? film.rollLengthsMm[0] ?? 25000,
    usedMm,
    placements,
    crossCutsMm,
    cutting: plan,
  }
}

const spoils = (c: CutPiece, piece: Piece | undefined): boolean => {
  if (!piece) return true
  const need = [piece.acrossMm, piece.alongMm]
  const fits = (a: number, b: number) =>
    need[0] !== undefined &&
    need[1] !== undefined &&
    need[0] <= a + SPOIL_TOLERANCE_MM &&
    need[1] <= b + SPOIL_TOLERANCE_MM
  return !(fits(c.acrossMm, c.alongMm) || (piece.turn === 'quarter' && fits(c.alongMm, c.acrossMm)))
}

/** Every lot on the shelf and every width that is sold, with what it would cost; the cheapest that covers the plan first. */
function sourcesOf(
  film: FilmSheet,
  plan: Plan,
  pieces: readonly Piece[],
  stock: readonly StockItem[],
  lay: (bins: PackBin[], some: readonly Piece[], hard?: boolean) => Packing,
  gap: number,
  trimMm: number,
): { source: Source; bins: PackBin[] }[] {
  const out: { source: Source; bins: PackBin[] }[] = []
  const width = plan.layout.rollWidthMm
  const own = stock.filter(
    (s) =>
      s.filmId === film.id &&
      s.leftMm > 0 &&
      (width === null || !film.widthsMm.includes(width) || s.widthMm >= width - 1e-6),
  )
  for (const lot of new Set(own.map((s) => s.lot))) {
    // Rests first, then the roll that is nearest its end.
    const items = own
      .filter((s) => s.lot === lot)
      .sort((a, b) => (a.kind === b.kind ? a.leftMm - b.leftMm : a.kind === 'rest' ? -1 : 1))
    const bins = items.map((s): PackBin => ({ id: s.id, width: s.widthMm - 2 * trimMm, length: s.leftMm, lot }))
    let packing = lay(bins, pieces)
    const room = items.reduce((t, s) => t + s.leftMm, 0)
    if (
      packing.unplaced.some((u) => u.why === 'no_room_left') &&
      packing.unplaced.every((u) => u.why === 'no_room_left')
    ) {
      const whole = pieces.map(asItem)
      if (lengthBound(whole, Math.max(...bins.map((b) => b.width)), gap) <= room) packing = lay(bins, pieces, true)
    }
    const usedMm = packing.used.reduce((t, u) => t + u.length, 0)
    out.push({
      source: {
        id: `lot:${lot}`, kind: 'shelf', lot, widthMm: Math.max(...items.map((s) => s.widthMm)), covers: packing.unplaced.length === 0,
        usedMm, orderMm: 0, units: 0, cost: 0, leavesMm: items.reduce((t, s) => t + s.leftMm, 0) - usedMm,
      },
      bins,
    }) // prettier-ignore
  }
  const rollMm = film.rollLengthsMm[0] ?? 25000
  for (const w of width !== null && film.widthsMm.includes(width) ? [width] : film.widthsMm) {
    const inner = w - 2 * trimMm
    const items = pieces.map(asItem)
    const need = Math.max(1, Math.ceil(lengthBound(items, inner, gap) / rollMm))
    let bins: PackBin[] = []
    let packing: Packing | null = null
    for (let count = need; ; count = Math.min(MAX_NEW_ROLLS * 8, count * 2)) {
      bins = Array.from({ length: count }, (_, i) => ({ id: `new-${i + 1}`, width: inner, length: rollMm, lot: 'new' }))
      packing = lay(bins, pieces)
      if (count >= MAX_NEW_ROLLS * 8 || !packing.unplaced.some((u) => u.why === 'no_room_left')) break
    }
    const usedMm = packing.used.reduce((t, u) => t + u.length, 0)
    const order =
      usedMm > 0
        ? orderQuantity(film, usedMm, packing.used.filter((u) => u.length > 0).length)
        : { orderMm: 0, units: 0, cost: 0 }
    out.push({
      source: {
        id: `new:${w}`,
        kind: 'new',
        lot: null,
        widthMm: w,
        covers: packing.unplaced.length === 0,
        usedMm,
        ...order,
        leavesMm: order.orderMm - usedMm,
      },
      bins,
    })
  }
  // What covers all before what does not; then the cheapest; then what leaves the least of a begun lot; then the widest.
  return out.sort(
    (a, b) =>
      Number(b.source.covers) - Number(a.source.covers) || a.source.cost - b.source.cost ||
      (a.source.kind === 'shelf' && b.source.kind === 'shelf' ? a.source.leavesMm - b.source.leavesMm : 0) || b.source.widthMm - a.source.widthMm,
  ) // prettier-ignore
}

/** Length that the riskiest piece takes once more; where several are as risky, each. */
function reserveLength(
  reserveFor: FilmLayout['reserveFor'],
  pieces: ReadonlyMap<string, Piece>,
  widthMm: number,
  gap: number,
): number {
  const least = (p: Piece) =>
    p.turn === 'quarter' && p.alongMm <= widthMm ? Math.min(p.acrossMm, p.alongMm) : p.alongMm
  // Expected number of pieces done twice, rounded up: so many of the largest.
  const expected = Math.ceil(reserveFor.reduce((s, r) => s + r.risk, 0) - 1e-9)
  return reserveFor
    .flatMap((r) => pieces.get(r.pieceId) ?? [])
    .map(least)
    .sort((a, b) => b - a)
    .slice(0, expected)
    .reduce((s, l) => s + l + gap, 0)
}

export const keepLayout = (layout: FilmLayout): KeptLayout => ({
  filmId: layout.film.id,
  mark: layout.mark,
  boundMm: layout.boundMm,
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

/** Order by the film's own rule, with what is set aside; nothing where the layout lies on one lot of the shelf. */
export function purchase(film: FilmSheet, layout: FilmLayout, stock: readonly StockItem[]): Purchase {
  const shelf = stock
    .filter((s) => s.filmId === film.id && s.widthMm >= layout.rollWidthMm - 1e-6)
    .sort((a, b) => a.leftMm - b.leftMm)
  if (layout.usedMm === 0) return { orderMm: 0, units: 0, cost: 0, shelf, covered: false }
  const fromShelf = layout.rolls.filter((r) => r.stock !== null)
  const news = layout.rolls.filter((r) => r.stock === null)
  if (news.length === 0) {
    const ids = new Set(fromShelf.map((r) => r.id))
    return {
      orderMm: 0,
      units: 0,
      cost: 0,
      shelf: [...shelf.filter((s) => ids.has(s.id)), ...shelf.filter((s) => !ids.has(s.id))],
      covered: true,
    }
  }
  const need = news.reduce((t, r) => t + r.usedMm, 0) + layout.reserveMm
  return { ...orderQuantity(film, need, news.length), shelf, covered: false }
}
