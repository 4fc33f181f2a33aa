import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import type { Fault } from '../../kit/result'
import type { Panel } from '../../model/vehicle/schema'
import {
  centre,
  depthAt,
  foldLines,
  lengthOf,
  profile,
  rad,
  risen,
  Roll,
  runOf,
  shoulder,
  Side,
  STEEPEST_DEG,
  upNormal,
} from './surface-profile'

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

/** Steps over a bend as a share of its radius. */
const STEP_OF_RADIUS = 0.22
/** A fold with no radius taken is bent over this one, as pressed metal is. Common practice, no source. */
const LEAST_FOLD_MM = 3
/** How far behind its front a panel may reach, as a share of the radius its ends turn round by. */
const DEEPEST_TURN = 0.9
/** Where a panel rolls over both ways by more than this, its ends are swept round, not added up. */
const SWEPT_DEG = 25

/** The roll-over at a side: its nose, or the end that wraps round. */
const rollAt = (panel: Panel, at: Side): Roll | null =>
  panel.nose?.at === at ? panel.nose : (panel.wraps.find((w) => w.at === at) ?? null)

/**
 * The surface of a taped panel: crown both ways, roll-overs at its sides, folds along body lines, recesses pressed in
 * and objects raised, all along the panel's own normal. Lengths along its middle lines are those of the tape. Where it
 * rolls over both ways its upright section is swept round its plan, as a bumper's is; else both rises add up, as sheet
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

/** Objects that stay on, whose rise was not taken and that cannot be wrapped over: film is cut round them. */
const CUT_ROUND = ['aerial', 'jet', 'lamp', 'sensor', 'fuel_cap'] as const
export const cutRound = (panel: Panel): Panel['raised'] =>
  panel.raised.filter(
    (o) => !o.removable && o.riseMm === null && o.xMm !== null && o.yMm !== null && CUT_ROUND.some((k) => k === o.kind),
  )

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
