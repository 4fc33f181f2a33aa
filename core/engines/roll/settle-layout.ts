import type { SettledLayout } from '../../model/catalogue/solutions'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { Piece } from '../pieces/pieces'
import { orderFor } from './buy'
import { layOutFilm } from './layout-solver'
import { bandLengths, type FilmLayout, type LayOutContext, type Source } from './roll-plan'
import { moves, SETTLE_MOVES, sourceMoves } from './settle-moves'

/**
 * Searches one film's layout with a fixed number of moves, and so does every source of its film, each alike, so
 * that they compare. What a user kept is left aside.
 */
export function settleLayout(
  plan: Plan,
  film: FilmSheet,
  pieces: readonly Piece[],
  context: LayOutContext,
): { key: string; value: SettledLayout } {
  const layout = layOutFilm(
    { ...plan, layout: { ...plan.layout, kept: [] } },
    film,
    pieces,
    { ...context, known: undefined },
    { ...moves(SETTLE_MOVES), ofSource: sourceMoves },
  )
  return {
    key: layout.key,
    value: {
      filmId: film.id,
      sourceId: layout.source?.id ?? null,
      sources: layout.sources.map((s) => (s.id === layout.source?.id ? asLaid(s, layout) : s)),
      join: layout.join,
      rollWidthMm: layout.rollWidthMm,
      usedMm: layout.usedMm,
      boundMm: layout.boundMm,
      rolls: layout.rolls.map(({ id, widthMm, usedMm, placements }) => ({ id, widthMm, usedMm, placements })),
      unplaced: layout.unplaced.map(({ piece, why }) => ({ pieceId: piece.id, why })),
    },
  }
}

/** The source that is taken, with what its searched layout takes, costs and leaves. */
function asLaid(source: Source, layout: FilmLayout): Source {
  const news = layout.rolls.filter((r) => r.stock === null)
  const saved = source.usedMm - layout.usedMm
  if (news.length === 0 || layout.unplaced.length > 0)
    return { ...source, usedMm: layout.usedMm, leavesMm: source.leavesMm + saved }
  const bands = [...news.flatMap((r) => bandLengths(r.placements)), ...layout.reserveBandsMm]
  const { orderMm, units, cost } = orderFor(layout.film, news[0]?.widthMm ?? layout.rollWidthMm, bands)
  return {
    ...source,
    usedMm: layout.usedMm,
    orderMm,
    units,
    cost,
    leavesMm: source.leavesMm + saved + orderMm - source.orderMm,
  }
}
