import type { CornerDecision } from '../../engines/edge/corner-plan'
import { groupedBy } from '../../kit/kept'
import { finding, type Finding } from '../../model/finding/finding'
import type { Panel } from '../../model/vehicle/schema'

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
