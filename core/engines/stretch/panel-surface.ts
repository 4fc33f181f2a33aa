import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import type { Fault } from '../../kit/result'
import type { Panel, Recess } from '../../model/vehicle/schema'

/**
 * Where a place of the taped panel lies in space, mm: x to the right, y up, z towards the eye; and the outward normal
 * there.
 */
export interface OnSurface {
  at: [number, number, number]
  normal: [number, number, number]
}
/** A part of the panel that bends sharply, mm from its top left, and the step that follows the bend. */
export interface Bend {
  x0: number
  y0: number
  x1: number
  y1: number
  step: number
}
export interface PanelSurface {
  on: (p: Point) => OnSurface
  bends: Bend[]
  /** Places along which the panel is folded, as straight lines across it. */
  folds: [Point, Point][]
}

/** Steps in which a profile is walked: fine against any radius that a panel has. */
const PROFILE_STEPS = 2000
/** Steps over a bend as a share of its radius. */
const STEP_OF_RADIUS = 0.22
/** Walls steeper than this cannot be a height over the panel; they are taken as this steep. */
const STEEPEST_DEG = 80
/** A fold with no radius taken is bent over this one, as pressed metal is. Common practice, no source. */
const LEAST_FOLD_MM = 3
/** How far behind its front a panel may reach, as a share of the radius its ends turn round by. */
const DEEPEST_TURN = 0.9
/** Where a panel rolls over both ways by more than this, its ends are swept round, not added up. */
const SWEPT_DEG = 25

type Roll = { radiusMm: number; angleDeg: number }
type Side = 'left' | 'right' | 'top' | 'bottom'
const rad = (deg: number): number => (deg * Math.PI) / 180
const lengthOf = (r: Roll | null): number => (r ? r.radiusMm * rad(r.angleDeg) : 0)
/** The roll-over at a side: its nose, or the end that wraps round. */
const rollAt = (panel: Panel, at: Side): Roll | null =>
  panel.nose?.at === at ? panel.nose : (panel.wraps.find((w) => w.at === at) ?? null)

/**
 * The surface of a taped panel: crown both ways, roll-overs at its sides, folds along body lines, recesses pressed in
 * and
 * objects raised, all along the panel's own normal. Lengths along its middle lines are those of the tape. Where it
 * rolls
 * over both ways its upright section is swept round its plan, as a bumper's is; else both rises add up, as sheet
 * metal's do.
 */
export function panelSurface(panel: Panel): PanelSurface {
  const { widthMm: W, heightMm: H } = panel
  const folds = (along: 'width' | 'height') =>
    panel.bodyLines.flatMap((l) =>
      l.along === along && l.foldDeg !== 0
        ? [{ at: l.atMm, radius: Math.max(LEAST_FOLD_MM, l.radiusMm), turn: rad(l.foldDeg) }]
        : [],
    )
  const across = profile(
    W,
    radiusOf(panel.crownMm, panel.crownOverMm),
    rollAt(panel, 'left'),
    rollAt(panel, 'right'),
    folds('height'),
  )
  const down = profile(H, downRadius(panel), rollAt(panel, 'top'), rollAt(panel, 'bottom'), folds('width'))
  const swept = isSwept(panel)
  const on = (p: Point): OnSurface => {
    const [a, b] = [across(p.x), down(p.y)]
    const deep = panel.recesses.reduce((s, r) => s + depthAt(r, panel, p), 0) - risen(panel, p)
    const [sin, cos] = [Math.sin(a.slope), Math.cos(a.slope)]
    const normal: OnSurface['normal'] = swept
      ? [sin * Math.cos(b.slope), -Math.sin(b.slope), cos * Math.cos(b.slope)]
      : upNormal(a.slope, b.slope)
    const base: OnSurface['at'] = swept
      ? [a.along + b.rise * sin, -b.along, a.rise + b.rise * cos]
      : [a.along, -b.along, a.rise + b.rise]
    return { at: [0, 1, 2].map((i) => nth(base, i) - deep * nth(normal, i)) as OnSurface['at'], normal }
  }
  return { on, bends: bendsOf(panel), folds: foldLines(panel) }
}
function isSwept(panel: Panel): boolean {
  const most = (a: Side, b: Side) => Math.max(rollAt(panel, a)?.angleDeg ?? 0, rollAt(panel, b)?.angleDeg ?? 0)
  return most('left', 'right') > SWEPT_DEG && most('top', 'bottom') + (panel.crownDownMm ?? panel.crownMm) > 0
}

/** Why the figures of a panel make no surface, with the field at fault; null where they do. */
export function impossible(panel: Panel): Fault | null {
  const { widthMm, heightMm } = panel
  for (const [crown, over, at] of [
    [panel.crownMm, panel.crownOverMm, 'crownMm'],
    [panel.crownDownMm ?? 0, panel.crownDownOverMm, 'crownDownMm'],
  ] as const)
    if (crown > 0 && (over <= 0 || crown > over / 2))
      return { code: 'crown_too_deep', at, facts: { crown_mm: crown, over_mm: over } }
  for (const [i, r] of panel.recesses.entries()) {
    const run = r.depthMm / Math.tan(rad(Math.min(STEEPEST_DEG, r.wallDeg)))
    if (r.mouthWidthMm > widthMm || r.mouthHeightMm > heightMm)
      return { code: 'recess_too_wide', at: `recesses[${i}].mouthWidthMm`, facts: { recess: r.name } }
    if ((r.xMm ?? 0) > widthMm || (r.yMm ?? 0) > heightMm)
      return {
        code: 'recess_off_panel',
        at: `recesses[${i}].${(r.xMm ?? 0) > widthMm ? 'xMm' : 'yMm'}`,
        facts: { recess: r.name },
      }
    if (2 * run > Math.min(r.mouthWidthMm, r.mouthHeightMm))
      return { code: 'recess_too_deep', at: `recesses[${i}].depthMm`, facts: { recess: r.name, depth_mm: r.depthMm } }
  }
  for (const [i, r] of panel.raised.entries())
    if ((r.xMm ?? 0) > widthMm || (r.yMm ?? 0) > heightMm)
      return {
        code: 'raised_off_panel',
        at: `raised[${i}].${(r.xMm ?? 0) > widthMm ? 'xMm' : 'yMm'}`,
        facts: { object: r.name },
      }
  for (const [a, b, side, at] of [
    ['left', 'right', widthMm, 'widthMm'],
    ['top', 'bottom', heightMm, 'heightMm'],
  ] as const) {
    const length = lengthOf(rollAt(panel, a)) + lengthOf(rollAt(panel, b))
    if (length > side)
      return {
        code: 'nose_too_long',
        at: panel.nose && (panel.nose.at === a || panel.nose.at === b) ? 'nose' : `wraps.${at}`,
        facts: { length_mm: Math.round(length), side_mm: side },
      }
  }
  for (const [i, l] of panel.bodyLines.entries())
    if (l.foldDeg !== 0 && l.atMm > (l.along === 'width' ? heightMm : widthMm))
      return { code: 'fold_off_panel', at: `bodyLines[${i}].atMm`, facts: { line: l.name } }
  if (isSwept(panel)) {
    const down = profile(heightMm, downRadius(panel), rollAt(panel, 'top'), rollAt(panel, 'bottom'), [])
    const back = Math.max(-down(0).rise, -down(heightMm).rise)
    for (const at of ['left', 'right'] as const) {
      const roll = rollAt(panel, at)
      if (roll && back > DEEPEST_TURN * roll.radiusMm)
        return {
          code: 'turn_too_tight',
          at: 'wraps',
          facts: { side: at, radius_mm: roll.radiusMm, back_mm: Math.round(back) },
        }
    }
  }
  return null
}

/** Radius of an arc from its rise under a straightedge; 0 for flat. */
const radiusOf = (crown: number, over: number): number => (crown > 0 ? (over ** 2 / 4 + crown ** 2) / (2 * crown) : 0)
/** The crown the other way; one that was not taken is held to be alike both ways. */
const downRadius = (panel: Panel): number =>
  panel.crownDownMm === null
    ? radiusOf(panel.crownMm, panel.crownOverMm)
    : radiusOf(panel.crownDownMm, panel.crownDownOverMm)

interface OnProfile {
  along: number
  rise: number
  /** Lean of the surface there, radians. */
  slope: number
}
interface Fold {
  at: number
  radius: number
  turn: number
}
/**
 * A curve of a set length by its bend: the crown all along, a roll-over at either end, folds. Lengths along it are
 * kept; flat and at 0 in its middle.
 */
function profile(
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
  for (const way of [1, -1])
    for (let i = middle; i + way >= 0 && i + way <= PROFILE_STEPS; i += way) {
      const lean = slope((i + way / 2) * step)
      along[i + way] = nth(along, i) + way * step * Math.cos(lean)
      rise[i + way] = nth(rise, i) - way * step * Math.sin(lean)
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
function upNormal(a: number, b: number): [number, number, number] {
  const [x, y, z] = [Math.tan(a), -Math.tan(b), 1]
  const l = Math.hypot(x, y, z)
  return [x / l, y / l, z / l]
}

/** How far within a box with rounded corners a place lies, mm; an open side has no wall. */
function insetOf(x: number, y: number, halfW: number, halfH: number, opens: (side: Side) => boolean): number {
  const one = (d: number, half: number, low: Side, high: Side) =>
    (d < 0 && opens(low)) || (d > 0 && opens(high)) ? half : half - Math.abs(d)
  const [dx, dy] = [one(x, halfW, 'left', 'right'), one(y, halfH, 'top', 'bottom')]
  const corner = (2 * Math.min(halfW, halfH)) / 3
  return dx < corner && dy < corner ? corner - Math.hypot(corner - dx, corner - dy) : Math.min(dx, dy)
}
const blended = (t: number): number => {
  const s = Math.max(0, Math.min(1, t))
  return s * s * (3 - 2 * s)
}
const runOf = (r: Recess): number => r.depthMm / Math.tan(rad(Math.min(STEEPEST_DEG, r.wallDeg)))
const centre = (panel: Panel, o: { xMm: number | null; yMm: number | null }): [number, number] => [
  o.xMm ?? panel.widthMm / 2,
  o.yMm ?? panel.heightMm / 2,
]

/** How deep a recess is at a place: its floor, walls of the taped slope, bends rounded by the taped radius. */
function depthAt(r: Recess, panel: Panel, p: Point): number {
  const [cx, cy] = centre(panel, r)
  const inside = insetOf(p.x - cx, p.y - cy, r.mouthWidthMm / 2, r.mouthHeightMm / 2, (s) => r.open && r.openAt === s)
  return r.depthMm * blended(inside / Math.max(runOf(r), r.bendRadiusMm ?? 0, 1))
}
/** How far the panel is raised at a place by what stays on it and is wrapped over. */
const risen = (panel: Panel, p: Point): number =>
  panel.raised.reduce((s, o) => {
    if (o.removable || o.riseMm === null || o.riseMm === 0) return s
    const [cx, cy] = centre(panel, o)
    return s + o.riseMm * blended(insetOf(p.x - cx, p.y - cy, o.widthMm / 2, o.heightMm / 2, () => false) / shoulder(o))
  }, 0)
/** Width over which a raised object rises: as steep as a wall may be, no wider than it has room. */
const shoulder = (o: Panel['raised'][number]): number =>
  Math.min(Math.max(o.riseMm ?? 0, 2), Math.min(o.widthMm, o.heightMm) / 2)

/** Objects that stay on, whose rise was not taken and that cannot be wrapped over: film is cut round them. */
const CUT_ROUND = ['aerial', 'jet', 'lamp', 'sensor', 'fuel_cap'] as const
export const cutRound = (panel: Panel): Panel['raised'] =>
  panel.raised.filter(
    (o) => !o.removable && o.riseMm === null && o.xMm !== null && o.yMm !== null && CUT_ROUND.some((k) => k === o.kind),
  )

function foldLines(panel: Panel): [Point, Point][] {
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
/** Boxes in which the panel bends sharply, and steps that follow the bend. */
function bendsOf(panel: Panel): Bend[] {
  const { widthMm: W, heightMm: H } = panel
  const box = (o: { xMm: number | null; yMm: number | null }, w: number, h: number, radius: number): Bend => {
    const [x, y, more] = [...centre(panel, o), 10]
    return {
      x0: x - w / 2 - more,
      y0: y - h / 2 - more,
      x1: x + w / 2 + more,
      y1: y + h / 2 + more,
      step: Math.max(2, STEP_OF_RADIUS * radius),
    }
  }
  const out = panel.recesses.map((r) =>
    box(r, r.mouthWidthMm, r.mouthHeightMm, Math.max(runOf(r), r.bendRadiusMm ?? 0, 8)),
  )
  for (const o of panel.raised)
    if (!o.removable && (o.riseMm ?? 0) > 0) out.push(box(o, o.widthMm, o.heightMm, Math.max(8, shoulder(o))))
  for (const at of ['left', 'right', 'top', 'bottom'] as const) {
    const roll = rollAt(panel, at)
    if (!roll) continue
    const long = lengthOf(roll) * 1.1
    out.push({
      x0: at === 'right' ? W - long : 0,
      x1: at === 'left' ? long : W,
      y0: at === 'bottom' ? H - long : 0,
      y1: at === 'top' ? long : H,
      step: Math.max(2, STEP_OF_RADIUS * roll.radiusMm),
    })
  }
  return out
}
