import { WIDEST_GAP_MM } from '../vehicle/kinds'

/** What lies between two panels by its width: wider than a gap can be, it is a span. Null: the usual one. */
export const gapOrSpan = (mm: number | null): { gapMm: number | null; spanMm: number | null } =>
  mm !== null && mm > WIDEST_GAP_MM ? { gapMm: null, spanMm: mm } : { gapMm: mm, spanMm: null }

const isRaw = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Any panel as it may have been written before spans were told apart from gaps. */
export function gapsAndSpans(panel: unknown): unknown {
  if (!isRaw(panel) || !Array.isArray(panel.edges)) return panel
  const edges = panel.edges.map((edge: unknown) => {
    if (!isRaw(edge) || typeof edge.gapMm !== 'number' || edge.gapMm <= WIDEST_GAP_MM) return edge
    return { ...edge, gapMm: null, spanMm: edge.gapMm }
  })
  return { ...panel, edges }
}
