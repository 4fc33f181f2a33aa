import { calibrateGun, type TrialReading } from '@/core/engines/heat/calibrate-gun'

export interface CalibrateAsk {
  displayC: number
  sigmaMm: number
  readings: readonly TrialReading[]
}

/** One gun, one answer; off the page's thread. */
self.onmessage = ({ data: { displayC, sigmaMm, readings } }: MessageEvent<CalibrateAsk>) =>
  self.postMessage(calibrateGun(displayC, sigmaMm, readings))
