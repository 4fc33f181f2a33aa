import type { FilmSheet } from '../film/schema'
import type { Result } from '../kit/result'
import type { Plan } from '../plan/schema'
import { skinOf, toSkin } from '../vehicle/skin'
import { dropPlan, type DropPlan, type SeamZone } from './drops'

export interface SideDrops {
  side: 'left' | 'right'
  sideMm: number
  heightMm: number
  panels: { id: string; name: string; fromMm: number; toMm: number }[]
  zones: (SeamZone & { name: string })[]
  plan: Result<DropPlan>
}
/** The narrowest drop worth handling, mm; common practice, no source. */
const LEAST_DROP_MM = 150

/**
 * Each side of the vehicle that is wrapped in a print, as one strip from front to rear on the skin: its drops, with seams
 * kept from handles, recesses, raised objects and the gaps between panels.
 */
export function sideDrops(plan: Plan, film: FilmSheet): SideDrops[] {
  const wrapped = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId) === film.id)
  const skin = skinOf(plan.panels)
  const at = new Map(skin.panels.map((p) => [p.id, p]))
  const { drops } = plan.layout
  const printableMm = drops.printableMm ?? Math.max(...film.widthsMm) - 2 * plan.layout.trimMm
  return (['left', 'right'] as const).flatMap((side) => {
    const main = wrapped.filter((p) => p.side === side && at.get(p.id)?.on === null)
    if (main.length === 0) return []
    const boxes = main.flatMap((panel) => {
      const s = at.get(panel.id)
      return s ? [{ panel, s, box: s.box }] : []
    })
    const front = Math.min(...boxes.map((b) => b.box.left))
    const rear = Math.max(...boxes.map((b) => b.box.right))
    const top = Math.min(...boxes.map((b) => b.box.top))
    const bottom = Math.max(...boxes.map((b) => b.box.bottom))
    const zones: SideDrops['zones'] = []
    const never = (name: string, from: number, to: number) =>
      zones.push({ name, fromMm: from - front, toMm: to - front, weight: 'never' })
    for (const { panel, s, box } of boxes) {
      if (box.left > front + 1) never(`gap before ${panel.name}`, box.left, box.left)
      if (box.right < rear - 1) never(`gap after ${panel.name}`, box.right, box.right)
      const across = (name: string, x: number, width: number) => {
        const ends = [toSkin(s, panel, x, 0).x, toSkin(s, panel, x + width, 0).x]
        never(`${name} of ${panel.name}`, Math.min(...ends), Math.max(...ends))
      }
      for (const r of panel.recesses) across(r.name, r.xMm ?? (panel.widthMm - r.mouthWidthMm) / 2, r.mouthWidthMm)
      for (const r of panel.raised) if (r.xMm !== null) across(r.name, r.xMm, r.widthMm)
    }
    for (const part of plan.panels) {
      const s = at.get(part.id)
      if (part.side === side && s?.on) never(part.name, s.box.left, s.box.right)
    }
    return [
      {
        side, sideMm: rear - front, heightMm: bottom - top,
        panels: boxes.map(({ panel, box }) => ({ id: panel.id, name: panel.name, fromMm: box.left - front, toMm: box.right - front })).sort((a, b) => a.fromMm - b.fromMm),
        zones,
        plan: dropPlan({ sideMm: rear - front, heightMm: bottom - top, printableMm, overlapMm: film.overlapMm, bleedMm: drops.bleedMm, zones, distanceMm: drops.distanceMm, leastMm: LEAST_DROP_MM }),
      },
    ] // prettier-ignore
  })
}
