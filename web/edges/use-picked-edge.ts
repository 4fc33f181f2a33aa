import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { aroundOf } from '@/core/engines/paint/contrast'
import type { EdgeSetting } from '@/core/model/edge/edge-leave'
import type { FilmSheet } from '@/core/model/film/schema'
import type { Edge, Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'

export interface PickedEdge {
  panel: Panel
  edge: Edge
  film: FilmSheet
  setting: EdgeSetting
  /** Saved with the plan; null where this member may not change measures. */
  change: ((part: Partial<Edge>) => void) | null
}

/** The edge of the plan that a decision is about, with what decides it. */
export function usePickedEdge(decided: EdgeDecision): PickedEdge | null {
  const { plan, edit, mayTape, reckoning } = useJob('plan', 'edit', 'mayTape', 'reckoning')
  const panel = plan.panels.find((p) => p.id === decided.panelId)
  const edge = panel?.edges.find((e) => e.id === decided.edgeId)
  const film = reckoning.parts.films.get(reckoning.laid.find((p) => p.id === decided.pieceId)?.filmId ?? '')
  if (!panel || !edge || !film) return null
  const change = (part: Partial<Edge>) =>
    edit((p) => ({
      ...p,
      panels: p.panels.map((x) =>
        x.id === panel.id ? { ...x, edges: x.edges.map((e) => (e.id === edge.id ? { ...e, ...part } : e)) } : x,
      ),
    }))
  const setting = { method: plan.method, ...aroundOf(plan, reckoning.parts.shop) }
  return { panel, edge, film, setting, change: mayTape ? change : null }
}
