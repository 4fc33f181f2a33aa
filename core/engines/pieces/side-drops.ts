import { nth, mustGet } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Box, Point } from '../../kit/plane'
import type { Result } from '../../kit/result'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { skinOf, toSkin } from '../skin/skin'
import { type SkinPanel } from '../skin/skin-panel'
import { dropPlan, type DropPlan, type SeamZone } from './drops'

export interface SideDrops {
  side: 'left' | 'right'
  /** `upright`: strips stand side by side from front to rear; `level`: they lie one over the other. */
  run: 'upright' | 'level'
  sideMm: number
  heightMm: number
  panels: { id: string; name: string; fromMm: number; toMm: number; topMm: number; bottomMm: number }[]
  /** Where no seam goes, along the way the strips follow one another. */
  zones: (SeamZone & { name: string })[]
  lettering: Plan['layout']['drops']['lettering']
  /** Its panels name no neighbours, so that they are taken to stand in the order in which they were measured. */
  loose: boolean
  plan: Result<DropPlan>
}

/** The narrowest drop worth handling, mm; common practice, no source. */
const LEAST_DROP_MM = 150

interface Placed {
  panel: Panel
  s: SkinPanel
}

interface Span {
  name: string
  x: [number, number]
  y: [number, number]
}

/**
 * Each side of the vehicle that is wrapped in a print, as one strip from front to rear on the skin: its drops, standing
 * or lying, with seams kept from handles, recesses, raised objects, lettering and the gaps between panels.
 */
export function sideDrops(plan: Plan, film: FilmSheet): SideDrops[] {
  const key = JSON.stringify([
    plan.layout.drops,
    plan.layout.trimMm,
    film.id,
    film.widthsMm,
    film.overlapMm,
    plan.film.mainId,
  ])
  const known = last.get(plan.panels)
  if (known?.key === key) return known.drops
  const drops = compute(plan, film)
  last.set(plan.panels, { key, drops })
  return drops
}

/** Panels are never changed in place, so drops hold as long as they and their settings do. */
const last = new WeakMap<Plan['panels'], { key: string; drops: SideDrops[] }>()

function compute(plan: Plan, film: FilmSheet): SideDrops[] {
  const wrapped = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId) === film.id)
  const skin = skinOf(plan.panels)
  const at = new Map(skin.panels.map((p) => [p.id, p]))
  return (['left', 'right'] as const).flatMap((side) => {
    const main = wrapped.flatMap((panel): Placed[] => {
      const s = at.get(panel.id)
      return panel.side === side && s && s.on === null ? [{ panel, s }] : []
    })
    if (main.length === 0) return []
    const ways = (['upright', 'level'] as const)
      .filter((run) => plan.layout.drops.run === 'fewest' || plan.layout.drops.run === run)
      .map((run) => oneSide({ plan, film, side, run, main, at }))
    // Fewer drops first, then less film; what has no plan stands last.
    const rank = (d: SideDrops) => (d.plan.ok ? d.plan.value.drops.length * 1e6 + d.plan.value.filmMm : Infinity)
    return [
      nth(
        ways.sort((a, b) => rank(a) - rank(b)),
        0,
      ),
    ]
  })
}

function oneSide({
  plan,
  film,
  side,
  run,
  main,
  at,
}: {
  plan: Plan
  film: FilmSheet
  side: 'left' | 'right'
  run: 'upright' | 'level'
  main: readonly Placed[]
  at: ReadonlyMap<string, SkinPanel>
}): SideDrops {
  const { drops } = plan.layout
  const printableMm = drops.printableMm ?? Math.max(...film.widthsMm) - 2 * plan.layout.trimMm
  const see = fromFront(side, nth(main, 0))
  const { boxes, loose } = standing(main, see)
  const all = [...boxes.values()]
  const [front, rear] = [Math.min(...all.map((b) => b.left)), Math.max(...all.map((b) => b.right))]
  const [top, bottom] = [Math.min(...all.map((b) => b.top)), Math.max(...all.map((b) => b.bottom))]
  const [sideMm, heightMm] = [rear - front, bottom - top]
  const lettering = drops.lettering.filter((l) => l.side === side)
  const frame: SideFrame = { side, main, boxes, loose, see, front, rear, top, bottom }
  const zones = zonesOf({ plan, lettering, run, at, frame })
  const [alongMm, acrossMm] = run === 'upright' ? [sideMm, heightMm] : [heightMm, sideMm]
  return {
    side,
    run,
    sideMm,
    heightMm,
    zones,
    lettering,
    loose,
    panels: main
      .map(({ panel }) => ({ id: panel.id, name: panel.name, box: mustGet(boxes, panel.id) }))
      .map(({ box, ...p }) => ({
        ...p,
        fromMm: box.left - front,
        toMm: box.right - front,
        topMm: box.top - top,
        bottomMm: box.bottom - top,
      }))
      .sort((a, b) => a.fromMm - b.fromMm),
    plan: dropPlan({
      sideMm: alongMm,
      heightMm: acrossMm,
      printableMm,
      overlapMm: film.overlapMm,
      bleedMm: drops.bleedMm,
      zones,
      distanceMm: drops.distanceMm,
      leastMm: LEAST_DROP_MM,
      profile: profileOf(all, run, alongMm, front, top),
    }),
  }
}

/** Where no seam goes, along the way the strips follow one another: lettering, what stands on panels, and gaps. */
function zonesOf({
  plan,
  lettering,
  run,
  at,
  frame,
}: {
  plan: Plan
  lettering: SideDrops['lettering']
  run: SideDrops['run']
  at: ReadonlyMap<string, SkinPanel>
  frame: SideFrame
}): SideDrops['zones'] {
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
interface SideFrame {
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
function gapsOf(run: 'upright' | 'level', { main, boxes, front, rear, top, bottom }: SideFrame): SideDrops['zones'] {
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

type See = (p: Point) => Point
/** Taller than the tallest panel by this, the panels of a side are not tied together but set out in rows. */
const ROWS_FROM = 1.6

/** Where the panels of a side stand: as they are tied on the skin, else one after the other, standing on one line. */
function standing(main: readonly Placed[], see: See): { boxes: Map<string, Box>; loose: boolean } {
  const boxes = new Map(main.map(({ panel, s }) => [panel.id, boxFrom(s, see)]))
  const all = [...boxes.values()]
  const tall = Math.max(...main.map(({ panel }) => panel.heightMm))
  const height = Math.max(...all.map((b) => b.bottom)) - Math.min(...all.map((b) => b.top))
  if (height <= ROWS_FROM * tall) return { boxes, loose: false }
  let at = 0
  return {
    loose: true,
    boxes: new Map(
      main.map(({ panel }) => {
        const left = at
        at += panel.widthMm
        return [panel.id, { left, right: at, top: tall - panel.heightMm, bottom: tall }]
      }),
    ),
  }
}

/**
 * Skin places as the side is walked along: x from the front to the rear, y from the top down, whichever way the skin
 * has it.
 */
function fromFront(side: 'left' | 'right', { panel, s }: Placed): See {
  const [o, a, b] = [toSkin(s, panel, 0, 0), toSkin(s, panel, 100, 0), toSkin(s, panel, 0, 100)]
  // Looked at from outside, the front of a right side is on the right.
  const turn = side === 'right' ? -1 : 1
  const [ux, uy] = [((a.x - o.x) * turn) / 100, ((a.y - o.y) * turn) / 100]
  const [vx, vy] = [(b.x - o.x) / 100, (b.y - o.y) / 100]
  return (p) => ({ x: p.x * ux + p.y * uy, y: p.x * vx + p.y * vy })
}

function boxFrom(s: SkinPanel, see: See): Box {
  const corners = [see({ x: s.box.left, y: s.box.top }), see({ x: s.box.right, y: s.box.bottom })] as const
  return {
    left: Math.min(corners[0].x, corners[1].x),
    right: Math.max(corners[0].x, corners[1].x),
    top: Math.min(corners[0].y, corners[1].y),
    bottom: Math.max(corners[0].y, corners[1].y),
  }
}

/** How far the side reaches across at each millimetre along it; where no panel is, what lies next to it. */
function profileOf(
  boxes: readonly Box[],
  run: 'upright' | 'level',
  alongMm: number,
  front: number,
  top: number,
): { fromMm: Float64Array; toMm: Float64Array } {
  const n = Math.round(alongMm) + 1
  const fromMm = new Float64Array(n).fill(Infinity)
  const toMm = new Float64Array(n).fill(-Infinity)
  for (const b of boxes) {
    const [begin, end, low, high] =
      run === 'upright'
        ? [b.left - front, b.right - front, b.top - top, b.bottom - top]
        : [b.top - top, b.bottom - top, b.left - front, b.right - front]
    for (let x = Math.max(0, Math.floor(begin)); x <= Math.min(n - 1, Math.ceil(end)); x++) {
      fromMm[x] = Math.min(nth(fromMm, x), low)
      toMm[x] = Math.max(nth(toMm, x), high)
    }
  }
  return { fromMm, toMm }
}
