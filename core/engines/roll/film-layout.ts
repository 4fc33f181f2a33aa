import { mustGet, known } from '../../kit/known'
import type { FilmSheet, StockItem } from '../../model/film/schema'
import type { Budget } from '../../kit/budget'
import { seeded, textHash } from '../../kit/random'
import type { KeptLayout, Plan } from '../../model/plan/schema'
import { lengthBound, nest, pack, type Packing, type PackOptions, type Placed } from '../../solve/pack'
import { handedOver } from '../../model/log/handed-over'
import type { LogRow } from '../../model/log/schema'
import { orderFor, type BoughtLine } from './buy'
import { cutFromId } from './cut-from'
import { freeRooms } from './free-rooms'
import { LEAST_REST, cutPlan } from './cuts'
import { bandLengths, damageFromEnd, NO_CONTEXT, type FilmLayout, type LayOutContext, type RollPlan } from './roll-plan'
import { type CutPiece } from '../../model/log/cut-pieces'
import type { Piece } from '../pieces/pieces'
import { moved, onRoll, pieceAreaMm2 } from '../pieces/shape'
import { sourcesOf, type Part, type Way } from './sources'
import { itemsFor, type Unit } from './units'

export * from './roll-plan'

/** Changes tried while figures are typed: enough for a good plan, few enough to stay live. Falls as pieces grow. */
const liveRounds = (pieces: number): number => (pieces > 150 ? 0 : Math.floor(15000 / Math.max(20, pieces)))
const TRY_SHELF_ROUNDS = 400
const TRY_SHELF_SHARE = 0.35
/** Share of a search that goes to rectangles before outlines are interlocked. */
const NEST_FROM = 0.35
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
  pieces: readonly Piece[],
  context: LayOutContext = NO_CONTEXT,
  options: SearchOptions = {},
): FilmLayout {
  const { gapMm: gap, trimMm, cutting, stages } = plan.layout
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const ofFilm = (stockId: string) => context.stock.find((s) => s.id === stockId)?.filmId === film.id
  const cut = context.cut.filter((c) => ofFilm(c.stockId) || byId.has(c.id))
  const spoiled = cut.filter((c) => spoils(c, byId.get(c.id)))
  const real = new Set(cut.filter((c) => !spoiled.includes(c)).map((c) => c.id))
  const toLay = pieces.filter((p) => !real.has(p.id))
  const wanted = plan.layout.sources.find((s) => s.filmId === film.id)?.source ?? null
  const width = rollWidth(plan, film)
  const mark = textHash(
    JSON.stringify([
      width,
      film.rollLengthsMm[0],
      gap,
      trimMm,
      cutting,
      stages,
      wanted,
      ...(plan.layout.together.length > 0 ? [plan.layout.together] : []),
      pieces.map((p) => [
        p.id,
        Math.round(p.acrossMm * 10),
        Math.round(p.alongMm * 10),
        p.turn,
        ...(cutting === 'free' && p.outline ? [Math.round(pieceAreaMm2(p))] : []),
      ]),
    ]),
  )
  const { spent, elapsed } = options
  const locked = options.locked ?? []
  const apart = new Set(locked.map((l) => l.placement.pieceId))
  const lay = (part: Part, over: Partial<PackOptions>): { packing: Packing; units: Unit[] } => {
    const units = itemsFor(plan, part.pieces, { widthMm: Math.max(...part.bins.map((b) => b.width)), apart })
    const packing = pack(
      units.map((u) => u.item),
      part.bins,
      {
        gap,
        random: seeded(plan.layout.seed),
        budget: { rounds: 0 },
        rule: cutting === 'free' ? 'free' : 'guillotine',
        cuts: cutting === 'free' ? Infinity : stages,
        ...over,
      },
    )
    return { packing, units }
  }
  // A lot that might just cover the plan is tried harder: a little while figures are typed, for a third of a real
  // search.
  const harder: Budget =
    elapsed && options.rounds !== undefined
      ? {
          rounds: options.rounds,
          spent: () => spent?.() === true || elapsed() > TRY_SHELF_SHARE,
          elapsed: () => Math.min(1, elapsed() / TRY_SHELF_SHARE),
        }
      : { rounds: toLay.length > 30 ? 0 : TRY_SHELF_ROUNDS }
  const risky = [...context.risk].filter(([id, r]) => byId.has(id) && !real.has(id) && r >= RESERVE_FROM)
  const reserveFor = plan.layout.reserve
    ? risky.map(([pieceId, risk]) => ({ pieceId, risk })).sort((a, b) => b.risk - a.risk)
    : []
  const reserveBandsMm = reserveBands(reserveFor, byId, width - 2 * trimMm, gap)
  const ways = sourcesOf({
    film,
    plan,
    pieces: toLay,
    stock: context.stock,
    reserve: reserveBandsMm,
    lay: (part, hard) => lay(part, hard ? { budget: harder } : {}).packing,
  })
  const taken: Way | undefined =
    (wanted ? ways.find((w) => w.source.id === wanted) : undefined) ??
    ways.find((w) => w.source.covers && w.source.kind !== 'join') ??
    ways.find((w) => w.source.kind === 'new')
  const base = {
    film,
    pieces,
    mark,
    cut,
    spoiled,
    reserveFor,
    reserveBandsMm,
    sources: ways.map((w) => w.source),
    source: taken?.source ?? null,
    join: taken?.join ?? null,
    reserveMm: reserveBandsMm.reduce((s, b) => s + b, 0),
    doneMm: [...context.taken].reduce((s, [id, mm]) => (ofFilm(id) ? s + mm : s), 0),
    doneMm2: [...context.taken].reduce(
      (s, [id, mm]) => s + (ofFilm(id) ? mm * (context.stock.find((x) => x.id === id)?.widthMm ?? 0) : 0),
      0,
    ),
  }
  const keptPlan = plan.layout.kept.find((k) => k.filmId === film.id)
  if (keptPlan && keptPlan.mark === mark && spoiled.length === 0)
    return { ...base, ...readKept(keptPlan, base, ways, pieces, toLay, width, gap, context.stock, cutting) }

  const rounds = options.rounds ?? liveRounds(toLay.length)
  const parts = taken?.parts ?? []
  const turned = (unit: Unit, p: Placed): 0 | 90 | 180 | 270 => {
    const was = locked.find((l) => l.placement.pieceId === unit.members[0]?.piece.id)
    return was ? was.placement.turnDeg : p.turned ? 90 : 0
  }
  const done = parts.map((part, at) => {
    const own = new Set(part.pieces.map((p) => p.id))
    const still: Placed[] = locked.flatMap(({ rollId, placement: p }) => {
      const piece = byId.get(p.pieceId)
      if (!piece || !own.has(p.pieceId) || !part.bins.some((b) => b.id === rollId)) return []
      const item = itemsFor(plan, [piece], { apart })[0]?.item
      return item
        ? [
            {
              item,
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
    const share = sharedBudget(
      rounds,
      spent,
      elapsed,
      at,
      parts.length,
      cutting === 'free' && part.pieces.some((p) => p.outline) ? NEST_FROM : 1,
    )
    const better = options.better
    const out = lay(part, {
      locked: still,
      budget: share,
      ...(better && parts.length === 1
        ? {
            better: (p: Packing) =>
              better(
                p.used.reduce((s, u) => s + u.length, 0),
                p.bound,
              ),
          }
        : {}),
    })
    return { part, ...out }
  })
  let rolls: RollPlan[] = done.flatMap(({ part, packing, units }) => {
    const unitOf = new Map(units.map((u) => [u.item.id, u]))
    return packing.used
      .filter((u) => u.length > 0)
      .map((u) => {
        const bin = part.bins.find((b) => b.id === u.binId)
        const placements = packing.placed
          .filter((p) => p.binId === u.binId)
          .flatMap((p) => {
            const unit = unitOf.get(p.item.id) ?? itemsFor(plan, [mustGet(byId, p.item.id)], { apart })[0]
            return (unit?.members ?? []).map(({ piece, xMm }) => ({
              pieceId: piece.id,
              xMm: p.x + trimMm + xMm,
              yMm: p.y,
              turnDeg: turned(unit as Unit, p),
              widthMm: p.turned ? piece.alongMm : piece.acrossMm,
              lengthMm: p.turned ? piece.acrossMm : piece.alongMm,
              locked: locked.some((l) => l.placement.pieceId === piece.id && l.placement.locked),
            }))
          })
        return asRoll(u.binId, (bin?.width ?? 0) + 2 * trimMm, u.length, placements, context.stock, film, cutting, gap)
      })
  })
  const unplaced = done.flatMap(({ packing, units }) =>
    packing.unplaced.flatMap((u) =>
      (units.find((x) => x.item.id === u.item.id)?.members ?? []).map(({ piece }) => ({ piece, why: u.why })),
    ),
  )
  if (parts.length === 0) unplaced.push(...toLay.map((piece) => ({ piece, why: 'no_room_left' as const })))
  let boundMm = done.reduce((s, d) => s + d.packing.bound, 0)
  // Pairs and joins are the shop's wish: what bounds a plan that keeps to them bounds no other.
  if (taken?.join || plan.layout.together.length > 0) {
    const free = itemsFor(plan, toLay, { apart: new Set(toLay.map((p) => p.id)) }).map((u) => u.item)
    const widest = Math.max(...parts.flatMap((p) => p.bins.map((b) => b.width)), 0)
    boundMm = Math.min(boundMm, lengthBound(free, widest, gap))
  }
  if (cutting === 'free' && elapsed && unplaced.length === 0 && toLay.some((p) => p.outline)) {
    const nested = interlocked(
      plan,
      done.map((d) => d.part),
      rolls,
      locked,
      options,
    )
    // Outlines may lie closer than their rectangles: their bare area, and the longest of them, is what bounds them.
    boundMm = Math.min(boundMm, outlineBound(done.map((d) => d.part)))
    if (nested)
      rolls = nested.map((r) => asRoll(r.id, r.widthMm, r.usedMm, r.placements, context.stock, film, cutting, gap))
  }
  // The widest that is laid on: a narrow rest beside it does not make the roll narrow.
  const widest = Math.max(0, ...rolls.map((r) => r.widthMm))
  const offered = Math.max(0, ...parts.flatMap((p) => p.bins.map((b) => b.width + 2 * trimMm)))
  return {
    ...base,
    rollWidthMm: widest || offered || width,
    boundMm,
    rolls,
    usedMm: sum(rolls),
    unplaced,
    kept: keptPlan ? 'stale' : 'none',
  }
}

/** The share of one part of a plan in what may be spent; `upTo`: the share after which something else begins. */
function sharedBudget(
  rounds: number,
  spent: SearchOptions['spent'],
  elapsed: SearchOptions['elapsed'],
  at: number,
  of: number,
  upTo: number,
): Budget {
  const [from, to] = [(upTo * at) / of, (upTo * (at + 1)) / of]
  return {
    rounds: Math.ceil(rounds / of),
    ...(spent || elapsed ? { spent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= to) } : {}),
    ...(elapsed ? { elapsed: () => Math.min(1, Math.max(0, (elapsed() - from) / (to - from))) } : {}),
  }
}

type NestedRoll = Pick<RollPlan, 'id' | 'widthMm' | 'usedMm' | 'placements'>

/** The same rolls with outlines interlocked, where that is shorter; null where it is not. */
function interlocked(
  plan: Plan,
  parts: readonly Part[],
  rolls: readonly RollPlan[],
  locked: NonNullable<SearchOptions['locked']>,
  options: SearchOptions,
): NestedRoll[] | null {
  const { gapMm, trimMm, seed } = plan.layout
  const out: NestedRoll[] = []
  let shorter = false
  for (const [at, part] of parts.entries()) {
    const own = rolls.filter((r) => part.bins.some((b) => b.id === r.id))
    const before = own.flatMap((r) => [...r.placements].sort((a, b) => a.yMm - b.yMm || a.xMm - b.xMm))
    const stays = locked.filter((l) => part.pieces.some((p) => p.id === l.placement.pieceId))
    const free = part.pieces.filter((p) => !stays.some((l) => l.placement.pieceId === p.id))
    const shapes = free.map((piece) => ({
      id: piece.id,
      lies: turnsOf(piece).map((turnDeg) => {
        const [width, length] = turnDeg % 180 === 90 ? [piece.alongMm, piece.acrossMm] : [piece.acrossMm, piece.alongMm]
        return { turnDeg, points: onRoll(piece, turnDeg), width, length }
      }),
    }))
    const still = stays.map((l) => ({
      binId: l.rollId,
      points: moved(
        onRoll(known(part.pieces.find((p) => p.id === l.placement.pieceId)), l.placement.turnDeg),
        l.placement.xMm - trimMm,
        l.placement.yMm,
      ),
    }))
    const to = NEST_FROM + ((1 - NEST_FROM) * (at + 1)) / parts.length
    const plan2 = nest(shapes, part.bins, {
      gap: gapMm,
      random: seeded(seed),
      still,
      start: before.map((p) => p.pieceId).filter((id) => free.some((p) => p.id === id)),
      budget: {
        rounds: options.rounds ?? 0,
        spent: () => options.spent?.() === true || (options.elapsed?.() ?? 0) >= to,
      },
      better: (_, used) => (parts.length === 1 ? options.better?.(used, outlineBound(parts)) : undefined),
    })
    if (!plan2 || plan2.used >= sum(own) - 1e-6) {
      out.push(...own)
      continue
    }
    shorter = true
    for (const bin of part.bins) {
      const placements: RollPlan['placements'] = [
        ...stays.filter((l) => l.rollId === bin.id).map((l) => l.placement),
        ...plan2.placed
          .filter((p) => p.binId === bin.id)
          .map((p) => ({
            pieceId: p.id,
            xMm: p.x + trimMm,
            yMm: p.y,
            widthMm: p.lie.width,
            lengthMm: p.lie.length,
            turnDeg: p.lie.turnDeg,
            locked: false,
          })),
      ]
      const usedMm = placements.reduce((far, p) => Math.max(far, p.yMm + p.lengthMm), 0)
      if (usedMm > 0) out.push({ id: bin.id, widthMm: bin.width + 2 * trimMm, usedMm, placements })
    }
  }
  return shorter ? out : null
}

/** No plan of these outlines is shorter: their bare area over the width, and the longest of them, part by part. */
const outlineBound = (parts: readonly Part[]): number =>
  parts.reduce((total, part) => {
    const width = Math.max(...part.bins.map((b) => b.width))
    const area = part.pieces.reduce((s, p) => s + pieceAreaMm2(p), 0)
    const longest = part.pieces.reduce(
      (m, p) => Math.max(m, p.turn === 'quarter' && p.alongMm <= width ? Math.min(p.acrossMm, p.alongMm) : p.alongMm),
      0,
    )
    return total + Math.max(area / width, longest)
  }, 0)

function readKept(
  kept: KeptLayout,
  base: Pick<FilmLayout, 'film' | 'sources' | 'source'>,
  ways: readonly Way[],
  pieces: readonly Piece[],
  toLay: readonly Piece[],
  width: number,
  gap: number,
  stock: readonly StockItem[],
  cutting: Plan['layout']['cutting'],
): Pick<FilmLayout, 'source' | 'join' | 'rollWidthMm' | 'boundMm' | 'rolls' | 'usedMm' | 'unplaced' | 'kept'> {
  const rolls = kept.rolls.map((r) => asRoll(r.id, r.widthMm, r.usedMm, r.placements, stock, base.film, cutting, gap))
  const placed = new Set(rolls.flatMap((r) => r.placements.map((p) => p.pieceId)))
  const unplaced = toLay.filter((p) => !placed.has(p.id)).map((piece) => ({ piece, why: 'wider_than_every_bin' }))
  const widest = Math.max(width, ...rolls.map((r) => r.widthMm))
  const items = pieces
    .filter((p) => placed.has(p.id))
    .map((p): Unit['item'] => ({ id: p.id, copy: 1, width: p.acrossMm, length: p.alongMm, turn: p.turn, group: null }))
  const boundMm = kept.boundMm ?? lengthBound(items, widest, gap)
  const lots = [...new Set(rolls.map((r) => r.stock?.lot ?? 'new'))]
  const id =
    lots.length === 2
      ? `join:${lots[0]}+${lots[1]}`
      : lots[0] !== 'new' && lots[0] !== undefined
        ? `lot:${lots[0]}`
        : `new:${rolls[0]?.widthMm ?? width}`
  const way = ways.find((w) => w.source.id === id)
  return {
    source: way?.source ?? base.source,
    join: way?.join ?? null,
    rollWidthMm: rolls.length > 0 ? Math.max(...rolls.map((r) => r.widthMm)) : width,
    boundMm,
    rolls,
    usedMm: sum(rolls),
    unplaced,
    kept: 'current',
  }
}

const sum = (rolls: readonly { usedMm: number }[]): number => rolls.reduce((s, r) => s + r.usedMm, 0)

function asRoll(
  id: string,
  widthMm: number,
  usedMm: number,
  placements: RollPlan['placements'],
  stock: readonly StockItem[],
  film: FilmSheet,
  cutting: Plan['layout']['cutting'],
  gapMm: number,
): RollPlan {
  const item = stock.find((s) => s.id === id) ?? null
  const damage = item ? damageFromEnd(item) : []
  const plan =
    cutting === 'free'
      ? { cuts: [], offcuts: freeRooms(placements, widthMm, usedMm, gapMm, damage, LEAST_REST), knots: [] }
      : cutPlan(placements, widthMm, usedMm)
  return {
    id,
    stock: item,
    widthMm,
    lengthMm: item?.leftMm ?? film.rollLengthsMm[0] ?? 25000,
    usedMm,
    placements,
    crossCutsMm: plan.cuts.filter((c) => c.stage === 1).map((c) => c.from.yMm),
    cutting: plan,
    damage,
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

/** Lengths that the pieces likeliest to be done twice take once more: as many as are to be expected, the largest. */
function reserveBands(
  reserveFor: FilmLayout['reserveFor'],
  pieces: ReadonlyMap<string, Piece>,
  widthMm: number,
  gap: number,
): number[] {
  const least = (p: Piece) =>
    p.turn === 'quarter' && p.alongMm <= widthMm ? Math.min(p.acrossMm, p.alongMm) : p.alongMm
  // Expected number of pieces done twice, rounded up: so many of the largest.
  const expected = Math.ceil(reserveFor.reduce((s, r) => s + r.risk, 0) - 1e-9)
  return reserveFor
    .flatMap((r) => pieces.get(r.pieceId) ?? [])
    .map(least)
    .sort((a, b) => b - a)
    .slice(0, expected)
    .map((l) => l + gap)
}

export const keepLayout = (layout: FilmLayout): KeptLayout => ({
  filmId: layout.film.id,
  mark: layout.mark,
  boundMm: layout.boundMm,
  rolls: layout.rolls.map(({ id, widthMm, usedMm, placements }) => ({ id, widthMm, usedMm, placements })),
})

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
