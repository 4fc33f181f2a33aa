import { nth, mustGet } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Box } from '../../kit/plane'
import type { Result } from '../../kit/result'
import type { Plan } from '../../model/plan/schema'
import { skinOf, toSkin } from '../skin/skin'
import { type SkinPanel } from '../skin/skin-panel'
import { dropPlan, type DropPlan, type DropFault } from './drops'
import { boxFrom, zonesOf, type NamedZone, type Placed, type See, type SideFrame } from './seam-zones'

export interface SideDrops {
  side: 'left' | 'right'
  /** `upright`: strips stand side by side from front to rear; `level`: they lie one over the other. */
  run: 'upright' | 'level'
  sideMm: number
  heightMm: number
  panels: { id: string; name: string; fromMm: number; toMm: number; topMm: number; bottomMm: number }[]
  /** Where no seam goes, along the run of the strips. */
  zones: NamedZone[]
  lettering: Plan['layout']['drops']['lettering']
  /** Its panels name no neighbours, so that they are taken to stand in the order in which they were measured. */
  loose: boolean
  plan: Result<DropPlan, DropFault>
}

/** The narrowest drop worth handling, mm; common practice, no source. */
const LEAST_DROP_MM = 150

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
    const runs = (['upright', 'level'] as const)
      .filter((run) => plan.layout.drops.run === 'fewest' || plan.layout.drops.run === run)
      .map((run) => oneSide({ plan, film, side, run, main, at }))
    // Fewer drops first, then less film; what has no plan stands last.
    const rank = (d: SideDrops) => (d.plan.ok ? d.plan.value.drops.length * 1e6 + d.plan.value.filmMm : Infinity)
    return [
      nth(
        runs.sort((a, b) => rank(a) - rank(b)),
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
