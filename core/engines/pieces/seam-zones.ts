import { mustGet } from '../../kit/known'
import type { Box, Point } from '../../kit/plane'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { toSkin } from '../skin/skin'
import type { SkinPanel } from '../skin/skin-panel'
import type { SeamZone } from './drops'

export interface Placed {
  panel: Panel
  s: SkinPanel
}

interface Span {
  name: string
  x: [number, number]
  y: [number, number]
}

export type See = (p: Point) => Point
/** A stretch without seams, and whose it is. */
export type NamedZone = SeamZone & { name: string }

/** Where no seam goes, along the run of the strips: lettering, what stands on panels, and gaps. */
export function zonesOf({
  plan,
  lettering,
  run,
  at,
  frame,
}: {
  plan: Plan
  lettering: Plan['layout']['drops']['lettering']
  run: 'upright' | 'level'
  at: ReadonlyMap<string, SkinPanel>
  frame: SideFrame
}): NamedZone[] {
  const { main, loose } = frame
  const spans = [
    ...lettering.map((l): Span => ({
      name: l.name,
      x: [l.fromFrontMm, l.fromFrontMm + l.widthMm],
      y: [l.fromTopMm, l.fromTopMm + l.heightMm],
    })),
    ...main.flatMap((placed) => spansOn(placed, frame)),
    ...(loose ? [] : partsOn(plan.panels, at, frame)),
  ]
  const axis = run === 'upright' ? 'x' : 'y'
  return [
    ...spans.map((z) => ({ name: z.name, fromMm: z[axis][0], toMm: z[axis][1], weight: 'never' as const })),
    ...gapsOf(run, frame),
  ]
}

/** The panels of a side beside each other, from its front and top. */
export interface SideFrame {
  side: 'left' | 'right'
  main: readonly Placed[]
  boxes: ReadonlyMap<string, Box>
  /** Set out in rows, not tied together. */
  loose: boolean
  see: See
  front: number
  rear: number
  top: number
  bottom: number
}

/** Recesses and what stands out of a panel: no seam runs there. */
function spansOn({ panel, s }: Placed, { side, boxes, loose, see, front, top }: SideFrame): Span[] {
  const box = mustGet(boxes, panel.id)
  const local = (px: number, py: number): Point =>
    loose ? { x: side === 'right' ? box.right - px : box.left + px, y: box.top + py } : see(toSkin(s, panel, px, py))
  const span = (name: string, middle: Point, width: number, height: number): Span => {
    const [a, b] = [
      local(middle.x - width / 2, middle.y - height / 2),
      local(middle.x + width / 2, middle.y + height / 2),
    ]
    return {
      name: `${name} of ${panel.name}`,
      x: [Math.min(a.x, b.x) - front, Math.max(a.x, b.x) - front],
      y: [Math.min(a.y, b.y) - top, Math.max(a.y, b.y) - top],
    }
  }
  const middle = (o: { xMm: number | null; yMm: number | null }): Point => ({
    x: o.xMm ?? panel.widthMm / 2,
    y: o.yMm ?? panel.heightMm / 2,
  })
  return [
    ...panel.recesses.map((r) => span(r.name, middle(r), r.mouthWidthMm, r.mouthHeightMm)),
    ...panel.raised.flatMap((r) => (r.xMm === null ? [] : [span(r.name, middle(r), r.widthMm, r.heightMm)])),
  ]
}

/** Small parts that sit on the panels of this side. */
const partsOn = (
  panels: readonly Panel[],
  at: ReadonlyMap<string, SkinPanel>,
  { side, see, front, top }: SideFrame,
): Span[] =>
  panels.flatMap((part) => {
    const s = at.get(part.id)
    const box = s && boxFrom(s, see)
    return part.side === side && s?.on && box
      ? [{ name: part.name, x: [box.left - front, box.right - front], y: [box.top - top, box.bottom - top] }]
      : []
  })

/** Where one panel ends and the next begins, but for the ends of the side. */
function gapsOf(run: 'upright' | 'level', { main, boxes, front, rear, top, bottom }: SideFrame): NamedZone[] {
  return main.flatMap(({ panel }) => {
    const box = mustGet(boxes, panel.id)
    const [begin, end, first, last] =
      run === 'upright' ? [box.left, box.right, front, rear] : [box.top, box.bottom, top, bottom]
    const never = (name: string, mm: number) => ({
      name,
      fromMm: mm - first,
      toMm: mm - first,
      weight: 'never' as const,
    })
    return [
      ...(begin > first + 1 ? [never(`gap before ${panel.name}`, begin)] : []),
      ...(end < last - 1 ? [never(`gap after ${panel.name}`, end)] : []),
    ]
  })
}

export function boxFrom(s: SkinPanel, see: See): Box {
  const corners = [see({ x: s.box.left, y: s.box.top }), see({ x: s.box.right, y: s.box.bottom })] as const
  return {
    left: Math.min(corners[0].x, corners[1].x),
    right: Math.max(corners[0].x, corners[1].x),
    top: Math.min(corners[0].y, corners[1].y),
    bottom: Math.max(corners[0].y, corners[1].y),
  }
}
