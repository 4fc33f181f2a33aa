import type { HeatPoint } from '@/core/engines/heat/heat-points'

const POINT_WORDS: Partial<Record<HeatPoint['kind'], string>> = { area: 'stretched area', overlap: 'overlap' }

/** A place in words: its side, its recess, or what it is. */
export function pointName(p: Pick<HeatPoint, 'kind' | 'name'>): string {
  if (p.kind === 'edge') return `${p.name} edge`
  if (p.kind === 'corner') return `corner after ${p.name}`
  return POINT_WORDS[p.kind] ?? (p.name || p.kind)
}

export const OPEN_WORDS = {
  steps: 'steps not done',
  heat_points: 'places without a good reading',
  defects: 'defects',
  recheck: 'the recheck',
  lots: 'lot numbers of the film used',
} as const
