import type { Point } from '../../kit/plane'
import { Skin } from './skin'
import { SkinPanel } from './skin-panel'

export type StepDirection = 'up' | 'down' | 'left' | 'right'
export const STEP: Record<StepDirection, Point> = {
  up: { x: 0, y: -1 },
  down: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
}

/**
 * The panel across the edge on that side: the neighbour that the edge names, else the nearest in that direction on the
 * map.
 */
export function panelAcross(skin: Skin, id: string, toward: StepDirection): string | null {
  const from = skin.panels.find((p) => p.id === id)
  if (!from) return skin.panels[0]?.id ?? null
  const ids = new Set(skin.panels.map((p) => p.id))
  const d = STEP[toward]
  const apart = (other: string | null): number => {
    const to = skin.panels.find((p) => p.id === other)?.box
    if (!to) return Infinity
    const across =
      d.x === 0
        ? d.y > 0
          ? to.top - from.box.bottom
          : from.box.top - to.bottom
        : d.x > 0
          ? to.left - from.box.right
          : from.box.left - to.right
    return Math.max(0, Math.round(across / 80))
  }
  const edge = from.edges
    .filter((e) => e.neighbour && ids.has(e.neighbour) && e.normal.x * d.x + e.normal.y * d.y > 0.7)
    // The one that lies closer first (a pillar before the roof behind it), then the one along the longer run.
    .sort((a, b) => apart(a.neighbour) - apart(b.neighbour) || b.lengthMm - a.lengthMm)[0]
  if (edge?.neighbour) return edge.neighbour
  const c = (p: SkinPanel): Point => ({ x: (p.box.left + p.box.right) / 2, y: (p.box.top + p.box.bottom) / 2 })
  const here = c(from)
  const near = skin.panels
    .filter((p) => p.id !== id)
    .map((p) => {
      const to = c(p)
      const along = (to.x - here.x) * d.x + (to.y - here.y) * d.y
      const aside = Math.abs((to.x - here.x) * d.y) + Math.abs((to.y - here.y) * d.x)
      return { id: p.id, along, cost: along + 2 * aside }
    })
    .filter((p) => p.along > 1 && p.cost < 3.5 * p.along)
    .sort((a, b) => a.cost - b.cost)
  return near[0]?.id ?? null
}
