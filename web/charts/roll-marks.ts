import { scaleLinear } from 'd3'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'
import { moved, onRoll } from '@/core/engines/pieces/shape'

/** What the roll's drawing shows, in px: the roll unrolls to the right, its width runs down. */
export interface PieceMark {
  id: string
  name: string
  x: number
  y: number
  width: number
  height: number
  /** Where the panel's top points to: along the roll to the right or left, or across it up or down. */
  arrow: 'right' | 'up' | 'left' | 'down'
  locked: boolean
  cut: boolean
  /** Outline as a path, where the piece is not cut as a rectangle. */
  path: string | null
}
export interface RollMarks {
  width: number
  height: number
  pieces: PieceMark[]
  grid: { x: number[]; y: number[] }
  /** Straight cuts in cutting order; those across the whole roll are the first stage. */
  cuts: { x1: number; y1: number; x2: number; y2: number; number: number; stage: number }[]
  offcuts: { x: number; y: number; width: number; height: number }[]
  damage: { x: number; width: number }[]
  reserve: { x: number; width: number } | null
  /** End of the film on this roll, where it is in the picture. */
  end: number | null
}

export const LINER_GRID_MM = 100
/** Smaller left-overs are not drawn as rests, mm. */
const LEAST_REST_MM = 60
const ARROWS = ['right', 'up', 'left', 'down'] as const

/** Pure: a roll of a layout to marks, `pxPerMm` true to scale both ways. */
export function rollMarks(layout: FilmLayout, roll: RollPlan, pxPerMm: number): RollMarks {
  const at = scaleLinear([0, 1], [0, pxPerMm])
  const pieces = new Map(layout.pieces.map((p) => [p.id, p]))
  const isLast = layout.rolls[layout.rolls.length - 1]?.id === roll.id
  const reserveMm = isLast ? layout.reserveMm : 0
  const shownMm = Math.min(
    Math.max(roll.usedMm + reserveMm + 150, roll.usedMm),
    Math.max(roll.usedMm, roll.lengthMm + 50),
  )
  const lengthMm = Math.ceil(shownMm / LINER_GRID_MM) * LINER_GRID_MM
  const steps = (mm: number) =>
    Array.from({ length: Math.floor(mm / LINER_GRID_MM) + 1 }, (_, i) => at(i * LINER_GRID_MM))
  // The drawing shows the liner's side with its grid: the film's face, turned over.
  const outline = (p: RollPlan['placements'][number]): string | null => {
    const piece = pieces.get(p.pieceId)
    if (!piece?.outline) return null
    return `M${moved(onRoll(piece, p.turnDeg), p.xMm, p.yMm)
      .map((q) => `${at(q.y).toFixed(1)} ${at(q.x).toFixed(1)}`)
      .join('L')}Z`
  }
  const real = new Set(layout.cut.filter((c) => !layout.spoiled.includes(c)).map((c) => c.id))
  return {
    width: at(lengthMm),
    height: at(roll.widthMm),
    pieces: roll.placements.map((p) => ({
      id: p.pieceId,
      name: pieces.get(p.pieceId)?.name ?? p.pieceId,
      x: at(p.yMm),
      y: at(p.xMm),
      width: at(p.lengthMm),
      height: at(p.widthMm),
      arrow: ARROWS[((pieces.get(p.pieceId)?.top === 'along' ? 0 : 1) + p.turnDeg / 90) % 4] ?? 'right',
      locked: p.locked,
      cut: real.has(p.pieceId),
      path: outline(p),
    })),
    grid: { x: steps(lengthMm), y: steps(roll.widthMm) },
    cuts: roll.cutting.cuts.map((c) => ({
      x1: at(c.from.yMm),
      y1: at(c.from.xMm),
      x2: at(c.to.yMm),
      y2: at(c.to.xMm),
      number: c.number,
      stage: c.stage,
    })),
    offcuts: roll.cutting.offcuts
      .filter((o) => o.widthMm >= LEAST_REST_MM && o.lengthMm >= LEAST_REST_MM)
      .map((o) => ({ x: at(o.yMm), y: at(o.xMm), width: at(o.lengthMm), height: at(o.widthMm) })),
    damage: roll.damage
      .filter((d) => d.from < lengthMm)
      .map((d) => ({ x: at(d.from), width: at(Math.min(lengthMm, d.to) - d.from) })),
    reserve: reserveMm > 0 ? { x: at(roll.usedMm), width: at(reserveMm) } : null,
    end: roll.lengthMm <= lengthMm ? at(roll.lengthMm) : null,
  }
}
