import { scaleLinear } from 'd3'
import type { FilmLayout, RollPlan } from '@/core/roll/lay-out'

/** What the roll's drawing shows, in px: the roll unrolls to the right, its width runs down. */
export interface PieceMark {
  id: string
  name: string
  x: number
  y: number
  width: number
  height: number
  /** Which way the panel's top points: along the roll (right) or across it (up). */
  arrow: 'right' | 'up'
}
export interface RollMarks {
  width: number
  height: number
  pieces: PieceMark[]
  grid: { x: number[]; y: number[] }
  cuts: { x: number; number: number; atMm: number }[]
}

export const LINER_GRID_MM = 100

/** Pure: a roll of a layout to marks, `pxPerMm` true to scale both ways. */
export function rollMarks(layout: FilmLayout, roll: RollPlan, pxPerMm: number): RollMarks {
  const at = scaleLinear([0, 1], [0, pxPerMm])
  const pieces = new Map(layout.pieces.map((p) => [p.id, p]))
  const lengthMm = Math.ceil((roll.usedMm + 150) / LINER_GRID_MM) * LINER_GRID_MM
  const steps = (mm: number) =>
    Array.from({ length: Math.floor(mm / LINER_GRID_MM) + 1 }, (_, i) => at(i * LINER_GRID_MM))
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
      arrow: (pieces.get(p.pieceId)?.top === 'along') === (p.turnDeg === 0) ? 'right' : 'up',
    })),
    grid: { x: steps(lengthMm), y: steps(roll.widthMm) },
    cuts: roll.crossCutsMm.map((mm, i) => ({ x: at(mm), number: i + 1, atMm: mm })),
  }
}
