import type { HeatPoint } from '@/core/engines/heat/heat-points'
import type { PointState } from '@/core/engines/heat/point-window'

/** A place to heat, how it stands now, and until when its film may be heated. UTC. */
export interface StatedPoint {
  point: HeatPoint
  state: PointState
  until: string | null
}
