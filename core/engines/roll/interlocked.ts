import type { Piece } from '../pieces/pieces'
import { sum } from './kept-layout'
import { turnsOf, SearchOptions, type RollPlan } from './roll-plan'
import { onRoll, moved, pieceAreaMm2 } from '../pieces/shape'
import { nest } from '../../solve/pack'
import type { Plan } from '../../model/plan/schema'
import { seeded } from '../../kit/random'
import { known } from '../../kit/known'
import type { Part } from './sources'

/** Share of a search that goes to rectangles before outlines are interlocked. */
export const NEST_FROM = 0.35
export type NestedRoll = Pick<RollPlan, 'id' | 'widthMm' | 'usedMm' | 'placements'>
/** The same rolls with outlines interlocked, where that is shorter; null where it is not. */
export function interlocked(
  plan: Plan,
  parts: readonly Part[],
  rolls: readonly RollPlan[],
  locked: NonNullable<SearchOptions['locked']>,
  options: SearchOptions,
): NestedRoll[] | null {
  const out: NestedRoll[] = []
  let shorter = false
  for (const [at, part] of parts.entries()) {
    const own = rolls.filter((r) => part.bins.some((b) => b.id === r.id))
    const stays = locked.filter((l) => part.pieces.some((p) => p.id === l.placement.pieceId))
    const nested = nestPart(plan, part, { own, stays, options, until: (at + 1) / parts.length, parts })
    if (nested) shorter = true
    out.push(...(nested ?? own))
  }
  return shorter ? out : null
}

type Locked = NonNullable<SearchOptions['locked']>

/** A piece as it may lie. */
const shapeOf = (piece: Piece) => ({
  id: piece.id,
  lies: turnsOf(piece).map((turnDeg) => {
    const [width, length] = turnDeg % 180 === 90 ? [piece.alongMm, piece.acrossMm] : [piece.acrossMm, piece.alongMm]
    return { turnDeg, points: onRoll(piece, turnDeg), width, length }
  }),
})

/** One part's outlines interlocked; null where that is no shorter than its rolls are. `until`: share of all parts. */
function nestPart(
  plan: Plan,
  part: Part,
  {
    own,
    stays,
    options,
    until,
    parts,
  }: { own: readonly RollPlan[]; stays: Locked; options: SearchOptions; until: number; parts: readonly Part[] },
): NestedRoll[] | null {
  const { gapMm, trimMm, seed } = plan.layout
  const before = own.flatMap((r) => [...r.placements].sort((a, b) => a.yMm - b.yMm || a.xMm - b.xMm))
  const free = part.pieces.filter((p) => !stays.some((l) => l.placement.pieceId === p.id))
  const shapes = free.map(shapeOf)
  const still = stays.map((l) => ({
    binId: l.rollId,
    points: moved(
      onRoll(known(part.pieces.find((p) => p.id === l.placement.pieceId)), l.placement.turnDeg),
      l.placement.xMm - trimMm,
      l.placement.yMm,
    ),
  }))
  const to = NEST_FROM + (1 - NEST_FROM) * until
  const nested = nest(shapes, part.bins, {
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
  if (!nested || nested.used >= sum(own) - 1e-6) return null
  const placed = nested.placed.map((p) => ({
    binId: p.binId,
    placement: {
      pieceId: p.id,
      xMm: p.x + trimMm,
      yMm: p.y,
      widthMm: p.lie.width,
      lengthMm: p.lie.length,
      turnDeg: p.lie.turnDeg,
      locked: false,
    },
  }))
  return part.bins.flatMap((bin): NestedRoll[] => {
    const placements: RollPlan['placements'] = [
      ...stays.filter((l) => l.rollId === bin.id).map((l) => l.placement),
      ...placed.filter((p) => p.binId === bin.id).map((p) => p.placement),
    ]
    const usedMm = placements.reduce((far, p) => Math.max(far, p.yMm + p.lengthMm), 0)
    return usedMm > 0 ? [{ id: bin.id, widthMm: bin.width + 2 * trimMm, usedMm, placements }] : []
  })
}

/** No plan of these outlines is shorter: their bare area over the width, and the longest of them, part by part. */
export const outlineBound = (parts: readonly Part[]): number =>
  parts.reduce((total, part) => {
    const width = Math.max(...part.bins.map((b) => b.width))
    const area = part.pieces.reduce((s, p) => s + pieceAreaMm2(p), 0)
    const longest = part.pieces.reduce(
      (m, p) => Math.max(m, p.turn === 'quarter' && p.alongMm <= width ? Math.min(p.acrossMm, p.alongMm) : p.alongMm),
      0,
    )
    return total + Math.max(area / width, longest)
  }, 0)
