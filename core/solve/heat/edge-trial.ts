import type { EdgeTask, GunChoice, EdgeSweep } from './edge-task'
import { lineSummary, peakAt } from './line-summary'
import { sweepHeat } from './sweep'
import { preparePanel, type PreparedPanel, type SweepFineness, type SweepRun } from './sweep-model'

export interface Seen {
  sweep: EdgeSweep
  /** Peaks at even places along the edge. */
  peaks: number[]
  inBand: number
  minPeakC: number
  maxPeakC: number
  holdsAboveMinS: number
}

/** Looks at sweeps on one panel with one gun, at one fineness. */
export class EdgeTrial {
  private readonly base: SweepRun
  private readonly prepared: PreparedPanel
  private readonly seen = new Map<string, Seen>()
  /** What is left out of the middle of the edge, m. */
  private readonly leftOutM: number
  constructor(
    private readonly task: EdgeTask,
    readonly gun: GunChoice,
    private readonly fineness: SweepFineness,
    lengthM = task.panel.lengthM,
  ) {
    const { startC, layers, room, back, yM, bandC, limitC } = task
    this.leftOutM = task.panel.lengthM - lengthM
    const panel = { ...task.panel, lengthM }
    this.base = {
      startC,
      layers,
      panel,
      room,
      back,
      radiation: null,
      gun,
      sweep: { yM, fromMm: 0, toMm: 0, speedMmS: 1, passes: 1, returns: 'alternate', holdS: 0, gapS: 0 },
      coolS: AFTER_S,
      timesS: [],
      probes: [],
      thresholdsC: [],
      windowC: [bandC.min, Math.min(bandC.max, limitC)],
      windowDepthM: 0,
    }
    this.prepared = preparePanel(this.base, fineness)
  }

  /** What a sweep does to the edge; one that was looked at is not carried out again. */
  look(sweep: EdgeSweep): Seen {
    const name = [sweep.fromMm, sweep.toMm, sweep.speedMmS, sweep.passes, sweep.holdS, sweep.gapS].join(' ')
    const known = this.seen.get(name)
    if (known) return known
    const seen = this.carriedOut(sweep)
    this.seen.set(name, seen)
    return seen
  }

  private carriedOut(sweep: EdgeSweep): Seen {
    const { x } = this.prepared
    const shorter = { ...sweep, toMm: sweep.toMm - this.leftOutM * 1000 }
    const result = sweepHeat({ ...this.base, sweep: { ...this.base.sweep, ...shorter } }, this.fineness, this.prepared)
    const placeOf = (i: number): number => {
      const atM = ((x.lengthM + this.leftOutM) * (i + 0.25)) / (PLACES - 0.5)
      const middleM = x.lengthM / 2
      return atM < middleM ? atM : Math.max(middleM, atM - this.leftOutM)
    }
    const { bandC } = this.task
    const edge = lineSummary(x, result.peaks, [bandC.min, bandC.max])
    const hot = [...result.aboveS].filter((_, i) => result.peaks[i] >= bandC.min)
    return {
      sweep,
      peaks: Array.from({ length: PLACES }, (_, i) => peakAt(x, result.peaks, placeOf(i))),
      inBand: this.withLeftOut(edge.inWindowFraction ?? 0, peakAt(x, result.peaks, x.lengthM / 2)),
      minPeakC: edge.minPeakC,
      maxPeakC: edge.maxPeakC,
      holdsAboveMinS: hot.length > 0 ? Math.min(...hot) : 0,
    }
  }

  /** From a share of the length that was carried out to one of the whole edge: what was left out is like its middle. */
  private withLeftOut(share: number, middleC: number): number {
    const { bandC, panel } = this.task
    const isIn = middleC >= bandC.min && middleC <= bandC.max
    return (share * (panel.lengthM - this.leftOutM) + (isIn ? this.leftOutM : 0)) / panel.lengthM
  }
}

/** The gun is followed so long after it is away: a peak at the surface comes at once. */
const AFTER_S = 1
/** Places along the edge at which a trial is looked at. */
export const PLACES = 64
