import { arcPoints, type Point } from '../../kit/plane'
import { outlineOf } from '../../model/vehicle/outline'
import type { Edge, Panel } from '../../model/vehicle/schema'

/** What film stands over that has to go before the liner comes off. Common practice, no source. */
const ROUGH_AT: readonly Edge['meets'][] = ['wheel_arch', 'lamp', 'glass']
/** So much is left beyond the edge, within the 50 to 100 mm of common practice. [mm] */
export const ROUGH_LEAVE_MM = 75
/** A strip narrower than this is left to the trimming. [mm] */
const WORTH_MM = 30

export interface RoughCut {
  edgeId: string
  meets: Edge['meets']
  /** In the panel's own plane, as its outline is. mm */
  line: Point[]
}

/**
 * Lines on the piece along which it is cut roughly with its liner on: beside wheels, lamps and glass, wherever the piece
 * stands over by more than what is left and a strip worth cutting. `bleedMm`: film beyond the panel's box.
 */
export function roughCuts(panel: Panel, bleedMm: number): RoughCut[] {
  const outline = outlineOf(panel)
  const isOnPiece = (p: Point): boolean =>
    p.x >= WORTH_MM - bleedMm &&
    p.y >= WORTH_MM - bleedMm &&
    p.x <= outline.widthMm + bleedMm - WORTH_MM &&
    p.y <= outline.heightMm + bleedMm - WORTH_MM
  return outline.edges.flatMap(({ edge, from, to }): RoughCut[] => {
    if (!ROUGH_AT.includes(edge.meets)) return []
    const points = [from, ...arcPoints(from, to, edge.riseMm)]
    const line = longestRun(
      points.map((p, i) => outwards(points, p, i)),
      isOnPiece,
    )
    return line.length < 2 ? [] : [{ edgeId: edge.id, meets: edge.meets, line }]
  })
}

/** A point of the edge, moved out by what is left. Edges run clockwise: out is to the left of them. */
function outwards(points: readonly Point[], p: Point, i: number): Point {
  const [a, b] = [points[Math.max(0, i - 1)] ?? p, points[Math.min(points.length - 1, i + 1)] ?? p]
  const long = Math.hypot(b.x - a.x, b.y - a.y) || 1
  return { x: p.x + ((b.y - a.y) / long) * ROUGH_LEAVE_MM, y: p.y - ((b.x - a.x) / long) * ROUGH_LEAVE_MM }
}

function longestRun(points: readonly Point[], isKept: (p: Point) => boolean): Point[] {
  let best: Point[] = []
  let run: Point[] = []
  for (const p of points) {
    run = isKept(p) ? [...run, p] : []
    if (run.length > best.length) best = run
  }
  return best
}
