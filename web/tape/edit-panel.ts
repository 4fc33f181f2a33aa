import { freeId, newPanel, slug } from '@/core/plan/new-plan'
import type { Plan } from '@/core/plan/schema'
import { guessPanel } from '@/core/vehicle/name-guess'
import type { Panel } from '@/core/vehicle/schema'

export const changePanel = (plan: Plan, id: string, change: (p: Panel) => Panel): Plan => ({
  ...plan,
  panels: plan.panels.map((p) => (p.id === id ? change(p) : p)),
})

/** A taped figure is no longer assumed; edges that were as long as the panel grow with it. */
export function setSize(panel: Panel, field: 'widthMm' | 'heightMm', mm: number): Panel {
  const was = panel[field]
  const ends = field === 'widthMm' ? ['top', 'bottom'] : ['left', 'right']
  return {
    ...panel,
    [field]: mm,
    assumed: panel.assumed.filter((f) => f !== field),
    edges: panel.edges.map((e) => (ends.includes(e.at) && e.lengthMm === was ? { ...e, lengthMm: mm } : e)),
  }
}

/** A panel by its name alone: kind and side guessed, sizes assumed until typed. */
export function addPanel(plan: Plan, name: string): Plan {
  const { kind, side } = guessPanel(name)
  const id = freeId(slug(name), plan.panels.map((p) => p.id)) // prettier-ignore
  return {
    ...plan,
    panels: [...plan.panels, { ...newPanel(id, name, kind, side, 1000, 600), assumed: ['widthMm', 'heightMm'] }],
  }
}

export function removePanel(plan: Plan, id: string): Plan {
  return {
    ...plan,
    panels: plan.panels
      .filter((p) => p.id !== id)
      .map((p) => ({ ...p, edges: p.edges.map((e) => (e.neighbour === id ? { ...e, neighbour: null } : e)) })),
    pieces: plan.pieces.filter((c) => c.panelId !== id),
    walkaround: {
      ...plan.walkaround,
      damage: plan.walkaround.damage.map((d) => (d.panelId === id ? { ...d, panelId: null } : d)),
    },
  }
}
