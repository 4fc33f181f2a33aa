import { mustGet } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Budget } from '../../kit/budget'
import { seeded, textHash } from '../../kit/random'
import type { Plan } from '../../model/plan/schema'
import { lengthBound, pack, type Packing, type PackOptions, type Placed } from '../../solve/pack'
import { NO_CONTEXT, SearchOptions, type FilmLayout, type LayOutContext, type RollPlan } from './roll-plan'
import type { Piece } from '../pieces/pieces'
import { pieceAreaMm2 } from '../pieces/shape'
import { sourcesOf, type Part, type FilmSource } from './sources'
import { itemsFor, type Unit } from './units'
import { asRoll, readKept, spoils, sum } from './kept-layout'
import { interlocked, NEST_FROM, outlineBound } from './interlocked'
import { RESERVE_FROM, reserveBands } from './reserve'

export * from './roll-plan'

/** Changes tried while figures are typed: enough for a good plan, few enough to stay live. Falls as pieces grow. */
const liveRounds = (pieces: number): number => (pieces > 150 ? 0 : Math.floor(15000 / Math.max(20, pieces)))
const TRY_SHELF_ROUNDS = 400
const TRY_SHELF_SHARE = 0.35
/** The width a job's film is bought in: the plan's choice where the film comes in it, else the widest. */
export const rollWidth = (plan: Plan, film: FilmSheet): number =>
  plan.layout.rollWidthMm !== null && film.widthsMm.includes(plan.layout.rollWidthMm)
    ? plan.layout.rollWidthMm
    : Math.max(...film.widthsMm)

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
  const taken: FilmSource | undefined =
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
    return {
      ...base,
      ...readKept({ kept: keptPlan, base, ways, pieces, toLay, width, gap, stock: context.stock, cutting }),
    }

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
    const share = sharedBudget({
      rounds,
      spent,
      elapsed,
      at,
      of: parts.length,
      upTo: cutting === 'free' && part.pieces.some((p) => p.outline) ? NEST_FROM : 1,
    })
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
        return asRoll({
          id: u.binId,
          widthMm: (bin?.width ?? 0) + 2 * trimMm,
          usedMm: u.length,
          placements,
          stock: context.stock,
          film,
          cutting,
          gapMm: gap,
        })
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
      rolls = nested.map((r) =>
        asRoll({
          id: r.id,
          widthMm: r.widthMm,
          usedMm: r.usedMm,
          placements: r.placements,
          stock: context.stock,
          film,
          cutting,
          gapMm: gap,
        }),
      )
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
function sharedBudget({
  rounds,
  spent,
  elapsed,
  at,
  of,
  upTo,
}: {
  rounds: number
  spent: SearchOptions['spent']
  elapsed: SearchOptions['elapsed']
  at: number
  of: number
  upTo: number
}): Budget {
  const [from, to] = [(upTo * at) / of, (upTo * (at + 1)) / of]
  return {
    rounds: Math.ceil(rounds / of),
    ...(spent || elapsed ? { spent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= to) } : {}),
    ...(elapsed ? { elapsed: () => Math.min(1, Math.max(0, (elapsed() - from) / (to - from))) } : {}),
  }
}
