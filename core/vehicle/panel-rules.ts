import type { Plan } from '../plan/schema'
import { finding, type Finding } from '../reckon/finding'
import { PANEL_FACTS } from './panel-data'

/** Edges that face each other may differ by this much, mm (assumed). */
export const EDGE_TOLERANCE_MM = 15

/** Measures that do not agree with each other or with what a panel of that kind can be. */
export function panelFindings(plan: Plan): Finding[] {
  const out: Finding[] = []
  if (plan.panels.length === 0) out.push(finding('no_panels', 'stop', 'tape'))
  const assumed = plan.panels.filter((p) => p.assumed.length > 0)
  if (assumed.length > 0)
    out.push(
      finding('figures_assumed', 'note', 'tape', { facts: { count: assumed.length, first: assumed[0]?.name ?? '' } }),
    )
  const byId = new Map(plan.panels.map((p) => [p.id, p]))
  for (const panel of plan.panels) {
    const add = (code: string, level: Finding['level'], facts: Finding['facts']) =>
      out.push(finding(code, level, 'tape', { panelId: panel.id, facts: { panel: panel.name, ...facts } }))
    const largest = Math.max(panel.widthMm, panel.heightMm)
    const plausible = PANEL_FACTS[panel.kind].plausibleMm
    if (largest > plausible) add('panel_too_large', 'warn', { size_mm: largest, plausible_mm: plausible })
    for (const at of ['top', 'right', 'bottom', 'left'] as const) {
      const edges = panel.edges.filter((e) => e.at === at)
      if (edges.length === 0) add('edge_missing', 'warn', { at })
      const side = at === 'top' || at === 'bottom' ? panel.widthMm : panel.heightMm
      const sum = edges.reduce((s, e) => s + e.lengthMm, 0)
      // Width and height are taken over the highest point: an edge may be a good deal shorter, hardly longer.
      if (edges.length > 0 && (sum > side * 1.25 || sum < side * 0.4))
        add('edge_against_size', 'warn', { at, edge_mm: sum, size_mm: side })
    }
    for (const edge of panel.edges) {
      const other = edge.neighbour ? byId.get(edge.neighbour) : undefined
      if (edge.neighbour && !other) add('neighbour_missing', 'warn', { at: edge.at, neighbour: edge.neighbour })
      const facing = other?.edges.find((e) => e.neighbour === panel.id)
      if (facing && other && panel.id < other.id && Math.abs(facing.lengthMm - edge.lengthMm) > EDGE_TOLERANCE_MM)
        add('edges_disagree', 'warn', { at: edge.at, a_mm: edge.lengthMm, b_mm: facing.lengthMm, other: other.name })
    }
  }
  const mirrored = plan.panels.filter((p) => p.side === 'left')
  for (const left of mirrored) {
    const right = byId.get(left.id.replace(/-left$/, '-right'))
    if (!right || right === left) continue
    for (const field of ['widthMm', 'heightMm'] as const)
      if (Math.abs(left[field] - right[field]) > EDGE_TOLERANCE_MM)
        out.push(
          finding('mirror_differs', 'warn', 'tape', {
            id: `mirror_differs/${left.id}/${field}`,
            panelId: left.id,
            facts: { panel: left.name, other: right.name, a_mm: left[field], b_mm: right[field], field },
          }),
        )
  }
  return out
}
