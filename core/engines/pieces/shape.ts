import { polygonAreaMm2, type Point } from '../../kit/plane'
import { common, outset } from '../../kit/polygon'
import { outlineOf } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'

/**
 * The outline of a piece as it is cut, in its own frame: origin at the top left of its cut rectangle, x right, y down
 * as the panel is looked at. The panel's measured outline, let out by the film left beyond it, within the cut
 * rectangle; null where the panel's outline was not taken. `from`: where the piece's own part of the panel begins;
 * `margins`: film beyond it left, top, right and bottom; `stretch`: what relaxing takes back, along x and y.
 */
export function pieceOutline(
  panel: Panel,
  part: { x: number; y: number; width: number; height: number },
  margins: { left: number; top: number; right: number; bottom: number },
  stretch: { x: number; y: number },
): Point[] | null {
  const key = JSON.stringify([part, margins, stretch])
  const known = shapes.get(panel)?.get(key)
  if (known !== undefined) return known
  const shape = shapeOf(panel, part, margins, stretch)
  shapes.set(panel, (shapes.get(panel) ?? new Map<string, Point[] | null>()).set(key, shape))
  return shape
}
/** Panels are never changed in place, so a shape holds as long as its panel. */
const shapes = new WeakMap<Panel, Map<string, Point[] | null>>()

function shapeOf(...[panel, part, margins, stretch]: Parameters<typeof pieceOutline>): Point[] | null {
  const outline = outlineOf(panel)
  if (!outline.measured || outline.path.length < 3) return null
  const [sx, sy] = [panel.widthMm / outline.widthMm, panel.heightMm / outline.heightMm]
  const most = Math.max(margins.left, margins.top, margins.right, margins.bottom)
  const moved = outline.path.map((p) => ({ x: p.x * sx - part.x + margins.left, y: p.y * sy - part.y + margins.top }))
  return letOut(moved, most, part, margins, stretch)
}
/**
 * The outline of a piece whose flat film was solved, let out by the film left beyond it: `flat` has its box at 0, 0.
 */
export function flatPieceOutline(
  flat: readonly Point[],
  margins: { left: number; top: number; right: number; bottom: number },
  stretch: { x: number; y: number },
): Point[] | null {
  const [width, height] = [Math.max(...flat.map((p) => p.x)), Math.max(...flat.map((p) => p.y))]
  const most = Math.max(margins.left, margins.top, margins.right, margins.bottom)
  return letOut(
    flat.map((p) => ({ x: p.x + margins.left, y: p.y + margins.top })),
    most,
    { width, height },
    margins,
    stretch,
  )
}
function letOut(
  path: Point[],
  most: number,
  part: { width: number; height: number },
  margins: { left: number; top: number; right: number; bottom: number },
  stretch: { x: number; y: number },
): Point[] | null {
  const wide = outset(path, most)
  if (!wide) return null
  const [w, h] = [part.width + margins.left + margins.right, part.height + margins.top + margins.bottom]
  const box = [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: h },
    { x: 0, y: h },
  ]
  const cut = common(wide, box).path
  return cut ? clockwise(cut.map((p) => ({ x: p.x * stretch.x, y: p.y * stretch.y }))) : null
}
const clockwise = (points: Point[]): Point[] => (polygonAreaMm2(points) < 0 ? [...points].reverse() : points)

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

/** Less common area than this is touching, mm². */
const TOUCH_MM2 = 0.5

/** Whether two outlines come nearer than `gap`. */
export function clash(a: readonly Point[], b: readonly Point[], gapMm: number): boolean {
  const wide = gapMm > 0.02 ? (outset(a, gapMm - 0.02, { round: true }) ?? a) : a
  return common(wide, b).areaMm2 > TOUCH_MM2
}
