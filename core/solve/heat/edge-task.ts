import type { Footprint } from './footprint'
import type { Exchange, Layer } from './layers'

export interface GunChoice extends Exchange {
  id: string
  footprint: Footprint
}

/** An edge that is to become hot enough all along and nowhere too hot, and what the hand and the gun can do. */
export interface EdgeTask {
  startC: number
  layers: readonly Layer[]
  panel: { lengthM: number; widthM: number }
  yM: number
  room: Exchange
  back: Exchange
  guns: readonly GunChoice[]
  bandC: { min: number; max: number }
  limitC: number
  speedMmS: { min: number; max: number }
  passesMax: number
  gapMaxS: number
  holdMaxS: number
  /** How far before and past the edge's ends the gun may start and end. */
  reachMm: number
}

/** A sweep of the gun along the edge, complete: to be carried out as it stands. */
export interface EdgeSweep {
  fromMm: number
  toMm: number
  speedMmS: number
  passes: number
  holdS: number
  gapS: number
}
export interface EdgePlan {
  gun: string
  sweep: EdgeSweep
  inBand: number
  minPeakC: number
  maxPeakC: number
  seconds: number
  /** The least time for which a place that got hot enough stays so. */
  holdsAboveMinS: number
}

export const secondsOf = (w: EdgeSweep): number =>
  w.passes * (w.holdS + Math.abs(w.toMm - w.fromMm) / w.speedMmS) + (w.passes - 1) * w.gapS
