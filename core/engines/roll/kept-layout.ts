import type { StockItem, FilmSheet } from '../../model/film/schema'
import type { KeptLayout, Plan } from '../../model/plan/schema'
import type { Piece } from '../pieces/pieces'
import type { LayoutSolver } from './layout-task'
import { LEAST_REST, cutPlan } from './cuts'
import { freeRooms } from './free-rooms'
import { type FilmLayout, type RollPlan, damageFromEnd } from './roll-plan'
import type { Unit } from './units'
import type { FilmSource } from './sources'
import type { CutPiece } from '../../model/log/cut-pieces'

export const sum = (rolls: readonly { usedMm: number }[]): number => rolls.reduce((s, r) => s + r.usedMm, 0)
export function asRoll({
  id,
  widthMm,
  usedMm,
  placements,
  stock,
  film,
  cutting,
  gapMm,
}: {
  id: string
  widthMm: number
  usedMm: number
  placements: RollPlan['placements']
  stock: readonly StockItem[]
  film: FilmSheet
  cutting: Plan['layout']['cutting']
  gapMm: number
}): RollPlan {
  const item = stock.find((s) => s.id === id) ?? null
  const damage = item ? damageFromEnd(item) : []
  const plan =
    cutting === 'free'
      ? {
          cuts: [],
          offcuts: freeRooms({ pieces: placements, widthMm, usedMm, gapMm, damage, least: LEAST_REST }),
          knots: [],
        }
      : cutPlan(placements, widthMm)
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

interface KeptTask {
  kept: KeptLayout
  base: Pick<FilmLayout, 'film' | 'sources' | 'source'>
  sources: readonly FilmSource[]
  pieces: readonly Piece[]
  toLay: readonly Piece[]
  width: number
  gap: number
  stock: readonly StockItem[]
  cutting: Plan['layout']['cutting']
  lengthBound: LayoutSolver['lengthBound']
}

export function readKept({
  kept,
  base,
  sources,
  pieces,
  toLay,
  width,
  gap,
  stock,
  cutting,
  lengthBound,
}: KeptTask): Pick<
  FilmLayout,
  'source' | 'join' | 'rollWidthMm' | 'boundMm' | 'rolls' | 'usedMm' | 'unplaced' | 'kept'
> {
  const rolls = kept.rolls.map((r) =>
    asRoll({
      id: r.id,
      widthMm: r.widthMm,
      usedMm: r.usedMm,
      placements: r.placements,
      stock,
      film: base.film,
      cutting,
      gapMm: gap,
    }),
  )
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
  const from = sources.find((w) => w.source.id === id)
  return {
    source: from?.source ?? base.source,
    join: from?.join ?? null,
    rollWidthMm: rolls.length > 0 ? Math.max(...rolls.map((r) => r.widthMm)) : width,
    boundMm,
    rolls,
    usedMm: sum(rolls),
    unplaced,
    kept: 'current',
  }
}

/** A cut piece still serves where the plan asks for no more than this beyond it, mm. */
export const SPOIL_TOLERANCE_MM = 1
export const spoils = (c: CutPiece, piece: Piece | undefined): boolean => {
  if (!piece) return true
  const need = [piece.acrossMm, piece.alongMm]
  const fits = (a: number, b: number) =>
    need[0] !== undefined &&
    need[1] !== undefined &&
    need[0] <= a + SPOIL_TOLERANCE_MM &&
    need[1] <= b + SPOIL_TOLERANCE_MM
  return !(fits(c.acrossMm, c.alongMm) || (piece.turn === 'quarter' && fits(c.alongMm, c.acrossMm)))
}

export const keepLayout = (layout: FilmLayout): KeptLayout => ({
  filmId: layout.film.id,
  mark: layout.mark,
  boundMm: layout.boundMm,
  rolls: layout.rolls.map(({ id, widthMm, usedMm, placements }) => ({ id, widthMm, usedMm, placements })),
})
