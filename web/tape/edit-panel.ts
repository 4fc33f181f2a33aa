import { newPanel } from '@/core/model/vehicle/new-panel'
import { freeId, slug } from '@/core/kit/ids'
import type { Plan } from '@/core/model/plan/schema'
import { guessPanel } from '@/core/model/vehicle/name-guess'
import type { Panel } from '@/core/model/vehicle/schema'

export { setSize } from '@/core/model/vehicle/resize'

export const changePanel = (plan: Plan, id: string, change: (p: Panel) => Panel): Plan => ({
  ...plan,
  panels: plan.panels.map((p) => (p.id === id ? change(p) : p)),
})

/** A panel by its name alone: kind and side guessed, sizes assumed until typed. */
export function addPanel(plan: Plan, name: string): Plan {
  const { kind, side } = guessPanel(name)
  const id = freeId(
    slug(name),
    plan.panels.map((p) => p.id),
  )
  return {
    ...plan,
    panels: [
      ...plan.panels,
      { ...newPanel({ id, name, kind, side, widthMm: 1000, heightMm: 600 }), assumed: ['widthMm', 'heightMm'] },
    ],
  }
}

export function removePanel(plan: Plan, id: string): Plan {
  const free = <T extends { panelId: string | null }>(x: T): T => (x.panelId === id ? { ...x, panelId: null } : x)
  return {
    ...plan,
    panels: plan.panels
      .filter((p) => p.id !== id)
      .map((p) => ({ ...p, edges: p.edges.map((e) => (e.neighbour === id ? { ...e, neighbour: null } : e)) })),
    pieces: plan.pieces.filter((c) => c.panelId !== id),
    walkaround: {
      ...plan.walkaround,
      damage: plan.walkaround.damage.map((d) => ({
        ...free(d),
        ...(d.panelId === id ? { xMm: null, yMm: null } : {}),
      })),
      repaints: plan.walkaround.repaints.map(free),
      neverCover: plan.walkaround.neverCover.map(free),
    },
  }
}
