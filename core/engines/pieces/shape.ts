import { polygonAreaMm2, type Point } from '../../kit/plane'

/** What of a piece its shape hangs on. */
interface Shape {
  cutWidthMm: number
  cutHeightMm: number
  acrossMm: number
  alongMm: number
  top: 'along' | 'across'
  outline: Point[] | null
}

/**
 * A piece's outline as it lies on the roll at a turn, its box at 0, 0: x across, y along, the film's face seen with x
 * to the right and y down. Its cut rectangle where it has no outline.
 */
export function onRoll(piece: Shape, turnDeg: 0 | 90 | 180 | 270): Point[] {
  const [w, h] = [piece.cutWidthMm, piece.cutHeightMm]
  const flat: Point[] = piece.outline ?? [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ]
  // Before any turn the panel's top lies towards +y, or towards −x where its width runs along the roll.
  let points =
    piece.top === 'along' ? flat.map((p) => ({ x: w - p.x, y: h - p.y })) : flat.map((p) => ({ x: p.y, y: w - p.x }))
  let along = piece.top === 'along' ? h : w
  let across = piece.top === 'along' ? w : h
  for (let turn = 0; turn < turnDeg; turn += 90) {
    points = points.map((p) => ({ x: along - p.y, y: p.x }))
    ;[across, along] = [along, across]
  }
  return points
}

/** Area that a piece needs at the least, mm². */
export const pieceAreaMm2 = (piece: Shape): number =>
  piece.outline ? Math.abs(polygonAreaMm2(piece.outline)) : piece.acrossMm * piece.alongMm

export const moved = (points: readonly Point[], x: number, y: number): Point[] =>
  points.map((p) => ({ x: p.x + x, y: p.y + y }))
