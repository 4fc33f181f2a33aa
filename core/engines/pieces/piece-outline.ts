import { polygonAreaMm2, type Point } from '../../kit/plane'
import { common, outset } from '../../kit/polygon'
import { outlineOf } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'
import type { Margins, PieceOutlines } from './piece'

/**
 * The outline of a piece as it is cut, in its own frame: origin at the top left of its cut rectangle, x right, y down
 * as the panel is looked at. The panel's measured outline, let out by the film left beyond it, within the cut
 * rectangle; null where the panel's outline was not taken. `part`: where the piece's own part of the panel begins;
 * `margins`: film beyond it left, top, right and bottom; `stretch`: what relaxing takes back, along x and y.
 */
function pieceOutline(
  panel: Panel,
  part: { x: number; y: number; width: number; height: number },
  margins: Margins,
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
function flatPieceOutline(flat: readonly Point[], margins: Margins, stretch: { x: number; y: number }): Point[] | null {
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
  margins: Margins,
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

/** Outlines cut by the clipper. */
export const PIECE_OUTLINES: PieceOutlines = { measured: pieceOutline, flat: flatPieceOutline }
