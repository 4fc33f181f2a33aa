import { WIDEST_GAP_MM } from '../vehicle/schema'

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
