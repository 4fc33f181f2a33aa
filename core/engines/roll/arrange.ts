import { nth } from '../../kit/known'
import { err, ok, type Fault, type Result } from '../../kit/result'
import type { Plan } from '../../model/plan/schema'
import { cutPlan } from './cuts'
import { type FilmLayout, type RollPlan } from './film-layout'
import { turnsOf } from './roll-plan'
import { moved, onRoll } from '../pieces/shape'
import { clash } from './clash'
import type { Piece } from '../pieces/pieces'

export type Spot = RollPlan['placements'][number]

/** What stands in the way of a piece lying there, as a code with facts. */
/** Why a piece cannot lie somewhere, or not as it is asked to. */
export type RefusalCode =
  | 'no_such_roll'
  | 'may_not_turn'
  | 'off_the_roll'
  | 'past_the_end'
  | 'on_damage'
  | 'lies_on'
  | 'no_straight_cut'
  | 'too_many_stages'
  | 'nowhere_further'
  | 'is_locked'
export type Refusal = Fault<RefusalCode>

export function obstacle(layout: FilmLayout, plan: Plan, rollId: string, spot: Spot): Refusal | null {
  const roll = layout.rolls.find((r) => r.id === rollId)
  const piece = layout.pieces.find((p) => p.id === spot.pieceId)
  if (!roll || !piece) return { code: 'no_such_roll', facts: {} }
  const { gapMm, trimMm, cutting, stages } = plan.layout
  if (!turnsOf(piece).includes(spot.turnDeg)) return { code: 'may_not_turn', facts: { piece: piece.name } }
  if (spot.xMm < trimMm - EPS || spot.yMm < -EPS || spot.xMm + spot.widthMm > roll.widthMm - trimMm + EPS)
    return { code: 'off_the_roll', facts: { piece: piece.name, width_mm: roll.widthMm - 2 * trimMm } }
  if (spot.yMm + spot.lengthMm > roll.lengthMm + EPS)
    return { code: 'past_the_end', facts: { piece: piece.name, length_mm: roll.lengthMm } }
  const torn = roll.damage.find((d) => spot.yMm < d.to - EPS && spot.yMm + spot.lengthMm > d.from + EPS)
  if (torn) return { code: 'on_damage', facts: { piece: piece.name, from_mm: torn.from, to_mm: torn.to } }
  const others = roll.placements.filter((p) => p.pieceId !== spot.pieceId)
  const outline = (s: Spot) => {
    const own = layout.pieces.find((p) => p.id === s.pieceId)
    return own ? moved(onRoll(own, s.turnDeg), s.xMm, s.yMm) : []
  }
  // By machine, outlines may lie within one another's rectangles.
  const hit = others.find(
    (p) => near(p, spot, gapMm) && (cutting !== 'free' || clash(outline(p), outline(spot), gapMm)),
  )
  if (hit)
    return {
      code: 'lies_on',
      facts: {
        piece: piece.name,
        other: layout.pieces.find((p) => p.id === hit.pieceId)?.name ?? hit.pieceId,
        gap_mm: gapMm,
      },
    }
  if (cutting === 'crosscut') {
    const all = [...others, spot]
    const parted = cutPlan(all, roll.widthMm)
    const knot = parted.knots.find((k) => k.includes(spot.pieceId))
    if (knot)
      return {
        code: 'no_straight_cut',
        facts: {
          piece: piece.name,
          others: names(
            layout,
            knot.filter((id) => id !== spot.pieceId),
          ),
        },
      }
    const deep = Math.max(0, ...parted.cuts.filter((c) => c.pieceIds.length > 1 || c.stage <= 1).map((c) => c.stage))
    if (deep > stages) return { code: 'too_many_stages', facts: { piece: piece.name, stages } }
  }
  return null
}

const EPS = 1e-6
const names = (layout: FilmLayout, ids: readonly string[]): string =>
  ids.map((id) => layout.pieces.find((p) => p.id === id)?.name ?? id).join(', ')
const near = (a: Spot, b: Spot, gap: number): boolean =>
  a.xMm < b.xMm + b.widthMm + gap - EPS &&
  b.xMm < a.xMm + a.widthMm + gap - EPS &&
  a.yMm < b.yMm + b.lengthMm + gap - EPS &&
  b.yMm < a.yMm + a.lengthMm + gap - EPS

/** Where edges of a piece could come to lie: against the roll, against its neighbours, on the liner's grid. */
export function snapLines(layout: FilmLayout, plan: Plan, rollId: string, spot: Spot): { x: number[]; y: number[] } {
  const roll = layout.rolls.find((r) => r.id === rollId)
  if (!roll) return { x: [], y: [] }
  const { gapMm, trimMm } = plan.layout
  const x = [trimMm, roll.widthMm - trimMm - spot.widthMm]
  const y = [0]
  for (const p of roll.placements) {
    if (p.pieceId === spot.pieceId) continue
    x.push(p.xMm, p.xMm + p.widthMm + gapMm, p.xMm - gapMm - spot.widthMm, p.xMm + p.widthMm - spot.widthMm)
    y.push(p.yMm, p.yMm + p.lengthMm + gapMm, p.yMm - gapMm - spot.lengthMm, p.yMm + p.lengthMm - spot.lengthMm)
  }
  const tidy = (list: number[], most: number) =>
    [...new Set(list.map((v) => Math.round(v * 1000) / 1000))]
      .filter((v) => v >= -EPS && v <= most + EPS)
      .sort((a, b) => a - b)
  return { x: tidy(x, roll.widthMm - spot.widthMm), y: tidy(y, Math.max(0, roll.lengthMm - spot.lengthMm)) }
}

/** How far a dragged piece jumps to an edge, mm. */
export const SNAP_MM = 60

/** A piece let go at a place: snapped to the nearest edges that it may lie against; or why it cannot lie near there. */
export function dropAt(layout: FilmLayout, plan: Plan, rollId: string, spot: Spot): Result<Spot, Refusal> {
  const lines = snapLines(layout, plan, rollId, spot)
  const close = (list: number[], at: number) => [
    ...list.filter((v) => Math.abs(v - at) <= SNAP_MM).sort((a, b) => Math.abs(a - at) - Math.abs(b - at)),
    at,
  ]
  let first: Refusal | null = null
  for (const xMm of close(lines.x, spot.xMm).slice(0, 6))
    for (const yMm of close(lines.y, spot.yMm).slice(0, 6)) {
      const there = { ...spot, xMm, yMm }
      const refused = obstacle(layout, plan, rollId, there)
      if (!refused) return ok(there)
      first ??= refused
    }
  return err(first ?? { code: 'no_such_roll', facts: {} })
}

/** The next place in a direction where the piece may lie, edge to edge. */
export function nudge(
  layout: FilmLayout,
  plan: Plan,
  rollId: string,
  spot: Spot,
  direction: 'left' | 'right' | 'up' | 'down',
): Result<Spot, Refusal> {
  const lines = snapLines(layout, plan, rollId, spot)
  const along = direction === 'left' || direction === 'right'
  const list = along ? lines.y : lines.x
  const at = along ? spot.yMm : spot.xMm
  const back = direction === 'left' || direction === 'up'
  const ahead = list.filter((v) => (back ? v < at - 0.5 : v > at + 0.5))
  let first: Refusal | null = null
  for (const v of back ? ahead.reverse() : ahead) {
    const there = along ? { ...spot, yMm: v } : { ...spot, xMm: v }
    const refused = obstacle(layout, plan, rollId, there)
    if (!refused) return ok(there)
    first ??= refused
  }
  return err(first ?? { code: 'nowhere_further', facts: { piece: nameOf(layout, spot.pieceId) } })
}
const nameOf = (layout: FilmLayout, id: string): string => layout.pieces.find((p) => p.id === id)?.name ?? id

/** The piece in the next turn in which it may lie, where it is or snapped close by. */
export function turnOn(layout: FilmLayout, plan: Plan, rollId: string, spot: Spot): Result<Spot, Refusal> {
  const piece = layout.pieces.find((p) => p.id === spot.pieceId)
  const turns = piece ? turnsOf(piece) : []
  if (!piece || turns.length < 2) return err({ code: 'may_not_turn', facts: { piece: piece?.name ?? spot.pieceId } })
  let no: Result<Spot, Refusal> | null = null
  for (let k = 1; k < turns.length; k++) {
    const turnDeg = nth(turns, (turns.indexOf(spot.turnDeg) + k) % turns.length)
    const out = dropAt(layout, plan, rollId, { ...spot, ...sizeAt(piece, turnDeg), turnDeg })
    if (out.ok) return out
    no ??= out
  }
  return no ?? err({ code: 'may_not_turn', facts: { piece: piece.name } })
}
const sizeAt = (p: Piece, turnDeg: number) =>
  turnDeg % 180 === 0 ? { widthMm: p.acrossMm, lengthMm: p.alongMm } : { widthMm: p.alongMm, lengthMm: p.acrossMm }

/** The first place on another roll, from its end, where the piece may lie. */
export function toRoll(layout: FilmLayout, plan: Plan, rollId: string, spot: Spot): Result<Spot, Refusal> {
  const lines = snapLines(layout, plan, rollId, spot)
  let first: Refusal | null = null
  for (const yMm of lines.y)
    for (const xMm of lines.x) {
      const there = { ...spot, xMm, yMm }
      const refused = obstacle(layout, plan, rollId, there)
      if (!refused) return ok(there)
      first ??= refused
    }
  return err(first ?? { code: 'no_such_roll', facts: {} })
}

/** The layout with one placement changed, moved to a roll. */
export function placed(layout: FilmLayout, rollId: string, spot: Spot): FilmLayout {
  const rolls = layout.rolls
    .map((r) => {
      // In its old place of the list where it stays on its roll, so that walking from piece to piece keeps its order.
      const stays = r.id === rollId && r.placements.some((p) => p.pieceId === spot.pieceId)
      const rest = r.placements.filter((p) => p.pieceId !== spot.pieceId)
      const placements = stays
        ? r.placements.map((p) => (p.pieceId === spot.pieceId ? spot : p))
        : r.id === rollId
          ? [...rest, spot]
          : rest
      return { ...r, placements, usedMm: Math.max(0, ...placements.map((p) => p.yMm + p.lengthMm)) }
    })
    .filter((r) => r.placements.length > 0)
  return { ...layout, rolls, usedMm: rolls.reduce((s, r) => s + r.usedMm, 0) }
}
