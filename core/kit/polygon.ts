import clipper, { type Path } from 'clipper-lib'
import type { Point } from './plane'

/** Points are handed to the clipper as whole hundredths of a millimetre. */
const PER_MM = 100
/** Corners are mitred up to this many times the offset, then cut square. */
const MITER = 4
/** How far a rounded corner may leave its arc, in hundredths of a millimetre. */
const ARC_TOLERANCE = 50

const to = (points: readonly Point[]): Path =>
  points.map((p) => ({ X: Math.round(p.x * PER_MM), Y: Math.round(p.y * PER_MM) }))
const back = (path: Path): Point[] => path.map((p) => ({ x: p.X / PER_MM, y: p.Y / PER_MM }))
const largest = (paths: Path[]): Path | null => {
  let best: Path | null = null
  for (const path of paths)
    if (!best || Math.abs(clipper.Clipper.Area(path)) > Math.abs(clipper.Clipper.Area(best))) best = path
  return best
}

/** A closed outline moved outward by `mm` on every side; its outer path. Null where nothing is left of it. */
export function outset(
  points: readonly Point[],
  mm: number,
  { round = false }: { round?: boolean } = {},
): Point[] | null {
  const offset = new clipper.ClipperOffset(MITER, ARC_TOLERANCE)
  offset.AddPath(
    to(points),
    round ? clipper.JoinType.jtRound : clipper.JoinType.jtMiter,
    clipper.EndType.etClosedPolygon,
  )
  const out: Path[] = []
  offset.Execute(out, mm * PER_MM)
  const path = largest(out)
  return path && path.length >= 3 ? back(clipper.Clipper.CleanPolygon(path, 2)) : null
}

/** What two outlines have in common: the largest part of it, and the area of all of it in mm². */
export function common(a: readonly Point[], b: readonly Point[]): { path: Point[] | null; areaMm2: number } {
  const op = new clipper.Clipper()
  op.AddPath(to(a), clipper.PolyType.ptSubject, true)
  op.AddPath(to(b), clipper.PolyType.ptClip, true)
  const out: Path[] = []
  op.Execute(clipper.ClipType.ctIntersection, out, clipper.PolyFillType.pftNonZero, clipper.PolyFillType.pftNonZero)
  const path = largest(out)
  return {
    path: path && path.length >= 3 ? back(path) : null,
    areaMm2: Math.abs(out.reduce((sum, p) => sum + clipper.Clipper.Area(p), 0)) / PER_MM ** 2,
  }
}
