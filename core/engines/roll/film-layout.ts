import type { SettledLayout } from '../../model/catalogue/solutions'
import type { FilmSheet } from '../../model/film/schema'
import { textHash } from '../../kit/random'
import type { Plan } from '../../model/plan/schema'
import { NO_CONTEXT, type SearchOptions, type FilmLayout, type LayOutContext } from './roll-plan'
import type { Piece } from '../pieces/pieces'
import { pieceAreaMm2 } from '../pieces/shape'
import type { FilmSource } from './sources'
import { SETTLE_MOVES } from './settle-moves'
import { asRoll, readKept, spoils } from './kept-layout'
import { RESERVE_FROM, reserveBands } from './reserve'
import { sumOf, wantedSource, type ChosenSource, type LayoutSolver, type LayoutTask, type Reserve } from './layout-task'

export * from './roll-plan'

/** The width a job's film is bought in: the plan's choice where the film comes in it, else the widest. */
export const rollWidth = (plan: Plan, film: FilmSheet): number =>
  plan.layout.rollWidthMm !== null && film.widthsMm.includes(plan.layout.rollWidthMm)
    ? plan.layout.rollWidthMm
    : Math.max(...film.widthsMm)

/**
 * Lays the pieces of one film: on one lot of the shelf where one covers them, else on new rolls, whichever is cheaper;
 * or on the source the plan names; or reads back the layout that was kept, else the one that was searched. Pieces
 * already cut are not laid again. What is known is read back without the solver.
 */
export const filmLayoutBy =
  (solver: LayoutSolver) =>
  (
    plan: Plan,
    film: FilmSheet,
    pieces: readonly Piece[],
    context: LayOutContext = NO_CONTEXT,
    options: SearchOptions = {},
  ): FilmLayout => {
    const task = taskOf(plan, film, pieces, context, options)
    const reserve = reserveOf(task)
    const mark = markOf(task)
    const key = keyOf(task, mark, reserve)
    const known = context.known?.[key]
    const settling = isSettling(context, key)
    const standIn = settling && !options.elapsed && options.rounds === undefined
    const chosen = known ? settledSources(known) : solver.chooseSource(task, reserve, standIn)
    const keptPlan = plan.layout.kept.find((k) => k.filmId === film.id)
    const kept = keptPlan?.mark === mark && task.spoiled.length === 0 ? keptPlan : null
    const base = { ...baseOf(task, chosen, reserve), mark, key, settling }
    if (kept) {
      const read = readKept({
        kept,
        base,
        sources: chosen.sources,
        pieces,
        toLay: task.toLay,
        width: task.width,
        gap: task.gap,
        stock: context.stock,
        cutting: task.cutting,
        lengthBound: solver.lengthBound,
      })
      // What the user kept stands, whatever else is searched.
      return { ...base, ...read, settling: false }
    }
    const laid = known ? readSettled(task, known) : solver.layParts(task, chosen.taken, { standIn })
    return { ...base, ...laid, kept: keptPlan ? 'stale' : 'none' }
  }

const isSettling = ({ known, faults }: LayOutContext, key: string): boolean =>
  known !== undefined && !known[key] && !faults?.[key]

function taskOf(
  plan: Plan,
  film: FilmSheet,
  pieces: readonly Piece[],
  context: LayOutContext,
  options: SearchOptions,
): LayoutTask {
  const { gapMm: gap, trimMm, cutting } = plan.layout
  const byId = new Map(pieces.map((p) => [p.id, p]))
  const cut = context.cut.filter((c) => isOfFilm(context, film, c.stockId) || byId.has(c.id))
  const spoiled = cut.filter((c) => spoils(c, byId.get(c.id)))
  const real = new Set(cut.filter((c) => !spoiled.includes(c)).map((c) => c.id))
  const locked = options.locked ?? []
  return {
    plan,
    film,
    pieces,
    context,
    options,
    gap,
    trimMm,
    cutting,
    width: rollWidth(plan, film),
    byId,
    cut,
    spoiled,
    real,
    toLay: pieces.filter((p) => !real.has(p.id)),
    locked,
    apart: new Set(locked.map((l) => l.placement.pieceId)),
  }
}

const isOfFilm = (context: LayOutContext, film: FilmSheet, stockId: string): boolean =>
  context.stock.find((s) => s.id === stockId)?.filmId === film.id

/** Says whether a kept layout still fits: a hash of all that a layout hangs on. */
function markOf(task: LayoutTask): string {
  const { plan, film, pieces, width, gap, trimMm, cutting } = task
  return textHash(
    JSON.stringify([
      width,
      film.rollLengthsMm[0],
      gap,
      trimMm,
      cutting,
      plan.layout.stages,
      wantedSource(task),
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
}

/** Raised whenever the same task would be searched to another layout: what was kept before then no longer counts. */
const LAYOUT_VERSION = 2

/** A hash of everything that the search of a layout hangs on: pieces, rack, what is cut, what is set aside. */
function keyOf(task: LayoutTask, mark: string, reserve: Reserve): string {
  const { plan, film, pieces, context, cut } = task
  const onShelf = context.stock.filter((s) => s.filmId === film.id)
  const panels = new Set(pieces.flatMap((p) => p.covers ?? [p.panelId]))
  return textHash(
    JSON.stringify([
      LAYOUT_VERSION,
      SETTLE_MOVES,
      mark,
      plan.layout.seed,
      pieces.map((p) => [p.panelId, p.covers]),
      film.id,
      film.widthsMm,
      film.rollLengthsMm,
      film.soldBy,
      film.offers,
      onShelf.map((s) => [s.id, s.kind, s.lot, s.widthMm, s.leftMm, s.damage.map((d) => [d.fromCoreMm, d.lengthMm])]),
      cut.map((c) => [c.id, c.stockId, c.acrossMm, c.alongMm]),
      reserve.reserveBandsMm,
      // Only a join of two lots asks which panels meet, and along which edges.
      new Set(onShelf.map((s) => s.lot)).size > 0
        ? plan.panels
            .filter((p) => panels.has(p.id))
            .map((p) => [p.id, p.kind, p.edges.map((e) => [e.id, e.lengthMm, e.neighbour])])
        : [],
    ]),
  )
}

/** Film set aside for pieces that may have to be done twice. */
function reserveOf({ plan, context, byId, real, width, trimMm, gap }: LayoutTask): Reserve {
  const risky = [...context.risk].filter(([id, r]) => byId.has(id) && !real.has(id) && r >= RESERVE_FROM)
  const reserveFor = plan.layout.reserve
    ? risky.map(([pieceId, risk]) => ({ pieceId, risk })).sort((a, b) => b.risk - a.risk)
    : []
  return { reserveFor, reserveBandsMm: reserveBands(reserveFor, byId, width - 2 * trimMm, gap) }
}

/** All sources of the film as they were searched, the one taken among them. */
function settledSources(known: SettledLayout): ChosenSource {
  const sources = known.sources.map((source): FilmSource => ({
    source,
    parts: [],
    packings: [],
    join: source.id === known.sourceId ? known.join : null,
  }))
  return { sources, taken: sources.find((w) => w.source.id === known.sourceId) }
}

/** A searched layout read back: rolls, and what found no room. */
function readSettled({ film, context, cutting, gap, byId }: LayoutTask, known: SettledLayout) {
  return {
    rollWidthMm: known.rollWidthMm,
    boundMm: known.boundMm,
    usedMm: known.usedMm,
    rolls: known.rolls.map((roll) => asRoll({ ...roll, stock: context.stock, film, cutting, gapMm: gap })),
    unplaced: known.unplaced.flatMap(({ pieceId, why }) => {
      const piece = byId.get(pieceId)
      return piece ? [{ piece, why }] : []
    }),
  }
}

function baseOf(task: LayoutTask, { sources, taken }: ChosenSource, { reserveFor, reserveBandsMm }: Reserve) {
  const { film, pieces, context, cut, spoiled } = task
  const ofFilm = [...context.taken].filter(([id]) => isOfFilm(context, film, id))
  const widthOf = (stockId: string) => context.stock.find((x) => x.id === stockId)?.widthMm ?? 0
  return {
    film,
    pieces,
    cut,
    spoiled,
    reserveFor,
    reserveBandsMm,
    sources: sources.map((w) => w.source),
    source: taken?.source ?? null,
    join: taken?.join ?? null,
    reserveMm: sumOf(reserveBandsMm),
    doneMm: sumOf(ofFilm.map(([, mm]) => mm)),
    doneMm2: sumOf(ofFilm.map(([id, mm]) => mm * widthOf(id))),
  }
}
