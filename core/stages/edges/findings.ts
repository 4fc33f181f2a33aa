import type { CornerDecision } from '../../engines/edge/corner-plan'
import type { EdgeDecision } from '../../engines/edge/edge-plan'
import { groupedBy } from '../../kit/grouped'
import { keptFor } from '../../kit/kept'
import { cutGoes } from '../../model/edge/cut-goes'
import { SEALS } from '../../model/edge/cut-rules'
import { finding, type Finding } from '../../model/finding/finding'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import type { Panel } from '../../model/vehicle/schema'

/** Panels whose edges no gun of the shop brings into the film's range: told once for each reason. */
export function heatFindings(sweeps: ReadonlyMap<string, SolvedHeat>, panels: ReadonlyMap<string, Panel>): Finding[] {
  const without = [...sweeps].flatMap(([id, sweep]) => (sweep.kind === 'none' ? [{ id, why: sweep.code }] : []))
  return [...groupedBy(without, (w) => w.why)].flatMap(([why, list]) => {
    const first = panels.get(list[0]?.id ?? '')
    if (!first) return []
    const facts = { count: list.length, first: first.name, why }
    return [finding('heat_no_way', 'warn', 'edges', { id: `heat_no_way/${why}`, panelId: first.id, facts })]
  })
}

/** A working depth by hand differs from a seal's own by no more than this, mm. Assumed. */
const TUCK_TOLERANCE_MM = 1

/** More film is left by hand at an edge than its seal takes, or than there is room for between two panels. */
export function depthFindings(edges: readonly EdgeDecision[], panels: ReadonlyMap<string, Panel>): Finding[] {
  if (!edges.some((e) => depthOf(e, panels.get(e.panelId)).length > 0)) return []
  // An edge that lies on several pieces is told once.
  const byEdge = new Map(edges.map((e) => [`${e.panelId}/${e.edgeId}`, e]))
  return [...byEdge.values()].flatMap((e) => depthOf(e, panels.get(e.panelId)))
}
const depthOf = keptFor((e: EdgeDecision, panel: Panel | undefined): Finding[] => {
  const own = panel?.edges.find((x) => x.id === e.edgeId)
  if (!panel || !own || own.leaveMm === null) return []
  const narrow = own.gapMm !== null && own.gapMm < own.leaveMm && e.cut === 'far_side' && own.meets === 'fixed_gap'
  const room = SEALS.includes(own.meets) && e.cut === 'seal_middle' ? e.tuckMm : narrow ? own.gapMm : null
  if (room === null || own.leaveMm <= room + TUCK_TOLERANCE_MM) return []
  const facts = { panel: panel.name, at: own.at, leave_mm: own.leaveMm, room_mm: room }
  const id = `tuck_too_deep/${panel.id}/${own.id}`
  return [finding('tuck_too_deep', 'warn', 'edges', { id, panelId: panel.id, facts })]
})

/** Edges that somebody has cut where there is nothing of the kind. */
export function cutFindings(panels: ReadonlyMap<string, Panel>): Finding[] {
  return [...panels.values()].flatMap((panel) => cutsOf(panel))
}
const cutsOf = keptFor((panel: Panel): Finding[] =>
  panel.edges.flatMap((edge): Finding[] => {
    if (edge.cutAs === null || cutGoes(edge.meets, edge.cutAs)) return []
    const facts = { panel: panel.name, at: edge.at, meets: edge.meets, cut: edge.cutAs }
    const id = `cut_not_there/${panel.id}/${edge.id}`
    return [finding('cut_not_there', 'warn', 'edges', { id, panelId: panel.id, facts })]
  }),
)

/** Corners that hands cannot lay by pull and heat, panel by panel: by their own decision, and no other rule. */
export function cornerFindings(corners: readonly CornerDecision[], panels: ReadonlyMap<string, Panel>): Finding[] {
  const byPanel = groupedBy(
    corners.filter((c) => c.method === 'relief' || c.method === 'seam'),
    (c) => c.panelId,
  )
  if (byPanel.size === 0) return []
  return [...panels.values()].flatMap((panel) =>
    (['relief', 'seam'] as const).flatMap((method): Finding[] => {
      const own = (byPanel.get(panel.id) ?? []).filter((c) => c.method === method)
      const [worst] = [...own].sort((a, b) => b.pull - a.pull)
      if (!worst) return []
      const facts = { panel: panel.name, count: own.length, value: worst.pull, limit: worst.limit }
      const details = { panelId: panel.id, facts, figureId: `corner/${worst.id}/pull` as const }
      return [
        method === 'relief'
          ? finding('corner_relief', 'note', 'edges', details)
          : finding('corner_seam', 'warn', 'edges', details),
      ]
    }),
  )
}
