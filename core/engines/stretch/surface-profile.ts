import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import type { Panel, Recess } from '../../model/vehicle/schema'

export interface OnProfile {
  along: number
  rise: number
  /** Lean of the surface there, radians. */
  slope: number
}

export interface Fold {
  at: number
  radius: number
  turn: number
}

/**
 * A curve of a set length by its bend: the crown all along, a roll-over at either end, folds. Lengths along it are
 * kept; flat and at 0 in its middle.
 */
export function profile(
  length: number,
  radius: number,
  first: Roll | null,
  last: Roll | null,
  folds: readonly Fold[],
): (s: number) => OnProfile {
  const bend = radius > 0 ? 1 / radius : 0
  const [a, b] = [lengthOf(first), lengthOf(last)]
  /** Lean reached from the start, whole bends counted however sharp they are. */
  const turned = (s: number): number =>
    (first ? Math.min(s, a) / first.radiusMm : 0) +
    bend * Math.max(0, Math.min(s, length - b) - a) +
    (last ? Math.max(0, s - (length - b)) / last.radiusMm : 0) +
    folds.reduce((sum, f) => {
      const half = (f.radius * Math.abs(f.turn)) / 2
      return sum + f.turn * Math.max(0, Math.min(1, (s - f.at + half) / (2 * half)))
    }, 0)
  const step = length / PROFILE_STEPS
  const middle = PROFILE_STEPS / 2
  const level = turned(length / 2)
  const slope = (s: number) => turned(s) - level
  const along = new Float64Array(PROFILE_STEPS + 1)
  const rise = new Float64Array(PROFILE_STEPS + 1)
  for (const sense of [1, -1])
    for (let i = middle; i + sense >= 0 && i + sense <= PROFILE_STEPS; i += sense) {
      const lean = slope((i + sense / 2) * step)
      along[i + sense] = nth(along, i) + sense * step * Math.cos(lean)
      rise[i + sense] = nth(rise, i) - sense * step * Math.sin(lean)
    }
  return (s) => {
    const at = Math.max(0, Math.min(PROFILE_STEPS, s / step))
    const i = Math.min(PROFILE_STEPS - 1, Math.floor(at))
    const f = at - i
    const mix = (list: Float64Array) => nth(list, i) * (1 - f) + nth(list, i + 1) * f
    return { along: mix(along), rise: mix(rise), slope: slope(at * step) }
  }
}

/** Normal of a surface that leans by a across and by b down. */
export function upNormal(a: number, b: number): [number, number, number] {
  const [x, y, z] = [Math.tan(a), -Math.tan(b), 1]
  const l = Math.hypot(x, y, z)
  return [x / l, y / l, z / l]
}

/** How far within a box with rounded corners a place lies, mm; an open side has no wall. */
export function insetOf(x: number, y: number, halfW: number, halfH: number, opens: (side: Side) => boolean): number {
  const one = (d: number, half: number, low: Side, high: Side) =>
    (d < 0 && opens(low)) || (d > 0 && opens(high)) ? half : half - Math.abs(d)
  const [dx, dy] = [one(x, halfW, 'left', 'right'), one(y, halfH, 'top', 'bottom')]
  const corner = (2 * Math.min(halfW, halfH)) / 3
  return dx < corner && dy < corner ? corner - Math.hypot(corner - dx, corner - dy) : Math.min(dx, dy)
}

export const blended = (t: number): number => {
  const s = Math.max(0, Math.min(1, t))
  return s * s * (3 - 2 * s)
}

export const runOf = (r: Recess): number => r.depthMm / Math.tan(rad(Math.min(STEEPEST_DEG, r.wallDeg)))
export const centre = (panel: Panel, o: { xMm: number | null; yMm: number | null }): [number, number] => [
  o.xMm ?? panel.widthMm / 2,
  o.yMm ?? panel.heightMm / 2,
]

/** How deep a recess is at a place: its floor, walls of the taped slope, bends rounded by the taped radius. */
export function depthAt(r: Recess, panel: Panel, p: Point): number {
  const [cx, cy] = centre(panel, r)
  const inside = insetOf(p.x - cx, p.y - cy, r.mouthWidthMm / 2, r.mouthHeightMm / 2, (s) => r.open && r.openAt === s)
  return r.depthMm * blended(inside / Math.max(runOf(r), r.bendRadiusMm ?? 0, 1))
}

/** How far the panel is raised at a place by what stays on it and is wrapped over. */
export const risen = (panel: Panel, p: Point): number =>
  panel.raised.reduce((s, o) => {
    if (o.removable || o.riseMm === null || o.riseMm === 0) return s
    const [cx, cy] = centre(panel, o)
    return s + o.riseMm * blended(insetOf(p.x - cx, p.y - cy, o.widthMm / 2, o.heightMm / 2, () => false) / shoulder(o))
  }, 0)

/** Width over which a raised object rises: as steep as a wall may be, no wider than it has room. */
export const shoulder = (o: Panel['raised'][number]): number =>
  Math.min(Math.max(o.riseMm ?? 0, 2), Math.min(o.widthMm, o.heightMm) / 2)
export function foldLines(panel: Panel): [Point, Point][] {
  return panel.bodyLines.flatMap((l): [Point, Point][] => {
    if (l.foldDeg === 0) return []
    return l.along === 'width'
      ? [
          [
            { x: 0, y: l.atMm },
            { x: panel.widthMm, y: l.atMm },
          ],
        ]
      : [
          [
            { x: l.atMm, y: 0 },
            { x: l.atMm, y: panel.heightMm },
          ],
        ]
  })
}

export type Roll = { radiusMm: number; angleDeg: number }
export const lengthOf = (r: Roll | null): number => (r ? r.radiusMm * rad(r.angleDeg) : 0)
/** Steps in which a profile is walked: fine against any radius that a panel has. */
export const PROFILE_STEPS = 2000
export type Side = 'left' | 'right' | 'top' | 'bottom'
/** Walls steeper than this cannot be a height over the panel; they are taken as this steep. */
export const STEEPEST_DEG = 80
export const rad = (deg: number): number => (deg * Math.PI) / 180
