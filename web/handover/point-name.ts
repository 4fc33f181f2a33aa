import type { HeatPoint } from '@/core/engines/heat/heat-points'

export const pointName = (p: HeatPoint): string =>
  p.kind === 'edge' ? `${p.name} edge` : p.kind === 'recess' ? p.name : p.kind === 'area' ? 'stretched area' : 'overlap'

export const OPEN_WORDS = {
  steps: 'steps not done',
  heat_points: 'places without a good reading',
  defects: 'defects',
  recheck: 'the recheck',
  lots: 'lot numbers of the film used',
} as const
