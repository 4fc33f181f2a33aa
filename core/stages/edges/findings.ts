import type { CornerDecision } from '../../engines/edge/corner-plan'
import { groupedBy } from '../../kit/grouped'
import { finding, type Finding } from '../../model/finding/finding'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import type { Panel } from '../../model/vehicle/schema'

/** Panels whose edges no gun of the shop brings into the film's range: told once for each reason. */
export function heatFindings(ways: ReadonlyMap<string, SolvedHeat>, panels: ReadonlyMap<string, Panel>): Finding[] {
  const without = [...ways].flatMap(([id, way]) => (way.kind === 'none' ? [{ id, why: way.code }] : []))
  return [...groupedBy(without, (w) => w.why)].flatMap(([why, list]) => {
    const first = panels.get(list[0]?.id ?? '')
    if (!first) return []
    const facts = { count: list.length, first: first.name, why }
    return [finding('heat_no_way', 'warn', 'edges', { id: `heat_no_way/${why}`, panelId: first.id, facts })]
  })
}

/** Corners that hands cannot lay by pull and heat, panel by panel: by their own decision, and no other rule. */
export function cornerFindings(corners: readonly CornerDecision[], panels: ReadonlyMap<string, Panel>): Finding[] {
  const byPanel = groupedBy(corners, (c) => c.panelId)
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
